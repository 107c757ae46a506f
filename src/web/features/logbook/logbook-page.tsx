import { Outlet } from 'react-router';
import { retentionAddresses, taskListAddresses } from '../../../contract/addresses-later.ts';
import { type LogFilter, MOST_RECORDED } from '../../../contract/index.ts';
import { dayOfIso } from '../../../core/index.ts';
import { useAnswer } from '../../kit/answer.ts';
import { Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDate } from '../../kit/ways.ts';
import { addressOfCsv, addressOfRecord, useRates } from './api.ts';
import { ChangesPart } from './changes-part.tsx';
import { FiguresBy } from './figures-by.tsx';
import { LogDays } from './log-days.tsx';
import { LogWords, useLogFilter } from './log-filter.tsx';
import { sayEntries } from './log-words.ts';
import { RatesPart } from './rates-part.tsx';
import { ReadingsPart } from './readings-part.tsx';

/** What was done and missed, by whom and when; how much of it was on time. */
export default function LogbookPage() {
  const view = useLogFilter();
  const { filter, shown, by, week } = view;
  const { data, error, mutate } = useRates(filter);
  const { data: ofWeek } = useRates(shown);
  const names = useNames(view.narrowed.length > 0 ? filter : null);
  return (
    <div className="flex min-h-0 flex-1">
      <title>Logbook · Jolly Rota</title>
      <div className="flex min-w-0 flex-1 flex-col">
        <div className="page-head">
          <h1>Logbook</h1>
          <LogWords view={view} names={names} />
          {/* What was done with tasks is no entry: neither counted among them nor on their paper. */}
          {view.changes === null && (
            <>
              <span className="ml-auto text-row whitespace-nowrap text-ink-2" role="status">
                {data && sayEntries(data.entries)}
                {week !== null && ofWeek && `, ${ofWeek.entries.toLocaleString('en-GB')} in the week chosen`}
              </span>
              {view.isOfOne && <RecordLink filter={shown} entries={(week === null ? data : ofWeek)?.entries} />}
              <a className="btn btn-primary inline-flex items-center" href={addressOfCsv(shown)} download>
                Save as CSV
              </a>
            </>
          )}
        </div>
        <div className="min-h-0 flex-1 overflow-y-auto border-t border-line-2 pt-2 pb-16">
          {error && !data && <Trouble error={error} retry={() => void mutate()} />}
          {!error && !data && <Skeleton rows={6} />}
          <LetGo from={filter.from} />
          {data && <RatesPart view={view} weeks={data.weeks} all={data.all} before={data.before} />}
          {view.changes !== null ? (
            <ChangesPart key={JSON.stringify([shown, view.changes])} filter={shown} what={view.changes} />
          ) : by === 'day' ? (
            <LogDays key={JSON.stringify(shown)} filter={shown} />
          ) : by === 'reading' ? (
            <ReadingsPart filter={shown} />
          ) : (
            <FiguresBy key={JSON.stringify([shown, by])} filter={shown} by={by} onOpen={(key) => view.open(by, key)} />
          )}
        </div>
      </div>
      <Outlet />
    </div>
  );
}

/** What is told of a time is not all that was done in it, where that is not kept any longer. */
function LetGo({ from }: { readonly from: string }) {
  const [last] = useAnswer(retentionAddresses.past, {}).data?.letGo ?? [];
  if (last === undefined || from >= last.before) return null;
  return (
    <p role="note" className="mx-5 mb-2 border-l-2 border-accent pl-2.5 text-row">
      What was due before {sayDate(dayOfIso(last.before))} is not kept any longer: it was let go on{' '}
      {sayDate(dayOfIso(last.on))}, but for the last one of each schedule. Figures begin after that.
    </p>
  );
}

interface RecordLinkProps {
  readonly filter: LogFilter;
  /** Undefined until it is known how many there are. */
  readonly entries: number | undefined;
}

/** All of it on paper, for whoever checks; not of more than anybody leafs through. */
function RecordLink({ filter, entries }: RecordLinkProps) {
  if (entries !== undefined && entries > MOST_RECORDED)
    return (
      <span className="text-note text-ink-2">
        PDF record: {MOST_RECORDED.toLocaleString('en-GB')} entries at most, choose a shorter time
      </span>
    );
  return (
    <a className="btn inline-flex items-center" href={addressOfRecord(filter)} target="_blank" rel="noreferrer">
      PDF record
    </a>
  );
}

/** What the ids in the address are called. */
function useNames(filter: { readonly [name: string]: unknown } | null): Readonly<Record<string, string>> {
  const of = filter ?? {};
  const ids = Object.fromEntries(
    ['client', 'asset', 'site', 'template', 'schedule'].flatMap((name) => {
      const value = of[name];
      return typeof value === 'string' ? [[name, value]] : [];
    }),
  );
  // Counted of one day alone: it is asked for the names.
  const day = typeof of['from'] === 'string' ? of['from'] : '';
  const { data } = useAnswer(
    taskListAddresses.sums,
    filter === null ? null : { query: { ...ids, from: day, to: day } },
  );
  return Object.fromEntries(
    Object.entries(data?.names ?? {}).flatMap(([name, one]) => (one === null ? [] : [[name, one.name]])),
  );
}
