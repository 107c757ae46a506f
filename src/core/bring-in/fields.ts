import { ENTRY_FATES } from '../calendar-entries/meaning.ts';
import { type FieldKind, type OwnField, PREFERS } from '../own-fields/own-fields.ts';
import { ACCESS_LEVELS, type Right } from '../people/access.ts';
import { plural } from '../wording/date-words.ts';

/** What can be brought in from a file, a line each. */
export const BRING_KINDS = ['clients', 'people', 'schedules', 'tasks', 'templates', 'history', 'calendar'] as const;
export type BringKind = (typeof BRING_KINDS)[number];

/** The right that it takes, over everything. */
export const BRING_RIGHTS = {
  clients: 'clients',
  people: 'people',
  schedules: 'plan',
  tasks: 'plan',
  templates: 'plan',
  history: 'plan',
  calendar: 'plan',
} as const satisfies Readonly<Record<BringKind, Right>>;

/** What a list is of, in words: of one thing, of several, and what is brought in as a whole. */
export const BRING_WORDS: Readonly<
  Record<BringKind, { readonly one: string; readonly many: string; readonly all?: string }>
> = {
  clients: { one: 'client', many: 'clients' },
  people: { one: 'person', many: 'people' },
  schedules: { one: 'schedule', many: 'schedules' },
  tasks: { one: 'task', many: 'tasks' },
  templates: { one: 'template', many: 'templates' },
  history: { one: 'finished task', many: 'finished tasks' },
  calendar: { one: 'entry', many: 'entries', all: 'a calendar' },
};

/** "4 lines" of a list, "4 entries" of a calendar. */
export const sayLines = (kind: BringKind, count: number): string =>
  kind === 'calendar' ? plural(count, BRING_WORDS.calendar.one, BRING_WORDS.calendar.many) : plural(count, 'line');

/** How the text of a cell is read: a moment is a date, with a time of day behind it or not; a duration is in minutes. */
export type BringValue =
  | 'text'
  | 'email'
  | 'names'
  | 'person'
  | 'choice'
  | 'date'
  | 'time'
  | 'moment'
  | 'duration'
  | 'number';

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

const SUBJECT_FIELDS: readonly BringField[] = [
  field('client', 'client', { alsoCalled: ['client name', 'customer', 'customer name', 'for whom', 'for', 'holder'] }),
  field('asset', 'asset', { alsoCalled: ['vessel', 'boat', 'equipment', 'machine', 'site', 'thing'] }),
];
const WHO = ['by', 'person', 'assignee', 'assigned to', 'responsible', 'done by', 'by whom', 'owner'];
const MINUTES = ['estimate', 'duration', 'time needed', 'takes', 'effort'];

/** The longest phrase, and the longest text of who does it. */
const LONGEST_PHRASE = 400;

const SCHEDULE_FIELDS: readonly BringField[] = [
  field('template', 'template', {
    isNeeded: true,
    alsoCalled: ['template name', 'work', 'what', 'task', 'job', 'procedure', 'activity'],
  }),
  ...SUBJECT_FIELDS,
  field('when', 'when', {
    isNeeded: true,
    most: LONGEST_PHRASE,
    alsoCalled: ['phrase', 'rule', 'schedule', 'frequency', 'how often', 'repeats', 'recurrence', 'interval'],
  }),
  field('who', 'who', { most: LONGEST_PHRASE, alsoCalled: WHO }),
  field('from', 'from', {
    value: 'date',
    alsoCalled: ['start', 'start date', 'starts', 'since', 'first', 'first date', 'begins'],
  }),
  field('until', 'until', { value: 'date', alsoCalled: ['end', 'end date', 'ends', 'last', 'last date'] }),
  field('appears', 'appears', { most: 60, alsoCalled: ['shown', 'visible from', 'lead time'] }),
  field('due', 'due', { most: 60, alsoCalled: ['due after', 'allowed'] }),
];

