import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { z } from 'zod';
import { MOST_BRING_ROWS } from '../../../contract/index.ts';
import {
  BRING_KINDS,
  BRING_RIGHTS,
  BRING_WORDS,
  type BringKind,
  bringFields,
  dayOfIso,
  sayLines,
} from '../../../core/index.ts';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import { ProblemError } from '../../kit/api.ts';
import { useDraft } from '../../kit/draft.ts';
import { FieldError } from '../../kit/field-error.tsx';
import { NotAllowed } from '../../kit/states.tsx';
import { sayDay, timeOf } from '../../kit/ways.ts';
import { PLACES, sendList, useBringIns } from './api.ts';

const MOST = MOST_BRING_ROWS.toLocaleString('en-GB');

const STATES = { open: 'not brought in yet', done: 'brought in', undone: 'taken out again' } as const;

/** What a file is, what a line of it says, and what comes of it. */
const FILE_WORDS: Readonly<Record<BringKind, string>> = {
  clients: 'A line is one client, with a contact and one thing of theirs; who has several stands on several lines.',
  people: 'A line is one person. Nobody is invited by it: that is done on their page.',
  schedules:
    'A line is one schedule: which template, for whom, when and who does it. When is read as on the bench: “every 2 weeks on Tuesday”, “on the last working day of the month”.',
  tasks: 'A line is one task that is still to be done, on a day of its own.',
  templates: 'A line is one template, or one step of it: lines with the same name go together, in their order.',
  history:
    'A line is one finished task of an earlier system. It stands in the logbook as if it had been finished here; what was done at no time of day was done at noon.',
  calendar:
    'What repeats becomes schedules, what stands on one day becomes tasks, holidays become days off, to-dos without a day become templates. A calendar that was brought in before is known again.',
};

/** Where a file is chosen, and those stand that were begun. */
export function StartPage() {
  const [search] = useSearchParams();
  const { may, clientFields, assetFields } = useWorkspace();
  const asked = search.get('kind');
  const kind: BringKind = BRING_KINDS.find((one) => one === asked) ?? 'clients';
  const right = BRING_RIGHTS[kind];
  const { many, all = many } = BRING_WORDS[kind];
  const to = PLACES[kind];
  const today = useToday();
  const bringIns = useBringIns();
  if (!may(right)) return <NotAllowed right={right} what={`bring in ${all}`} to={to} back="Back to the list" />;
  const before = bringIns.data?.bringIns.filter((one) => one.kind === kind) ?? [];
  const names = bringFields(kind, { client: clientFields, asset: assetFields }).map(({ name }) => name);
  return (
    <div className="min-h-0 flex-1 overflow-y-auto">
      <title>{`Bring in ${all} · Jolly Rota`}</title>
      <div className="page-head">
        <h1>Bring in {all}</h1>
        <nav className="flex flex-wrap gap-x-4 gap-y-1 text-row" aria-label="What is brought in">
          {BRING_KINDS.filter((other) => may(BRING_RIGHTS[other])).map((other) => (
            <Link
              key={other}
              className={other === kind ? 'border-b-2 border-accent font-semibold' : 'link-line'}
              aria-current={other === kind ? 'page' : undefined}
              to={`/bring-in?kind=${other}`}
            >
              {BRING_WORDS[other].all ?? BRING_WORDS[other].many}
            </Link>
          ))}
        </nav>
        <Link className="link-line ml-auto text-note" to={to}>
          Back to the list
        </Link>
      </div>
      <div className="border-t border-line-2">
        <div className="max-w-[760px] px-5 py-5 max-[720px]:px-4">
          <Choosing kind={kind} />
          <p className="mt-4 text-row leading-5.5">
            {kind === 'calendar'
              ? `Any calendar saved as iCalendar (.ics), from whatever program; up to ${MOST} entries. `
              : `Any list saved as CSV: from a spreadsheet, another program, or taken out of here. Its first line names the columns; up to ${MOST} lines. `}
            {FILE_WORDS[kind]}
          </p>
          {kind !== 'calendar' && (
            <p className="mt-2 text-row leading-5.5 text-ink-2">Known columns: {names.join(' · ')}.</p>
          )}
          {before.length > 0 && (
            <section className="mt-6 border-t border-line-2 pt-2.5">
              <h2 className="text-body leading-5.5 text-primary">Before</h2>
              <ul>
                {before.map(({ id, fileName, rowCount, state, at }) => (
                  <li
                    key={id}
                    className="relative flex min-h-9 items-center gap-4 border-b border-line text-row hover:bg-base-200"
                  >
                    <Link
                      className="min-w-0 truncate font-semibold before:absolute before:inset-0 before:content-['']"
                      to={`/bring-in/${id}`}
                    >
                      {fileName}
                    </Link>
                    <span className="text-ink-2">{sayLines(kind, rowCount)}</span>
                    <span className={`ml-auto ${state === 'open' ? 'font-semibold' : 'text-ink-2'}`}>
                      {STATES[state]}
                    </span>
                    <span className="text-note whitespace-nowrap text-ink-2">
                      {sayDay(dayOfIso(at.slice(0, 10)), today)}, {timeOf(at)}
                    </span>
                  </li>
                ))}
              </ul>
            </section>
          )}
        </div>
      </div>
    </div>
  );
}

