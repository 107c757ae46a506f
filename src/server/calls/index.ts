/** Quotas of calls: whom to ring on a day, how it went, and what follows. */
export { callChanges, quotaChanges } from './changes.ts';
export { callDay } from './day.ts';
export { isListingDue, makeLists } from './making.ts';
export { callRoutes } from './routes.ts';
export { poolsToTell } from './told.ts';
