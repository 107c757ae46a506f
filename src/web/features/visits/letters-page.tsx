import { lazy, Suspense, useMemo, useRef } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { type LetterInput, type NoticeLetter, noticeEndpoints } from '../../../contract/index.ts';
import {
  fillLetter,
  headLines,
  LETTER_LANGUAGE_TAGS,
  LETTER_LANGUAGES,
  LETTER_TOKEN_NAMES,
  LETTER_TOKENS,
  type LetterBlock,
  type LetterToken,
  type LetterValues,
  sayDayIn,
} from '../../../core/index.ts';
import { useKeys } from '../../app/shell/keys.tsx';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ChoiceBlank, WordsBlank } from '../../kit/blanks.tsx';
import { FieldError } from '../../kit/field-error.tsx';
import { useRecordForm } from '../../kit/record-form.tsx';
import { Empty, NotAllowed, Skeleton, Trouble } from '../../kit/states.tsx';
import { useLetters, useNoticeActions } from './api.ts';
import type { LetterEditorHandle } from './letter-editor.tsx';
import { LetterPage } from './letter-page.tsx';

const LetterEditor = lazy(() => import('./letter-editor.tsx'));

/** Stands for a letter that is being written. */
const NEW = 'new';
const paragraph = (...texts: string[]): LetterBlock[] => texts.map((text) => ({ kind: 'paragraph', runs: [{ text }] }));

/** What most would begin with. */
const FRESH: LetterInput = {
  ...{ name: '', workType: null, language: 'en-GB', subject: 'Our visit to {client} on {date}' },
  body: paragraph(
    'Dear {contact},',
    'we will come for {reason}. The visit is on {date}, {window}; {person} comes.',
    'If the day does not suit you, please {answer}.',
    '{signed}',
  ).map(({ kind, runs }) => ({ kind, runs: [...runs] })),
};

const inputOf = ({ id: _, version: __, ...input }: NoticeLetter): LetterInput => input;

