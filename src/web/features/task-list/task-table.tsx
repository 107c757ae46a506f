import { type ReactNode, useEffect, useRef, useState } from 'react';
import {
  TASKS_A_PAGE,
  TASKS_CHOSEN_AT_ONCE,
  type TaskColumn,
  type TaskFilter,
  type TaskGroup,
  type TaskGrouping,
  type TaskOrder,
  type TaskSums,
} from '../../../contract/index.ts';
import { plural, sayDuration } from '../../../core/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { moveThroughRows } from '../../kit/arrow-rows.ts';
import { LongTable } from '../../kit/long-table.tsx';
import { NotAll, Skeleton, Trouble } from '../../kit/states.tsx';
import { ChosenTasks } from '../tasks/day/chosen-tasks.tsx';
import { useAllFitting, useTaskGroups, useTaskLines } from './api.ts';
import { type Choosing, useChoosing } from './choosing.ts';
import { COLUMNS, widthOf, widthsOf } from './columns.tsx';
import { nameOfGroup, saySums } from './list-words.ts';
import { TaskRow } from './task-row.tsx';

interface TaskTableProps {
  readonly filter: TaskFilter;
  readonly order: TaskOrder;
  readonly onOrder: (order: TaskOrder) => void;
  readonly grouping: TaskGrouping | null;
  readonly columns: readonly TaskColumn[];
  readonly sums: TaskSums;
}

/** Tasks as lines, in groups or in one row; chosen ones are changed together. Drawn anew for another question: what does not fit any more is not changed unseen. */
export function TaskTable({ filter, order, onOrder, grouping, columns, sums }: TaskTableProps) {
  const { may } = useWorkspace();
  const choosing = useChoosing();
  const allFitting = useAllFitting(filter, order);
  const usable = may('work') ? choosing : null;
  const { chosen, clear } = choosing;
  const chooseAll = async () => {
    const { tasks } = await allFitting();
    choosing.chooseThese(tasks);
  };
  // As many as can be chosen at once are not all of them.
  const isMore = chosen.length >= TASKS_CHOSEN_AT_ONCE && chosen.length < sums.count;
  const isAll = chosen.length > 0 && (chosen.length >= sums.count || isMore);
  const head = (
    <>
      <th scope="col" className="pr-0 pl-5">
        {usable && (
          <input
            type="checkbox"
            className="check block"
            aria-label={isAll ? 'Choose none' : `Choose all ${sums.count}`}
            checked={isAll}
            onChange={isAll ? clear : () => void chooseAll().catch(sayTrouble)}
          />
        )}
      </th>
      {columns.map((column) => (
        <Head key={column} column={column} order={order} onOrder={onOrder} />
      ))}
    </>
  );
  const minutes = chosen.reduce((sum, one) => sum + one.minutes, 0);
  const detail = [minutes > 0 && sayDuration(minutes), isMore && `the first of ${sums.count}`]
    .filter(Boolean)
    .join(', ');
  return (
    <>
      {grouping === null ? (
        <AllInOne
          filter={filter}
          order={order}
          columns={columns}
          count={sums.count}
          choosing={usable}
          remember={choosing.remember}
          head={head}
        />
      ) : (
        <InGroups
          filter={filter}
          order={order}
          columns={columns}
          by={grouping}
          choosing={usable}
          remember={choosing.remember}
          head={head}
        />
      )}
      {usable && chosen.length > 0 && <ChosenTasks chosen={chosen} detail={detail} onClear={clear} />}
    </>
  );
}

interface HeadProps {
  readonly column: TaskColumn;
  readonly order: TaskOrder;
  readonly onOrder: (order: TaskOrder) => void;
}

/** Orders in which what is greatest, or latest, stands first. */
const DOWN: readonly TaskOrder[] = ['latest', 'longest', 'urgent', 'finished'];

function Head({ column, order, onOrder }: HeadProps) {
  const { head: words, orders, isRight } = COLUMNS[column];
  const isOrder = orders?.includes(order) ?? false;
  return (
    <th
      scope="col"
      className={isRight ? 'num' : undefined}
      aria-sort={isOrder ? (DOWN.includes(order) ? 'descending' : 'ascending') : undefined}
    >
      {orders ? (
        <button
          type="button"
          className={`cursor-pointer ${isOrder ? 'border-b-2 border-accent text-ink' : 'hover:text-ink'}`}
          title={isOrder && orders[0] !== orders[1] ? 'The other way round' : `In order of ${words}`}
          onClick={() => onOrder(order === orders[0] ? orders[1] : orders[0])}
        >
          {words}
        </button>
      ) : (
        words
      )}
    </th>
  );
}

