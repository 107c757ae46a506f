/** What each person is told of within the application. */
export { pathOf, type Ring, ring, tellBells } from './bell.ts';
export { MessageRecord } from './entity.ts';
export { bellRoutes } from './routes.ts';
