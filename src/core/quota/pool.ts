import type { CivilDay } from '../civil-date/civil-day.ts';
import { tryDayOfIso } from '../civil-date/iso-date.ts';
import type { FieldValues, OwnField } from '../own-fields/own-fields.ts';
import { joinOr } from '../wording/date-words.ts';

/** What is asked of a field that the workspace keeps of its clients. */
export type FieldTest =
  /** One of some choices. */
  | { readonly kind: 'isOneOf'; readonly values: readonly string[] }
  /** A day from today on to so many days ahead, from 0. */
  | { readonly kind: 'within'; readonly days: number }
  | { readonly kind: 'atLeast' | 'atMost'; readonly value: number }
  /** Whether there is anything. */
  | { readonly kind: 'isSaid' | 'isUnsaid' };

/** What is asked of whoever may be rung. */
export type PoolCondition =
  | { readonly kind: 'plans'; readonly ids: readonly string[] }
  | { readonly kind: 'usualPeople'; readonly ids: readonly string[] }
  | { readonly kind: 'field'; readonly key: string; readonly test: FieldTest }
  /** Not rung within so many days, from 1; who is to be tried again may be. */
  | { readonly kind: 'notRungFor'; readonly days: number }
  | { readonly kind: 'neverRung' };

/** Whom a quota takes from: contacts for which all of this is so. */
export interface Pool {
  readonly v: 1;
  readonly conditions: readonly PoolCondition[];
}

/** As much of a contact and their client as a pool asks for. */
export interface PoolContact {
  readonly planIds: readonly string[];
  readonly usualPersonId: string | null;
  readonly fields: FieldValues;
  readonly lastRungOn: CivilDay | null;
  /** The day on which they are to be tried again; null where they are not. */
  readonly againOn: CivilDay | null;
}

export const isInPool = ({ conditions }: Pool, contact: PoolContact, day: CivilDay): boolean =>
  conditions.every((condition) => fitsCondition(condition, contact, day));

export function fitsCondition(condition: PoolCondition, contact: PoolContact, day: CivilDay): boolean {
  switch (condition.kind) {
    case 'plans':
      return condition.ids.some((id) => contact.planIds.includes(id));
    case 'usualPeople':
      return contact.usualPersonId !== null && condition.ids.includes(contact.usualPersonId);
    case 'field':
      return fitsField(condition.test, contact.fields[condition.key], day);
    case 'notRungFor':
      return contact.againOn !== null || contact.lastRungOn === null || day - contact.lastRungOn >= condition.days;
    case 'neverRung':
      return contact.lastRungOn === null;
  }
}

function fitsField(test: FieldTest, value: string | number | undefined, day: CivilDay): boolean {
  switch (test.kind) {
    case 'isOneOf':
      return typeof value === 'string' && test.values.includes(value);
    case 'within': {
      const on = typeof value === 'string' ? tryDayOfIso(value) : null;
      return on !== null && day <= on && on <= day + test.days;
    }
    case 'atLeast':
      return typeof value === 'number' && value >= test.value;
    case 'atMost':
      return typeof value === 'number' && value <= test.value;
    case 'isSaid':
      return value !== undefined && value !== '';
    case 'isUnsaid':
      return value === undefined || value === '';
  }
}

export const MOST_CONDITIONS = 12;

/** What is wrong with a condition, in words; null where it can be asked. */
export function conditionProblem(condition: PoolCondition, fields: readonly OwnField[]): string | null {
  switch (condition.kind) {
    case 'plans':
      return condition.ids.length === 0 ? 'Choose a plan.' : null;
    case 'usualPeople':
      return condition.ids.length === 0 ? 'Choose somebody.' : null;
    case 'field': {
      const field = fields.find(({ key }) => key === condition.key);
      if (!field) return 'There is no such field any more: take this condition out.';
      return testProblem(field, condition.test);
    }
    case 'notRungFor':
      return condition.days < 1 ? 'One day at least.' : null;
    case 'neverRung':
      return null;
  }
}

/** Tests that can be asked of a field of each kind. */
const TESTS: Readonly<Record<OwnField['kind'], readonly FieldTest['kind'][]>> = {
  text: ['isSaid', 'isUnsaid'],
  number: ['atLeast', 'atMost', 'isSaid', 'isUnsaid'],
  date: ['within', 'isSaid', 'isUnsaid'],
  choice: ['isOneOf', 'isSaid', 'isUnsaid'],
};
export const testsOf = (kind: OwnField['kind']): readonly FieldTest['kind'][] => TESTS[kind];

function testProblem({ name, kind, choices }: OwnField, test: FieldTest): string | null {
  if (!TESTS[kind].includes(test.kind)) return `That can’t be asked of ${name}.`;
  if (test.kind !== 'isOneOf') return null;
  if (test.values.length === 0) return `Choose what ${name} is.`;
  const strange = test.values.find((value) => !choices.includes(value));
  return strange === undefined ? null : `${name} is never “${strange}”.`;
}

/** Names of what stands in a pool by its id. */
export interface PoolNames {
  readonly plans: ReadonlyMap<string, string>;
  readonly people: ReadonlyMap<string, string>;
  readonly fields: readonly OwnField[];
}

const GONE = 'one that is gone';

/** A condition in words: "contract ends within 120 days", "on Resident berth or Winter ashore". */
export function sayCondition(condition: PoolCondition, names: PoolNames): string {
  const named = (ids: readonly string[], of: ReadonlyMap<string, string>) =>
    joinOr(ids.map((id) => of.get(id) ?? GONE));
  switch (condition.kind) {
    case 'plans':
      return `on ${named(condition.ids, names.plans)}`;
    case 'usualPeople':
      return `looked after by ${named(condition.ids, names.people)}`;
    case 'field': {
      const field = names.fields.find(({ key }) => key === condition.key);
      return `${field?.name ?? GONE} ${sayTest(condition.test)}`;
    }
    case 'notRungFor':
      return `not rung for ${condition.days} day${condition.days === 1 ? '' : 's'}`;
    case 'neverRung':
      return 'never rung';
  }
}

function sayTest(test: FieldTest): string {
  switch (test.kind) {
    case 'isOneOf':
      return `is ${joinOr(test.values)}`;
    case 'within':
      return test.days === 0 ? 'is today' : `within ${test.days} day${test.days === 1 ? '' : 's'}`;
    case 'atLeast':
      return `is ${test.value} or more`;
    case 'atMost':
      return `is ${test.value} or less`;
    case 'isSaid':
      return 'is said';
    case 'isUnsaid':
      return 'is not said';
  }
}
