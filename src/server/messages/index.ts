/** What each hears of the day, and how: the summary by mail. */
export { SummaryWishRecord } from './entity.ts';
export { messageRoutes } from './routes.ts';
export { areSummariesOwed, sendSummaries } from './wishes.ts';
