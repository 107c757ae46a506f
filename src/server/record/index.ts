/** Papers for whoever checks the work: the record of a time of one thing, and of one task from its rule to its proof. */
export { recordRoutes } from './routes.ts';
