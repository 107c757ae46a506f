import type { Unsent } from './outbox.ts';
import { outbox } from './use-unsent.ts';

/** Beside a field: that what stands in it is not sent yet, and why; what was refused can be let go. */
export function UnsentMark({ unsent, onTry }: { readonly unsent: Unsent | null; readonly onTry?: () => void }) {
  if (unsent === null || unsent.state === 'draft') return null;
  const { state, said, field } = unsent;
  return (
    <span className="block text-note leading-4.25" role="status">
      {state === 'waiting' ? (
        <>
          <b className="font-semibold">Not sent yet.</b> {said}
        </>
      ) : (
        <>
          <b className="font-semibold">Not taken.</b> {said}{' '}
          {onTry && (
            <button type="button" className="link-line" onClick={onTry}>
              Send it again
            </button>
          )}{' '}
          <button type="button" className="link-line" onClick={() => outbox.discard(field)}>
            Let it go
          </button>
        </>
      )}
    </span>
  );
}
