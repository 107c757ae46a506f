/** Whom work is done for, and their assets. */
export { Asset, Client, Contact } from './entity.ts';
export { ownerOfTag } from './queries.ts';
export { clientRoutes } from './routes.ts';
