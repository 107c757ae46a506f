import type { PersonKey } from './people.ts';

/** Who takes over for whom while somebody is away. */
export const DEPUTIES: readonly (readonly [PersonKey, PersonKey])[] = [
  ['nadia', 'kit'],
  ['kit', 'nadia'],
  ['joss', 'tamsin'],
  ['tamsin', 'joss'],
  ['bram', 'selwyn'],
  ['selwyn', 'bram'],
  ['maud', 'oskar'],
  ['oskar', 'maud'],
  ['ayesha', 'rhona'],
  ['rhona', 'ayesha'],
  ['lowri', 'piet'],
  ['piet', 'lowri'],
];

export interface DemoLeave {
  readonly who: PersonKey;
  /** The first and the last day, told from today. */
  readonly days: readonly [from: number, to: number];
  readonly half?: 'morning' | 'afternoon';
  readonly state: 'asked' | 'given' | 'refused';
  readonly note?: string;
}

/** Leave that was, is to come, or is asked for. */
export const LEAVE: readonly DemoLeave[] = [
  { who: 'joss', days: [-43, -39], state: 'given' },
  { who: 'bram', days: [-78, -74], state: 'given' },
  { who: 'maud', days: [-106, -95], state: 'given', note: 'Summer.' },
  { who: 'wilf', days: [-22, -22], state: 'refused', note: 'The lift-out needs everybody.' },
  { who: 'selwyn', days: [2, 3], state: 'given' },
  { who: 'lowri', days: [7, 7], half: 'afternoon', state: 'given', note: 'Dentist.' },
  { who: 'kit', days: [21, 25], state: 'asked', note: 'Visiting family in the north.' },
  { who: 'oskar', days: [27, 38], state: 'given' },
  { who: 'tamsin', days: [50, 54], state: 'given' },
  { who: 'nadia', days: [133, 136], state: 'asked' },
];
