import type { KeyboardEvent, ReactNode } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import type { ListedTask, TaskColumn } from '../../../contract/index.ts';
import { isEnded } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { sayFor } from '../tasks/task-words.ts';
import type { Choosing } from './choosing.ts';
import { COLUMNS } from './columns.tsx';

interface TaskRowProps {
  readonly task: ListedTask;
  readonly columns: readonly TaskColumn[];
  /** Its place in the whole list, where that is known. */
  readonly index?: number;
  /** The ids of all that are here, where not all of them are drawn. */
  readonly inOrder?: () => readonly string[];
  /** Left out where nobody may do anything with several. */
  readonly choosing: Choosing | null;
  /** In the margin, before it. */
  readonly margin?: ReactNode;
}

/** One task of the list: when it is due, what it is, who has it, how far it is. */
export function TaskRow({ task, columns, index, inOrder, choosing, margin }: TaskRowProps) {
  const { today } = useWorkspace();
  const navigate = useNavigate();
  const { search, pathname } = useLocation();
  const address = `/tasks/task/${task.id}${search}`;
  const isOver = isEnded(task.state as 'open');
  const isOpen = pathname.endsWith(task.id);
  const isChosen = choosing?.ids.has(task.id) ?? false;
  /** The whole list, or where all of it is drawn, what is drawn. */
  const listAround = (row: Element): readonly string[] =>
    inOrder?.() ??
    [...(row.closest('table')?.querySelectorAll<HTMLElement>('[data-task-id]') ?? [])].flatMap(
      ({ dataset }) => dataset['taskId'] ?? [],
    );
  const chooseFrom = (row: Element) => choosing?.chooseTo(task.id, listAround(row));
  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    if (choosing === null) return;
    if (event.key === ' ') {
      event.preventDefault();
      choosing.chooseOne(task.id);
    } else if (event.shiftKey && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
      // The focus moves on as without Shift; what it comes from and goes to is chosen.
      const list = listAround(event.currentTarget);
      const next = list[list.indexOf(task.id) + (event.key === 'ArrowDown' ? 1 : -1)];
      if (!isChosen) choosing.chooseOne(task.id);
      if (next !== undefined) choosing.chooseTo(next, list);
    }
  };
  const title = (
    <>
      <Link
        to={address}
        data-row
        title={choosing ? 'Space chooses it, Shift with the arrows chooses more' : undefined}
        className={`text-body ${isOver ? '' : 'font-semibold'}`}
        onClick={(event) => event.stopPropagation()}
        onKeyDown={onKeyDown}
      >
        {task.title}
      </Link>
      <span className="ml-2 text-ink-2">{[sayFor(task), task.hold?.reason ?? ''].filter(Boolean).join(', ')}</span>
    </>
  );
  return (
    // The link in the row is what the keyboard uses; the row is only a larger target.
    <tr
      data-task-id={task.id}
      data-here={isOpen || undefined}
      aria-rowindex={index === undefined ? undefined : index + 2}
      aria-selected={choosing === null ? undefined : isChosen}
      className={isOver ? 'text-ink-2' : ''}
      onClick={({ shiftKey, currentTarget }) =>
        shiftKey && choosing ? chooseFrom(currentTarget) : void navigate(address)
      }
    >
      {margin}
      <td
        className={`pr-0 pl-5 [text-overflow:clip] ${isChosen || isOpen ? 'shadow-[inset_3px_0_0_var(--color-accent)]' : ''}`}
      >
        {choosing && (
          <input
            type="checkbox"
            className="check block"
            tabIndex={-1}
            aria-label={`Choose ${task.title}`}
            checked={isChosen}
            onClick={(event) => {
              event.stopPropagation();
              if (event.shiftKey) chooseFrom(event.currentTarget);
              else choosing.chooseOne(task.id);
            }}
            onChange={() => undefined}
          />
        )}
      </td>
      {columns.map((column) => {
        const { isRight, cell } = COLUMNS[column];
        return (
          <td key={column} className={isRight ? 'num' : column === 'due' ? 'date' : undefined}>
            {cell(task, { today, title })}
          </td>
        );
      })}
    </tr>
  );
}
