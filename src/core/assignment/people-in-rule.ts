import type { CivilDay } from '../civil-date/civil-day.ts';
import { isoOfDay } from '../civil-date/iso-date.ts';
import { followsRule, type Recurrence } from '../recurrence/rule.ts';
import type { AssignmentRule, People } from './assignment.ts';
import { listHandedOn } from './listed.ts';
import { type DatesBetween, placeFrom, rosterFrom, rosterInForce, type Turns } from './roster.ts';

/** Everybody whom a rule names, those of earlier orders included; who is meant by a role or a team is not told here. */
export function namedIn(rule: AssignmentRule): ReadonlySet<string> {
  switch (rule.kind) {
    case 'nobody':
    case 'client':
      return new Set();
    case 'person':
      return new Set([rule.personId]);
    case 'usualPerson':
      return new Set(rule.otherwiseId === null ? [] : [rule.otherwiseId]);
    case 'anyOf':
    case 'eachOf':
    case 'leastToDo':
      return new Set(rule.group.of === 'people' ? rule.group.ids : []);
    case 'inTurn':
      return new Set(rule.turns.rosters.flatMap(({ people }) => people));
    case 'listed':
      return new Set([
        ...rule.list.map(({ personId }) => personId),
        ...(rule.goesOn?.rosters.flatMap(({ people }) => people) ?? []),
      ]);
  }
}

/** Those whom it names for a day and what comes after it. */
export function namedFrom(rule: AssignmentRule, day: CivilDay): ReadonlySet<string> {
  if (rule.kind === 'listed') {
    const date = isoOfDay(day);
    const coming = rule.list.filter(({ to }) => to >= date).map(({ personId }) => personId);
    return new Set([...coming, ...(rule.goesOn?.rosters.flatMap(({ people }) => people) ?? [])]);
  }
  if (rule.kind !== 'inTurn') return namedIn(rule);
  const from = rosterInForce(rule.turns, day).from;
  return new Set(rule.turns.rosters.filter((one) => one.from >= from).flatMap(({ people }) => people));
}

/** Those whom a rule means from a day on: by name, as one of a group, or as the client's usual person. */
export function holdersOf(
  rule: AssignmentRule,
  people: People,
  usualPersonId: string | null,
  day: CivilDay,
): ReadonlySet<string> {
  if ('group' in rule) return new Set(people.of(rule.group));
  if (rule.kind === 'usualPerson' && usualPersonId !== null) return new Set([usualPersonId]);
  return namedFrom(rule, day);
}

/** Everybody who may come to do work by a rule: those it names, those of its group, and whoever takes over for them. */
export function mayComeToDo(rule: AssignmentRule, people: People, usualPersonId: string | null): ReadonlySet<string> {
  const found = new Set(namedIn(rule));
  if ('group' in rule) for (const id of people.of(rule.group)) found.add(id);
  if (rule.kind === 'usualPerson' && usualPersonId !== null) found.add(usualPersonId);
  if (!('cover' in rule)) return found;
  const deputyOf = (id: string) => people.workers.get(id)?.deputyId ?? null;
  /** Those whose work goes on to others: whoever takes over for them, and for those in turn. */
  const goesOn = new Set<string>();
  for (const id of found) {
    const deputyId = deputyOf(id);
    const choices =
      people.workers.get(id)?.leave.flatMap(({ cover }) => (cover ? [cover.turns, cover.name] : [])) ?? [];
    if ((rule.cover === 'deputy' || choices.includes('deputy')) && deputyId !== null) goesOn.add(deputyId);
    for (const choice of choices) if (choice !== null && typeof choice !== 'string') goesOn.add(choice.personId);
  }
  // A set gives what is added to it while it is gone through: so a deputy's deputy is found too.
  for (const id of goesOn) {
    found.add(id);
    const deputyId = deputyOf(id);
    if (deputyId !== null) goesOn.add(deputyId);
  }
  return found;
}

/**
 * Why a rule can't be had with these recurrences, or null where it can: what each of several does has no one last task that the
 * next date could wait for.
 */
export function eachNeedsDates(rule: AssignmentRule, recurrences: readonly Recurrence[]): string | null {
  if (rule.kind !== 'eachOf' || recurrences.every((one) => followsRule(one) === null)) return null;
  return 'Where the next date waits for the last one to be done, it is done once: choose somebody, or a date for each of them.';
}

/** The one person who has all of its work; null where several may, or nobody does. */
export function onlyPersonOf(rule: AssignmentRule): string | null {
  return rule.kind === 'person' ? rule.personId : null;
}

/**
 * The same rule with somebody else, or nobody, in the place of one person from a day on. Turns that have been are theirs still;
 * whoever takes them over and stands in the order already is there twice, since both turns are theirs.
 */
export function handedOn(
  rule: AssignmentRule,
  from: string,
  to: string | null,
  today: CivilDay,
  datesBetween: DatesBetween,
): AssignmentRule {
  if (!namedIn(rule).has(from)) return rule;
  const without = (ids: readonly string[]) => ids.flatMap((id) => (id !== from ? id : (to ?? [])));
  switch (rule.kind) {
    case 'nobody':
    case 'client':
      return rule;
    case 'person':
      return to === null ? { v: 1, kind: 'nobody' } : { ...rule, personId: to };
    case 'usualPerson':
      return { ...rule, otherwiseId: to };
    case 'anyOf':
    case 'eachOf':
    case 'leastToDo': {
      if (rule.group.of !== 'people') return rule;
      const ids = [...new Set(without(rule.group.ids))];
      return ids.length === 0 ? { v: 1, kind: 'nobody' } : { ...rule, group: { of: 'people', ids } };
    }
    case 'inTurn': {
      const { order, at } = placeFrom(rule.turns, today, datesBetween);
      const people = without([...order.slice(at), ...order.slice(0, at)]);
      return people.length === 0
        ? { v: 1, kind: 'nobody' }
        : { ...rule, turns: rosterFrom(rule.turns, isoOfDay(today), people) };
    }
    case 'listed': {
      const list = listHandedOn(rule.list, from, to, today);
      const goesOn = rule.goesOn && turnsHandedOn(rule.goesOn, without);
      return list.length === 0 ? { v: 1, kind: 'nobody' } : { ...rule, list, goesOn };
    }
  }
}

/** Turns that are still to come, with others in the order; null where that leaves nobody. */
function turnsHandedOn(turns: Turns, without: (ids: readonly string[]) => string[]): Turns | null {
  const rosters = turns.rosters.map((roster) => ({ ...roster, people: without(roster.people) }));
  return rosters.some(({ people }) => people.length === 0) ? null : { ...turns, rosters };
}
