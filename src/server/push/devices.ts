import { isIP } from 'node:net';
import { MOST_PUSH_DEVICES, type PushDevices, type PushPlace } from '../../contract/index.ts';
import { invalid, notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { PushDevice } from './entity.ts';

/** The devices of whoever asks, and the key that a browser wants to know to become one. */
export async function myDevices(scope: Scope, key: string): Promise<PushDevices> {
  const rows = await scope.find(PushDevice, { personId: scope.me.id });
  return {
    key,
    devices: rows
      .sort((a, b) => b.addedAt.getTime() - a.addedAt.getTime())
      .map(({ id, name, endpoint, addedAt, toldAt, trouble }) => ({
        ...{ id, name, endpoint, trouble },
        addedAt: scope.moment(addedAt),
        toldAt: scope.moment(toldAt),
      })),
  };
}

/** Adds a browser; said again, it is the same device. @throws Refusal for an address that is none to push to */
export function addDevice(scope: Scope, { endpoint, keys, name }: PushPlace, key: string): Promise<PushDevices> {
  const personId = scope.me.id;
  if (!mayBePushedTo(endpoint))
    throw invalid([{ path: 'endpoint', message: 'This browser names an address that nothing can be sent to.' }]);
  return scope.transaction(async (tx) => {
    const known = await tx.find(PushDevice, { personId });
    if (known.length >= MOST_PUSH_DEVICES && !known.some((one) => one.endpoint === endpoint))
      throw invalid([
        { path: 'endpoint', message: `${MOST_PUSH_DEVICES} devices are yours already: take one out first.` },
      ]);
    await tx.sql(
      `insert into push_device (workspace_id, id, person_id, endpoint, p256dh, auth, name, added_at) values ($1, $2, $3, $4, $5, $6, $7, $8)
       on conflict (workspace_id, person_id, endpoint) do update set p256dh = excluded.p256dh, auth = excluded.auth, name = excluded.name, trouble = null`,
      [tx.newId(), personId, endpoint, keys.p256dh, keys.auth, name, tx.instant],
    );
    return myDevices(tx, key);
  });
}

/** Outside, over https, by a name and not by a number. */
function mayBePushedTo(endpoint: string): boolean {
  if (!URL.canParse(endpoint)) return false;
  const { protocol, hostname, username } = new URL(endpoint);
  const bare = hostname.replace(/^\[|\]$/g, '');
  return protocol === 'https:' && username === '' && isIP(bare) === 0 && bare.includes('.') && !bare.endsWith('.local');
}

/** Takes one out: of whoever asks, and of nobody else. */
export async function dropDevice(scope: Scope, id: string, key: string): Promise<PushDevices> {
  const gone = await scope.sql<{ id: string }>(
    'delete from push_device where workspace_id = $1 and id = $2 and person_id = $3 returning id',
    [id, scope.me.id],
  );
  if (gone.length === 0) throw notFound('device');
  return myDevices(scope, key);
}
