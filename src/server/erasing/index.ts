/** Takes somebody's name, and all that is said of them, out of the record; what was done, and when, stays. */
export { erasingRoutes } from './routes.ts';
