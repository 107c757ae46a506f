import type { Deleted } from '../../../../contract/index.ts';
import { useToday } from '../../../app/shell/workspace.tsx';
import { Band } from '../../../kit/band.tsx';
import { BringBack, sayDeleted } from '../../history/bring-back.tsx';
import { LINE, TITLE } from './task-line.tsx';

/** What was deleted from this day, to be brought back. */
export function DeletedTasks({ deleted }: { readonly deleted: readonly Deleted[] }) {
  const today = useToday();
  return (
    <Band name="deleted" count={deleted.length}>
      {deleted.map((one) => (
        <div
          key={one.changeId}
          data-line
          className={`${LINE} cursor-default grid-cols-[minmax(0,1fr)_auto] text-ink-2 hover:bg-base-200`}
        >
          <div className={`${TITLE} pl-[116px] max-[720px]:pl-0`}>
            {one.title}
            <span className="ml-2 text-note">{sayDeleted(one, today)}</span>
          </div>
          <BringBack {...one} />
        </div>
      ))}
    </Band>
  );
}
