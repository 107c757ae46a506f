import {
  type Assigner,
  type Assignment,
  type AssignmentRule,
  asksForLoad,
  assigner,
  type CivilDay,
  type DatedOccurrence,
  datesBetweenOf,
  isDated,
  Loads,
  minutesOfHolder,
  type OfParts,
  People,
  type PlannedOccurrence,
  type PlannedSchedule,
  partAssigner,
  peopleHere,
  type SetPart,
  ticketsOfHolder,
  type WorkBeside,
  type WorkingCalendar,
} from '../../../core/index.ts';
import type { Colleagues } from '../people/colleagues.ts';

/** What tells who has each date of a schedule; it can be handed to a worker. */
export interface WhoQuestion {
  readonly rule: AssignmentRule;
  readonly colleagues: Colleagues;
  readonly usualPersonId: string | null;
  readonly parts: readonly SetPart[];
}

const known = new WeakMap<Colleagues, People>();

/** Everybody who may be given work; nobody until they are known. */
export function peopleFor(who: Pick<WhoQuestion, 'colleagues'> | null): People {
  if (who === null) return NOBODY_KNOWN;
  const people = known.get(who.colleagues) ?? peopleHere(who.colleagues.colleagues);
  known.set(who.colleagues, people);
  return people;
}

const NOBODY_KNOWN = new People(new Map(), () => []);

/** Who does the tasks of its sets that say so themselves, as the server tells it; nobody until people are known. */
export function partsFor(who: WhoQuestion | null, calendar: WorkingCalendar): OfParts {
  const people = peopleFor(who);
  return partAssigner({
    ...{ calendar, people, usualPersonId: who?.usualPersonId ?? null },
    loads: new Loads(people.workers, (day) => calendar.holidayName(day) !== undefined, who?.colleagues.weeks ?? []),
  });
}

/** Who has each date, computed as the server does. */
export function assignerOf(
  { rule, colleagues, usualPersonId, parts }: WhoQuestion,
  schedule: PlannedSchedule,
  calendar: WorkingCalendar,
): Assigner {
  const people = peopleFor({ colleagues });
  return assigner(rule, {
    ...{ calendar, people, usualPersonId, tickets: ticketsOfHolder(parts) },
    datesBetween: datesBetweenOf(schedule, calendar, rule),
    estimateMinutes: minutesOfHolder(parts),
    loads: new Loads(people.workers, (day) => calendar.holidayName(day) !== undefined, colleagues.weeks),
  });
}

/** What everybody has to do in the weeks that are made, without the schedule that is looked at. */
export function workBeside(
  { colleagues, parts }: WhoQuestion,
  calendar: WorkingCalendar,
  madeTo: CivilDay,
): WorkBeside {
  const { workers } = peopleFor({ colleagues });
  const others = colleagues.weeks.map(({ own, minutes, ...week }) => ({ ...week, minutes: minutes - own }));
  const loads = new Loads(workers, (day) => calendar.holidayName(day) !== undefined, others);
  return { of: (personId, day) => loads.of(personId, day), madeTo, minutes: minutesOfHolder(parts) };
}

/** Until it is known who is there: nobody, without a reason. */
export const NOT_KNOWN_YET: Assigner = () => ({ kind: 'nobody', why: null });

/**
 * The same, asked in the order of the days and remembered: where the load decides, each date counts for the ones after it, and
 * whoever asks again gets the same answer.
 */
export function remembered(whose: Assigner, rule: AssignmentRule, first: readonly PlannedOccurrence[]): Assigner {
  const known = new Map<number, Assignment>();
  const ask = (occurrence: DatedOccurrence): Assignment => {
    const before = known.get(occurrence.nominal);
    if (before) return before;
    const found = whose(occurrence);
    known.set(occurrence.nominal, found);
    return found;
  };
  if (asksForLoad(rule)) for (const one of first) if (isDated(one)) ask(one);
  return ask;
}

/** Whether different people may have different dates. */
export function hasSeveral(rule: AssignmentRule): boolean {
  return rule.kind === 'inTurn' || rule.kind === 'listed' || rule.kind === 'leastToDo';
}
