/** How a workspace begins: its first page, and its first manager. */
export { setupRoutes } from './routes.ts';
