/** What the database has of calls: quotas, the lists of a day, and what is known of the calls to a contact. */
export { CALL_STATES, Call, CallList, CallQuota, CallStandingRecord, type CallState } from './entity.ts';
export { IS_REACHED, LISTED, nextPlace, nextPlaces } from './listed.ts';
export { keepStanding, lockedStanding, STANDING_FIELDS, type StandingRow, standingOf } from './standing.ts';
