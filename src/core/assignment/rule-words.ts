import { plainWords } from '../capture/words.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { isoOfDay } from '../civil-date/iso-date.ts';
import { joinAnd, sayDate, weekdayShort } from '../wording/date-words.ts';
import { nearestWord } from '../wording/spelling.ts';
import { type AssignmentRule, type Group, givenTo, type Offer } from './assignment.ts';
import { lastListed } from './listed.ts';
import { namedFrom } from './people-in-rule.ts';
import { type DatesBetween, goesOnWith, rosterInForce, type TurnLength } from './roster.ts';

/** Somebody with what a text may call them by. */
export interface NamedPerson {
  readonly id: string;
  readonly name: string;
}

/** What a rule is written and read with. */
export interface RuleWordsContext {
  readonly today: CivilDay;
  readonly people: readonly NamedPerson[];
}

/** To read a rule it takes what there may be groups of, and the dates of its schedule: an order that is changed goes on where it stands. */
export interface RuleReadingContext extends RuleWordsContext {
  readonly roles: readonly string[];
  readonly teams: readonly string[];
  readonly datesBetween: DatesBetween;
}

export const NOBODY_YET = 'nobody yet';
const THE_CLIENT = 'the client’s own contact';
const USUAL = 'the client’s usual person';
const EVERYONE = 'everyone';
export const NOT_HERE = 'somebody who is not here';

/** So many of those on a list are named. */
const LISTED_NAMES = 4;

const known = new WeakMap<readonly NamedPerson[], ReadonlyMap<string, string>>();

/** What somebody is called who is known: the first of their names. */
export const firstName = (name: string): string => name.split(/\s+/)[0] ?? name;

