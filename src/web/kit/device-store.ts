import { type DBSchema, type IDBPDatabase, openDB } from 'idb';

/** What this device keeps for itself, beyond what stands in the browser's small storage: written through to its disk. */
interface DeviceSchema extends DBSchema {
  /** What is not sent yet, as text, by its place: the same as in the small storage. */
  readonly queue: { key: string; value: string };
  /** Pictures and files that wait to be sent, by the key they are sent under. */
  readonly files: { key: string; value: File };
  /** What the server said last, by the address it was asked at. */
  readonly answers: { key: string; value: KeptAnswer };
}

export interface KeptAnswer {
  readonly answer: unknown;
  /** When it was given, in milliseconds since 1970 by this device's clock. */
  readonly at: number;
}

type Store = 'queue' | 'files' | 'answers';

const NAME = 'jolly-rota';
/** Each version adds to the one before: nothing that waits to be sent is let go by a new one. */
const VERSION = 1;

let opened: Promise<IDBPDatabase<DeviceSchema>> | null = null;

function open(): Promise<IDBPDatabase<DeviceSchema>> {
  opened ??= openDB<DeviceSchema>(NAME, VERSION, {
    upgrade(db) {
      for (const name of ['queue', 'files', 'answers'] as const)
        if (!db.objectStoreNames.contains(name)) db.createObjectStore(name);
    },
    // A newer version of the application is not held up by an open page of this one.
    blocking: (_current, _blocked, event) => {
      (event.target as IDBDatabase).close();
      opened = null;
    },
    terminated: () => {
      opened = null;
    },
  }).catch((error: unknown) => {
    // The next one may go well.
    opened = null;
    throw error;
  });
  return opened;
}

/** What somebody has done is on the disk, not only on its way there, before it counts as kept. */
const durabilityOf = (store: Store) => ({ durability: store === 'answers' ? 'relaxed' : 'strict' }) as const;

export async function keepOnDevice<S extends Store>(
  store: S,
  key: string,
  value: DeviceSchema[S]['value'] | null,
): Promise<void> {
  const tx = (await open()).transaction(store, 'readwrite', durabilityOf(store));
  await Promise.all([value === null ? tx.store.delete(key) : tx.store.put(value, key), tx.done]);
}

export async function keptOnDevice<S extends Store>(store: S, key: string): Promise<DeviceSchema[S]['value'] | null> {
  return (await (await open()).get(store, key)) ?? null;
}

export async function keysOnDevice(store: Store): Promise<string[]> {
  return (await open()).getAllKeys(store);
}

/** Lets go of answers from before a moment, in milliseconds since 1970. */
export async function forgetOlderAnswers(before: number): Promise<void> {
  const tx = (await open()).transaction('answers', 'readwrite');
  for (let cursor = await tx.store.openCursor(); cursor; cursor = await cursor.continue())
    if (cursor.value.at < before) await cursor.delete();
  await tx.done;
}

export async function forgetOnDevice(...stores: readonly Store[]): Promise<void> {
  const db = await open();
  for (const store of stores) await db.clear(store);
}
