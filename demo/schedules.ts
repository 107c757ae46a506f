import {
  type Convention,
  type Overlap,
  PLAIN_TIMING,
  type Recurrence,
  type Rule,
  type Timing,
  type TurnLength,
  type Weekday,
} from '../src/core/index.ts';
import type { PersonKey } from './people.ts';
import type { TemplateKey } from './templates.ts';

/** Who does it where that is not one person, or nobody. */
export type DemoWho =
  | { readonly kind: 'inTurn'; readonly per: TurnLength['per']; readonly people: readonly PersonKey[] }
  /** A list of weekends, each somebody’s, that is written so many weeks ahead. */
  | { readonly kind: 'weekends'; readonly ahead: number; readonly people: readonly PersonKey[] }
  | { readonly kind: 'anyOf' | 'eachOf' | 'leastToDo'; readonly role: string; readonly onShift?: true };

export interface DemoSchedule {
  readonly template: TemplateKey;
  /** One of the marina's own assets by name, or a berth-holder's vessel by its place in the list. */
  readonly asset?: string | number;
  readonly who: PersonKey | null | DemoWho;
  readonly rules: readonly Rule[];
  readonly dayOff?: Convention;
  readonly start?: string;
  readonly end?: Recurrence['end'];
  readonly timing?: Partial<Timing>;
  readonly overlap?: Overlap;
  /** Paused this many days ago, and still. */
  readonly pausedDaysAgo?: number;
}

/** The marina's own places and machines. */
export const OWN_ASSETS = [
  ['Pontoon A', 'Lee Quay', 'PA-1'],
  ['Pontoon B', 'Lee Quay', 'PB-1'],
  ['Pontoon C', 'Long Quay', 'PC-1'],
  ['Pontoon D', 'Long Quay', 'PD-1'],
  ['Pontoon E', 'Gannet Quay', 'PE-1'],
  ['Pontoon F', 'Gannet Quay', 'PF-1'],
  ['Lee Quay', 'the west side', null],
  ['Long Quay', 'the middle', null],
  ['Gannet Quay', 'the east side', null],
  ['Crane 1', '12 t, by the hard', 'CR-1'],
  ['Crane 2', '5 t, fuel dock end', 'CR-2'],
  ['Fuel dock', 'Gannet Quay', 'FD-1'],
  ['Workboat Puffin', 'F 1', 'WB-1'],
  ['Workboat Dabchick', 'F 2', 'WB-2'],
] as const;

const daily = (...except: Weekday[]): Rule => ({ kind: 'days', every: 1, except });
const everyDays = (every: number): Rule => ({ kind: 'days', every, except: [] });
const weekly = (...on: Weekday[]): Rule => ({ kind: 'weeks', every: 1, on });
const everyWeeks = (every: number, ...on: Weekday[]): Rule => ({ kind: 'weeks', every, on });
const dates = (...days: number[]): Rule => ({
  kind: 'months',
  every: 1,
  months: [],
  on: days.map((day) => ({ kind: 'date', day })),
  missing: 'last',
});
const nth = (n: number, weekday: Weekday): Rule => ({
  kind: 'months',
  every: 1,
  months: [],
  on: [{ kind: 'weekday', nth: n, weekday }],
  missing: 'last',
});
const workingDay = (n: number, months: number[] = []): Rule => ({
  kind: 'months',
  every: 1,
  months,
  on: [{ kind: 'workingDay', nth: n }],
  missing: 'last',
});
const everyMonths = (every: number, day: number): Rule => ({
  kind: 'months',
  every,
  months: [],
  on: [{ kind: 'date', day }],
  missing: 'last',
});

const at = (startTime: string, dueTime: string): Partial<Timing> => ({ startTime, dueTime });
const by = (dueTime: string): Partial<Timing> => ({ dueTime });
const daysBefore = (n: number) => ({ amount: -n, unit: 'day' }) as const;
const workingDaysBefore = (n: number) => ({ amount: -n, unit: 'workingDay' }) as const;

export const DEFAULT_TIMING: Timing = { ...PLAIN_TIMING, appears: daysBefore(1) };

const PONTOON_DAYS: readonly (readonly [string, Weekday, PersonKey, string, string])[] = [
  ['Pontoon A', 1, 'nadia', '09:00', '10:00'],
  ['Pontoon B', 1, 'kit', '09:00', '10:00'],
  ['Pontoon C', 2, 'nadia', '10:00', '11:00'],
  ['Pontoon D', 3, 'kit', '09:30', '10:30'],
  ['Pontoon E', 4, 'joss', '09:30', '10:30'],
  ['Pontoon F', 5, 'tamsin', '09:00', '10:00'],
];

