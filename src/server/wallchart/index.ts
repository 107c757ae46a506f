/** Rows of clients, assets, people or schedules against a year: what was made and what is foreseen, and changing it there. */
export { wallchartRoutes } from './routes.ts';
