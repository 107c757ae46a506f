/** The interface for programs: tokens by which they ask, and the description of all that can be asked (OpenAPI 3.1). */
export { describedRoutes, programRoutes } from './routes.ts';
