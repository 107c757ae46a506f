import { useRef, useState } from 'react';
import * as z from 'zod/mini';
import { commentAddresses } from '../../../contract/addresses-later.ts';
import { MAX_COMMENT } from '../../../contract/index.ts';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import { addressOf, ask, ProblemError, request } from '../../kit/api.ts';
import { useDraft } from '../../kit/draft.ts';
import { FieldError } from '../../kit/field-error.tsx';
import { newKey } from '../../kit/new-key.ts';
import { SECTION, SectionTitle } from '../../kit/side-sheet.tsx';
import { sayMoment } from '../tasks/task-words.ts';
import { type Nameable, nameable, nameBeingTyped, namedIn, withName } from './mentions.ts';

const draftForm = z.object({
  text: z.string(),
  key: z.string(),
  chosen: z.array(z.object({ id: z.string(), name: z.string() })),
});
interface CommentDraft {
  readonly text: string;
  /** By which the server knows it again, should it be sent twice. */
  readonly key: string;
  readonly chosen: readonly Nameable[];
}
const EMPTY: CommentDraft = { text: '', key: '', chosen: [] };

/** What is said about a task, apart from the note that is its proof. */
export default function CommentsPart({ taskId }: { readonly taskId: string }) {
  const { may } = useWorkspace();
  const today = useToday();
  const { data, error, mutate } = useAnswer(commentAddresses.list, { params: { taskId }, query: {} });
  const [earlier, setEarlier] = useState<{ readonly comments: Comments; readonly more: boolean } | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const comments = [...(earlier?.comments ?? []), ...(data?.comments ?? [])];
  const isMore = earlier?.more ?? data?.more ?? false;
  const showEarlier = async () => {
    const [first] = comments;
    if (!first) return;
    try {
      const page = (await request(
        'GET',
        addressOf(commentAddresses.list, { params: { taskId }, query: { before: first.id } }),
      )) as { comments: Comments; more: boolean };
      setEarlier({ comments: [...page.comments, ...(earlier?.comments ?? [])], more: page.more });
      setTrouble(null);
    } catch (caught) {
      if (!(caught instanceof ProblemError)) throw caught;
      setTrouble(caught.message);
    }
  };
  return (
    <div className={SECTION}>
      <SectionTitle>Comments</SectionTitle>
      {error && !data && (
        <p className="text-row text-ink-2">
          {error.problem.status === 0 ? 'They can be read once there is a connection.' : error.message}
        </p>
      )}
      {isMore && (
        <button type="button" className="link-line mt-1 text-note" onClick={() => void showEarlier()}>
          Earlier ones
        </button>
      )}
      {trouble && <FieldError message={trouble} />}
      <ul className="mt-1 grid gap-2">
        {comments.map((one) => (
          <li key={one.id} className="text-row leading-4.75">
            <span className="text-note text-ink-2">
              <b className="font-semibold text-ink">{one.isOwn ? 'You' : one.by}</b>, {sayMoment(one.at, today)}
            </span>
            <span className="block whitespace-pre-line wrap-anywhere">{one.text}</span>
          </li>
        ))}
      </ul>
      {may('comment') && <Write taskId={taskId} onSent={() => void mutate()} />}
    </div>
  );
}

type Comments = readonly { id: string; at: string; by: string; isOwn: boolean; text: string }[];

const SUGGESTED = 6;

function Write({ taskId, onSent }: { readonly taskId: string; readonly onSent: () => void }) {
  const { staff, me } = useWorkspace();
  const { draft, change, forget } = useDraft<CommentDraft>(`comment.${taskId}`, EMPTY, draftForm);
  const [caret, setCaret] = useState(0);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [at, setAt] = useState(0);
  const field = useRef<HTMLTextAreaElement>(null);
  const typed = nameBeingTyped(draft.text, caret);
  const found =
    typed === null
      ? []
      : nameable(
          typed.typed,
          staff.filter(({ id, name }) => id !== me.id && name !== typed.typed),
          SUGGESTED,
        );
  const told = namedIn(draft.text, draft.chosen);
  const put = (person: Nameable) => {
    if (!typed) return;
    const next = withName(draft.text, typed, person.name);
    change({
      ...draft,
      text: next.text,
      chosen: [...draft.chosen.filter(({ id }) => id !== person.id), { id: person.id, name: person.name }],
    });
    setCaret(next.caret);
    setAt(0);
    // Once it is drawn.
    requestAnimationFrame(() => {
      field.current?.focus();
      field.current?.setSelectionRange(next.caret, next.caret);
    });
  };
  const send = async () => {
    if (draft.text.trim() === '' || busy) return;
    setBusy(true);
    const key = draft.key === '' ? newKey() : draft.key;
    // Kept before it is sent: sent again after a failure, it is the same comment.
    change({ ...draft, key });
    try {
      await ask(commentAddresses.write, {
        params: { taskId },
        body: { key, text: draft.text, named: told.map(({ id }) => id) },
      });
      forget();
      setTrouble(null);
      onSent();
    } catch (caught) {
      if (!(caught instanceof ProblemError)) throw caught;
      setTrouble(caught.message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <form
      className="relative mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <textarea
        ref={field}
        className="writing"
        rows={2}
        maxLength={MAX_COMMENT}
        aria-label="A comment"
        aria-describedby="comment-told"
        placeholder="Say something; @ names somebody"
        value={draft.text}
        onChange={({ target }) => {
          // Another text is another comment.
          change({ ...draft, key: '', text: target.value });
          setCaret(target.selectionStart);
          setAt(0);
        }}
        onSelect={({ currentTarget }) => setCaret(currentTarget.selectionStart)}
        onKeyDown={(event) => {
          if (found.length > 0 && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
            event.preventDefault();
            setAt((at + (event.key === 'ArrowDown' ? 1 : found.length - 1)) % found.length);
          } else if (found.length > 0 && (event.key === 'Enter' || event.key === 'Tab') && !event.shiftKey) {
            const person = found[at];
            if (!person) return;
            event.preventDefault();
            put(person);
          } else if (found.length > 0 && event.key === 'Escape') {
            event.stopPropagation();
            setCaret(0);
          } else if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
            event.preventDefault();
            void send();
          }
        }}
      />
      {found.length > 0 && (
        <ul className="popover absolute left-0 w-full py-1" aria-label="Whom @ names">
          {found.map((person, i) => (
            <li key={person.id}>
              <button
                type="button"
                className={`flex w-full justify-between gap-3 px-3 py-1 text-left text-row max-[720px]:min-h-11 ${i === at ? 'bg-chosen' : ''}`}
                // The field keeps the focus.
                onMouseDown={(event) => event.preventDefault()}
                onClick={() => put(person)}
              >
                {person.name}
                <span className="text-note text-ink-2">{person.roles.join(', ')}</span>
              </button>
            </li>
          ))}
        </ul>
      )}
      <p id="comment-told" className="mt-1 text-note text-ink-2" aria-live="polite">
        {found.length > 0 ? 'Arrows and Enter choose whom @ names. ' : ''}
        {told.length > 0 ? `${told.map(({ name }) => name).join(' and ')} will hear of it.` : ''}
      </p>
      {trouble && <FieldError message={`${trouble} What you wrote is kept.`} />}
      {draft.text.trim() !== '' && (
        <button type="submit" className="btn btn-sm mt-1 max-[720px]:h-11" disabled={busy}>
          Say it
        </button>
      )}
    </form>
  );
}
