/** What was done, in words, and its undoing. */
export { historyRoutes } from './routes.ts';
export { impactOfUndo } from './undo.ts';
