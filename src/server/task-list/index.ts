/** All tasks as one table: filtered, grouped, in order, and as views that people keep. */
export { KeptView } from './entity.ts';
export { GROUP_KEYS, isHeldUp, isLate, minuteThere, questionOf, TaskQuestion } from './fitting.ts';
export { GROUP_NAMES } from './groups.ts';
export { countOfTasks, firstDue, linesOfIds, listTasks, namesOfFilter } from './lines.ts';
export { taskListRoutes } from './routes.ts';
