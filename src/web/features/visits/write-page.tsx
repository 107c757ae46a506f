import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import * as z from 'zod/mini';
import type { NoticeDraft, NoticeLetter } from '../../../contract/index.ts';
import { type CivilDay, dayOfIso, fillLetter, headLines, isoOfDay, plural } from '../../../core/index.ts';
import { type TideControl, useTide } from '../../app/shell/shell-context.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { useAddressFilter } from '../../kit/address-filter.ts';
import { ProblemError } from '../../kit/api.ts';
import { ChoiceBlank, DateBlank, WordsBlank } from '../../kit/blanks.tsx';
import { useDraft } from '../../kit/draft.ts';
import { Empty, NotAllowed, Skeleton, Trouble } from '../../kit/states.tsx';
import { useSteps } from '../../kit/steps.ts';
import { useLetters, useNoticeActions } from './api.ts';
import { DraftLine } from './draft-line.tsx';
import { LetterPage } from './letter-page.tsx';
import { MoreToSend } from './more-to-send.tsx';
import { paperOfNotices } from './paper-of-notices.ts';

/** Writes the notices of chosen visits in one go: how each goes, and the page that comes of it. */
export function WritePage() {
  const { may } = useWorkspace();
  const { search, set } = useAddressFilter();
  const ids = useMemo(() => (search.get('of') ?? '').split(',').filter(Boolean), [search]);
  const { data, error, mutate } = useLetters();
  if (!may('plan'))
    return <NotAllowed right="plan" what="write notices" to="/tasks/visits" back="Back to the visits" />;
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Skeleton rows={10} />;
  if (ids.length === 0)
    return (
      <Empty title="No visit is chosen.">
        <Link className="link-line" to="/tasks/visits">
          Choose some among the visits
        </Link>
        , then write their notices.
      </Empty>
    );
  if (data.letters.length === 0)
    return (
      <Empty title="There is no letter yet.">
        A notice is written from a letter that is filled in for each visit.{' '}
        <Link className="link-line" to="/tasks/visits/letters">
          Write the first letter
        </Link>
        .
      </Empty>
    );
  return <Writing ids={ids} letters={data.letters} onIds={(next) => set({ of: next.join(',') })} />;
}

/** What is said of notices before they are written: null stands for what is usual, as does a way that is left out. */
const planSchema = z.object({
  letterId: z.nullable(z.string()),
  issued: z.nullable(z.number()),
  signedBy: z.string(),
  reason: z.string(),
  mail: z.boolean(),
  choices: z.record(z.string(), z.object({ way: z.optional(z.string()), evenLate: z.optional(z.boolean()) })),
});
type Plan = z.infer<typeof planSchema>;

interface Written {
  readonly batchId: string;
  readonly count: number;
  readonly mailed: number;
}

interface WritingProps {
  readonly ids: readonly string[];
  readonly letters: readonly NoticeLetter[];
  readonly onIds: (ids: readonly string[]) => void;
}

