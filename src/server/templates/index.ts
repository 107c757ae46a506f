/** The library. */
export { templateChanges } from './changes.ts';
export { templateRoutes } from './routes.ts';
export { impactOfTemplate, oneTemplate, saveTemplate } from './service.ts';