interface ListProps {
  readonly filter: TaskFilter;
  readonly order: TaskOrder;
  readonly columns: readonly TaskColumn[];
  readonly choosing: Choosing | null;
  readonly remember: Choosing['remember'];
  readonly head: ReactNode;
}

/** So many rows before those that are here end, the next are asked for. */
const AHEAD = 20;

function AllInOne({ filter, order, columns, count, choosing, remember, head }: ListProps & { readonly count: number }) {
  const { lines, isHere, isMore, more, error, again } = useTaskLines(filter, order, columns);
  const [last, setLast] = useState(0);
  /** Rows out of sight are not drawn. */
  const inOrder = () => lines.map(({ id }) => id);
  useEffect(() => remember(lines), [remember, lines]);
  const isWanted = isHere && isMore && last + AHEAD >= lines.length;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each page that has come, as far as it is looked at
  useEffect(() => {
    if (isWanted && !error) more();
  }, [isWanted, lines.length]);
  if (error && !isHere) return <Trouble error={error} retry={again} />;
  if (!isHere) return <Skeleton rows={14} />;
  return (
    <>
      <LongTable
        // What is finished meanwhile leaves before the count is told anew.
        count={isMore ? Math.max(count, lines.length) : lines.length}
        onView={(_, to) => setLast(to)}
        columns={widthsOf(columns)}
        minWidth={widthOf(columns)}
        head={head}
        row={(index) => {
          const task = lines[index];
          return task ? (
            <TaskRow key={task.id} task={task} columns={columns} index={index} inOrder={inOrder} choosing={choosing} />
          ) : null;
        }}
      />
      {error && <NotAll error={error} retry={again} />}
    </>
  );
}

/** What stands beside the lines of a group. */
const MARGIN_WIDTH = 180;

/** So near to the end of those that are here, the next groups are asked for. */
const NEAR_PIXELS = 600;

function InGroups({ filter, order, columns, by, choosing, remember, head }: ListProps & { readonly by: TaskGrouping }) {
  const { groups, count, isMore, more, error, again } = useTaskGroups(filter, by, order, columns);
  useEffect(() => remember(groups.flatMap(({ lines }) => lines)), [remember, groups]);
  const frame = useRef<HTMLDivElement>(null);
  /** As many groups as were here when the next were asked for: once for each page. */
  const askedAt = useRef(0);
  const moreNearTheEnd = () => {
    const { scrollTop = 0, clientHeight = 0, scrollHeight = 0 } = frame.current ?? {};
    const isNear = scrollTop + clientHeight + NEAR_PIXELS > scrollHeight;
    if (!isMore || error || !isNear || askedAt.current === groups.length) return;
    askedAt.current = groups.length;
    more();
  };
  // Where what is here does not fill the page.
  useEffect(moreNearTheEnd);
  if (error && count === undefined) return <Trouble error={error} retry={again} />;
  if (count === undefined) return <Skeleton rows={14} />;
  return (
    <div ref={frame} className="min-h-0 flex-1 overflow-auto border-t border-line-2" onScroll={moreNearTheEnd}>
      <table className="tt" style={{ minWidth: widthOf(columns) + MARGIN_WIDTH }} onKeyDown={moveThroughRows}>
        <colgroup>
          <col style={{ width: MARGIN_WIDTH }} />
          {widthsOf(columns).map((width, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: columns never move
            <col key={i} style={width === null ? undefined : { width }} />
          ))}
        </colgroup>
        <thead>
          <tr>
            <td aria-hidden className="sticky top-0 z-1 h-7 border-line-2 bg-base-100" />
            {head}
          </tr>
        </thead>
        {groups.map((group) => (
          <Group key={group.key} group={group} {...{ filter, order, columns, by, choosing, remember }} />
        ))}
      </table>
      {isMore && (
        <p className="px-5 py-2 text-row text-ink-2">
          {groups.length} of {count} groups.{' '}
          <button type="button" className="link-line text-ink" onClick={more}>
            Show more
          </button>
        </p>
      )}
      {error && <NotAll error={error} retry={again} />}
    </div>
  );
}

