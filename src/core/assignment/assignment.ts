import type { CivilDay } from '../civil-date/civil-day.ts';
import {
  type Asked,
  coverChosenOn,
  lackedTicket,
  unavailableOn,
  unavailableOnShift,
  type Worker,
} from './availability.ts';
import { type Covered, coverFor, type PassedOver } from './cover.ts';
import type { Cover, LeaveCover } from './cover-choice.ts';
import { type LeastToDo, leastToDo, type WeekLoad } from './least-to-do.ts';
import { type Listed, orderOfList, type Place, placeInList } from './listed.ts';
import { type DatesBetween, type Turns, turnOn } from './roster.ts';

/** Of whom somebody is chosen: people by name, everybody of a role or a team, or everybody who has hours at all. */
export type Group =
  | { readonly of: 'everyone' }
  | { readonly of: 'people'; readonly ids: readonly string[] }
  /** Of a role all, or only those who are on shift in it while the work is to be done. */
  | { readonly of: 'role'; readonly role: string; readonly onShift?: true | undefined }
  | { readonly of: 'team'; readonly team: string };

/** Of whom any one may take a task: of some who work here, or the client whom it is for. */
export type Offer = Group | { readonly of: 'client' };

/** The same text for the same group, whatever form it was kept in. */
export function groupKey(group: Offer): string {
  switch (group.of) {
    case 'everyone':
    case 'client':
      return group.of;
    case 'people':
      return `people ${group.ids.join(' ')}`;
    case 'role':
      return `${group.onShift ? 'shift' : 'role'} ${group.role}`;
    case 'team':
      return `team ${group.team}`;
  }
}

/** Who does the work of a schedule; the version is that of its form. */
export type AssignmentRule = { readonly v: 1 } & (
  | { readonly kind: 'nobody' }
  | {
      readonly kind: 'person';
      readonly personId: string;
      /** Whether days on which they have no hours are theirs as well. */
      readonly daysOffToo: boolean;
      readonly cover: Cover;
    }
  /** One task, which stands with all of them until one takes it. */
  | { readonly kind: 'anyOf'; readonly group: Group }
  /** One task a head: each of them who is there has one of their own. */
  | {
      readonly kind: 'eachOf';
      readonly group: Group;
      /** Whether those who have no hours on the day have one too. */
      readonly daysOffToo: boolean;
    }
  | { readonly kind: 'inTurn'; readonly turns: Turns; readonly cover: Cover }
  /** Whoever a list names for the date; beyond its last day turns go on, or it is nobody's. */
  | { readonly kind: 'listed'; readonly list: readonly Listed[]; readonly goesOn: Turns | null; readonly cover: Cover }
  | { readonly kind: 'leastToDo'; readonly group: Group }
  /** Whoever looks after the client; somebody else, or nobody, where that is nobody. */
  | {
      readonly kind: 'usualPerson';
      readonly otherwiseId: string | null;
      readonly daysOffToo: boolean;
      readonly cover: Cover;
    }
  /** The client themselves: a contact of theirs is asked, by a link. */
  | { readonly kind: 'client' }
);
export type AssignmentKind = AssignmentRule['kind'];

/** All kinds, in the order in which they are offered. */
export const ASSIGNMENT_KINDS = [
  'person',
  'anyOf',
  'eachOf',
  'inTurn',
  'listed',
  'leastToDo',
  'usualPerson',
  'client',
  'nobody',
] as const satisfies readonly AssignmentKind[];

/** The rule that gives all work to one person, or to nobody yet. */
export function givenTo(personId: string | null): Extract<AssignmentRule, { kind: 'nobody' | 'person' }> {
  return personId === null
    ? { v: 1, kind: 'nobody' }
    : { v: 1, kind: 'person', personId, daysOffToo: true, cover: 'deputy' };
}

/** What is known of a date when its work is given to somebody. */
export interface AssignmentContext {
  /** The date the rule gives, which names the turn, and the day on which it is worked. */
  readonly nominal: CivilDay;
  readonly on: CivilDay;
  readonly estimateMinutes: number;
  readonly asked: Asked;
  readonly people: People;
  readonly usualPersonId: string | null;
  readonly datesBetween: DatesBetween;
  /** What somebody has in the week of the day on which it is worked. */
  readonly loadOf: (id: string) => WeekLoad;
  /** Who has it already, where the load has decided: they keep it if they may have it. */
  readonly settledId?: string | null;
}

/** So many days are remembered of one person: some years. */
const MOST_KNOWN_DAYS = 4_000;

/** Everybody who may be given work, by id and by group. */
export class People {
  /** For as long as it is looked at: many dates ask for the same group on the same day. */
  private readonly there = new Map<Group, Map<string, Available>>();
  /** What keeps each from work on a day, tickets aside. */
  private readonly days = new Map<
    string,
    { readonly worker: Worker | undefined; readonly on: Map<number, PassedOver | null> }
  >();

