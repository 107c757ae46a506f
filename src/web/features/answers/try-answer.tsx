import { type FormEvent, useState } from 'react';
import type { MailAnswer } from '../../../contract/index.ts';
import { MOST_TRIED_ANSWER } from '../../../contract/index.ts';
import { SECTION } from '../../kit/side-sheet.tsx';
import { useTrying } from '../../kit/use-trying.ts';
import { useAnswerActions } from './api.ts';

/** Where mail ends here: an answer to a mail as whoever received it would write one, to see what becomes of it. */
export function TryAnswer({ mail }: { readonly mail: MailAnswer }) {
  const { tryOut } = useAnswerActions();
  const { busy, trying } = useTrying();
  const [isOpen, setOpen] = useState(false);
  const [text, setText] = useState('');
  const [automatic, setAutomatic] = useState(false);
  if (!isOpen)
    return (
      <p className={`${SECTION} text-row`}>
        <button type="button" className="link-line" onClick={() => setOpen(true)}>
          Answer as {mail.toName}
        </button>{' '}
        <span className="text-note text-ink-2">mail ends here, so this is how an answer is tried out</span>
      </p>
    );
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void trying(async () => {
      await tryOut(mail.id, text, automatic);
      setText('');
      setOpen(false);
    });
  };
  return (
    <form className={`${SECTION} text-row`} onSubmit={submit}>
      <textarea
        className="writing"
        rows={3}
        aria-label={`What ${mail.toName} answers`}
        maxLength={MOST_TRIED_ANSWER}
        // biome-ignore lint/a11y/noAutofocus: it was just asked for
        autoFocus
        value={text}
        onChange={({ target }) => setText(target.value)}
      />
      <div className="mt-1.5 flex flex-wrap items-center gap-x-4 gap-y-1.5">
        <label className="inline-flex items-center gap-1.5">
          <input
            type="checkbox"
            className="check"
            checked={automatic}
            onChange={({ target }) => setAutomatic(target.checked)}
          />
          a machine writes it, as while somebody is away
        </label>
        <span className="ml-auto flex gap-2">
          <button type="button" className="btn btn-sm" onClick={() => setOpen(false)}>
            Not now
          </button>
          <button type="submit" className="btn btn-primary btn-sm" disabled={busy || text.trim() === ''}>
            Send it
          </button>
        </span>
      </div>
    </form>
  );
}
