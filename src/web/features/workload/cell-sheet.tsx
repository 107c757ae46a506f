import { Link } from 'react-router';
import type { WorkloadCell } from '../../../contract/index.ts';
import { dayOfIso, plural, sayDuration } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { Pennant } from '../../kit/pennant.tsx';
import { CloseButton, SECTION, SideSheet } from '../../kit/side-sheet.tsx';
import { Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDay, sayDayOfMonth } from '../../kit/ways.ts';
import { sayFor } from '../tasks/task-words.ts';
import { useCell } from './api.ts';
import { hoursOf, workOf } from './workload-words.ts';

interface CellSheetProps {
  /** Null for what is nobody's. */
  readonly personId: string | null;
  readonly week: string;
  readonly cell: WorkloadCell | null;
  readonly onClose: () => void;
}

/** The tasks behind one figure. */
export function CellSheet({ personId, week, cell, onClose }: CellSheetProps) {
  const { people, today } = useWorkspace();
  const { data, error, mutate } = useCell(personId, week);
  const name = personId === null ? 'Nobody' : (people.find(({ id }) => id === personId)?.name ?? 'Somebody');
  const more = data ? data.count - data.tasks.length - data.foreseen.length : 0;
  return (
    <SideSheet label={`${name}, week from ${sayDayOfMonth(dayOfIso(week))}`} onClose={onClose}>
      <header className={`${SECTION} flex items-start gap-2`}>
        <div className="min-w-0 flex-1">
          <h2 className="text-title leading-6.5">{name}</h2>
          <p className="text-row text-ink-2">
            week from {sayDay(dayOfIso(week), today)}
            {cell && `, ${hoursOf(workOf(cell))} of ${hoursOf(cell.capacity)} h`}
            {data && `, ${plural(data.count, 'task')}`}
          </p>
        </div>
        <CloseButton onClose={onClose} />
      </header>
      {error && !data && <Trouble error={error} retry={() => void mutate()} />}
      {!error && !data && <Skeleton rows={8} />}
      {data?.count === 0 && <p className={`${SECTION} text-row text-ink-2`}>Nothing is due in that week.</p>}
      {data && (
        <ul className="text-row">
          {data.tasks.map((task) => (
            <li
              key={task.id}
              className="grid min-h-9 grid-cols-[24px_minmax(0,1fr)_auto_auto] items-center gap-x-2 border-b border-line px-5 hover:bg-base-200"
            >
              <Pennant state={task.state} late={task.late} size={16} />
              <span className="min-w-0 truncate">
                <Link className="font-semibold hover:underline" to={`/schedules/task/${task.id}`}>
                  {task.title}
                </Link>
                <span className="ml-2 text-ink-2">{sayFor(task)}</span>
              </span>
              <span className="text-note text-ink-2">{sayDay(dayOfIso(task.dueOn), today)}</span>
              <span className="w-14 text-right">{sayDuration(task.estimateMinutes)}</span>
            </li>
          ))}
          {data.foreseen.map((line) => (
            <li
              key={`${line.scheduleId} ${line.on} ${line.title}`}
              className="grid min-h-9 grid-cols-[24px_minmax(0,1fr)_auto_auto] items-center gap-x-2 border-b border-line px-5 hover:bg-base-200"
            >
              <Pennant state="bare" size={16} />
              <span className="min-w-0 truncate">
                <Link className="hover:underline" to={`/schedules/${line.scheduleId}`}>
                  {line.title}
                </Link>
                <span className="ml-2 text-ink-2">{sayFor(line)}</span>
              </span>
              <span className="text-note text-ink-2">{sayDay(dayOfIso(line.dueOn), today)}</span>
              <span className="w-14 text-right">{sayDuration(line.estimateMinutes)}</span>
            </li>
          ))}
        </ul>
      )}
      {more > 0 && <p className="px-5 py-2 text-note text-ink-2">and {more} more</p>}
    </SideSheet>
  );
}
