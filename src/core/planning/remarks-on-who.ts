import type { Assignment } from '../assignment/assignment.ts';
import type { AtOnce } from '../assignment/at-once.ts';
import type { NoTicket } from '../assignment/availability.ts';
import type { PassedOver } from '../assignment/cover.ts';
import type { Place } from '../assignment/listed.ts';
import { type NameOf, sayWhy } from '../assignment/why-words.ts';
import { type CivilDay, mondayOf } from '../civil-date/civil-day.ts';
import { groupBy } from '../group.ts';
import { sayDayHours } from '../people/week-hours.ts';
import { joinAnd, plural, sayDay } from '../wording/date-words.ts';
import type { DatedOccurrence } from './plan.ts';
import { listDates, type Remark, type RemarkContext, remark } from './remark.ts';

/** What is to be remarked on who has the dates: nobody, nobody who is there or listed, nobody with the ticket, somebody with too much. */
export function remarksOnWho(dated: readonly DatedOccurrence[], context: RemarkContext): Remark[] {
  return [
    ...nobody(dated, context),
    ...notListed(dated, context),
    ...noTicket(dated, context),
    ...overCapacity(dated, context),
  ];
}

/** At most so many are named in a sentence. */
const NAMED_AT_ONCE = 3;

/** What falls at the same time as other work of whoever has it: "Kit has other work at that time on 2 dates: Tue 22 Dec at 13:00 (Gas and shore power) …". */
export function remarkAtOnce(meetings: readonly AtOnce[], nameOf: NameOf, today: CivilDay): Remark[] {
  return [...groupBy(meetings, ({ own }) => own.personId)].map(([personId, of]) => {
    const days = [...new Set(of.map(({ own }) => own.on))];
    const named = of
      .slice(0, NAMED_AT_ONCE)
      .map(({ own, other }) => `${sayDay(own.on, today)} at ${other.startTime} (${other.title})`);
    const rest = of.length - named.length;
    const said = rest > 0 ? `${named.join(', ')} and ${rest} more` : joinAnd(named);
    const text = `${nameOf(personId)} has two at once on ${plural(days.length, 'date')}: ${said}.`;
    return remark('at once', text, days);
  });
}

function nobody(dated: readonly DatedOccurrence[], context: RemarkContext): Remark[] {
  const { who, today } = context;
  if (who === undefined) return [];
  const given = dated.map((occurrence) => ({ on: occurrence.on, assignment: who.whose(occurrence) }));
  const free = given.filter(
    ({ assignment }) => assignment.kind === 'nobody' && !isAway(assignment) && unlistedIn(assignment) === null,
  );
  const away = given.filter(({ assignment }) => isAway(assignment));
  return [
    ...(free.length === 0
      ? []
      : [
          nobodyNamed(
            free.map(({ on }) => on),
            dated.length,
            context,
          ),
        ]),
    ...(away.length === 0 ? [] : [nobodyThere(away, who.nameOf, today, context)]),
  ];
}

/** Whether somebody is meant, and none of them can have it. */
function isAway(assignment: Assignment): boolean {
  return assignment.kind === 'anyOf'
    ? assignment.personIds.length === 0
    : assignment.kind === 'nobody' &&
        assignment.why !== null &&
        assignment.why.by !== 'hand' &&
        unlistedIn(assignment) === null;
}

/** Where a date that a list has nobody for stands beside it; null for all others. */
function unlistedIn(assignment: Assignment): Place['kind'] | null {
  if (assignment.kind !== 'nobody' || assignment.why?.by !== 'list') return null;
  return assignment.why.place === 'on it' ? null : assignment.why.place;
}

/** Dates that the list of who has which days says nothing of: beyond its end, and within it. */
function notListed(dated: readonly DatedOccurrence[], context: RemarkContext): Remark[] {
  const { who } = context;
  if (who === undefined) return [];
  const at = (kinds: readonly (Place['kind'] | null)[]) =>
    dated.filter((occurrence) => kinds.includes(unlistedIn(who.whose(occurrence)))).map(({ on }) => on);
  const [beyond, within] = [at(['after']), at(['before', 'between'])];
  const have = (days: readonly CivilDay[]) => `${plural(days.length, 'date')} ${days.length === 1 ? 'has' : 'have'}`;
  return [
    ...(beyond.length === 0
      ? []
      : [
          remark(
            'not listed',
            `The list of who has it ends: ${have(beyond)} nobody after that: ${listDates(beyond, context)}.`,
            beyond,
          ),
        ]),
    ...(within.length === 0
      ? []
      : [
          remark(
            'not listed',
            `Nobody is on the list for ${plural(within.length, 'date')}: ${listDates(within, context)}.`,
            within,
          ),
        ]),
  ];
}

function nobodyNamed(free: readonly CivilDay[], all: number, context: RemarkContext): Remark {
  const text =
    free.length === all
      ? `Nobody is to do it yet: ${plural(free.length, 'date')} in the coming year.`
      : `Nobody is to do it on ${listDates(free, context)}.`;
  return remark('nobody assigned', text, free);
}

