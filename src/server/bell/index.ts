/** What each person is told of within the application. */
export { type Ring, ring } from './bell.ts';
export { BellRecord } from './entity.ts';
export { bellRoutes } from './routes.ts';