function Choosing({ kind }: { readonly kind: BringKind }) {
  const navigate = useNavigate();
  const [isOver, setOver] = useState(false);
  const [share, setShare] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const take = async (file: File | undefined): Promise<boolean> => {
    if (!file || share !== null) return false;
    setProblem(null);
    setShare(0);
    try {
      void navigate(`/bring-in/${await sendList(file, kind, setShare)}`);
      return true;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error.problem.errors?.[0]?.message ?? error.message);
      return false;
    } finally {
      setShare(null);
    }
  };
  return (
    <>
      <label
        className={`flex min-h-24 cursor-pointer flex-col items-center justify-center gap-1 rounded-field border border-dashed px-4 text-row focus-within:shadow-focus ${isOver ? 'border-primary bg-chosen' : 'border-line-2 bg-base-200'}`}
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(event) => {
          event.preventDefault();
          setOver(false);
          void take(event.dataTransfer.files[0]);
        }}
      >
        <span className="text-body font-semibold">
          {share === null
            ? `Choose a ${kind === 'calendar' ? 'calendar' : 'CSV'} file, or drop it here`
            : share < 1
              ? `Sending, ${Math.round(share * 100)} %`
              : 'Reading …'}
        </span>
        <span className="text-ink-2">Nothing is written by that.</span>
        <input
          type="file"
          className="sr-only"
          aria-label="The file"
          accept={kind === 'calendar' ? '.ics,.ical,.ifb,text/calendar' : '.csv,.txt,.tsv,text/csv,text/plain'}
          disabled={share !== null}
          onChange={({ target }) => {
            void take(target.files?.[0]);
            target.value = '';
          }}
        />
      </label>
      {kind === 'calendar' && <Pasted isBusy={share !== null} onTake={take} />}
      {problem && <FieldError message={problem} />}
    </>
  );
}

/** A calendar as text, from wherever it could be copied. */
function Pasted({ isBusy, onTake }: { readonly isBusy: boolean; readonly onTake: (file: File) => Promise<boolean> }) {
  const { draft, change, forget } = useDraft('pasted-calendar', '', z.string());
  return (
    <div className="mt-3">
      <textarea
        className="writing h-20 w-full font-mono text-note"
        aria-label="A calendar as text"
        placeholder="or paste one here: BEGIN:VCALENDAR …"
        value={draft}
        disabled={isBusy}
        onChange={({ target }) => change(target.value)}
      />
      {draft.trim() !== '' && (
        <button
          type="button"
          className="btn mt-1.5"
          disabled={isBusy}
          onClick={() =>
            void onTake(new File([draft], 'pasted calendar.ics', { type: 'text/calendar' })).then(
              (isTaken) => isTaken && forget(),
            )
          }
        >
          Read it
        </button>
      )}
    </div>
  );
}
