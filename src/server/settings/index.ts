/** What a manager sets for the whole workspace, and what that does to its schedules. */
export { settingsChanges } from './changes.ts';
export { englandAndWales } from './public-holidays.ts';
export { settingsRoutes } from './routes.ts';