function nobodyThere(
  away: readonly { readonly on: CivilDay; readonly assignment: Assignment }[],
  nameOf: NameOf,
  today: CivilDay,
  context: RemarkContext,
): Remark {
  const days = away.map(({ on }) => on);
  const onShift = away.map(({ assignment }) => roleOnShift(assignment)).find((role) => role !== null);
  if (onShift !== undefined)
    return remark(
      'nobody there',
      `Nobody of ${onShift} is on shift while it is to be done on ${plural(days.length, 'date')}: ${listDates(days, context, { holidays: true })}.`,
      days,
    );
  // A holiday is said by its name, and is everybody's.
  const first = away.find(({ on }) => context.calendar.holidayName(on) === undefined);
  const why = first ? ` On ${sayDay(first.on, today)}, ${sayWhy(first.assignment, nameOf, today)}.` : '';
  const text = `Nobody who may do it is there on ${plural(days.length, 'date')}: ${listDates(days, context, { holidays: true })}.${why}`;
  return remark('nobody there', text, days);
}

/** The role of which somebody must be on shift; null where nobody has to. */
function roleOnShift(assignment: Assignment): string | null {
  return assignment.kind === 'anyOf' && assignment.group.of === 'role' && assignment.group.onShift
    ? assignment.group.role
    : null;
}

/** So many people without a ticket are told of by name. */
const NAMED_TICKETS = 4;

/**
 * Whoever would have dates but for a ticket that they lack, or that ends before. Of a role or a team those who have never held
 * it are no news: it is for the others of it.
 */
function noTicket(dated: readonly DatedOccurrence[], context: RemarkContext): Remark[] {
  const { who, today } = context;
  if (who === undefined) return [];
  const found = new Map<
    string,
    { readonly id: string; readonly lacked: NoTicket; readonly days: CivilDay[]; gone: number }
  >();
  for (const occurrence of dated) {
    const assignment = who.whose(occurrence);
    for (const { personId, why } of passedOverIn(assignment)) {
      if (why.because !== 'no ticket') continue;
      if (isOfGroup(assignment) && (why.endedOn === null || why.endedOn < today)) continue;
      const key = `${personId} ${why.ticket}`;
      const known = found.get(key) ?? { id: personId, lacked: why, days: [], gone: 0 };
      known.days.push(occurrence.on);
      if (assignment.kind === 'nobody') known.gone++;
      found.set(key, known);
    }
  }
  return [...found.values()].slice(0, NAMED_TICKETS).map(({ id, lacked, days, gone }) => {
    const { ticket, endedOn } = lacked;
    const held =
      endedOn === null
        ? `${who.nameOf(id)} does not hold the ticket “${ticket}”`
        : `${who.nameOf(id)} holds the ticket “${ticket}” ${endedOn < today ? 'no longer' : `until ${sayDay(endedOn, today)}`}`;
    const dates = `${plural(days.length, 'date')}${endedOn === null || endedOn < today ? '' : ' after that'}`;
    const goTo = gone === days.length ? 'nobody' : gone === 0 ? 'others' : `others, ${gone} of them to nobody`;
    return remark(
      'no ticket',
      `${held}: ${dates} ${days.length === 1 ? 'goes' : 'go'} to ${goTo}: ${listDates(days, context)}.`,
      days,
    );
  });
}

/** So many weeks over capacity are told of one by one. */
const NAMED_WEEKS = 3;

/** Weeks in which somebody has more to do with this than they can, as far as all work of the week is made. */
function overCapacity(dated: readonly DatedOccurrence[], { who, today }: RemarkContext): Remark[] {
  if (who?.load === undefined) return [];
  const { whose, nameOf, load } = who;
  const weeks = new Map<string, { readonly personId: string; readonly monday: CivilDay; readonly days: CivilDay[] }>();
  for (const occurrence of dated) {
    const monday = mondayOf(occurrence.due);
    const given = monday + 6 <= load.madeTo ? whose(occurrence) : null;
    const ids = given?.kind === 'one' ? [given.personId] : given?.kind === 'eachOf' ? given.personIds : [];
    for (const personId of ids) {
      const key = `${personId} ${monday}`;
      const known = weeks.get(key) ?? { personId, monday, days: [] };
      known.days.push(occurrence.on);
      weeks.set(key, known);
    }
  }
  return [...weeks.values()]
    .flatMap(({ personId, monday, days }) => {
      const { minutes, capacity } = load.of(personId, monday);
      const all = minutes + days.length * load.minutes;
      if (all <= capacity) return [];
      const text = `${nameOf(personId)} has ${sayHoursOf(all)} of work in the week of ${sayDay(monday, today)} with this, of ${sayHoursOf(capacity)} that there are.`;
      return [remark('over capacity', text, days)];
    })
    .slice(0, NAMED_WEEKS);
}

const sayHoursOf = (minutes: number) => `${sayDayHours(minutes) || '0'} h`;

function passedOverIn(assignment: Assignment): readonly PassedOver[] {
  if (assignment.kind === 'anyOf' || assignment.kind === 'eachOf') return assignment.passedOver;
  return assignment.why === null || assignment.why.by === 'hand' ? [] : assignment.why.passedOver;
}

/** Whether it is for a role or a team, of whom it takes one. */
const isOfGroup = (assignment: Assignment): boolean =>
  assignment.kind === 'anyOf' ||
  assignment.kind === 'eachOf' ||
  assignment.why?.by === 'least to do' ||
  assignment.why?.by === 'each';