const TASK_FIELDS: readonly BringField[] = [
  field('title', 'task', {
    isNeeded: true,
    most: 200,
    alsoCalled: ['title', 'name', 'what', 'subject', 'job', 'to do'],
  }),
  field('dueOn', 'due', {
    isNeeded: true,
    value: 'date',
    alsoCalled: ['due date', 'due on', 'deadline', 'date', 'day', 'by when'],
  }),
  field('dueTime', 'due at', { value: 'time', alsoCalled: ['due time', 'until', 'end time'] }),
  field('workOn', 'work on', { value: 'date', alsoCalled: ['planned', 'planned for', 'scheduled for', 'do on'] }),
  field('startTime', 'starts at', { value: 'time', alsoCalled: ['start time', 'time', 'at'] }),
  field('who', 'who', { value: 'person', alsoCalled: WHO }),
  ...SUBJECT_FIELDS,
  field('minutes', 'minutes', { value: 'duration', alsoCalled: MINUTES }),
  field('priority', 'priority', {
    value: 'choice',
    choices: ['low', 'normal', 'high', 'urgent'],
    alsoCalled: ['importance', 'urgency'],
  }),
  field('brief', 'note', {
    most: 2000,
    alsoCalled: ['notes', 'details', 'description', 'remarks', 'remark', 'comment'],
  }),
  field('state', 'state', { most: 60, alsoCalled: ['status'] }),
];

const TEMPLATE_FIELDS: readonly BringField[] = [
  field('name', 'template', { isNeeded: true, alsoCalled: ['template name', 'name', 'procedure', 'work'] }),
  field('summary', 'summary', { alsoCalled: ['about', 'purpose'] }),
  field('category', 'category', { most: 40, alsoCalled: ['group', 'area'] }),
  field('workType', 'type of work', { most: 40, alsoCalled: ['type', 'work type', 'kind'] }),
  field('titlePattern', 'title', { most: 200, alsoCalled: ['task title', 'task name'] }),
  field('minutes', 'minutes', { value: 'duration', alsoCalled: MINUTES }),
  field('priority', 'priority', {
    value: 'choice',
    choices: ['low', 'normal', 'high', 'urgent'],
    alsoCalled: ['importance'],
  }),
  field('who', 'who', { most: LONGEST_PHRASE, alsoCalled: WHO }),
  field('instructions', 'instructions', { most: 5000, alsoCalled: ['description', 'how', 'details', 'text'] }),
  field('step', 'step', { most: 200, alsoCalled: ['check line', 'check', 'item', 'line', 'sub task', 'subtask'] }),
  field('stepNote', 'step note', { most: 2000, alsoCalled: ['check note', 'item note'] }),
  field('stepMinutes', 'step minutes', { value: 'duration', alsoCalled: ['step estimate', 'step duration'] }),
  field('stepDay', 'step day', { most: 60, alsoCalled: ['step offset', 'step on'] }),
];

const HISTORY_FIELDS: readonly BringField[] = [
  field('title', 'task', {
    isNeeded: true,
    most: 200,
    alsoCalled: ['title', 'name', 'what', 'subject', 'job', 'work'],
  }),
  field('doneAt', 'done at', {
    value: 'moment',
    alsoCalled: ['done', 'done on', 'finished', 'finished at', 'completed', 'completed at', 'completion date', 'date'],
  }),
  field('doneBy', 'done by', { value: 'person', alsoCalled: ['finished by', 'completed by', 'by', 'signed by'] }),
  field('dueOn', 'due', { value: 'date', alsoCalled: ['due date', 'due on', 'deadline', 'planned'] }),
  field('who', 'who', { value: 'person', alsoCalled: ['person', 'assignee', 'assigned to', 'responsible'] }),
  ...SUBJECT_FIELDS,
  field('template', 'template', { alsoCalled: ['template name', 'procedure'] }),
  field('minutes', 'minutes', { value: 'duration', alsoCalled: MINUTES }),
  field('note', 'note', { most: 5000, alsoCalled: ['notes', 'remarks', 'remark', 'comment', 'result', 'outcome'] }),
  field('state', 'state', { most: 60, alsoCalled: ['status'] }),
];

const CALENDAR_FIELDS: readonly BringField[] = [
  field('becomes', 'becomes', { value: 'choice', choices: ENTRY_FATES }),
  field('uid', 'uid', { most: 1000 }),
  field('entry', 'entry', { most: 500_000 }),
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
  if (kind === 'clients') return [...CLIENT_FIELDS, ...ofOwn(OWN, own.client), ...ofOwn(ASSET_OWN, own.asset)];
  return [...FIELDS[kind]];
}

const FIELDS: Readonly<Record<Exclude<BringKind, 'clients'>, readonly BringField[]>> = {
  people: PERSON_FIELDS,
  schedules: SCHEDULE_FIELDS,
  tasks: TASK_FIELDS,
  templates: TEMPLATE_FIELDS,
  history: HISTORY_FIELDS,
  calendar: CALENDAR_FIELDS,
};
