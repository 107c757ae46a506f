/** All tasks as one table: filtered, grouped, in order, and as views that people keep. */
export { KeptView } from './entity.ts';
export { listTasks, sumsOfTasks } from './lines.ts';
export { taskListRoutes } from './routes.ts';
