/** Whom work is done for, and their assets. */
export { Asset, Client, Contact } from './entity.ts';
export { clientRoutes } from './routes.ts';
