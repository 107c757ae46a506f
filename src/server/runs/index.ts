/** The making of tasks: daily, by hand, years ahead; and the log of it. */
export { Run } from './entity.ts';
export { carryOutFill, rehearseFill } from './fill.ts';
export { lastRun } from './log.ts';
export { runMaking } from './making.ts';
export { runRoutes } from './routes.ts';