  constructor(
    readonly workers: ReadonlyMap<string, Worker>,
    /** Everybody of a group, there or not. */
    readonly of: (group: Group) => readonly string[],
  ) {}

  /** @throws Error where there is nobody of this id */
  one(id: string): Worker {
    const worker = this.workers.get(id);
    if (!worker) throw new Error(`${id} is nobody here.`);
    return worker;
  }

  /** Whoever can't be given work on a day, with why; null for whoever can. */
  passedOver(personId: string, on: CivilDay, { tickets, isHoliday }: Asked): PassedOver | null {
    let known = this.days.get(personId);
    if (known === undefined) {
      known = { worker: this.workers.get(personId), on: new Map() };
      this.days.set(personId, known);
    }
    const { worker } = known;
    if (worker === undefined) return { personId, why: { because: 'not known' } };
    // Of a day and whether it is a holiday, one number.
    const key = on * 2 + (isHoliday ? 1 : 0);
    let off = known.on.get(key);
    if (off === undefined) {
      const why = unavailableOn(worker, on, { tickets: [], isHoliday });
      off = why === null ? null : { personId, why };
      if (known.on.size >= MOST_KNOWN_DAYS) known.on.clear();
      known.on.set(key, off);
    }
    if (off !== null || tickets.length === 0) return off;
    const lacked = lackedTicket(worker, tickets, on);
    return lacked === null ? null : { personId, why: lacked };
  }

  /** Those of a group that can have work on a day, and why the others can't. @param daysOffToo also those without hours on it */
  available(group: Group, on: CivilDay, asked: Asked, daysOffToo = false): Available {
    const ofGroup = this.there.get(group) ?? new Map<string, Available>();
    if (ofGroup.size === 0) this.there.set(group, ofGroup);
    const shiftOf = group.of === 'role' && group.onShift ? group.role : null;
    const { isHoliday, wasHoliday, window, tickets } = asked;
    const when = shiftOf === null ? '' : `${wasHoliday} ${window.from} ${window.to}`;
    const key = `${on} ${isHoliday} ${daysOffToo} ${when} ${tickets.join('\n')}`;
    const known = ofGroup.get(key);
    if (known) return known;
    const can: Worker[] = [];
    const passedOver: PassedOver[] = [];
    for (const personId of this.of(group)) {
      const worker = this.workers.get(personId);
      const off =
        worker && shiftOf !== null
          ? unavailableOnShift(worker, on, shiftOf, asked)
          : (this.passedOver(personId, on, asked)?.why ?? null);
      const why = worker && daysOffToo && off?.because === 'off' ? lackedTicket(worker, tickets, on) : off;
      if (worker && why === null) can.push(worker);
      else if (why !== null) passedOver.push({ personId, why });
    }
    const found = { can, ids: can.map(({ id }) => id), passedOver };
    ofGroup.set(key, found);
    return found;
  }
}

export interface Available {
  readonly can: readonly Worker[];
  readonly ids: readonly string[];
  readonly passedOver: readonly PassedOver[];
}

/** Who has it, and why: what *Why is it mine?* is told from. */
export type Assignment =
  | { readonly kind: 'one'; readonly personId: string; readonly why: Why }
  | {
      readonly kind: 'anyOf';
      readonly group: Group;
      /** Those who are there. */
      readonly personIds: readonly string[];
      readonly passedOver: readonly PassedOver[];
    }
  | {
      readonly kind: 'eachOf';
      readonly group: Group;
      /** Those who have one each; one at least. */
      readonly personIds: readonly string[];
      readonly passedOver: readonly PassedOver[];
    }
  /** Nobody who works here: it is the client's to do. */
  | { readonly kind: 'client'; readonly why: null }
  | { readonly kind: 'nobody'; readonly why: Why | null };

/** As it is kept with a task: its form stays readable. */
export type Why =
  /** Somebody was named for this date, or from some date on. */
  | { readonly by: 'hand' }
  | { readonly by: 'name'; readonly passedOver: readonly PassedOver[] }
  | { readonly by: 'usual person'; readonly passedOver: readonly PassedOver[] }
  /** Each of several has one. */
  | { readonly by: 'each'; readonly passedOver: readonly PassedOver[] }
  | {
      readonly by: 'turn';
      /** The place in the order, from 1, and how many there are. */
      readonly place: number;
      readonly of: number;
      /** Who had it before it was swapped; null where it was not. */
      readonly insteadOf: string | null;
      readonly passedOver: readonly PassedOver[];
    }
  /** @param place where its day stands in the list */
  | { readonly by: 'list'; readonly place: Place['kind']; readonly passedOver: readonly PassedOver[] }
  | { readonly by: 'least to do'; readonly load: LeastToDo | null; readonly passedOver: readonly PassedOver[] };

