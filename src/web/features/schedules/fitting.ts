import useSWR, { type SWRResponse } from 'swr';
import { scheduleAddresses } from '../../../contract/addresses.ts';
import type { ScheduleFilter } from '../../../contract/index.ts';
import { problemOf } from '../../../contract/problems.ts';
import { addressOf, ask, ProblemError } from '../../kit/api.ts';

/** Schedules that fit a filter, by their ids and versions alone, in their order. */
export interface Fitting {
  readonly ids: string[];
  readonly versions: readonly number[];
  /** Whether the filter leaves none out. */
  readonly isAll: boolean;
}

/** The pages of a list that changes between them don't belong together: it is read again, so many times. */
const MOST_TRIES = 5;

/** All that fit. @throws ProblemError */
export async function allFitting(filter: ScheduleFilter): Promise<Fitting> {
  for (let tries = 0; tries < MOST_TRIES; tries++) {
    const whole = await readOnce(filter);
    if (whole) return whole;
  }
  throw new ProblemError(
    problemOf('changed-meanwhile', 'The schedules change faster than they can be read. Try again in a moment.'),
  );
}

async function readOnce(filter: ScheduleFilter): Promise<Fitting | null> {
  const first = await ask(scheduleAddresses.fitting, { query: filter });
  const pages = [first];
  for (let start = first.more; start !== null; ) {
    const page = await ask(scheduleAddresses.fitting, { query: { ...filter, start } });
    // Pages go on: one that leads back is no page of this list.
    if (page.mark !== first.mark || (page.more !== null && page.more <= start)) return null;
    pages.push(page);
    start = page.more;
  }
  return {
    ids: pages.flatMap(({ ids }) => ids),
    versions: pages.flatMap(({ versions }) => versions),
    isAll: first.isAll,
  };
}

/** The same, kept fresh by the live stream; null asks nothing. */
export function useFitting(filter: ScheduleFilter | null): SWRResponse<Fitting, ProblemError> {
  return useSWR<Fitting, ProblemError>(
    filter && `${addressOf(scheduleAddresses.fitting, { query: filter })}#whole`,
    () => allFitting(filter as ScheduleFilter),
    { keepPreviousData: true },
  );
}
