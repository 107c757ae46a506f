import { GripVertical } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { LoadUnit, TaskLine, WorkloadCell } from '../../../contract/index.ts';
import { dayOfIso, plural, sayDuration } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { Pennant } from '../../kit/pennant.tsx';
import { CloseButton, SECTION, SectionTitle, SideSheet } from '../../kit/side-sheet.tsx';
import { Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDay, sayDayOfMonth } from '../../kit/ways.ts';
import { ChosenTasks } from '../tasks/day/chosen-tasks.tsx';
import { ForeseenLine } from '../tasks/foreseen-line.tsx';
import { sayFor } from '../tasks/task-words.ts';
import { useCell } from './api.ts';
import type { Carrying } from './carrying.tsx';
import { hoursOf, isOver, workOf } from './workload-words.ts';

/** What somebody else has at the same time. */
export interface OtherLoad {
  readonly name: string;
  readonly cell: WorkloadCell;
}

/** What is begun or over stays where it is. */
const mayGo = ({ state }: TaskLine) => state === 'open' || state === 'coming';

interface CellSheetProps {
  /** Null for what is nobody's. */
  readonly personId: string | null;
  readonly start: string;
  readonly by: LoadUnit;
  /** Of whose work alone; null for all work. */
  readonly site: string | null;
  readonly cell: WorkloadCell | null;
  readonly others: readonly OtherLoad[];
  /** Begins to carry one of its tasks to another cell; null where that can't be done here. */
  readonly onCarry: Carrying['begin'] | null;
  readonly onClose: () => void;
}

/** The tasks behind one figure, to be chosen, given and moved, or carried to another cell. */
export function CellSheet({ personId, start, by, site, cell, others, onCarry, onClose }: CellSheetProps) {
  const { people, today, may } = useWorkspace();
  const { data, error, mutate } = useCell(personId, start, by, site);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const name = personId === null ? 'Nobody' : (people.find(({ id }) => id === personId)?.name ?? 'Somebody');
  const when = by === 'week' ? `week from ${sayDay(dayOfIso(start), today)}` : sayDay(dayOfIso(start), today);
  const more = data ? data.count - data.tasks.length - data.foreseen.length : 0;
  const marked = data?.tasks.filter(({ id }) => chosen.has(id)) ?? [];
  const toggle = (id: string) => {
    const next = new Set(chosen);
    if (!next.delete(id)) next.add(id);
    setChosen(next);
  };
  return (
    <SideSheet
      label={`${name}, ${by === 'week' ? 'week from ' : ''}${sayDayOfMonth(dayOfIso(start))}`}
      onClose={onClose}
    >
      <header className={`${SECTION} flex items-start gap-2`}>
        <div className="min-w-0 flex-1">
          <h2 className="text-title leading-6.5">{name}</h2>
          <p className="text-row text-ink-2">
            {when}
            {cell && `, ${hoursOf(workOf(cell))} of ${hoursOf(cell.capacity)} h`}
            {data && `, ${plural(data.count, 'task')}`}
          </p>
          {cell && isOver(cell) && (
            <p className="text-row font-semibold">
              {cell.isAway ? 'Away, and there is work' : `${hoursOf(workOf(cell) - cell.capacity)} h over`}
            </p>
          )}
        </div>
        <CloseButton onClose={onClose} />
      </header>
      {error && !data && <Trouble error={error} retry={() => void mutate()} />}
      {!error && !data && <Skeleton rows={8} />}
      {data?.count === 0 && !data.calls?.count && (
        <p className={`${SECTION} text-row text-ink-2`}>
          Nothing is due {by === 'week' ? 'in that week' : 'on that day'}.
        </p>
      )}
      {data?.calls && data.calls.count > 0 && (
        <p className="flex items-baseline border-b border-line px-5 py-1.5 text-row">
          <Link className="font-semibold hover:underline" to={`/calls/of/${personId}?date=${start}`}>
            {plural(data.calls.count, 'call')}
          </Link>
          <span className="ml-auto text-ink-2">{sayDuration(data.calls.minutes)}</span>
        </p>
      )}
      {data && (
        <ul className="text-row">
          {data.tasks.map((task) => (
            <TaskOfCell
              key={task.id}
              task={task}
              hasDay={by === 'week'}
              isChosen={chosen.has(task.id)}
              onToggle={may('give') && mayGo(task) ? () => toggle(task.id) : null}
              onCarry={onCarry && mayGo(task) ? () => onCarry({ task, personId, day: start }) : null}
              onCarried={() => onCarry?.(null)}
            />
          ))}
          {data.foreseen.map((line) => (
            <ForeseenLine key={`${line.scheduleId} ${line.on} ${line.title}`} line={line} hasDay={by === 'week'} />
          ))}
        </ul>
      )}
      {more > 0 && <p className="px-5 py-2 text-note text-ink-2">and {more} more</p>}
      {onCarry && data?.tasks.some(mayGo) && (
        <p className="px-5 pt-2 text-note leading-4.5 text-ink-2 max-[720px]:hidden">
          Drag one by its handle to somebody else on that day, or to another day; or choose some and give them below.
        </p>
      )}
      {others.length > 0 && <Others others={others} />}
      {marked.length > 0 && <ChosenTasks chosen={marked} onClear={() => setChosen(new Set())} />}
    </SideSheet>
  );
}

