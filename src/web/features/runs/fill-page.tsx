import { useEffect, useMemo, useState } from 'react';
import { Outlet } from 'react-router';
import type { FillDay, FillInput, FillRow, Run } from '../../../contract/index.ts';
import { type CivilDay, isoOfDay, monthIndexOf, monthOf, monthShort, monthStart, plural } from '../../../core/index.ts';
import { type TideControl, useTide } from '../../app/shell/shell-context.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ProblemError } from '../../kit/api.ts';
import { DateBlank } from '../../kit/blanks.tsx';
import { Skeleton } from '../../kit/states.tsx';
import { useFitting } from '../schedules/fitting.ts';
import { useFill, useRuns } from './api.ts';
import { FillYear } from './fill-year.tsx';
import { RunLog } from './run-log.tsx';

const NO_TIDE: TideControl = { chosen: null, spans: false };
const MONTHS_SHOWN = 12;

/** Makes now what the daily run would make later: chosen, rehearsed, made with progress; and the log of all runs. */
export default function FillPage() {
  const { may, today, horizonDays } = useWorkspace();
  useTide(NO_TIDE);
  const nextMonth = monthIndexOf(today + horizonDays) + 1;
  const [span, setSpan] = useState({ from: monthStart(nextMonth), to: monthStart(nextMonth + 1) - 1 });
  const [words, setWords] = useState('');
  const [category, setCategory] = useState('');
  const { chosen, trouble } = useChosen(words, category);
  const input = useMemo<FillInput | null>(
    () =>
      chosen && {
        from: isoOfDay(span.from),
        to: isoOfDay(span.to),
        scheduleIds: chosen.isAll ? [] : chosen.ids,
      },
    [span, chosen],
  );
  const rehearsed = useRehearsal(may('plan') ? input : null, chosen?.ids.length === 0);
  const { rows, days } = rehearsed;
  const problem = trouble ?? rehearsed.problem;
  return (
    <div className="flex min-h-0 flex-1">
      <title>Fill a period · Jolly Rota</title>
      <div className="min-w-0 flex-1 overflow-auto pb-16">
        <div className="page-head flex-wrap">
          <h1>{may('plan') ? 'Fill a period' : 'Run log'}</h1>
          {may('plan') && (
            <span className="text-row text-ink-2">makes the tasks now that the daily run would make later</span>
          )}
          {/* What was rehearsed of another choice stands until it is answered, but is not what would be made. */}
          {may('plan') && <Make input={input} rows={rehearsed.isOfThis ? rows : null} />}
        </div>
        {may('plan') && (
          <>
            <div className="flex flex-wrap items-start gap-x-8 gap-y-2 border-t border-line-2 px-5 py-2.5 text-row leading-7.5">
              <div>
                from <DateBlank label="From" value={span.from} onChange={(from) => setSpan({ ...span, from })} /> to{' '}
                <DateBlank label="To" value={span.to} onChange={(to) => setSpan({ ...span, to })} />
                <br />
                for <CategoryChoice value={category} onChange={setCategory} /> with{' '}
                <input
                  className="blank w-40"
                  type="search"
                  aria-label="Schedules with these words"
                  placeholder="any words"
                  value={words}
                  onChange={({ target }) => setWords(target.value)}
                />
              </div>
              <Months span={span} onSpan={setSpan} />
            </div>
            {problem && (
              <p role="alert" className="field-error px-5 pb-2">
                {problem}
              </p>
            )}
            {!problem && rows === null && <Skeleton rows={6} />}
            {rows && days.length > 0 && <FillYear from={span.from} to={span.to} days={days} />}
            {rows && <RehearsalTable rows={rows} />}
            <Progress />
          </>
        )}
        <RunLog />
      </div>
      <Outlet />
    </div>
  );
}

/** The schedules that fit the filter; null while they are on their way, or can't be had. */
function useChosen(words: string, category: string) {
  const { data, isLoading, error } = useFitting({
    ...(category ? { category } : {}),
    ...(words.trim() ? { find: words } : {}),
  });
  // Until those of this choice are here, nothing is rehearsed or made of the one before.
  return { chosen: isLoading || error ? null : (data ?? null), trouble: error?.message ?? null };
}

