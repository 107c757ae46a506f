import { Link } from 'react-router';
import type { Task } from '../../../../contract/index.ts';
import { dayOfIso, sayDuration } from '../../../../core/index.ts';
import { DateBlock } from '../../../kit/date-block.tsx';
import { Pennant } from '../../../kit/pennant.tsx';
import { SECTION, SectionTitle } from '../../../kit/side-sheet.tsx';

/** The other tasks of the same occurrence, on their days. */
export function SetPart({ task, address }: { readonly task: Task; readonly address: (taskId: string) => string }) {
  if (task.set.length < 2) return null;
  const done = task.set.filter(({ state }) => state === 'done').length;
  return (
    <div className={`${SECTION} pb-1 max-[720px]:pb-1`}>
      <SectionTitle
        aside={`${done} of ${task.set.length} tasks done, ${sayDuration(task.set.reduce((sum, one) => sum + one.estimateMinutes, 0))}`}
      >
        The set
      </SectionTitle>
      <ol>
        {task.set.map((one) => (
          <li
            key={one.taskId}
            className={`grid min-h-[31px] grid-cols-[22px_96px_minmax(0,1fr)_auto] items-center gap-1 border-b border-line text-row leading-4.5 last:border-0 max-[720px]:min-h-12 ${one.taskId === task.id ? 'font-semibold' : ''}`}
            aria-current={one.taskId === task.id ? 'true' : undefined}
          >
            <Pennant state={one.state} late={one.late} heldUp={one.heldUp} />
            <DateBlock day={dayOfIso(one.on)} look="quiet" />
            {one.taskId === task.id ? (
              <span className="truncate">{one.title}</span>
            ) : (
              <Link className="truncate underline decoration-line-2 underline-offset-4" to={address(one.taskId)}>
                {one.title}
              </Link>
            )}
            <span className="text-note font-normal text-ink-2">{one.who ?? 'nobody yet'}</span>
          </li>
        ))}
      </ol>
    </div>
  );
}
