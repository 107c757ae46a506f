import type { Deleted } from '../../contract/index.ts';
import { sayDeleted } from '../history/last-changed.tsx';
import { useUndo } from '../history/undo.tsx';
import { useToday } from '../shell/workspace.tsx';
import { Band } from './day-band.tsx';

/** What was deleted from this day, to be brought back. */
export function DeletedTasks({ deleted }: { readonly deleted: readonly Deleted[] }) {
  const today = useToday();
  const { look, busy, dialog } = useUndo();
  return (
    <Band name="deleted" count={deleted.length}>
      {deleted.map(({ changeId, title, at, by }) => (
        <div key={changeId} className="task-line is-quiet !cursor-default !grid-cols-[minmax(0,1fr)_auto]">
          <div className="title pl-[116px] max-[720px]:pl-0">
            {title}
            <span className="ml-2 text-[13px]">{sayDeleted({ at, by }, today)}</span>
          </div>
          <button
            type="button"
            className="link-line text-[13px]"
            disabled={busy}
            aria-label={`Bring it back: ${title}`}
            onClick={() => look({ what: `Bring back “${title}”`, changeId })}
          >
            Bring it back
          </button>
        </div>
      ))}
      {dialog}
    </Band>
  );
}