interface Rehearsed {
  readonly rows: readonly FillRow[] | null;
  readonly days: readonly FillDay[];
  readonly problem: string | null;
  /** Whether it is the answer to what is asked now. */
  readonly isOfThis: boolean;
}

const REHEARSAL_PAUSE_MS = 250;

/** What a fill would make, asked for when the choice has stood still for a moment. */
function useRehearsal(input: FillInput | null, isEmpty: boolean): Rehearsed {
  const { rehearse } = useFill();
  const [answer, setAnswer] = useState<Omit<Rehearsed, 'isOfThis'> & { readonly to: string }>({
    ...{ rows: null, days: [], problem: null },
    to: '',
  });
  const { data } = useRuns();
  // A run that has made something since changes what is there already.
  const last = data?.runs[0];
  const since = last ? `${last.id} ${last.state} ${last.made}` : '';
  const to = `${JSON.stringify(input)} ${since}`;
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked for anew when the words of the question change, or a run is over
  useEffect(() => {
    if (isEmpty) return setAnswer({ rows: [], days: [], problem: null, to });
    if (input === null) return;
    let isOld = false;
    const timer = setTimeout(() => {
      rehearse(input).then(
        (rehearsed) => {
          if (!isOld) setAnswer({ ...rehearsed, problem: null, to });
        },
        (error: unknown) => {
          if (!(error instanceof ProblemError)) throw error;
          if (!isOld) setAnswer({ rows: null, days: [], problem: error.message, to });
        },
      );
    }, REHEARSAL_PAUSE_MS);
    return () => {
      isOld = true;
      clearTimeout(timer);
    };
  }, [to, isEmpty]);
  return { ...answer, isOfThis: input !== null && answer.to === to };
}

function CategoryChoice({ value, onChange }: { readonly value: string; readonly onChange: (value: string) => void }) {
  const { categories } = useWorkspace();
  return (
    <select className="blank" aria-label="Category" value={value} onChange={({ target }) => onChange(target.value)}>
      <option value="">all schedules</option>
      {categories.map(({ name }) => (
        <option key={name} value={name}>
          schedules of {name}
        </option>
      ))}
    </select>
  );
}

interface Span {
  readonly from: CivilDay;
  readonly to: CivilDay;
}

/** The coming months, to be chosen by a press, or from one to another with Shift. */
function Months({ span, onSpan }: { readonly span: Span; readonly onSpan: (span: Span) => void }) {
  const { today } = useWorkspace();
  const first = monthIndexOf(today);
  return (
    <fieldset className="flex flex-wrap">
      <legend className="sr-only">Months; with Shift, up to another</legend>
      {Array.from({ length: MONTHS_SHOWN }, (_, i) => first + i).map((index) => {
        const [from, to] = [Math.max(today, monthStart(index)), monthStart(index + 1) - 1];
        const isIn = from >= span.from && to <= span.to;
        const { year, month } = monthOf(index);
        return (
          <button
            key={index}
            type="button"
            aria-pressed={isIn}
            className={`w-[54px] cursor-pointer border border-line-2 py-1 leading-4.5 [&+&]:border-l-0 ${isIn ? 'bg-chosen shadow-[inset_0_-3px_0_var(--color-accent)]' : ''}`}
            onClick={(event) =>
              onSpan(event.shiftKey ? { from: Math.min(span.from, from), to: Math.max(span.to, to) } : { from, to })
            }
          >
            <b className="font-semibold">{monthShort(month)}</b>
            <span className="block text-note text-ink-2">{year}</span>
          </button>
        );
      })}
    </fieldset>
  );
}

