/** All tasks as one table: filtered, grouped, in order, and as views that people keep. */
export { KeptView } from './entity.ts';
export { GROUP_KEYS, questionOf, type TaskQuestion } from './fitting.ts';
export { GROUP_NAMES } from './groups.ts';
export { countOfTasks, listTasks } from './lines.ts';
export { taskListRoutes } from './routes.ts';
