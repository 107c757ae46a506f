import type { Dot } from '../../../contract/index.ts';

/** What the marks of categories are called. */
export const DOT_WORDS: Readonly<Record<Dot, string>> = {
  petrol: 'petrol',
  blue: 'blue',
  green: 'green',
  ink: 'ink',
  petrolRing: 'petrol ring',
  blueRing: 'blue ring',
  greenRing: 'green ring',
  inkRing: 'ink ring',
};