/** Vessels with gas aboard: one boarding check a month each, spread over the first three weeks. */
const BOARDINGS: readonly DemoSchedule[] = Array.from({ length: 32 }, (_, i) => ({
  template: 'boarding' as const,
  asset: i,
  who: i === 3 ? null : ((['kit', 'nadia', 'joss', 'tamsin'] as const)[i % 4] ?? null),
  rules: [nth(1 + (i % 3), ([2, 4, 3, 5] as const)[(i >> 1) % 4] ?? 2)],
  dayOff: 'following' as const,
  timing: {
    appears: daysBefore(10),
    ...at(`${String(11 + (i % 5)).padStart(2, '0')}:00`, `${String(12 + (i % 5)).padStart(2, '0')}:00`),
  },
  ...(i === 20 ? { pausedDaysAgo: 16 } : {}),
}));

export const SCHEDULES: readonly DemoSchedule[] = [
  {
    template: 'openingWalk',
    who: 'nadia',
    rules: [weekly(1, 2, 3, 4, 5)],
    dayOff: 'none',
    timing: at('07:00', '07:30'),
  },
  {
    template: 'openingWalk',
    who: { kind: 'inTurn', per: 'week', people: ['tamsin', 'kit', 'wilf', 'piet'] },
    rules: [weekly(6, 7)],
    timing: at('07:30', '08:00'),
  },
  ...PONTOON_DAYS.map(
    ([asset, weekday, who, from, to]): DemoSchedule => ({
      template: 'pontoon',
      asset,
      who,
      rules: [weekly(weekday)],
      dayOff: 'following',
      timing: at(from, to),
    }),
  ),
  { template: 'firePoints', asset: 'Lee Quay', who: 'joss', rules: [everyWeeks(2, 1)], dayOff: 'following' },
  {
    template: 'firePoints',
    asset: 'Long Quay',
    who: 'nadia',
    rules: [everyWeeks(2, 3)],
    dayOff: 'following',
    timing: at('09:00', '10:00'),
  },
  { template: 'firePoints', asset: 'Gannet Quay', who: 'tamsin', rules: [everyWeeks(2, 4)], dayOff: 'following' },
  {
    template: 'lifeRings',
    asset: 'Gannet Quay',
    who: { kind: 'inTurn', per: 'week', people: ['joss', 'nadia', 'kit', 'tamsin', 'wilf'] },
    rules: [daily(7)],
    timing: by('15:30'),
    overlap: { kind: 'lapse' },
  },
  { template: 'lifeRings', asset: 'Lee Quay', who: 'kit', rules: [weekly(2)] },
  {
    template: 'lifeRings',
    asset: 'Long Quay',
    who: { kind: 'anyOf', role: 'dock crew', onShift: true },
    rules: [weekly(6)],
  },
  ...BOARDINGS,
  {
    template: 'craneCert',
    asset: 'Crane 1',
    who: 'bram',
    rules: [everyMonths(6, 18)],
    start: '2025-06-18',
    dayOff: 'preceding',
    timing: { appears: workingDaysBefore(10), starts: workingDaysBefore(3) },
  },
  {
    template: 'craneCert',
    asset: 'Crane 2',
    who: 'bram',
    rules: [everyMonths(6, 4)],
    start: '2025-02-04',
    dayOff: 'preceding',
    timing: { appears: workingDaysBefore(10), starts: workingDaysBefore(3) },
  },
  { template: 'winch', who: 'selwyn', rules: [nth(2, 1)], dayOff: 'following', timing: at('13:00', '15:00') },
  { template: 'workboat', asset: 'Workboat Puffin', who: 'bram', rules: [everyDays(10)], dayOff: 'nearest' },
  {
    template: 'workboat',
    asset: 'Workboat Dabchick',
    who: 'selwyn',
    rules: [everyDays(10)],
    start: '2026-01-06',
    dayOff: 'nearest',
  },
  { template: 'pumps', who: 'lowri', rules: [weekly(1, 2, 3, 4, 5)], timing: at('07:30', '08:00') },
  { template: 'pumps', who: 'piet', rules: [weekly(6, 7)], timing: at('07:30', '08:00') },
  { template: 'spillKits', asset: 'Fuel dock', who: 'lowri', rules: [everyWeeks(4, 2)], timing: at('14:00', '14:30') },
  {
    template: 'spillKits',
    asset: 'Long Quay',
    who: { kind: 'leastToDo', role: 'dock crew' },
    rules: [everyWeeks(4, 4)],
  },
  {
    template: 'meterCal',
    asset: 'Fuel dock',
    who: 'lowri',
    rules: [{ kind: 'years', every: 1, months: [3], on: [{ kind: 'weekday', nth: 2, weekday: 2 }], missing: 'last' }],
    start: '2024-03-01',
    timing: { appears: daysBefore(30) },
  },
  {
    template: 'invoicing',
    who: 'oskar',
    rules: [workingDay(1)],
    timing: { appears: workingDaysBefore(2), ...by('17:00') },
  },
  { template: 'bank', who: 'maud', rules: [weekly(5)], dayOff: 'preceding', timing: by('16:00') },
  {
    template: 'payroll',
    who: 'maud',
    rules: [
      {
        kind: 'months',
        every: 1,
        months: [],
        on: [
          { kind: 'date', day: 15 },
          { kind: 'workingDay', nth: -1 },
        ],
        missing: 'last',
      },
    ],
    dayOff: 'preceding',
    timing: { appears: workingDaysBefore(4), starts: workingDaysBefore(2), ...by('12:00') },
  },
  {
    template: 'taxReturn',
    who: 'maud',
    rules: [{ kind: 'months', every: 1, months: [2, 5, 8, 11], on: [{ kind: 'date', day: 7 }], missing: 'last' }],
    dayOff: 'preceding',
    timing: { appears: workingDaysBefore(10), starts: workingDaysBefore(5), ...by('17:00') },
  },
  {
    template: 'deposits',
    who: 'ines',
    rules: [workingDay(-1, [3, 6, 9, 12])],
    timing: { appears: workingDaysBefore(5) },
  },
  { template: 'briefing', who: 'joss', rules: [weekly(1)], dayOff: 'skip', timing: at('08:00', '08:45') },
  {
    template: 'briefing',
    who: { kind: 'eachOf', role: 'dock crew' },
    rules: [workingDay(1)],
    timing: at('09:00', '09:45'),
  },
  {
    template: 'renewalLetters',
    who: 'ayesha',
    rules: [dates(1, 15)],
    dayOff: 'following',
    timing: { appears: daysBefore(3), due: { amount: 1, unit: 'workingDay' } },
  },
  ...(['nadia', 'kit', 'joss', 'tamsin'] as const).map(
    (who): DemoSchedule => ({
      template: 'visitors',
      who,
      rules: [weekly(1, 2, 3, 4, 5)],
      timing: at('13:00', '15:00'),
    }),
  ),
  {
    template: 'visitors',
    who: { kind: 'weekends', ahead: 6, people: ['wilf', 'piet', 'tamsin', 'wilf', 'tamsin', 'piet'] },
    rules: [weekly(6, 7)],
    timing: at('10:00', '12:00'),
  },
  {
    template: 'lifts',
    asset: 'Crane 1',
    who: 'bram',
    rules: [weekly(1, 2, 3, 4, 5)],
    dayOff: 'skip',
    timing: at('08:00', '12:00'),
  },
  {
    template: 'lifts',
    asset: 'Crane 2',
    who: 'selwyn',
    rules: [weekly(2, 4)],
    dayOff: 'skip',
    timing: at('08:00', '12:00'),
  },
  { template: 'fuelShift', who: 'lowri', rules: [weekly(1, 2, 3, 4, 5)], timing: by('18:00') },
  { template: 'fuelShift', who: 'piet', rules: [weekly(6, 7)], timing: by('18:00') },
  { template: 'post', who: 'maud', rules: [weekly(1, 2, 3, 4, 5)], dayOff: 'skip', timing: at('09:00', '11:30') },
  { template: 'post', who: 'oskar', rules: [weekly(1, 3, 5)], dayOff: 'skip', timing: at('13:00', '15:30') },
  {
    template: 'enquiries',
    who: 'ayesha',
    rules: [weekly(1, 2, 3, 4, 5)],
    dayOff: 'skip',
    timing: at('09:00', '12:00'),
  },
  { template: 'enquiries', who: 'rhona', rules: [weekly(1, 3, 4)], dayOff: 'skip', timing: at('09:30', '12:30') },
  { template: 'washrooms', who: 'tamsin', rules: [weekly(1, 2, 3, 4, 5)], timing: at('07:00', '08:00') },
  { template: 'washrooms', who: 'piet', rules: [weekly(6, 7)], timing: at('09:00', '10:00') },
  {
    template: 'morningRound',
    who: 'ines',
    rules: [weekly(1, 2, 3, 4, 5)],
    dayOff: 'skip',
    timing: at('08:15', '09:00'),
  },
];
