import {
  type AssignmentKind,
  type AssignmentRule,
  type CivilDay,
  type DatesBetween,
  type Group,
  givenTo,
  goesOnWith,
  isoOfDay,
  mondayOf,
  namedFrom,
  rosterInForce,
  type Turns,
} from '../../../../core/index.ts';

/** What the kinds are called where one is chosen. */
export const KIND_WORDS: Readonly<Record<AssignmentKind, string>> = {
  person: 'one person',
  anyOf: 'any one of several',
  eachOf: 'each of several',
  inTurn: 'in turn',
  listed: 'by a list of days',
  leastToDo: 'whoever has the least to do',
  usualPerson: 'the client’s usual person',
  client: 'the client’s own contact',
  nobody: 'nobody yet',
};

export const COVER_WORDS = {
  deputy: 'whoever takes over for them',
  next: 'the next in turn',
  leastToDo: 'whoever of them has the least to do',
  nobody: 'nobody: a planner sees to it',
} as const;

interface Around {
  readonly today: CivilDay;
  /** Who may be meant first: whoever does it now, else whoever is at the page. */
  readonly meId: string;
  readonly roles: readonly string[];
  readonly staff: readonly Member[];
}

interface Member {
  readonly id: string;
  readonly roles: readonly string[];
  readonly team: string | null;
}

/** Whom a group means, of those who work here. */
export function membersOf(group: Group, staff: readonly Member[]): readonly string[] {
  if (group.of === 'people') return group.ids;
  const isOfIt = (one: Member) =>
    group.of === 'everyone' || (group.of === 'role' ? one.roles.includes(group.role) : one.team === group.team);
  return staff.filter(isOfIt).map(({ id }) => id);
}

/** The same schedule with its work given by a rule of another kind, keeping whom the one before named as far as that goes. */
export function ofKind(kind: AssignmentKind, before: AssignmentRule, around: Around): AssignmentRule {
  if (kind === before.kind) return before;
  const people = peopleOf(before, around);
  const [first] = people;
  switch (kind) {
    case 'nobody':
    case 'client':
      return { v: 1, kind };
    case 'person':
      return givenTo(first ?? around.meId);
    case 'usualPerson':
      return { v: 1, kind, otherwiseId: null, daysOffToo: true, cover: 'deputy' };
    case 'eachOf':
      return { v: 1, kind, group: groupOf(before, around, people), daysOffToo: true };
    case 'anyOf':
    case 'leastToDo':
      return { v: 1, kind, group: groupOf(before, around, people) };
    case 'listed': {
      // Something to write on: this week, for whoever has it now.
      const monday = mondayOf(around.today);
      const list = [{ from: isoOfDay(monday), to: isoOfDay(monday + 6), personId: first ?? around.meId }];
      return { v: 1, kind, list, goesOn: null, cover: 'next' };
    }
    case 'inTurn':
      return {
        ...{ v: 1, kind, cover: 'next' },
        turns: {
          length: { per: 'week', on: 1 },
          rosters: [{ from: isoOfDay(around.today), people: people.length > 0 ? people : [around.meId] }],
          swaps: [],
        },
      };
  }
}

function groupOf(before: AssignmentRule, { roles, meId }: Around, people: readonly string[]): Group {
  if ('group' in before) return before.group;
  if (people.length > 1) return { of: 'people', ids: [...new Set(people)] };
  const [role] = roles;
  if (role !== undefined) return { of: 'role', role };
  return { of: 'people', ids: people.length > 0 ? people : [meId] };
}

/** Those whom a rule means now, in their order. */
function peopleOf(rule: AssignmentRule, { today, staff }: Around): readonly string[] {
  switch (rule.kind) {
    case 'nobody':
    case 'client':
      return [];
    case 'person':
      return [rule.personId];
    case 'usualPerson':
      return rule.otherwiseId === null ? [] : [rule.otherwiseId];
    case 'inTurn':
      return rosterInForce(rule.turns, today).people;
    case 'listed':
      return [...namedFrom(rule, today)];
    case 'anyOf':
    case 'eachOf':
    case 'leastToDo':
      return membersOf(rule.group, staff);
  }
}

/**
 * Turns with another order. An order that has begun stays for what lies before today, and goes on where it stands; one that has
 * not is only put right.
 */
export function withOrder(turns: Turns, today: CivilDay, people: readonly string[], datesBetween: DatesBetween): Turns {
  const now = rosterInForce(turns, today);
  if (now.from >= isoOfDay(today))
    return { ...turns, rosters: turns.rosters.map((one) => (one === now ? { ...one, people } : one)) };
  return goesOnWith(turns, today, people, datesBetween);
}

/** Turns that somebody of the order begins on a day: what lies before stays as it was. */
export function beginning(turns: Turns, from: CivilDay, today: CivilDay, firstId: string): Turns {
  const { people } = rosterInForce(turns, today);
  const at = Math.max(0, people.indexOf(firstId));
  const order = [...people.slice(at), ...people.slice(0, at)];
  const date = isoOfDay(from);
  const kept = turns.rosters.filter((one) => one.from < date && one.from < isoOfDay(today));
  return { ...turns, rosters: [...kept, { from: date, people: order }] };
}

export function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const others = list.filter((_, i) => i !== from);
  return [...others.slice(0, to), list[from] as T, ...others.slice(to)];
}