/** Letters that announce visits, with what stands in them for each. */
export function LettersPage() {
  const { may } = useWorkspace();
  const { letterId } = useParams();
  const { data, error, mutate } = useLetters();
  const navigate = useNavigate();
  if (!may('plan'))
    return <NotAllowed right="plan" what="write letters" to="/tasks/visits" back="Back to the visits" />;
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Skeleton rows={10} />;
  const shown = letterId === NEW ? null : (data.letters.find(({ id }) => id === letterId) ?? data.letters[0] ?? null);
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <title>Letters · Jolly Rota</title>
      <div className="page-head">
        <h1>Letters</h1>
        <span className="text-row text-ink-2">filled in for each visit that is announced</span>
        <Link className="btn ml-auto" to="/tasks/visits">
          Back to the visits
        </Link>
        <Link className="btn btn-primary" to={`/tasks/visits/letters/${NEW}`}>
          New letter
        </Link>
      </div>
      <div className="flex min-h-0 flex-1 max-[900px]:flex-col max-[900px]:overflow-y-auto">
        <nav
          aria-label="Letters"
          className="w-[232px] flex-none overflow-y-auto border-r border-line-2 max-[900px]:w-auto max-[900px]:border-r-0"
        >
          <ul>
            {data.letters.map(({ id, name, workType, language }) => (
              <li key={id}>
                <Link
                  to={`/tasks/visits/letters/${id}`}
                  aria-current={shown?.id === id ? 'page' : undefined}
                  className="block border-b border-l-4 border-line border-l-transparent px-4 py-2 text-row leading-5 hover:bg-base-200 aria-[current=page]:border-l-accent aria-[current=page]:bg-chosen"
                >
                  <b className="font-semibold">{name}</b>
                  <span className="block text-note leading-4.5 text-ink-2">
                    {[workType ?? 'any type', LETTER_LANGUAGES[language].name].join(', ')}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
        </nav>
        {shown === null && letterId !== NEW ? (
          <Empty title="There is no letter yet.">
            <Link className="link-line" to={`/tasks/visits/letters/${NEW}`}>
              Write the first one
            </Link>
            : it begins with a few sentences that most visits need.
          </Empty>
        ) : (
          <Editing
            key={shown?.id ?? NEW}
            letter={shown}
            onKept={({ id }) => void navigate(`/tasks/visits/letters/${id}`, { replace: true })}
          />
        )}
      </div>
    </div>
  );
}

interface EditingProps {
  /** Null for a new one. */
  readonly letter: NoticeLetter | null;
  readonly onKept: (letter: NoticeLetter) => void;
}

type Draft = LetterInput & { readonly version: number };

function Editing({ letter, onKept }: EditingProps) {
  const { workTypes } = useWorkspace();
  const { keepLetter, dropLetter } = useNoticeActions();
  const navigate = useNavigate();
  const editor = useRef<LetterEditorHandle>(null);
  const initial = useMemo<Draft>(
    () => (letter ? { ...inputOf(letter), version: letter.version } : { ...FRESH, version: 0 }),
    [letter],
  );
  const form = useRecordForm<Draft>({
    ...{ place: `letter ${letter?.id ?? NEW}`, initial, isNew: letter === null },
    ...{ form: noticeEndpoints.changeLetter.body, check: noticeEndpoints.changeLetter.body },
  });
  const { draft, set, at, within } = form;
  const save = () =>
    void form.save(async ({ version, ...input }) => {
      const kept = await keepLetter(letter && { id: letter.id, version }, input);
      if (letter === null) onKept(kept);
    });
  useKeys([{ key: 'Mod+Enter', says: 'Keep the letter', run: save }]);
  return (
    <>
      <form
        className="flex min-h-0 min-w-0 flex-[1.4] flex-col overflow-y-auto px-5 py-3 max-[900px]:flex-none max-[900px]:overflow-visible"
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        {form.meanwhile}
        <p className="text-row leading-8">
          the letter{' '}
          <WordsBlank
            label="Name of the letter"
            shown={draft.name}
            placeholder="Boarding notice"
            wrong="60 characters at most"
            read={(text) => (text.trim().length > 60 ? undefined : text.trim())}
            onChange={(name) => set({ name })}
          />{' '}
          is for{' '}
          <ChoiceBlank
            label="Type of work it is for"
            value={draft.workType ?? ''}
            options={[['', 'any type of work'], ...workTypes.map((type) => [type, type] as const)]}
            onChange={(type) => set({ workType: type === '' ? null : type })}
          />{' '}
          in{' '}
          <ChoiceBlank
            label="Language of the letter"
            value={draft.language}
            options={LETTER_LANGUAGE_TAGS.map((tag) => [tag, LETTER_LANGUAGES[tag].name] as const)}
            onChange={(language) => set({ language })}
          />
        </p>
        {at('name') && <FieldError message={at('name') ?? ''} />}
        {at('workType') && <FieldError message={at('workType') ?? ''} />}
        <label className="mt-2 text-note text-ink-2" htmlFor="letter-subject">
          what it is about
        </label>
        <input
          id="letter-subject"
          className="blank h-8 w-full text-body"
          value={draft.subject}
          aria-invalid={at('subject') !== undefined}
          onChange={({ target }) => set({ subject: target.value })}
        />
        {at('subject') && <FieldError message={at('subject') ?? ''} />}
        <span className="mt-3 text-note text-ink-2">what it says</span>
        <Suspense fallback={<Skeleton rows={5} />}>
          <LetterEditor
            ref={editor}
            label="What the letter says"
            body={draft.body}
            onChange={(body) => set({ body })}
          />
        </Suspense>
        {within('body') && <FieldError message={within('body') ?? ''} />}
        <fieldset className="mt-2">
          <legend className="text-note text-ink-2">put in at the cursor what is filled in for each visit</legend>
          <div className="flex flex-wrap gap-x-1.5 gap-y-1 pt-1">
            {LETTER_TOKEN_NAMES.map((token) => (
              <button
                key={token}
                type="button"
                className="btn btn-sm px-2 font-mono text-note"
                title={LETTER_TOKENS[token]}
                // The text keeps its place while a token is pressed.
                onMouseDown={(event) => event.preventDefault()}
                onClick={() => editor.current?.insert(`{${token}}`)}
              >
                {`{${token}}`}
              </button>
            ))}
          </div>
        </fieldset>
        <footer className="mt-auto flex flex-wrap items-center gap-3 pt-4">
          <button type="submit" className="btn btn-primary" disabled={form.busy}>
            {letter ? 'Keep the letter' : 'Add the letter'}
          </button>
          {form.isChanged && (
            <button type="button" className="btn" onClick={form.putBack}>
              Put back
            </button>
          )}
          {letter && (
            <button
              type="button"
              className="btn btn-text ml-auto"
              onClick={() =>
                void dropLetter(letter).then(() => navigate('/tasks/visits/letters', { replace: true }), sayTrouble)
              }
            >
              Drop the letter
            </button>
          )}
          <span role="status" className="text-note text-ink-2">
            {form.said}
          </span>
        </footer>
      </form>
      <Example draft={draft} />
    </>
  );
}

/** The letter for a visit that nobody makes: how it looks, before there is one. */
function Example({ draft }: { readonly draft: LetterInput }) {
  const { name, visits, today, me } = useWorkspace();
  const values: LetterValues = {
    ...{ client: 'Isolde Kestle', contact: 'Isolde Kestle', address: '7 Netloft Lane, Ternhaven', asset: 'Little Auk' },
    ...{ place: 'berth A4', date: sayDayIn(today + 14, draft.language), window: '09:00–10:00', person: me.name },
    ...{ reason: 'gas and shore power', rule: 'every 3 months', type: draft.workType ?? 'routine' },
    ...{ issued: sayDayIn(today, draft.language), answer: visits.answering || '…', signed: me.name },
  } satisfies Record<LetterToken, string>;
  const { subject, body } = fillLetter(draft, values);
  return (
    <section
      aria-label="An example"
      className="min-h-0 flex-1 overflow-y-auto border-l border-line-2 bg-base-200 px-6 py-3 max-[900px]:flex-none max-[900px]:border-l-0"
    >
      <p className="pb-2 text-note text-ink-2">
        An example: the names are made up. {visits.letterhead === '' && 'The head of letters is said in the settings.'}
      </p>
      <LetterPage
        language={draft.language}
        from={{ name, lines: headLines(visits) }}
        to={['Isolde Kestle', '7 Netloft Lane', 'Ternhaven']}
        issued={values.issued}
        replaces={null}
        subject={subject}
        body={body}
      />
    </section>
  );
}
