import { useState } from 'react';
import * as z from 'zod/mini';
import type { Task } from '../../../../contract/index.ts';
import { dayOfIso, isoOfDay, tryDayOfIso } from '../../../../core/index.ts';
import { useToday } from '../../../app/shell/workspace.tsx';
import { DateBlank } from '../../../kit/blanks.tsx';
import { useDraft } from '../../../kit/draft.ts';
import { sayDay } from '../../../kit/ways.ts';
import { useTaskActions } from '../api.ts';
import { sayMoment } from '../task-words.ts';

/** What holds a task up, until when, and who says so. */
export function HeldUp({ task }: { readonly task: Task }) {
  const today = useToday();
  const { goOn } = useTaskActions();
  const { hold } = task;
  if (hold === null) return null;
  return (
    <p className="mt-2 border-l-2 border-ink-2 pl-2.5 text-row leading-4.75">
      <b className="font-semibold">Held up until {sayDay(dayOfIso(hold.until), today)}:</b> {hold.reason}
      <span className="block text-note text-ink-2">
        {hold.by ?? 'somebody who is no longer here'}, {sayMoment(hold.at, today)}; on that day it is back by itself
        {task.mayHold && (
          <>
            {'. '}
            <button type="button" className="link-line text-ink" onClick={() => void goOn(task.id)}>
              It can go on now
            </button>
          </>
        )}
      </span>
    </p>
  );
}

const form = z.object({ reason: z.string(), until: z.string() });

/** Asks what holds a task up, and until when. */
export function HoldForm({ task, onClose }: { readonly task: Task; readonly onClose: () => void }) {
  const today = useToday();
  const { holdUp } = useTaskActions();
  const [busy, setBusy] = useState(false);
  const { draft, change, forget } = useDraft(
    `hold.${task.id}`,
    { reason: task.hold?.reason ?? '', until: task.hold?.until ?? isoOfDay(today + 2) },
    form,
  );
  const until = tryDayOfIso(draft.until) ?? today + 2;
  const problem =
    draft.reason.trim() === ''
      ? 'Say what it waits for.'
      : until <= today
        ? 'Until a day after today: on that day it is back.'
        : null;
  return (
    <form
      className="mb-1 mt-2 text-row leading-6"
      onSubmit={(event) => {
        event.preventDefault();
        if (problem !== null || busy) return;
        setBusy(true);
        void holdUp(task.id, { reason: draft.reason.trim(), until: isoOfDay(until) })
          .then((saved) => {
            if (saved === null) return;
            forget();
            onClose();
          })
          .finally(() => setBusy(false));
      }}
    >
      It can’t go on until{' '}
      <DateBlank
        label="The day on which it can go on"
        value={until}
        onChange={(day) => change({ ...draft, until: isoOfDay(day) })}
      />
      , because{' '}
      <input
        className="blank w-[260px] max-w-full max-[720px]:h-11 max-[720px]:w-full"
        aria-label="What holds it up"
        aria-describedby="hold-problem"
        maxLength={200}
        // biome-ignore lint/a11y/noAutofocus: it was asked for by the press before
        autoFocus
        value={draft.reason}
        onChange={({ target }) => change({ ...draft, reason: target.value })}
      />
      <span id="hold-problem" className="block text-note text-ink-2">
        {problem ?? 'It does not count as late meanwhile, and whoever plans sees why.'}
      </span>
      <span className="mt-2 flex gap-3">
        <button type="submit" className="btn btn-primary max-[720px]:h-11" aria-disabled={problem !== null || busy}>
          Hold it up
        </button>
        <button type="button" className="btn max-[720px]:h-11" onClick={onClose}>
          Not now
        </button>
      </span>
    </form>
  );
}
