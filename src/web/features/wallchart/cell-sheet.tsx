import { Link } from 'react-router';
import type { WallRow } from '../../../contract/index.ts';
import { dayOfIso, sayDuration } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { Pennant } from '../../kit/pennant.tsx';
import { CloseButton, SECTION, SideSheet } from '../../kit/side-sheet.tsx';
import { Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDay } from '../../kit/ways.ts';
import { ForeseenLine } from '../tasks/foreseen-line.tsx';
import { sayFor } from '../tasks/task-words.ts';
import { type AskedRows, useMarks } from './api.ts';
import { countOf } from './wall-words.ts';

interface CellSheetProps {
  readonly asked: AskedRows;
  /** Undefined for one that is not among the rows that are here. */
  readonly row: Pick<WallRow, 'name' | 'detail'> | undefined;
  readonly rowKey: string;
  readonly from: string;
  readonly to: string;
  /** The address of the chart, to come back to. */
  readonly search: string;
  readonly onClose: () => void;
}

const LINE = 'flex min-h-9 items-center gap-x-2 border-b border-line px-5 hover:bg-base-200';

/** What stands in a cell, one by one. */
export function WallCellSheet({ asked, row, rowKey, from, to, search, onClose }: CellSheetProps) {
  const { today } = useWorkspace();
  const { data, error, mutate } = useMarks(asked, [{ keys: [rowKey], from, to }]);
  const when =
    from === to ? sayDay(dayOfIso(from), today) : `${sayDay(dayOfIso(from), today)} to ${sayDay(dayOfIso(to), today)}`;
  const more = data ? countOf(data) - data.tasks.length - data.dates.length : 0;
  const name = row?.name ?? 'Row';
  return (
    <SideSheet label={`${name}, ${when}`} onClose={onClose}>
      <header className={`${SECTION} flex items-start gap-2`}>
        <div className="min-w-0 flex-1">
          <h2 className="text-title leading-6.5">{name}</h2>
          <p className="text-row text-ink-2">{[row?.detail, when].filter(Boolean).join(', ')}</p>
        </div>
        <CloseButton onClose={onClose} />
      </header>
      {error && !data && <Trouble error={error} retry={() => void mutate()} />}
      {!error && !data && <Skeleton rows={6} />}
      {data && countOf(data) === 0 && <p className={`${SECTION} text-row text-ink-2`}>Nothing is due there.</p>}
      {data && (
        <ul className="text-row">
          {data.tasks.map((task) => (
            <li key={task.id} className={LINE}>
              <Pennant state={task.state} late={task.late} heldUp={task.heldUp} size={16} />
              <span className="min-w-0 flex-1 truncate">
                <Link className="font-semibold hover:underline" to={`/wallchart/task/${task.id}?${search}`}>
                  {task.title}
                </Link>
                <span className="ml-2 text-ink-2">{sayFor(task)}</span>
              </span>
              <span className="text-note whitespace-nowrap text-ink-2">{sayDay(dayOfIso(task.dueOn), today)}</span>
              <span className="w-14 flex-none text-right">{sayDuration(task.estimateMinutes)}</span>
            </li>
          ))}
          {data.dates.map((date) => (
            <ForeseenLine
              key={`${date.scheduleId} ${date.nominalDate} ${date.stepKey} ${date.head}`}
              line={date}
              hasDay
            />
          ))}
        </ul>
      )}
      {more > 0 && <p className="px-5 py-2 text-note text-ink-2">and {more.toLocaleString('en-GB')} more</p>}
    </SideSheet>
  );
}