/** What people are called among each other: by their first name, or by all of it where two have the same. */
export function callNames(people: readonly NamedPerson[]): ReadonlyMap<string, string> {
  const before = known.get(people);
  if (before) return before;
  const counts = new Map<string, number>();
  for (const { name } of people) {
    const key = firstName(name).toLowerCase();
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  const called = new Map(
    people.map(({ id, name }) => [id, counts.get(firstName(name).toLowerCase()) === 1 ? firstName(name) : name]),
  );
  known.set(people, called);
  return called;
}

const PER: Readonly<Record<TurnLength['per'], string>> = { occurrence: 'each time', week: 'weekly', month: 'monthly' };

/** Who does it as a text: "Nadia Orme", "in turn: Joss, Kit, Tamsin, weekly", "any of dock crew"; read back as the same. */
export function sayRule(rule: AssignmentRule, context: RuleWordsContext): string {
  const full = (id: string | null) =>
    id === null ? NOBODY_YET : (context.people.find((one) => one.id === id)?.name ?? NOT_HERE);
  switch (rule.kind) {
    case 'listed': {
      const called = callNames(context.people);
      const names = [...namedFrom(rule, context.today)].map((id) => called.get(id) ?? NOT_HERE);
      const rest = names.length - LISTED_NAMES;
      const said = rest > 1 ? [...names.slice(0, LISTED_NAMES), `${rest} more`] : names;
      return [`as listed until ${sayDate(lastListed(rule.list))}`, joinAnd(said)].filter(Boolean).join(': ');
    }
    case 'nobody':
      return NOBODY_YET;
    case 'person':
      return full(rule.personId);
    case 'anyOf':
      return `any of ${sayGroup(rule.group, context)}`;
    case 'eachOf':
      return `each of ${sayGroup(rule.group, context)}`;
    case 'leastToDo':
      return `least to do of ${sayGroup(rule.group, context)}`;
    case 'client':
      return THE_CLIENT;
    case 'usualPerson':
      return rule.otherwiseId === null ? USUAL : `${USUAL}, else ${full(rule.otherwiseId)}`;
    case 'inTurn': {
      const called = callNames(context.people);
      const { people } = rosterInForce(rule.turns, context.today);
      return `in turn: ${[...people.map((id) => called.get(id) ?? NOT_HERE), sayPer(rule.turns.length)].join(', ')}`;
    }
  }
}

/** "dock crew", "Joss, Kit and Wilf" */
export function sayGroup(group: Group, { people }: Pick<RuleWordsContext, 'people'>): string {
  switch (group.of) {
    case 'everyone':
      return EVERYONE;
    case 'role':
      return group.onShift ? `${group.role} on shift` : group.role;
    case 'team':
      return `team ${group.team}`;
    case 'people': {
      const called = callNames(people);
      return joinAnd(group.ids.map((id) => called.get(id) ?? NOT_HERE));
    }
  }
}

/** Whom a task is offered to: "any of dock crew", "the client’s own contact". */
export function sayOffer(offer: Offer, context: Pick<RuleWordsContext, 'people'>): string {
  return offer.of === 'client' ? THE_CLIENT : `any of ${sayGroup(offer, context)}`;
}

/** Turns of a week that begin on another day than Monday say so: "weekly from Thu". */
function sayPer(length: TurnLength): string {
  return length.per === 'week' && length.on !== 1 ? `weekly from ${weekdayShort(length.on)}` : PER[length.per];
}

export type RuleReading =
  | { readonly kind: 'read'; readonly rule: AssignmentRule }
  /** What is wrong, and what may have been meant. */
  | { readonly kind: 'unread'; readonly message: string; readonly suggestion: string | null };

const CLIENT = /^the client(?:[’']s own contact)?$/i;
const NOBODY = /^(nobody( yet)?|no one|none|-|)$/i;

/**
 * Who does it, read from a text. What the text does not say (who covers, swaps, earlier orders) stays as it was where the rule
 * stays of its kind.
 * @param before the rule as it is
 */
export function readRule(text: string, before: AssignmentRule, context: RuleReadingContext): RuleReading {
  const typed = text.trim().replace(/\s+/g, ' ');
  if (typed === sayRule(before, context)) return { kind: 'read', rule: before };
  if (NOBODY.test(typed)) return { kind: 'read', rule: { v: 1, kind: 'nobody' } };
  if (/^as listed\b/i.test(typed)) return unread('A list of who has which days is changed on the schedule’s own page.');
  const turns = /^in turn\s*:?\s*(.*)$/i.exec(typed);
  if (turns) return readTurns(turns[1] ?? '', before, context);
  const group = /^(any(?: one)? of|each(?: one)? of|least to do of|whoever of)\s+(.*)$/i.exec(typed);
  if (group) {
    const found = readGroup(group[2] ?? '', context);
    if (found.kind === 'unread') return found;
    if (/^each/i.test(group[1] ?? '')) {
      const { daysOffToo = true } = before.kind === 'eachOf' ? before : {};
      return { kind: 'read', rule: { v: 1, kind: 'eachOf', group: found.group, daysOffToo } };
    }
    const kind = /^any/i.test(group[1] ?? '') ? ('anyOf' as const) : ('leastToDo' as const);
    return { kind: 'read', rule: { v: 1, kind, group: found.group } };
  }
  if (CLIENT.test(typed)) return { kind: 'read', rule: { v: 1, kind: 'client' } };
  const usual = /^(?:the )?client[’']s usual person(?:,? else (.*))?$/i.exec(typed);
  if (usual) {
    const otherwise = usual[1] === undefined || NOBODY.test(usual[1]) ? null : readPerson(usual[1], context);
    if (otherwise?.kind === 'unread') return otherwise;
    const { daysOffToo = true, cover = 'deputy' } = before.kind === 'usualPerson' ? before : {};
    return { kind: 'read', rule: { v: 1, kind: 'usualPerson', otherwiseId: otherwise?.id ?? null, daysOffToo, cover } };
  }
  const person = readPerson(typed, context);
  if (person.kind === 'unread') return person;
  return {
    kind: 'read',
    rule: before.kind === 'person' ? { ...before, personId: person.id } : givenTo(person.id),
  };
}

function readTurns(text: string, before: AssignmentRule, context: RuleReadingContext): RuleReading {
  const parts = splitNames(text);
  const last = parts.at(-1) ?? '';
  const kept = before.kind === 'inTurn' ? before.turns.length : null;
  const read = readPer(last);
  // What the words don't say of the length stays as it was.
  const length =
    kept !== null && (read === null || sayPer(read) === sayPer(kept)) ? kept : (read ?? { per: 'week', on: 1 });
  const names = readPer(last) === null ? parts : parts.slice(0, -1);
  if (names.length === 0) return unread('Say who takes turns: “in turn: Joss, Kit, weekly”.');
  const people: string[] = [];
  for (const name of names) {
    const found = readPerson(name, context);
    if (found.kind === 'unread') return found;
    people.push(found.id);
  }
  const from = isoOfDay(context.today);
  if (before.kind === 'inTurn' && JSON.stringify(before.turns.length) === JSON.stringify(length))
    return {
      kind: 'read',
      rule: { ...before, turns: goesOnWith(before.turns, context.today, people, context.datesBetween) },
    };
  return {
    kind: 'read',
    rule: {
      ...{ v: 1, kind: 'inTurn' },
      turns: { length, rosters: [{ from, people }], swaps: [] },
      cover: before.kind === 'inTurn' ? before.cover : 'next',
    },
  };
}

const WEEKDAYS = [1, 2, 3, 4, 5, 6, 7] as const;

function readPer(text: string): TurnLength | null {
  if (/^(each|every) time$/i.test(text)) return { per: 'occurrence' };
  if (/^(monthly|each month|by the month)$/i.test(text)) return { per: 'month' };
  const week = /^(?:weekly|each week|by the week)(?: (?:from|on) ([a-z]+))?$/i.exec(text);
  if (!week) return null;
  if (week[1] === undefined) return { per: 'week', on: 1 };
  const typed = week[1].toLowerCase().slice(0, 3);
  const on = WEEKDAYS.find((day) => weekdayShort(day).toLowerCase() === typed);
  return on === undefined ? null : { per: 'week', on };
}

const splitNames = (text: string): string[] =>
  text
    .split(/,|;| and /i)
    .map((part) => part.trim())
    .filter((part) => part !== '');

type GroupReading = { readonly kind: 'group'; readonly group: Group } | Extract<RuleReading, { kind: 'unread' }>;

function readGroup(text: string, context: RuleReadingContext): GroupReading {
  const same = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();
  const typed = text.replace(/^the /i, '');
  if (/^(everyone|everybody|all)$/i.test(typed)) return { kind: 'group', group: { of: 'everyone' } };
  const role = context.roles.find((one) => same(one, typed));
  if (role !== undefined) return { kind: 'group', group: { of: 'role', role } };
  const shift = /^(.*?) on shift$/i.exec(typed)?.[1];
  const onShift = shift === undefined ? undefined : context.roles.find((one) => same(one, shift));
  if (onShift !== undefined) return { kind: 'group', group: { of: 'role', role: onShift, onShift: true } };
  const team = context.teams.find((one) => same(one, typed) || same(`team ${one}`, typed));
  if (team !== undefined) return { kind: 'group', group: { of: 'team', team } };
  const ids: string[] = [];
  const names = splitNames(typed);
  for (const name of names) {
    const found = readPerson(name, context);
    if (found.kind === 'unread')
      return names.length > 1
        ? found
        : unread(
            `No role, team or person here is called “${text}”.`,
            nearestWord(text, [...context.roles, ...context.teams]),
          );
    if (!ids.includes(found.id)) ids.push(found.id);
  }
  if (ids.length === 0) return unread('Say of whom: a role, a team or names.');
  return { kind: 'group', group: { of: 'people', ids } };
}

export type PersonReading = { readonly kind: 'person'; readonly id: string } | Extract<RuleReading, { kind: 'unread' }>;

export function readPerson(text: string, { people }: Pick<RuleWordsContext, 'people'>): PersonReading {
  const typed = plainWords(text).join(' ');
  const exact = people.filter(({ name }) => plainWords(name).join(' ') === typed);
  const found = exact.length > 0 ? exact : people.filter(({ name }) => plainWords(name).includes(typed));
  const [only] = found;
  if (only && found.length === 1) return { kind: 'person', id: only.id };
  if (found.length > 1)
    return unread(`“${text}” may be ${found.map(({ name }) => name).join(' or ')}: write the whole name.`);
  const names = people.map(({ name }) => name);
  const firsts = names.map((name) => name.split(/\s+/)[0] as string);
  const first = nearestWord(text, firsts);
  // By a first name that several have, nobody is meant.
  const byFirst =
    first !== null && firsts.filter((one) => one === first).length === 1 ? names[firsts.indexOf(first)] : null;
  return unread(`Nobody here is called “${text}”.`, nearestWord(text, names) ?? byFirst ?? null);
}

function unread(message: string, suggestion: string | null = null): Extract<RuleReading, { kind: 'unread' }> {
  return { kind: 'unread', message, suggestion };
}
