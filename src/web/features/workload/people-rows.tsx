import type { KeyboardEvent, ReactNode } from 'react';
import type { LoadOfPerson, WorkloadCell } from '../../../contract/index.ts';
import type { Group } from './workload-words.ts';

export interface LoadGridProps {
  /** The days on which the figures begin. */
  readonly starts: readonly string[];
  readonly groups: readonly Group[];
  /** The cell whose tasks stand beside it: a person's id and the day on which it begins. */
  readonly open: string | null;
  readonly onOpen: (personId: string | null, start: string) => void;
  readonly foreseenUpTo: string;
}

interface PeopleRowsProps {
  readonly groups: readonly Group[];
  /** The columns of a line, and where the name of its group stands in it. */
  readonly columns: string;
  readonly head: string;
  readonly children: (row: LoadOfPerson, cell: WorkloadCell, at: number) => ReactNode;
}

/** Everybody in groups, a line of cells each; arrow keys go from cell to cell. */
export function PeopleRows({ groups, columns, head, children }: PeopleRowsProps) {
  return (
    // Arrow keys are a shortcut between buttons that Tab reaches as well.
    // biome-ignore lint/a11y/noStaticElementInteractions: see above
    <div onKeyDown={moveThroughCells}>
      {groups.map(({ name, rows }) => (
        <section key={name} aria-label={name} className="border-b border-line-2">
          {rows.map((row, i) => (
            <div key={row.person?.id ?? 'nobody'} className={columns}>
              <h2 className={`text-row leading-4 text-primary ${head}`}>{i === 0 ? name : ''}</h2>
              <span className={`flex min-w-0 items-center truncate text-row ${i > 0 ? 'border-t border-line' : ''}`}>
                {row.person?.name ?? 'not given to anybody'}
              </span>
              <div
                className={`grid ${i > 0 ? 'border-t border-line' : ''}`}
                style={{ gridTemplateColumns: `repeat(${row.cells.length}, minmax(0, 1fr))` }}
              >
                {row.cells.map((cell, at) => children(row, cell, at))}
              </div>
            </div>
          ))}
        </section>
      ))}
    </div>
  );
}

function moveThroughCells(event: KeyboardEvent<HTMLElement>): void {
  const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
  if (!step || !(event.target instanceof HTMLElement) || !event.target.matches('[data-cell]')) return;
  event.preventDefault();
  const cells = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-cell]')];
  const across = event.target.parentElement?.children.length ?? 1;
  cells[cells.indexOf(event.target) + (step[0] ?? 0) + (step[1] ?? 0) * across]?.focus();
}
