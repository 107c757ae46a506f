/** What is known of the whole workspace, and its clock. */
export { workspaceRoutes } from './routes.ts';
export { describePerson } from './service.ts';
