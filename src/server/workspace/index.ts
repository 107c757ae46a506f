/** What holds for the whole workspace: its settings, days off, the clock. */
export { englandAndWales } from './public-holidays.ts';
export { workspaceRoutes } from './routes.ts';
export { describePerson } from './service.ts';