/**
 * Who does the work of one date. It follows from the date and from what is known of people on that day alone: neither the
 * window that is looked at nor what was made before makes a difference, but for the load where the rule asks for that.
 * @throws RangeError for a roster without people
 */
export function assign(rule: AssignmentRule, context: AssignmentContext): Assignment {
  switch (rule.kind) {
    case 'nobody':
      return { kind: 'nobody', why: null };
    case 'client':
      return { kind: 'client', why: null };
    case 'person':
      return byName(rule.personId, rule, context, 'name');
    case 'usualPerson': {
      const personId = context.usualPersonId ?? rule.otherwiseId;
      if (personId === null) return { kind: 'nobody', why: null };
      return byName(personId, rule, context, context.usualPersonId === null ? 'name' : 'usual person');
    }
    case 'inTurn':
      return byTurn(rule.turns, rule.cover, context);
    case 'listed': {
      const place = placeInList(rule.list, context.nominal);
      if (place.kind === 'on it') {
        const found = covered(orderOfList(rule.list), place.at, rule.cover, 'turns', context);
        return one(found, (passedOver) => ({ by: 'list', place: place.kind, passedOver }));
      }
      if (place.kind === 'after' && rule.goesOn !== null) return byTurn(rule.goesOn, rule.cover, context);
      return { kind: 'nobody', why: { by: 'list', place: place.kind, passedOver: [] } };
    }
    case 'leastToDo': {
      const { can, passedOver } = context.people.available(rule.group, context.on, context.asked);
      const load = leastToDo(can, context.estimateMinutes, context.loadOf, context.settledId);
      const why: Why = { by: 'least to do', load, passedOver };
      return load === null ? { kind: 'nobody', why } : { kind: 'one', personId: load.personId, why };
    }
    case 'anyOf': {
      const { ids, passedOver } = context.people.available(rule.group, context.on, context.asked);
      return { kind: 'anyOf', group: rule.group, personIds: ids, passedOver };
    }
    case 'eachOf': {
      const { on, asked, people } = context;
      const { ids, passedOver } = people.available(rule.group, on, asked, rule.daysOffToo);
      if (ids.length === 0) return { kind: 'nobody', why: { by: 'each', passedOver } };
      return { kind: 'eachOf', group: rule.group, personIds: ids, passedOver };
    }
  }
}

function byTurn(turns: Turns, cover: Cover, context: AssignmentContext): Assignment {
  const turn = turnOn(turns, context.nominal, context.datesBetween);
  return one(covered(turn.order, turn.at, cover, 'turns', context), (passedOver) => ({
    by: 'turn',
    place: turn.at + 1,
    of: turn.order.length,
    insteadOf: turn.insteadOf,
    passedOver,
  }));
}

/** Somebody who is named for all dates, those without hours among them where that is said; who is away is covered. */
function byName(
  personId: string,
  { daysOffToo, cover }: { readonly daysOffToo: boolean; readonly cover: Cover },
  context: AssignmentContext,
  by: 'name' | 'usual person',
): Assignment {
  const worker = context.people.workers.get(personId);
  const { on, asked } = context;
  const isOnlyOff = (one: Worker) =>
    unavailableOn(one, on, asked)?.because === 'off' && lackedTicket(one, asked.tickets, on) === null;
  if (daysOffToo && worker !== undefined && isOnlyOff(worker))
    return { kind: 'one', personId, why: { by, passedOver: [] } };
  return one(covered([personId], 0, cover, 'name', context), (passedOver) => ({ by, passedOver }));
}

function one({ personId, passedOver }: Covered, why: (passedOver: readonly PassedOver[]) => Why): Assignment {
  return personId === null ? { kind: 'nobody', why: why(passedOver) } : { kind: 'one', personId, why: why(passedOver) };
}

/** @param by which choice for their leave comes before the cover that the rule names */
function covered(
  order: readonly string[],
  at: number,
  cover: Cover,
  by: keyof LeaveCover,
  context: AssignmentContext,
): Covered {
  const first = order[at];
  // Nearly always; what stands in for it is looked at only where it can't be.
  if (first !== undefined && context.people.passedOver(first, context.on, context.asked) === null)
    return { personId: first, passedOver: [] };
  const worker = context.people.workers.get(first ?? '');
  const chosen = worker === undefined ? null : coverChosenOn(worker, context.on)[by];
  // Turns that could be exchanged are others' by now: what is left of them goes to the next.
  return coverFor(order, at, (chosen === 'exchange' ? 'next' : chosen) ?? cover, {
    workers: context.people.workers,
    passedOver: (id) => context.people.passedOver(id, context.on, context.asked),
    leastToDo: (ids) =>
      leastToDo(
        ids.map((id) => ({ id })),
        context.estimateMinutes,
        context.loadOf,
        context.settledId,
      )?.personId ?? null,
  });
}
