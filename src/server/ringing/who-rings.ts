import {
  minutesFor,
  type People,
  peopleHere,
  type Quota,
  type QuotaTerms,
  type Spread,
  spreadCalls,
  termsOn,
  type Worker,
} from '../../core/index.ts';
import { colleagues } from '../people/index.ts';
import type { Scope } from '../platform/scope.ts';

/** Everybody here as they may be given calls, with their names, and the days off of the workspace. */
export interface Ringing {
  readonly people: People;
  readonly names: ReadonlyMap<string, string>;
  readonly isHoliday: (day: number) => boolean;
}

export async function ringing(scope: Scope): Promise<Ringing> {
  const people = peopleHere(await colleagues(scope));
  const names = await scope.peopleNames();
  const calendar = await scope.calendar();
  return { people, names, isHoliday: (day) => calendar.holidayName(day) !== undefined };
}

/** Who rings by the terms of a quota, in the order of their names. */
export function workersOf({ people, names }: Ringing, { group }: Pick<QuotaTerms, 'group'>): Worker[] {
  return people
    .of(group)
    .flatMap((id) => people.workers.get(id) ?? [])
    .sort((a, b) => (names.get(a.id) ?? '').localeCompare(names.get(b.id) ?? '') || (a.id < b.id ? -1 : 1));
}

/** Those of them who work on a day: their hours, no holiday, no leave. */
export const atWork = (here: Ringing, terms: Pick<QuotaTerms, 'group'>, day: number): Worker[] =>
  workersOf(here, terms).filter((worker) => isAtWork(here, worker, day));

export const isAtWork = ({ isHoliday }: Pick<Ringing, 'isHoliday'>, worker: Worker, day: number): boolean =>
  minutesFor(worker, day, { isHoliday: isHoliday(day) }) > 0;

/** The calls of some terms of a quota, on the days on which they are in force. */
export function spreadOf(here: Ringing, quota: Quota, terms: QuotaTerms): Spread {
  return spreadCalls(terms.amount, workersOf(here, terms), {
    isHoliday: here.isHoliday,
    isIn: (day) => termsOn(quota, day) === terms,
  });
}

/** How many calls a quota asks of somebody on a day, whatever it says then. */
export function wantedOn(here: Ringing, quota: Quota): (personId: string, day: number) => number {
  const spreads = new Map<QuotaTerms, { readonly spread: Spread; readonly ids: ReadonlySet<string> }>();
  return (personId, day) => {
    const terms = termsOn(quota, day);
    if (terms === null) return 0;
    const known = spreads.get(terms) ?? {
      spread: spreadOf(here, quota, terms),
      ids: new Set(workersOf(here, terms).map(({ id }) => id)),
    };
    spreads.set(terms, known);
    return known.ids.has(personId) ? known.spread.on(personId, day) : 0;
  };
}
