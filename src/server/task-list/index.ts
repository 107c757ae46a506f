/** All tasks as one table: filtered, grouped, in order. */
export { taskListRoutes } from './routes.ts';
