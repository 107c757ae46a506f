/** What a manager wants to see in the morning. */
export { overviewRoutes } from './routes.ts';
