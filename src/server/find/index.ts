/** The jump: one line that finds all things. */
export { findRoutes } from './routes.ts';