function Writing({ ids, letters, onIds }: WritingProps) {
  const { today, people, me, name, visits } = useWorkspace();
  const { lookAt, write } = useNoticeActions();
  const fresh: Plan = { letterId: null, issued: null, signedBy: me.id, reason: '', mail: true, choices: {} };
  // What was said of them is there again after a detour: to the letter, to a client's address.
  const { draft: plan, change, forget } = useDraft<Plan>(`notices from ${ids[0]}`, fresh, planSchema);
  const { letterId, signedBy, reason, mail, choices } = plan;
  const issued = plan.issued ?? today;
  const set = (next: Partial<Plan>) => change({ ...plan, ...next });
  const choose = (taskId: string, next: Plan['choices'][string]) =>
    set({ choices: { ...choices, [taskId]: { ...choices[taskId], ...next } } });
  const [shown, setShown] = useState(0);
  const [drafts, setDrafts] = useState<readonly NoticeDraft[] | null>(null);
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [again, setAgain] = useState(0);
  const [busy, setBusy] = useState(false);
  const { follow, percent } = useSteps();
  const [written, setWritten] = useState<Written | null>(null);

  // The letter that is meant for what is chosen, until another is taken.
  const types = new Set(drafts?.map(({ workType }) => workType));
  const letter = letters.find(({ id }) => id === letterId) ?? meantFor(types, letters);
  const language = letter?.language ?? 'en-GB';
  const about = useMemo(
    () => ({ language, issuedOn: isoOfDay(issued), signedBy, ...(reason === '' ? {} : { reason }) }),
    [language, issued, signedBy, reason],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked again when that is pressed, or a visit was moved
  useEffect(() => {
    let isLatest = true;
    lookAt({ ...about, tasks: [...ids] }).then(
      (found) => {
        if (!isLatest) return;
        setDrafts(found);
        setProblem(null);
      },
      (error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
        if (isLatest) setProblem(error);
      },
    );
    return () => {
      isLatest = false;
    };
  }, [ids, about, again]);

  const days = useMemo(() => (drafts ?? []).map(({ on }) => dayOfIso(on)), [drafts]);
  useTide(
    useMemo<TideControl>(
      () => ({ chosen: null, spans: false, marks: { days, label: days.length === 1 ? 'this visit' : 'these visits' } }),
      [days],
    ),
  );
  if (written) return <DoneLine written={written} />;
  if (!drafts && problem) return <Trouble error={problem} retry={() => setAgain(again + 1)} />;
  if (!drafts || !letter) return <Skeleton rows={10} />;
  const wayOf = (draft: NoticeDraft) => choices[draft.taskId]?.way ?? usualWay(draft, today);
  const isMail = (draft: NoticeDraft) => draft.ways.some((way) => way.name === wayOf(draft) && way.kind === 'mail');
  const byMail = drafts.filter(isMail).length;
  const at = Math.min(shown, drafts.length - 1);
  const draft = drafts[at];
  const save = async () => {
    if (busy) return;
    setBusy(true);
    try {
      const done = await follow((key) =>
        write({
          follow: key,
          ...{ letterId: letter.id, letterVersion: letter.version, issuedOn: about.issuedOn, signedBy, mail },
          ...(reason === '' ? {} : { reason }),
          visits: drafts.map((of) => ({
            ...{ taskId: of.taskId, version: of.version, way: wayOf(of) },
            evenLate: choices[of.taskId]?.evenLate ?? false,
          })),
        }),
      );
      forget();
      setWritten(done);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error);
      sayTrouble(error);
    } finally {
      setBusy(false);
    }
  };
  /** What is wrong with one of them, as the server says it. */
  const wrongAt = (i: number) => problem?.problem.errors?.find(({ path }) => path.startsWith(`visits.${i}.`))?.message;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <title>Write notices · Jolly Rota</title>
      <div className="page-head">
        <h1>Write {plural(drafts.length, 'notice')}</h1>
        <span className="ml-auto text-row text-ink-2">Nothing is written yet.</span>
        <Link className="btn" to="/tasks/visits">
          Back to the visits
        </Link>
      </div>
      <div className="flex min-h-0 flex-1 max-[1000px]:flex-col max-[1000px]:overflow-y-auto">
        <div className="flex min-h-0 min-w-0 flex-[1.95] flex-col max-[1000px]:flex-none">
          <p className="border-b border-line-2 px-5 py-2 text-row leading-8">
            letter{' '}
            <ChoiceBlank
              label="Letter"
              value={letter.id}
              options={letters.map(({ id, name: of }) => [id, of] as const)}
              onChange={(id) => set({ letterId: id })}
            />{' '}
            issued <DateBlank label="Date of issue" value={issued} onChange={(day) => set({ issued: day })} /> signed by{' '}
            <ChoiceBlank
              label="Signed by"
              value={signedBy}
              options={people.map(({ id, name: of }) => [id, of] as const)}
              onChange={(id) => set({ signedBy: id })}
            />{' '}
            for{' '}
            <WordsBlank
              label="What is done there"
              shown={reason}
              placeholder="what each is about"
              wrong="200 characters at most"
              read={(text) => (text.trim().length > 200 ? undefined : text.trim())}
              onChange={(text) => set({ reason: text })}
            />
          </p>
          <ol className="min-h-0 flex-1 overflow-y-auto max-[1000px]:flex-none max-[1000px]:overflow-visible">
            {drafts.map((of, i) => (
              <DraftLine
                key={of.taskId}
                number={i + 1}
                draft={of}
                way={wayOf(of)}
                isShown={i === at}
                isLateAllowed={choices[of.taskId]?.evenLate ?? false}
                wrong={wrongAt(i)}
                onShow={() => setShown(i)}
                onWay={(way) => choose(of.taskId, { way })}
                onEvenLate={(evenLate) => choose(of.taskId, { evenLate })}
                onMoved={() => {
                  // By which way it goes stays as it stood: on its new day another might be the usual one.
                  choose(of.taskId, { way: wayOf(of) });
                  setAgain(again + 1);
                }}
                onLeave={drafts.length > 1 ? () => onIds(ids.filter((id) => id !== of.taskId)) : null}
              />
            ))}
            <MoreToSend ids={ids} onAdd={(id) => onIds([...ids, id])} />
          </ol>
          <footer className="flex flex-none flex-wrap items-center gap-x-5 gap-y-1 border-t-2 border-accent px-5 py-3">
            <button
              type="button"
              className="btn btn-primary"
              disabled={busy || drafts.length === 0}
              onClick={() => void save()}
            >
              Write {plural(drafts.length, 'notice')}
            </button>
            {byMail > 0 && (
              <label className="inline-flex items-center gap-2 text-row">
                <input
                  type="checkbox"
                  className="check"
                  checked={mail}
                  onChange={({ target }) => set({ mail: target.checked })}
                />
                mail {byMail === drafts.length ? (byMail === 1 ? 'it' : 'all of them') : `${byMail} of them`} at once
                and mark {byMail === 1 ? 'it' : 'them'} as sent
              </label>
            )}
            <span className="text-note text-ink-2" role="status">
              {busy && percent !== null
                ? `${percent} % written`
                : problem && !problem.problem.errors
                  ? problem.message
                  : `one PDF${drafts.length > 1 ? `, a page or more each` : ''}; kept with the visit as it is written`}
            </span>
          </footer>
        </div>
        <section
          aria-label="Page"
          className="flex min-h-0 flex-1 flex-col overflow-y-auto border-l border-line-2 bg-base-200 px-6 py-2.5 max-[1000px]:flex-none max-[1000px]:border-t max-[1000px]:border-l-0"
        >
          <div className="flex items-center gap-2 pb-2.5 text-row">
            page
            <Pager count={drafts.length} at={at} onShow={setShown} />
            <span className="text-note text-ink-2">dots below: filled in</span>
            <Link className="link-line ml-auto text-note" to={`/tasks/visits/letters/${letter.id}`}>
              Edit the letter
            </Link>
          </div>
          {draft && <Preview draft={draft} letter={letter} from={{ name, letterhead: visits.letterhead }} />}
        </section>
      </div>
    </div>
  );
}

