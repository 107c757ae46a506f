/** Files given and taken by people. */
export { fileChanges } from './changes.ts';
export { fileRoutes } from './routes.ts';
