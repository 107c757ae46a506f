import { type CivilDay, isDated, type PlannedOccurrence, sayDay, type Timing } from '../../core/index.ts';
import { useWorkspace } from '../shell/workspace.tsx';
import { DateBlock } from '../ui/date-block.tsx';
import { Pennant } from '../ui/pennant.tsx';

interface NextDatesProps {
  readonly occurrences: readonly PlannedOccurrence[];
  readonly timing: Timing;
  readonly who: string;
}

/** The next occurrences as a tide table. */
export function NextDates({ occurrences, timing, who }: NextDatesProps) {
  const hasStart = timing.startTime !== null;
  return (
    <table className="tt is-static mt-1 [&_td]:!h-[33px] [&_tr>:first-child]:!pl-0">
      <colgroup>
        <col style={{ width: 30 }} />
        <col style={{ width: 138 }} />
        <col style={{ width: 98 }} />
        <col style={{ width: 98 }} />
        <col style={{ width: hasStart ? 96 : 60 }} />
        <col />
        <col style={{ width: '26%' }} />
      </colgroup>
      <thead>
        <tr>
          <th scope="col">
            <span className="sr-only">state</span>
          </th>
          <th scope="col">due</th>
          <th scope="col">appears</th>
          <th scope="col">starts</th>
          <th scope="col">{hasStart ? 'time' : 'by'}</th>
          <th scope="col">who</th>
          <th scope="col">
            <span className="sr-only">remark</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {occurrences.map((occurrence) => (
          <Line key={occurrence.nominal} occurrence={occurrence} timing={timing} who={who} />
        ))}
      </tbody>
    </table>
  );
}

function Line({
  occurrence,
  timing,
  who,
}: {
  readonly occurrence: PlannedOccurrence;
  readonly timing: Timing;
  readonly who: string;
}) {
  const { today, horizonDays } = useWorkspace();
  if (!isDated(occurrence)) {
    return (
      <tr className="text-ink-2">
        <td />
        <td>
          <DateBlock day={occurrence.on} look="quiet" />
        </td>
        <td colSpan={5}>
          {
            {
              'day off': 'a day off: skipped',
              paused: 'paused: not made',
              'same day as another': 'falls together with another',
            }[occurrence.because]
          }
        </td>
      </tr>
    );
  }
  const { due, appears, starts, on, nominal } = occurrence;
  const isMade = appears <= today + horizonDays;
  const times = timing.startTime
    ? `${timing.startTime}${timing.dueTime ? `–${timing.dueTime}` : ''}`
    : (timing.dueTime ?? '');
  return (
    <tr>
      <td className="date">
        <Pennant state={isMade ? 'coming' : 'bare'} label={isMade ? 'Made when this is saved' : 'Not made yet'} />
      </td>
      <td className="date">
        <DateBlock day={due} />
      </td>
      <td className="text-ink-2">{appears <= today ? 'at once' : sayShort(appears, today)}</td>
      <td className="text-ink-2">{sayShort(starts, today)}</td>
      <td>{times}</td>
      <td title={who}>{who}</td>
      <td>
        {on !== nominal && `moved from ${sayDay(nominal, today)}`}
        {due !== on && ` for ${sayDay(on, today)}`}
      </td>
    </tr>
  );
}

/** Without the year: the block beside it says that. */
function sayShort(day: CivilDay, today: CivilDay): string {
  return sayDay(day, today).replace(/ \d{4}$/, '');
}
