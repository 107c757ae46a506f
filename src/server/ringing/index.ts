/** Who rings by a quota, how many calls that is on a day, and how long it takes. */

export { type CallMinutes, callLoad } from './call-load.ts';
export { atWork, isAtWork, type Ringing, ringing, spreadOf, wantedOn, workersOf } from './who-rings.ts';
