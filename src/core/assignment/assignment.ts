import type { CivilDay } from '../civil-date/civil-day.ts';
import { type Asked, unavailableOn, type Worker } from './availability.ts';
import { type Cover, type Covered, coverFor, type PassedOver } from './cover.ts';
import { type LeastToDo, leastToDo, type WeekLoad } from './least-to-do.ts';
import { type DatesBetween, type Turn, type Turns, turnOn } from './roster.ts';

/** Of whom somebody is chosen: people by name, or everybody of a role or a team. */
export type Group =
  | { readonly of: 'people'; readonly ids: readonly string[] }
  | { readonly of: 'role'; readonly role: string }
  | { readonly of: 'team'; readonly team: string };

/** Who does the work of a schedule; the version is that of its form. */
export type AssignmentRule = { readonly v: 1 } & (
  | { readonly kind: 'nobody' }
  | { readonly kind: 'person'; readonly personId: string; readonly cover: Cover }
  /** One task, which stands with all of them until one takes it. */
  | { readonly kind: 'anyOf'; readonly group: Group }
  /** One task a head. */
  | { readonly kind: 'eachOf'; readonly group: Group }
  | { readonly kind: 'inTurn'; readonly turns: Turns; readonly cover: Cover }
  | { readonly kind: 'leastToDo'; readonly group: Group }
  /** Whoever looks after the client; where the client has nobody, as the other rule says. */
  | { readonly kind: 'usualPerson'; readonly cover: Cover; readonly otherwise: AssignmentRule }
);

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
}

/** Everybody who may be given work, by id and by group. */
export class People {
  /** For as long as it is looked at: many dates ask for the same group on the same day. */
  private readonly there = new Map<Group, Map<string, Available>>();

  constructor(
    readonly workers: ReadonlyMap<string, Worker>,
    private readonly idsOf: (group: Group) => readonly string[],
  ) {}

  /** Those of a group that can have work on a day, and why the others can't. */
  available(group: Group, on: CivilDay, asked: Asked): Available {
    const ofGroup = this.there.get(group) ?? new Map<string, Available>();
    if (ofGroup.size === 0) this.there.set(group, ofGroup);
    const key = `${on} ${asked.isHoliday} ${asked.tickets.join('\n')}`;
    const known = ofGroup.get(key);
    if (known) return known;
    const can: Worker[] = [];
    const passedOver: PassedOver[] = [];
    for (const personId of this.idsOf(group)) {
      const worker = this.workers.get(personId);
      const why = worker ? unavailableOn(worker, on, asked) : ({ because: 'not known' } as const);
      if (worker && why === null) can.push(worker);
      else if (why !== null) passedOver.push({ personId, why });
    }
    const found = { can, passedOver };
    ofGroup.set(key, found);
    return found;
  }
}

export interface Available {
  readonly can: readonly Worker[];
  readonly passedOver: readonly PassedOver[];
}

/** Who has it, and why: what *Why is it mine?* is told from. */
export type Assignment =
  | { readonly kind: 'one'; readonly personId: string; readonly why: Why }
  | {
      readonly kind: 'anyOf' | 'eachOf';
      readonly personIds: readonly string[];
      readonly passedOver: readonly PassedOver[];
    }
  | { readonly kind: 'nobody'; readonly why: Why | null };

export type Why =
  | { readonly by: 'name'; readonly passedOver: readonly PassedOver[] }
  | { readonly by: 'usual person'; readonly passedOver: readonly PassedOver[] }
  | { readonly by: 'turn'; readonly turn: Turn; readonly passedOver: readonly PassedOver[] }
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
    case 'person':
      return one(covered([rule.personId], 0, rule.cover, context), (passedOver) => ({ by: 'name', passedOver }));
    case 'usualPerson': {
      const { usualPersonId } = context;
      if (usualPersonId === null) return assign(rule.otherwise, context);
      return one(covered([usualPersonId], 0, rule.cover, context), (passedOver) => ({
        by: 'usual person',
        passedOver,
      }));
    }
    case 'inTurn': {
      const turn = turnOn(rule.turns, context.nominal, context.datesBetween);
      return one(covered(turn.order, turn.at, rule.cover, context), (passedOver) => ({ by: 'turn', turn, passedOver }));
    }
    case 'leastToDo': {
      const { can, passedOver } = context.people.available(rule.group, context.on, context.asked);
      const load = leastToDo(can, context.estimateMinutes, context.loadOf);
      const why: Why = { by: 'least to do', load, passedOver };
      return load === null ? { kind: 'nobody', why } : { kind: 'one', personId: load.personId, why };
    }
    case 'anyOf':
    case 'eachOf': {
      const { can, passedOver } = context.people.available(rule.group, context.on, context.asked);
      return { kind: rule.kind, personIds: can.map(({ id }) => id), passedOver };
    }
  }
}

function one({ personId, passedOver }: Covered, why: (passedOver: readonly PassedOver[]) => Why): Assignment {
  return personId === null ? { kind: 'nobody', why: why(passedOver) } : { kind: 'one', personId, why: why(passedOver) };
}

function covered(order: readonly string[], at: number, cover: Cover, context: AssignmentContext): Covered {
  return coverFor(order, at, cover, {
    workers: context.people.workers,
    unavailable: (worker) => unavailableOn(worker, context.on, context.asked),
    leastToDo: (ids) =>
      leastToDo(
        ids.map((id) => ({ id })),
        context.estimateMinutes,
        context.loadOf,
      )?.personId ?? null,
  });
}
