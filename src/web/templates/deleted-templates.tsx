import { historyEndpoints } from '../../contract/index.ts';
import { useAnswer } from '../answer.ts';
import { sayDeleted } from '../history/last-changed.tsx';
import { useUndo } from '../history/undo.tsx';
import { useToday } from '../shell/workspace.tsx';

const SHOWN = 3;

/** The last templates that were deleted, to be brought back. */
export function DeletedTemplates() {
  const today = useToday();
  const deleted = useAnswer(historyEndpoints.deletedTemplates, {}).data?.deleted ?? [];
  const { look, busy, dialog } = useUndo();
  if (deleted.length === 0) return null;
  return (
    <p className="no-print mt-auto flex flex-none flex-wrap gap-x-5 gap-y-1 border-t border-line px-5 py-2 text-[13px] leading-4 text-ink-2">
      {deleted.slice(0, SHOWN).map(({ changeId, title, ...rest }) => (
        <span key={changeId}>
          Deleted: “{title}”, {sayDeleted(rest, today)}.{' '}
          <button
            type="button"
            className="link-line text-ink"
            disabled={busy}
            aria-label={`Bring it back: ${title}`}
            onClick={() => look({ what: `Bring back “${title}”`, changeId })}
          >
            Bring it back
          </button>
        </span>
      ))}
      {dialog}
    </p>
  );
}
