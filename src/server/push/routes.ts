import { pushEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import type { ServerParts } from '../platform/server-parts.ts';
import { addDevice, dropDevice, myDevices } from './devices.ts';
import { pushKeys } from './sending.ts';

export function pushRoutes(routes: Routes, { writes }: ServerParts): Routes {
  const keyOf = async () => (await pushKeys(writes)).publicKey;
  return routes
    .add(pushEndpoints.mine, 'account', async ({ scope }) => myDevices(scope, await keyOf()))
    .add(pushEndpoints.add, 'account', async ({ scope, body }) => addDevice(scope, body, await keyOf()))
    .add(pushEndpoints.drop, 'account', async ({ scope, params }) => dropDevice(scope, params.deviceId, await keyOf()));
}
