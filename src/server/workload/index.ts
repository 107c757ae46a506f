/** How much everybody has to do by the week, and how it is evened out. */
export { workloadRoutes } from './routes.ts';
