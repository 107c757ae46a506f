import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { MOST_BRING_ROWS } from '../../../contract/index.ts';
import {
  BRING_KINDS,
  BRING_RIGHTS,
  BRING_WORDS,
  type BringKind,
  bringFields,
  dayOfIso,
  plural,
} from '../../../core/index.ts';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import { ProblemError } from '../../kit/api.ts';
import { FieldError } from '../../kit/field-error.tsx';
import { NotAllowed } from '../../kit/states.tsx';
import { sayDay, timeOf } from '../../kit/ways.ts';
import { PLACES, sendList, useBringIns } from './api.ts';

const STATES = { open: 'not brought in yet', done: 'brought in', undone: 'taken out again' } as const;

/** What a line of a list says, behind "A line is one …". */
const LINE_WORDS: Readonly<Record<BringKind, string>> = {
  clients: ', with a contact and one thing of theirs; who has several stands on several lines.',
  people: '. Nobody is invited by it: that is done on their page.',
  schedules:
    ': which template, for whom, when and who does it. When is read as on the bench: “every second Tuesday”, “on the last working day of the month”.',
  tasks: ' that is still to be done, on a day, of no schedule.',
  templates: ', or one step of it: lines with the same name go together, in their order.',
  history:
    ', as an earlier system has it. It stands in the logbook as if it had been finished here; done without a time of day is done at noon.',
};

/** Where a file is chosen, and those stand that were begun. */
export function StartPage() {
  const [search] = useSearchParams();
  const { may, clientFields, assetFields } = useWorkspace();
  const asked = search.get('kind');
  const kind: BringKind = BRING_KINDS.find((one) => one === asked) ?? 'clients';
  const right = BRING_RIGHTS[kind];
  const { one, many } = BRING_WORDS[kind];
  const to = PLACES[kind];
  const today = useToday();
  const bringIns = useBringIns();
  if (!may(right)) return <NotAllowed right={right} what={`bring in ${many}`} to={to} back="Back to the list" />;
  const before = bringIns.data?.bringIns.filter((one) => one.kind === kind) ?? [];
  const names = bringFields(kind, { client: clientFields, asset: assetFields }).map(({ name }) => name);
  return (
    <div className="min-h-0 flex-1 overflow-y-auto">
      <title>{`Bring in ${many} · Jolly Rota`}</title>
      <div className="page-head">
        <h1>Bring in {many}</h1>
        <nav className="flex flex-wrap gap-x-4 gap-y-1 text-row" aria-label="What is brought in">
          {BRING_KINDS.filter((other) => may(BRING_RIGHTS[other])).map((other) => (
            <Link
              key={other}
              className={other === kind ? 'border-b-2 border-accent font-semibold' : 'link-line'}
              aria-current={other === kind ? 'page' : undefined}
              to={`/bring-in?kind=${other}`}
            >
              {BRING_WORDS[other].many}
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
            Any list saved as CSV: from a spreadsheet, another program, or taken out of here. Its first line names the
            columns; up to {MOST_BRING_ROWS.toLocaleString('en-GB')} lines. A line is one {one}
            {LINE_WORDS[kind]}
          </p>
          <p className="mt-2 text-row leading-5.5 text-ink-2">Known columns: {names.join(' · ')}.</p>
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
                    <span className="text-ink-2">{plural(rowCount, 'line')}</span>
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
  const take = async (file: File | undefined) => {
    if (!file || share !== null) return;
    setProblem(null);
    setShare(0);
    try {
      void navigate(`/bring-in/${await sendList(file, kind, setShare)}`);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error.problem.errors?.[0]?.message ?? error.message);
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
            ? 'Choose a CSV file, or drop it here'
            : share < 1
              ? `Sending, ${Math.round(share * 100)} %`
              : 'Reading …'}
        </span>
        <span className="text-ink-2">Nothing is written by that.</span>
        <input
          type="file"
          className="sr-only"
          aria-label="The file"
          accept=".csv,.txt,.tsv,text/csv,text/plain"
          disabled={share !== null}
          onChange={({ target }) => {
            void take(target.files?.[0]);
            target.value = '';
          }}
        />
      </label>
      {problem && <FieldError message={problem} />}
    </>
  );
}
