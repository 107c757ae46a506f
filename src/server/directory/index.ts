/** The records of clients and assets: who they are, what is theirs, and how the work for them goes. */
export { assetChanges, clientChanges } from './changes.ts';
export { clientsFound, ownAssetsFound } from './found.ts';
export { directoryRoutes } from './routes.ts';
export { assetIdsAt, standingAt } from './standing.ts';