/** Of those for what is chosen the one in our own language first; else any. */
function meantFor(types: ReadonlySet<string>, letters: readonly NoticeLetter[]): NoticeLetter | undefined {
  const fit = letters.filter(({ workType }) => workType !== null && types.size === 1 && types.has(workType));
  const some = fit.length > 0 ? fit : letters;
  return some.find(({ language }) => language === 'en-GB') ?? some[0];
}

/** By mail where an address is known and it is early enough, else by the way that leaves most time. */
function usualWay({ ways, email, values }: NoticeDraft, today: CivilDay): string {
  const can = ways.filter(({ kind }) => (kind === 'mail' ? email !== '' : kind !== 'post' || values.address !== ''));
  const inTime = can.filter(({ sendBy }) => dayOfIso(sendBy) >= today);
  const usual = inTime.find(({ kind }) => kind === 'mail') ?? inTime[0] ?? can[0] ?? ways[0];
  return usual?.name ?? '';
}

const PAGES_NAMED = 9;

function Pager({
  count,
  at,
  onShow,
}: {
  readonly count: number;
  readonly at: number;
  readonly onShow: (at: number) => void;
}) {
  const first = Math.max(0, Math.min(at - 4, count - PAGES_NAMED));
  const some = Array.from({ length: Math.min(count, PAGES_NAMED) }, (_, i) => first + i);
  return some.map((i) => (
    <button
      key={i}
      type="button"
      className="h-6 min-w-6 cursor-pointer rounded-[3px] px-1.5 aria-pressed:bg-accent aria-pressed:font-semibold aria-pressed:text-accent-content"
      aria-label={`Page of notice ${i + 1}`}
      aria-pressed={i === at}
      onClick={() => onShow(i)}
    >
      {i + 1}
    </button>
  ));
}

interface PreviewProps {
  readonly draft: NoticeDraft;
  readonly letter: NoticeLetter;
  readonly from: { readonly name: string; readonly letterhead: string };
}

function Preview({ draft, letter, from }: PreviewProps) {
  const { subject, body, empty } = fillLetter(letter, draft.values);
  return (
    <LetterPage
      language={letter.language}
      from={{ name: from.name, lines: headLines(from) }}
      to={draft.to}
      issued={draft.values.issued}
      replaces={draft.replacing}
      subject={subject}
      body={body}
      empty={empty}
    />
  );
}

function DoneLine({ written: { batchId, count, mailed } }: { readonly written: Written }) {
  const onPaper = count - mailed;
  return (
    <Empty title={`${plural(count, 'notice is', 'notices are')} written.`}>
      {mailed > 0 && (
        <>
          {mailed === count ? (count === 1 ? 'It is' : 'All are') : `${mailed} ${mailed === 1 ? 'is' : 'are'}`} on the
          way by mail and marked as sent.{' '}
        </>
      )}
      {onPaper > 0 && (
        <>
          {onPaper === count ? '' : `${onPaper} ${onPaper === 1 ? 'is' : 'are'} to go on paper: `}print{' '}
          {onPaper === 1 ? 'it' : 'them'}, and say among the visits when {onPaper === 1 ? 'it' : 'they'} went.
        </>
      )}
      <span className="mt-4 flex gap-3">
        <a className="btn btn-primary" href={paperOfNotices({ batch: batchId })} target="_blank" rel="noreferrer">
          Open the PDF
        </a>
        <Link className="btn" to="/tasks/visits">
          Back to the visits
        </Link>
      </span>
    </Empty>
  );
}