/** Starts the fill that has been rehearsed. */
function Make({ input, rows }: { readonly input: FillInput | null; readonly rows: readonly FillRow[] | null }) {
  const { start } = useFill();
  const [busy, setBusy] = useState(false);
  const [refusal, setRefusal] = useState<string | null>(null);
  const total = rows?.reduce((sum, row) => sum + row.new, 0) ?? 0;
  const make = async () => {
    if (!input || busy) return;
    setBusy(true);
    setRefusal(null);
    try {
      await start(input);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setRefusal(error.message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <span className="ml-auto text-right text-note leading-4 text-late" role="status">
        {refusal}
      </span>
      <button type="button" className="btn btn-primary" disabled={total === 0 || busy} onClick={() => void make()}>
        {rows === null ? 'Rehearsing …' : total === 0 ? 'Nothing to make' : `Make ${plural(total, 'task')}`}
      </button>
    </>
  );
}

const COLUMNS = [
  ['new', 'new'],
  ['there', 'already there'],
  ['paused', 'paused'],
  ['dayOff', 'day off'],
  ['skipped', 'skipped'],
  ['deleted', 'deleted on purpose'],
] as const;

/** The schedules of one template together: what a manager thinks of as one piece of work. */
function byTemplate(rows: readonly FillRow[]): (FillRow & { readonly schedules: number })[] {
  const groups = new Map<string, FillRow & { schedules: number }>();
  for (const row of rows) {
    const known = groups.get(row.template);
    if (!known) {
      groups.set(row.template, { ...row, schedules: 1 });
      continue;
    }
    for (const [key] of COLUMNS) known[key] += row[key];
    known.schedules++;
    if (row.remark !== '' && !known.remark.includes(row.remark))
      known.remark = [known.remark, row.remark].filter(Boolean).join('; ');
  }
  return [...groups.values()];
}

function RehearsalTable({ rows }: { readonly rows: readonly FillRow[] }) {
  const shown = rows.filter((row) => row.remark !== 'no date in this period');
  const without = rows.length - shown.length;
  const sum = (key: (typeof COLUMNS)[number][0]) => rows.reduce((total, row) => total + row[key], 0);
  return (
    <table className="tt is-static min-w-[1120px] border-t border-line-2 [&_td]:h-[29px]">
      <caption className="sr-only">What would be made, by template</caption>
      <colgroup>
        <col />
        {COLUMNS.map(([key]) => (
          <col key={key} style={{ width: key === 'deleted' ? 150 : 104 }} />
        ))}
        <col style={{ width: 190 }} />
      </colgroup>
      <thead>
        <tr>
          <th scope="col">schedules of</th>
          {COLUMNS.map(([key, words]) => (
            <th key={key} scope="col" className="num">
              {words}
            </th>
          ))}
          <th scope="col">why</th>
        </tr>
      </thead>
      <tbody>
        {byTemplate(shown).map((row) => (
          <tr key={row.template}>
            <td>
              <b className="font-semibold">{row.template}</b>
              <span className="ml-2 text-ink-2">
                {row.schedules === 1 ? row.about : plural(row.schedules, 'schedule')}
              </span>
            </td>
            {COLUMNS.map(([key]) => (
              <td key={key} className={`num ${key === 'new' ? 'font-semibold' : ''}`}>
                {row[key] === 0 ? <span className="text-ink-2">·</span> : row[key]}
              </td>
            ))}
            <td className="text-ink-2">{row.remark}</td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <td>
            <b className="font-semibold">{plural(shown.length, 'schedule')}</b>
            {without > 0 && <span className="ml-2 text-ink-2">and {without} with no date here</span>}
          </td>
          {COLUMNS.map(([key]) => (
            <td key={key} className="num font-head text-touch font-semibold">
              {sum(key)}
            </td>
          ))}
          <td />
        </tr>
      </tfoot>
    </table>
  );
}

const LOOK_AGAIN_MS = 500;

/** A fill that is going on, here or elsewhere. */
function Progress() {
  const { data, mutate } = useRuns();
  const running: Run | undefined = data?.runs.find(({ state }) => state === 'running');
  const { undo } = useFill();
  useEffect(() => {
    if (!running) return;
    const timer = setInterval(() => void mutate(), LOOK_AGAIN_MS);
    return () => clearInterval(timer);
  }, [running, mutate]);
  if (!running) return null;
  const share = running.total === 0 ? 0 : running.made / running.total;
  return (
    <div className="border-y-2 border-primary bg-base-200 px-5 py-2.5 text-row" role="status">
      <p className="flex items-center gap-4">
        <b className="font-semibold">
          {running.made} of {running.total} made
        </b>
        <span className="ml-auto text-ink-2">You can leave this page; it carries on and stays in the run log.</span>
        <button type="button" className="btn" onClick={() => void undo(running)}>
          Stop and take back
        </button>
      </p>
      <div className="mt-1.5 h-2 bg-base-300">
        <i className="block h-2 bg-primary" style={{ width: `${share * 100}%` }} />
      </div>
    </div>
  );
}
