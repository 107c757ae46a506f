import type { Access, WeekMinutes } from '../src/core/index.ts';

export interface DemoPerson {
  readonly key: string;
  readonly name: string;
  /** The first leads. */
  readonly roles: readonly string[];
  readonly team: string | null;
  readonly access: Access;
  /** Of one week, or of two that take turns. */
  readonly weeks: readonly WeekMinutes[];
  /** The end of the telephone number. */
  readonly ext: number;
  /** Days before today: when somebody came, and their last day; left out for those who have always been here. */
  readonly came?: number;
  readonly left?: number;
  /** Qualifications, each with the days from today until its last; null where it has no end. */
  readonly tickets?: Readonly<Record<string, number | null>>;
  /** How they sign in: with an account, by an invitation that waits, or not at all. */
  readonly signsIn?: 'invited' | 'no';
}

const week = (minutes: number, days: string): WeekMinutes =>
  [...'MTWHFSU'].map((day) => (days.includes(day) ? minutes : 0));

/** The staff of Tern Quay: invented, like all of it. */
export const PEOPLE = [
  {
    ...{ key: 'ines', name: 'Ines Calloway', roles: ['manager'], team: 'office', access: 'manager', ext: 101 },
    weeks: [week(420, 'MTWHF')],
  },
  {
    ...{ key: 'nadia', name: 'Nadia Orme', roles: ['dock crew', 'first aider'], team: 'Lee Quay', access: 'member' },
    ...{ ext: 112, weeks: [week(450, 'MTWHF')], tickets: { 'first aid at work': 48, 'gas and electrics': null } },
  },
  {
    ...{ key: 'kit', name: 'Kit Sorrell', roles: ['dock crew'], team: 'Long Quay', access: 'member', ext: 113 },
    ...{ weeks: [week(450, 'TWHFS')], tickets: { 'gas and electrics': null } },
  },
  {
    ...{ key: 'joss', name: 'Joss Penhale', roles: ['dock crew', 'fire warden'], team: 'Long Quay', access: 'member' },
    ...{ ext: 114, weeks: [week(450, 'MTWHF')], tickets: { 'gas and electrics': null } },
  },
  {
    ...{ key: 'tamsin', name: 'Tamsin Wray', roles: ['dock crew'], team: 'Gannet Quay', access: 'member', ext: 115 },
    ...{ weeks: [week(450, 'WHFSU')], tickets: { 'gas and electrics': 410 } },
  },
  {
    ...{ key: 'wilf', name: 'Wilf Ardley', roles: ['dock crew'], team: 'Gannet Quay', access: 'member', ext: 116 },
    weeks: [week(240, 'MHFSU'), week(240, 'MTWHF')],
  },
  {
    ...{ key: 'bram', name: 'Bram Hollis', roles: ['yard', 'first aider'], team: 'yard', access: 'member', ext: 120 },
    weeks: [week(450, 'MTWHF')],
    tickets: { 'boat hoist operator': 640, 'workboat skipper': null, 'first aid at work': 300 },
  },
  {
    ...{ key: 'selwyn', name: 'Selwyn Dace', roles: ['yard'], team: 'yard', access: 'member', ext: 121 },
    weeks: [week(450, 'MTWHF')],
    tickets: { 'boat hoist operator': 45, 'workboat skipper': null },
  },
  {
    ...{ key: 'maud', name: 'Maud Ferrier', roles: ['office'], team: 'office', access: 'planner', ext: 102 },
    weeks: [week(420, 'MTWHF')],
  },
  {
    ...{ key: 'oskar', name: 'Oskar Tindle', roles: ['office'], team: 'office', access: 'member', ext: 103 },
    weeks: [week(420, 'MTWHF')],
  },
  {
    ...{ key: 'ayesha', name: 'Ayesha Quill', roles: ['berth adviser'], team: 'office', access: 'member', ext: 104 },
    weeks: [week(420, 'MTWHF')],
  },
  {
    ...{ key: 'rhona', name: 'Rhona Vick', roles: ['berth adviser'], team: 'office', access: 'member', ext: 105 },
    weeks: [week(420, 'MTW'), week(420, 'MTWHF')],
  },
  {
    ...{ key: 'lowri', name: 'Lowri Stagg', roles: ['fuel dock'], team: 'Lee Quay', access: 'member', ext: 130 },
    weeks: [week(450, 'MTWHF')],
  },
  {
    ...{ key: 'piet', name: 'Piet Garrow', roles: ['fuel dock', 'dock crew'], team: 'Lee Quay', access: 'member' },
    ...{ ext: 131, weeks: [week(300, 'HFSUM')] },
  },
] as const satisfies readonly DemoPerson[];

export type PersonKey = (typeof PEOPLE)[number]['key'];

/** Those who have no work of the demo: one who looks on, one who is to come, one who left in summer. */
export const OTHERS: readonly DemoPerson[] = [
  {
    ...{ key: 'odile', name: 'Odile Marsh', roles: ['owner'], team: null, access: 'viewer', ext: 100 },
    weeks: [week(0, '')],
  },
  {
    ...{ key: 'corin', name: 'Corin Hale', roles: ['dock crew'], team: 'Long Quay', access: 'member', ext: 117 },
    ...{ weeks: [week(450, 'MTWHF')], came: -12, signsIn: 'invited' },
  },
  {
    ...{ key: 'gwen', name: 'Gwen Astley', roles: ['yard'], team: 'yard', access: 'member', ext: 122 },
    ...{ weeks: [week(450, 'MTWHF')], came: 900, left: 110, signsIn: 'no' },
  },
];

/** Qualifications that are known at Tern Quay. */
export const TICKETS = ['boat hoist operator', 'workboat skipper', 'gas and electrics', 'first aid at work'] as const;

export const ROLES = [
  'dock crew',
  'yard',
  'office',
  'berth adviser',
  'fuel dock',
  'manager',
  'owner',
  'first aider',
  'fire warden',
];
export const TEAMS = ['Lee Quay', 'Long Quay', 'Gannet Quay', 'yard', 'office'];
