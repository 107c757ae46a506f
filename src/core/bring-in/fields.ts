import { type FieldKind, type OwnField, PREFERS } from '../own-fields/own-fields.ts';
import { ACCESS_LEVELS } from '../people/access.ts';

/** What can be brought in from a file, a line each. */
export const BRING_KINDS = ['clients', 'people'] as const;
export type BringKind = (typeof BRING_KINDS)[number];

/** How the text of a cell is read. */
export type BringValue = 'text' | 'email' | 'names' | 'person' | 'choice' | 'date' | 'number';

/** Something that a column of a file can become. */
export interface BringField {
  readonly key: string;
  /** As the column is called where the same list is taken out. */
  readonly name: string;
  readonly value: BringValue;
  /** The longest text. */
  readonly most: number;
  /** Of a choice. */
  readonly choices: readonly string[];
  /** Other names of columns that mean it, in plain words. */
  readonly alsoCalled: readonly string[];
  readonly isNeeded: boolean;
  /** Whether it is the name of somebody, which some lists write with the last name first. */
  readonly isName: boolean;
}

type Short = Partial<Omit<BringField, 'key' | 'name'>>;
const field = (key: string, name: string, rest: Short = {}): BringField => ({
  ...{ key, name, value: 'text', most: 120, choices: [], alsoCalled: [], isNeeded: false, isName: false },
  ...rest,
});

/** The keys of own fields begin so: those of the client, and those of what is theirs. */
export const OWN = 'own.';
export const ASSET_OWN = 'asset.';

const ofOwn = (before: string, fields: readonly OwnField[]) =>
  fields.map(({ key, name, kind, choices }) =>
    field(before + key, name, { value: kind === 'text' ? 'text' : kind, most: 500, choices }),
  );

const CLIENT_FIELDS: readonly BringField[] = [
  field('name', 'client', {
    isNeeded: true,
    isName: true,
    alsoCalled: ['name', 'client name', 'holder', 'customer', 'customer name', 'company', 'owner', 'berth holder'],
  }),
  field('address', 'address', { most: 500, alsoCalled: ['postal address', 'street', 'addr'] }),
  field('usualPerson', 'usual person', {
    value: 'person',
    alsoCalled: ['adviser', 'advisor', 'looked after by', 'account manager'],
  }),
  /** Which service plan the client is to be put on, once it is here. */
  field('plan', 'plan', { alsoCalled: ['service plan', 'package', 'service'] }),
  field('notes', 'notes', { most: 5000, alsoCalled: ['note', 'remarks', 'remark', 'comments', 'comment'] }),
  field('contact', 'contact', { most: 80, isName: true, alsoCalled: ['contact name', 'contact person'] }),
  field('role', 'contact role', { most: 60, alsoCalled: ['role', 'position', 'job title'] }),
  field('email', 'mail', {
    value: 'email',
    most: 200,
    alsoCalled: ['email', 'e mail', 'mail address', 'email address'],
  }),
  field('telephone', 'telephone', {
    most: 60,
    alsoCalled: ['phone', 'tel', 'telephone number', 'phone number', 'mobile'],
  }),
  field('prefers', 'rather by', { value: 'choice', choices: PREFERS, alsoCalled: ['preferred way', 'prefers'] }),
  field('asset', 'asset', {
    alsoCalled: ['vessel', 'boat', 'vessel name', 'boat name', 'equipment', 'machine', 'property', 'unit'],
  }),
  field('tag', 'tag', { most: 60, alsoCalled: ['asset tag', 'serial', 'serial number'] }),
  field('place', 'place', { alsoCalled: ['berth', 'where', 'location', 'room'] }),
];

const PERSON_FIELDS: readonly BringField[] = [
  field('name', 'name', {
    most: 80,
    isNeeded: true,
    isName: true,
    alsoCalled: ['person', 'full name', 'employee', 'staff', 'staff member'],
  }),
  field('email', 'mail', {
    value: 'email',
    most: 200,
    alsoCalled: ['email', 'e mail', 'mail address', 'email address'],
  }),
  field('telephone', 'telephone', {
    most: 60,
    alsoCalled: ['phone', 'tel', 'telephone number', 'phone number', 'mobile', 'ext'],
  }),
  field('roles', 'roles', {
    value: 'names',
    most: 60,
    alsoCalled: ['role', 'job', 'job title', 'position', 'function'],
  }),
  field('team', 'team', { most: 60, alsoCalled: ['department', 'dept', 'group'] }),
  field('access', 'access', { value: 'choice', choices: ACCESS_LEVELS, alsoCalled: ['access level', 'rights'] }),
  field('hours', 'hours a week', { value: 'number', alsoCalled: ['hours', 'weekly hours', 'contract hours'] }),
  field('worksFrom', 'first day', { value: 'date', alsoCalled: ['start', 'start date', 'since', 'from', 'joined'] }),
  field('worksUntil', 'last day', { value: 'date', alsoCalled: ['end', 'end date', 'until', 'left', 'leaving date'] }),
];

/** What a column may become besides: a field that is not there yet, called as the column is. */
export const NEW_FIELDS = {
  'new.client.text': { of: 'client', kind: 'text' },
  'new.client.number': { of: 'client', kind: 'number' },
  'new.client.date': { of: 'client', kind: 'date' },
  'new.asset.text': { of: 'asset', kind: 'text' },
  'new.asset.number': { of: 'asset', kind: 'number' },
  'new.asset.date': { of: 'asset', kind: 'date' },
} as const satisfies Readonly<Record<string, { readonly of: 'client' | 'asset'; readonly kind: FieldKind }>>;
export type NewField = keyof typeof NEW_FIELDS;
export const isNewField = (key: string | null): key is NewField => key !== null && key in NEW_FIELDS;

/** All that a column may become, the workspace's own fields at the end. */
export function bringFields(
  kind: BringKind,
  own: { readonly client: readonly OwnField[]; readonly asset: readonly OwnField[] },
): BringField[] {
  if (kind === 'people') return [...PERSON_FIELDS];
  return [...CLIENT_FIELDS, ...ofOwn(OWN, own.client), ...ofOwn(ASSET_OWN, own.asset)];
}
