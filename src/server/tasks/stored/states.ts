import { ENDED_STATES, TO_DO_STATES, UNFINISHED_STATES } from '../../../core/index.ts';

const listed = (states: readonly string[]) => `(${states.map((state) => `'${state}'`).join(', ')})`;

/** Lists of states, for SQL. */
export const TO_DO = listed(TO_DO_STATES);
export const UNFINISHED = listed(UNFINISHED_STATES);
export const ENDED = listed(ENDED_STATES);
