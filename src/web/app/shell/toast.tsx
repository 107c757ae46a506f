import type { ReactElement } from 'react';
import { mutate } from 'swr';
import { historyAddresses } from '../../../contract/addresses.ts';
import { ask, ProblemError } from '../../kit/api.ts';
import { followed } from '../../kit/steps.ts';

export const loadToasts = () => import('sonner');

const SAID_MS = 5000;
const UNDO_MS = 10_000;

const LINE =
  'relative flex max-w-[460px] min-w-[260px] items-center gap-3.5 overflow-hidden rounded-field bg-ink py-3 pr-2 pl-4 font-sans text-row leading-5 text-base-100 print:hidden';

/** What draws it is loaded once the page stands; where it can't be had, the words are said all the same. */
function say(words: string, line: (dismiss: () => void) => ReactElement, duration: number): void {
  loadToasts().then(
    ({ toast }) => toast.custom((id) => line(() => toast.dismiss(id)), { duration }),
    () => window.alert(words),
  );
}

/** Says what was done; where it can be undone, for ten seconds with one click. */
export function sayDone(words: string, changeId: string | null = null): void {
  const line = (dismiss: () => void) => (
    <div className={LINE} role="status" data-toast>
      <span className="grow">{words}</span>
      {changeId !== null && (
        <button
          type="button"
          className="cursor-pointer px-2 font-semibold whitespace-nowrap underline underline-offset-3"
          onClick={() => {
            dismiss();
            undo(changeId);
          }}
        >
          Undo
        </button>
      )}
      {changeId !== null && (
        <i className="absolute bottom-0 left-0 h-[3px] w-full origin-left animate-run-out bg-petrol-2" />
      )}
    </div>
  );
  say(words, line, changeId === null ? SAID_MS : UNDO_MS);
}

/** Undoes a change at once; of much it says how far it is. */
export function undo(changeId: string): void {
  const id = `undo of ${changeId}`;
  followed(
    (key) => undoLookedAt(changeId, key),
    (percent) => void showing(({ toast }) => toast.custom(() => sayLine(`Being undone: ${percent} % so far.`), { id })),
  )
    .catch(sayTrouble)
    .finally(() => void showing(({ toast }) => toast.dismiss(id)));
}

/** What is only told meanwhile is not said where it can't be shown. */
const showing = (show: (of: Awaited<ReturnType<typeof loadToasts>>) => void) =>
  loadToasts().then(show, () => undefined);

const sayLine = (words: string) => (
  <div className={LINE} role="status" data-toast>
    <span className="grow">{words}</span>
  </div>
);

/**
 * Undoes a change, and says so once the lists on the screen are as they were.
 * @throws ProblemError when it is refused
 */
export async function undoLookedAt(changeId: string, follow: string): Promise<void> {
  const { said } = await ask(historyAddresses.undo, { params: { changeId }, body: { follow } });
  await mutate(
    (key) =>
      typeof key === 'string' &&
      /^\/api\/(schedules|people|tasks|templates|tideline|clients|assets|bring-ins|team|visits|notices|letters|plans|on-plan)/.test(
        key,
      ),
  );
  sayDone(said);
}

/** Says what went wrong, in the words of whoever refused. Faults of ours go on to the console. */
export function sayTrouble(error: unknown): void {
  if (!(error instanceof ProblemError)) throw error;
  const line = () => (
    <div className={LINE} role="alert" data-toast>
      <span className="grow">{error.message}</span>
    </div>
  );
  say(error.message, line, UNDO_MS);
}
