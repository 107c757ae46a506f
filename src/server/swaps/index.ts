/** Turns that two colleagues swap: one asks, the other agrees, and where the workspace says so a planner nods. */
export { swapRoutes } from './routes.ts';
