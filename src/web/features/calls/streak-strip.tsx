import type { CallFigures } from '../../../contract/index.ts';
import { DAYS_A_WEEK, plural } from '../../../core/index.ts';
import { WEEK_AXIS } from './week-axis.ts';

type Person = CallFigures['people'][number];

/** More days than these are drawn without flags. */
const MOST_FLAGS = 13 * DAYS_A_WEEK;

/** The days of somebody below the weeks of the chart: a flag for a whole list, an empty one for a part, a bare mast for none. */
export function StreakStrip({ person }: { readonly person: Person }) {
  const { name, days, inRow, whole, lists } = person;
  // They begin on a Monday; what is left of the last week is still to come.
  const weeks = Array.from({ length: Math.ceil(days.length / DAYS_A_WEEK) }, (_, i) =>
    days.slice(i * DAYS_A_WEEK, (i + 1) * DAYS_A_WEEK).padEnd(DAYS_A_WEEK, '.'),
  );
  const hasFlags = days.length <= MOST_FLAGS;
  const isWeekendUsed = weeks.some((week) => /[wpn]/.test(week.slice(5)));
  const shown = isWeekendUsed ? DAYS_A_WEEK : 5;
  return (
    <li className="border-t border-line py-1.5">
      <p className="text-row leading-5">
        <b className="font-semibold">{name}</b>{' '}
        <span className="text-ink-2">
          {whole} of {plural(lists, 'list')} whole{inRow > 1 && `, the last ${inRow} in a row`}
        </span>
      </p>
      <div
        className="grid h-5"
        style={{ paddingLeft: WEEK_AXIS, gridTemplateColumns: `repeat(${weeks.length}, minmax(0, 1fr))` }}
        role="img"
        aria-label={`${name}: ${plural(lists, 'list')}, ${whole} of them rung to the end, ${inRow} in a row`}
      >
        {weeks.map((week, at) => (
          <svg
            aria-hidden
            // biome-ignore lint/suspicious/noArrayIndexKey: weeks in their order
            key={at}
            className="mx-auto h-5 w-[82%] overflow-visible text-primary"
            viewBox={`0 0 ${shown * 10} 20`}
            preserveAspectRatio="none"
          >
            {[...week.slice(0, shown)].map((day, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: days in their order
              <Day key={i} x={i * 10 + 1} day={day} hasFlag={hasFlags} />
            ))}
          </svg>
        ))}
      </div>
    </li>
  );
}

function Day({ x, day, hasFlag }: { readonly x: number; readonly day: string; readonly hasFlag: boolean }) {
  if (day === '.' || day === '-')
    return day === '-' ? <rect x={x} y={18} width={7} height={1.5} fill="var(--line-2)" /> : null;
  if (!hasFlag)
    return (
      <rect
        x={x}
        y={day === 'n' ? 15 : 3}
        width={8}
        height={day === 'n' ? 4 : 16}
        fill={day === 'w' ? 'currentColor' : 'var(--color-base-100)'}
        stroke="currentColor"
        strokeWidth={0.8}
        vectorEffect="non-scaling-stroke"
      />
    );
  const line = { stroke: 'currentColor', strokeWidth: 1.2, vectorEffect: 'non-scaling-stroke' } as const;
  return (
    <g>
      <path d={`M${x} 2V19`} fill="none" {...line} />
      {day !== 'n' && (
        <path
          d={`M${x} 2 ${x + 8} 7 ${x} 12Z`}
          fill={day === 'w' ? 'currentColor' : 'var(--color-base-100)'}
          {...line}
        />
      )}
    </g>
  );
}
