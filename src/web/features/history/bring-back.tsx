import type { Deleted } from '../../../contract/index.ts';
import { type CivilDay, dayOfIso } from '../../../core/index.ts';
import { sayNear, timeOf } from '../../kit/ways.ts';
import { useUndo } from './undo.tsx';

/** By whom and when something was deleted: "Ines Calloway, today at 10:40". */
export function sayDeleted({ at, by }: Deleted, today: CivilDay): string {
  return `${by ?? 'someone'}, ${sayNear(dayOfIso(at.slice(0, 10)), today)} at ${timeOf(at)}`;
}

/** Brings back what was deleted, after a look at what that does. */
export function BringBack({ changeId, title }: Deleted) {
  const { look, busy, dialog } = useUndo();
  return (
    <>
      <button
        type="button"
        className="link-line text-note text-ink"
        disabled={busy}
        aria-label={`Bring it back: ${title}`}
        onClick={() => look({ what: `Bring back “${title}”`, changeId })}
      >
        Bring it back
      </button>
      {dialog}
    </>
  );
}
