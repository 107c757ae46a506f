import { type CivilDay, isDated, monthIndexOf, type PlannedOccurrence, yearMonthDay } from '../../../../core/index.ts';
import { sayDay } from '../../../kit/ways.ts';
import { DAY_FONT, type Place, ROW, SMALL_DAY_FONT } from './year-place.ts';

export function Today({ day, place: { x, y } }: { readonly day: CivilDay; readonly place: Place }) {
  return (
    <g>
      <rect x={x(day) - 9} y={y(day) - 9} width={18} height={18} fill="var(--color-accent)" />
      <text x={x(day)} y={y(day) + 4.5} textAnchor="middle" fill="var(--color-accent-content)" style={DAY_FONT}>
        {yearMonthDay(day).day}
      </text>
    </g>
  );
}

/**
 * Filled: worked that day; hollow: foreseen only. A capsule from the hollow date: moved. A ring: added by hand.
 * A cross: skipped. Pauses and closed seasons are hatched as a whole.
 */
export function Mark({
  occurrence,
  today,
  place,
}: {
  readonly occurrence: PlannedOccurrence;
  readonly today: CivilDay;
  readonly place: Place;
}) {
  const { x, y, cell } = place;
  const { on, nominal } = occurrence;
  if (!isDated(occurrence)) {
    const { because } = occurrence;
    if (because === 'same day as another') return null;
    const words = {
      'day off': 'a day off, skipped',
      skipped: 'skipped by hand',
      closed: 'closed season',
      paused: 'paused',
      deleted: 'its task was deleted',
    };
    // In a hatched span a small cross is enough to tell which dates it costs.
    const arm = because === 'closed' || because === 'paused' ? 3 : 4.5;
    return (
      <path
        d={`M${x(on) - arm} ${y(on) - arm}l${arm * 2} ${arm * 2}m0 ${-arm * 2}l${-arm * 2} ${arm * 2}`}
        stroke={arm === 3 ? 'var(--ink-2)' : 'var(--ink)'}
        strokeWidth={1.5}
      >
        <title>{`${sayDay(on, today)}: ${words[because]}`}</title>
      </path>
    );
  }
  const sameLine = monthIndexOf(on) === monthIndexOf(nominal);
  const { isForeseen, isAdded, change } = occurrence;
  const fill = isForeseen ? 'var(--color-base-100)' : on < today ? 'var(--petrol-3)' : 'var(--color-primary)';
  const words = [
    on === nominal ? sayDay(on, today) : `${sayDay(on, today)}, moved from ${sayDay(nominal, today)}`,
    isAdded && 'added by hand',
    change && 'different this time',
    isForeseen && 'foreseen',
  ].filter((part): part is string => typeof part === 'string');
  return (
    <g>
      {on !== nominal && sameLine && <Slip from={nominal} to={on} place={place} />}
      {on !== nominal && !sameLine && (
        <circle
          cx={x(nominal)}
          cy={y(nominal)}
          r={8}
          fill="none"
          stroke="var(--color-primary)"
          strokeWidth={1.3}
          strokeDasharray="2.500 2.500"
        >
          <title>{`${sayDay(nominal, today)}: moved to ${sayDay(on, today)}`}</title>
        </circle>
      )}
      {on === today && (
        <rect x={x(on) - cell / 2} y={y(on) - ROW / 2 + 1} width={cell} height={ROW - 2} fill="var(--color-accent)" />
      )}
      {isAdded && <circle cx={x(on)} cy={y(on)} r={10} fill="none" stroke="var(--color-primary)" strokeWidth={1.3} />}
      <circle
        cx={x(on)}
        cy={y(on)}
        r={isAdded ? 7.8 : 9.2}
        fill={fill}
        stroke={isForeseen ? 'var(--color-primary)' : 'none'}
        strokeDasharray={isForeseen ? '3 2' : undefined}
      >
        <title>{words.join(', ')}</title>
      </circle>
      <text
        x={x(on)}
        y={y(on) + 4.5}
        textAnchor="middle"
        fill={isForeseen || on < today ? 'var(--ink)' : 'var(--color-primary-content)'}
        style={isAdded ? SMALL_DAY_FONT : DAY_FONT}
        pointerEvents="none"
      >
        {yearMonthDay(on).day}
      </text>
      {change && (
        <circle
          cx={x(on) + 8}
          cy={y(on) - 7}
          r={2.6}
          fill="var(--ink)"
          stroke="var(--color-base-100)"
          strokeWidth={1}
        />
      )}
    </g>
  );
}

/** From the hollow date, along the line, into the filled one. */
function Slip({
  from,
  to,
  place: { x, y, cell },
}: {
  readonly from: CivilDay;
  readonly to: CivilDay;
  readonly place: Place;
}) {
  const [left, right] = [Math.min(x(from), x(to)), Math.max(x(from), x(to))];
  const gap = Math.abs(to - from);
  const middle = y(from);
  const back = to < from ? -1 : 1;
  return (
    <g>
      <rect
        x={left - 9}
        y={middle - 9}
        width={right - left + 18}
        height={18}
        rx={9}
        fill="var(--color-base-100)"
        stroke="var(--color-primary)"
        strokeWidth={1.3}
      />
      <text
        x={x(from) - back * (gap === 1 ? 2 : 0)}
        y={middle + 4.5}
        textAnchor="middle"
        fill="var(--ink)"
        style={{ ...DAY_FONT, fontWeight: 600 }}
      >
        {yearMonthDay(from).day}
      </text>
      {gap > 1 && cell > 13 && (
        <path
          d={`M${x(from) + back * 9} ${middle}H${x(to) - back * 12}M${x(to) - back * 15.5} ${middle - 3.5}l${back * 4} 3.5l${-back * 4} 3.5`}
          fill="none"
          stroke="var(--color-primary)"
          strokeWidth={1.3}
        />
      )}
    </g>
  );
}
