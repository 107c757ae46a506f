/** What each hears of the day, and how: the summary by mail. */
export { MessageWishRecord } from './entity.ts';
export { hear } from './hear.ts';
export { tellNoted } from './noted.ts';
export type { Morning } from './of-time.ts';
export { Office } from './office.ts';
export { pushMessages } from './pushing.ts';
export { messageRoutes } from './routes.ts';
export { mailMessages } from './sending.ts';
export { sweepMessages } from './sweep.ts';
export { countTold, type Told, tell } from './telling.ts';
export { tellTrouble } from './trouble.ts';
export { areSummariesOwed, sendSummaries } from './wishes.ts';
