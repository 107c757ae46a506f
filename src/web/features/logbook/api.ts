import { logbookAddresses, recordAddresses } from '../../../contract/addresses-later.ts';
import type { LOGGED_CHANGES, LogFilter, LogGrouping } from '../../../contract/index.ts';
import { LOG_ROWS_A_PAGE } from '../../../contract/index.ts';
import { useAnswer } from '../../kit/answer.ts';
import { type Answer, addressOf } from '../../kit/api.ts';
import { usePages } from '../../kit/pages.ts';

/** Told of days that are over, and long to add up where there are many: no news asks for it again, coming back to the window does. */
export const useRates = (filter: LogFilter) => useAnswer(logbookAddresses.rates, { query: filter });

/** Days with entries, as far back as they are looked at. */
export function useLogDays(filter: LogFilter) {
  type Page = Answer<typeof logbookAddresses.days>;
  const { pages, last, ...list } = usePages<Page>((before) =>
    before?.more === null
      ? null
      : addressOf(logbookAddresses.days, { query: { ...filter, ...(before?.more ? { before: before.more } : {}) } }),
  );
  return {
    ...list,
    days: pages.flatMap(({ days }) => days),
    isHere: pages.length > 0,
    isMore: last !== undefined && last.more !== null,
  };
}

/** All entries of a day; null while they are not asked for. */
export const useLogDay = (filter: LogFilter, on: string | null) =>
  useAnswer(logbookAddresses.day, on === null ? null : { query: { ...filter, on } });

/** The figures of each client, schedule and so on, page by page. */
export function useFiguresBy(filter: LogFilter, by: LogGrouping) {
  const { pages, last, ...list } = usePages<Answer<typeof logbookAddresses.by>>((before) => {
    const start = before === null ? 0 : before.start + LOG_ROWS_A_PAGE;
    if (before !== null && start >= before.count) return null;
    return addressOf(logbookAddresses.by, { query: { ...filter, by, start } });
  });
  const rows = pages.flatMap((page) => page.rows);
  return {
    ...list,
    rows,
    count: last?.count,
    isHere: pages.length > 0,
    isMore: last !== undefined && rows.length < last.count,
  };
}

/** What was deleted or given on, as far back as it is looked at. */
export function useLoggedChanges({ kind: _, ...filter }: LogFilter, what: (typeof LOGGED_CHANGES)[number]) {
  const { pages, last, ...list } = usePages<Answer<typeof logbookAddresses.changes>>((before) =>
    before?.more === null
      ? null
      : addressOf(logbookAddresses.changes, {
          query: { ...filter, what, ...(before?.more ? { after: before.more } : {}) },
        }),
  );
  return {
    ...list,
    changes: pages.flatMap((page) => page.changes),
    isHere: pages.length > 0,
    isMore: last !== undefined && last.more !== null,
  };
}

export const useReadings = (filter: LogFilter) => useAnswer(logbookAddresses.readings, { query: filter });

/** Where the entries are had as a file. */
export const addressOfCsv = (filter: LogFilter): string => addressOf(logbookAddresses.csv, { query: filter });

/** Where they are had on paper, of one client, asset, site, template or schedule. */
export const addressOfRecord = (filter: LogFilter): string => addressOf(recordAddresses.period, { query: filter });
