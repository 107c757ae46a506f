/** What is said about a task by those who work with it, apart from its record. */
export { CommentRecord } from './entity.ts';
export { commentRoutes } from './routes.ts';
