/** What is taken along or hung up on paper: days, weeks, a client's year, lists of calls, as PDF. */
export { paperRoutes } from './routes.ts';
