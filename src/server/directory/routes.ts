import { directoryEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { archiveAsset, archiveClient, impactOfArchiving } from './archiving.ts';
import { addAsset, changeAsset } from './assets.ts';
import { addClient, changeClient } from './changing.ts';
import { listClients } from './list.ts';
import { lookAtMerging, mergeClients } from './merging.ts';
import { oneClient, ownAssets } from './one-client.ts';
import { workOf } from './work.ts';

/** Clients with their contacts, sites and assets, and the work that is done for them. */
export function directoryRoutes(routes: Routes): Routes {
  return routes
    .add(directoryEndpoints.clients, 'read', ({ scope, query }) => listClients(scope, query))
    .add(directoryEndpoints.client, 'read', ({ scope, params }) => oneClient(scope, params.clientId))
    .add(directoryEndpoints.work, 'read', ({ scope, params }) => workOf(scope, params.clientId))
    .add(directoryEndpoints.addClient, 'clients', ({ scope, body }) => addClient(scope, body))
    .add(directoryEndpoints.changeClient, 'clients', ({ scope, params, body }) =>
      changeClient(scope, params.clientId, body),
    )
    .add(directoryEndpoints.archiveClient, 'clients', ({ scope, params, body }) =>
      archiveClient(scope, params.clientId, body.archived),
    )
    .add(directoryEndpoints.impactOfArchivingClient, 'clients', ({ scope, params, body }) =>
      impactOfArchiving(scope, 'client', params.clientId, body.archived),
    )
    .add(directoryEndpoints.merge, 'clients', ({ scope, params, body }) => mergeClients(scope, params.clientId, body))
    .add(directoryEndpoints.lookAtMerging, 'clients', ({ scope, params, body }) =>
      lookAtMerging(scope, params.clientId, body.otherId),
    )
    .add(directoryEndpoints.ownAssets, 'read', ({ scope, query }) => ownAssets(scope, query))
    .add(directoryEndpoints.addAsset, 'clients', ({ scope, body }) => addAsset(scope, body))
    .add(directoryEndpoints.changeAsset, 'clients', ({ scope, params, body }) =>
      changeAsset(scope, params.assetId, body),
    )
    .add(directoryEndpoints.archiveAsset, 'clients', ({ scope, params, body }) =>
      archiveAsset(scope, params.assetId, body.archived),
    )
    .add(directoryEndpoints.impactOfArchivingAsset, 'clients', ({ scope, params, body }) =>
      impactOfArchiving(scope, 'asset', params.assetId, body.archived),
    );
}