interface GroupProps extends Omit<ListProps, 'head'> {
  readonly group: TaskGroup;
  readonly by: TaskGrouping;
}

/** What is alike, with its sum in the margin; of many the first few, until all are asked for. */
function Group({ group, by, filter, order, columns, choosing, remember }: GroupProps) {
  const { name: workspace, today } = useWorkspace();
  const [isOpen, setIsOpen] = useState(false);
  const folded = group.count > group.lines.length;
  const shown = isOpen && folded ? null : group.lines;
  const name = nameOfGroup(by, group, workspace, today);
  const margin = (rows: number) => (
    <th scope="rowgroup" rowSpan={rows} className="static h-auto border-line-2 py-[3px] align-top whitespace-normal">
      <b className="block font-head text-row leading-4.5 font-semibold text-primary">{name}</b>
      {group.detail && <span className="block leading-4">{group.detail}</span>}
      <span className="block leading-4">{saySums({ ...group, late: 0 })}</span>
      {group.late > 0 && <b className="block leading-4 font-semibold text-late">{group.late} late</b>}
    </th>
  );
  if (shown === null)
    return (
      <OpenGroup
        {...{ filter, order, columns, by, choosing, remember, margin }}
        groupKey={group.key}
        name={name}
        onFold={() => setIsOpen(false)}
      />
    );
  const rest = group.count - shown.length;
  return (
    <tbody className="[&>tr:last-child>td]:border-line-2">
      {shown.map((task, i) => (
        <TaskRow
          key={task.id}
          task={task}
          columns={columns}
          choosing={choosing}
          margin={i === 0 ? margin(shown.length + (rest > 0 ? 1 : 0)) : undefined}
        />
      ))}
      {rest > 0 && (
        <Foot columns={columns.length}>
          and {rest} more{' '}
          <button
            type="button"
            className="link-line ml-3 text-ink"
            aria-label={`Show all ${group.count} of ${name}`}
            onClick={() => setIsOpen(true)}
          >
            Show {Math.min(rest, TASKS_A_PAGE)}
          </button>
        </Foot>
      )}
    </tbody>
  );
}

function Foot({ columns, children }: { readonly columns: number; readonly children: ReactNode }) {
  return (
    <tr className="cursor-default!">
      <td />
      <td colSpan={columns} className="text-ink-2">
        {children}
      </td>
    </tr>
  );
}

interface OpenGroupProps extends Omit<ListProps, 'head'> {
  readonly by: TaskGrouping;
  readonly groupKey: string;
  readonly name: string;
  readonly margin: (rows: number) => ReactNode;
  readonly onFold: () => void;
}

function OpenGroup({ filter, order, columns, by, groupKey, name, choosing, remember, margin, onFold }: OpenGroupProps) {
  const { lines, isHere, isMore, more, error, again } = useTaskLines(filter, order, columns, { by, key: groupKey });
  useEffect(() => remember(lines), [remember, lines]);
  const foot = error ? (
    <NotAll error={error} retry={again} />
  ) : (
    <>
      {!isHere ? 'Loading …' : isMore ? `${lines.length} are shown` : `all ${plural(lines.length, 'task')}`}
      {isMore && (
        <button type="button" className="link-line ml-3 text-ink" onClick={more}>
          Show {TASKS_A_PAGE} more
        </button>
      )}
      <button
        type="button"
        className="link-line ml-3 text-ink"
        aria-label={`Show the first of ${name} alone`}
        onClick={onFold}
      >
        Fold away
      </button>
    </>
  );
  return (
    <tbody className="[&>tr:last-child>td]:border-line-2">
      {lines.map((task, i) => (
        <TaskRow
          key={task.id}
          task={task}
          columns={columns}
          choosing={choosing}
          margin={i === 0 ? margin(lines.length + 1) : undefined}
        />
      ))}
      {lines.length === 0 ? (
        <tr className="cursor-default!">
          {margin(1)}
          <td colSpan={columns.length + 1}>{foot}</td>
        </tr>
      ) : (
        <Foot columns={columns.length}>{foot}</Foot>
      )}
    </tbody>
  );
}
