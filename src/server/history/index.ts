/** What was done, in words, and its undoing. */
export { historyOf } from './history.ts';
export { historyRoutes } from './routes.ts';
export { impactOfUndo } from './undo.ts';
