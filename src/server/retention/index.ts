/** For how long finished work is kept: what is let go next, what was, and letting it go. */
export { LettingGoRecord } from './entity.ts';
export { letGoWhatIsDue, pastLetGo } from './letting-go.ts';
export { retentionRoutes } from './routes.ts';
