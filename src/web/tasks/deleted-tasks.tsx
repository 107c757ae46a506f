import type { DaySheet } from '../../contract/index.ts';
import { dayOfIso, sayNear } from '../../core/index.ts';
import { useUndo } from '../history/undo.tsx';
import { useToday } from '../shell/workspace.tsx';
import { Band } from './day-band.tsx';

/** What was deleted from this day, to be brought back. */
export function DeletedTasks({ deleted }: { readonly deleted: DaySheet['deleted'] }) {
  const today = useToday();
  const { look, busy, dialog } = useUndo();
  return (
    <Band name="deleted" count={deleted.length}>
      {deleted.map(({ changeId, title, at, by }) => (
        <div key={changeId} className="task-line is-quiet !cursor-default !grid-cols-[minmax(0,1fr)_auto]">
          <div className="title pl-[116px] max-[720px]:pl-0">
            {title}
            <span className="ml-2 text-[13px]">
              {by ?? 'someone'}, {sayNear(dayOfIso(at.slice(0, 10)), today)} at {at.slice(11)}
            </span>
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
