/** What somebody holds, and how others take it over. */
export { handOverRoutes } from './routes.ts';