interface TaskOfCellProps {
  readonly task: TaskLine;
  readonly hasDay: boolean;
  readonly isChosen: boolean;
  readonly onToggle: (() => void) | null;
  readonly onCarry: (() => void) | null;
  readonly onCarried: () => void;
}

function TaskOfCell({ task, hasDay, isChosen, onToggle, onCarry, onCarried }: TaskOfCellProps) {
  const { today } = useWorkspace();
  return (
    <li
      className={`flex min-h-9 items-center gap-x-2 border-b border-line px-5 ${isChosen ? 'bg-chosen' : 'hover:bg-base-200'} ${onCarry ? 'cursor-grab' : ''}`}
      draggable={onCarry !== null}
      onDragStart={(event) => {
        event.dataTransfer.effectAllowed = 'move';
        event.dataTransfer.setData('text/plain', task.title);
        onCarry?.();
      }}
      onDragEnd={onCarried}
    >
      {onCarry && <GripVertical size={14} className="-ml-2 flex-none text-ink-2 max-[720px]:hidden" aria-hidden />}
      {onToggle && (
        <input
          type="checkbox"
          className="check"
          aria-label={`Choose ${task.title}`}
          checked={isChosen}
          onChange={onToggle}
        />
      )}
      <Pennant state={task.state} late={task.late} size={16} />
      <span className="min-w-0 flex-1 truncate">
        <Link className="font-semibold hover:underline" to={`/schedules/task/${task.id}`} draggable={false}>
          {task.title}
        </Link>
        <span className="ml-2 text-ink-2">{sayFor(task)}</span>
      </span>
      {hasDay && <span className="text-note text-ink-2">{sayDay(dayOfIso(task.dueOn), today)}</span>}
      <span className="w-14 flex-none text-right">{sayDuration(task.estimateMinutes)}</span>
    </li>
  );
}

const OTHERS_SHOWN = 8;

/** Who else there is at that time, and how much each has. */
function Others({ others }: { readonly others: readonly OtherLoad[] }) {
  const most = Math.max(1, ...others.map(({ cell }) => Math.max(cell.capacity, workOf(cell))));
  const share = (minutes: number) => `${(100 * minutes) / most}%`;
  const free = others.reduce((sum, { cell }) => sum + Math.max(0, cell.capacity - workOf(cell)), 0);
  return (
    <section className={`${SECTION} border-b-0`}>
      <SectionTitle aside={`${hoursOf(free)} h free among them`}>There that day</SectionTitle>
      {others.slice(0, OTHERS_SHOWN).map(({ name, cell }) => (
        <p key={name} className="grid grid-cols-[112px_minmax(0,1fr)_84px] items-center gap-x-2 text-row leading-6">
          <span className="truncate">{name}</span>
          <span className="relative block h-2 bg-base-300" style={{ width: share(cell.capacity) }} aria-hidden>
            <i
              className="absolute inset-y-0 left-0 bg-petrol-2"
              style={{ width: `${Math.min(100, (100 * workOf(cell)) / Math.max(1, cell.capacity))}%` }}
            />
            {isOver(cell) && <i className="absolute -inset-y-px -right-1 w-1 bg-ink" />}
          </span>
          <span className="text-right">
            {hoursOf(workOf(cell))} <span className="text-ink-2">of {hoursOf(cell.capacity)}</span>
          </span>
        </p>
      ))}
      {others.length > OTHERS_SHOWN && (
        <p className="text-note text-ink-2">and {others.length - OTHERS_SHOWN} more, with less time</p>
      )}
    </section>
  );
}
