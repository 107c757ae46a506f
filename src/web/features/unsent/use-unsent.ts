import { useRef, useSyncExternalStore } from 'react';
import { onReached, tellAsOf } from '../../kit/kept-answers.ts';
import { type Mirror, Outbox, type Unsent } from './outbox.ts';

/** What this browser has not sent yet, of whoever is signed in. */
export const outbox = new Outbox(window.localStorage, typeof indexedDB === 'undefined' ? null : mirrorOnDisk());

/** The same in the database of this device, in the order in which it was kept. */
function mirrorOnDisk(): Mirror {
  const store = () => import('../../kit/device-store.ts');
  let line: Promise<unknown> = Promise.resolve();
  return {
    keep: (place, text) => {
      line = line
        .then(async () => (await store()).keepOnDevice('queue', place, text))
        // The first place has it: what is lost by this is a second one.
        .catch((error: unknown) => console.info('Nothing is kept twice on this device.', error));
    },
    kept: (place) =>
      store()
        .then(({ keptOnDevice }) => keptOnDevice('queue', place))
        .catch((error: unknown) => {
          console.info('Nothing can be read of what is kept twice on this device.', error);
          return null;
        }),
  };
}

window.addEventListener('offline', () => tellAsOf(Date.now()));
window.addEventListener('online', () => void outbox.connected());
// A device may be on a net and reach nothing: what tells is an answer.
onReached(() => void outbox.connected());
window.addEventListener('focus', () => void outbox.flush());
window.addEventListener('storage', ({ key }) => {
  if (outbox.isOwn(key)) outbox.look();
});

/** What was typed into a field and is not there yet; null where nothing is. */
export function useUnsent(field: string): Unsent | null {
  return useSyncExternalStore(outbox.subscribe, () => outbox.get(field));
}

/** Some of it, by field; the same map for as long as those are the same, so that typing elsewhere draws nothing anew. */
export function useUnsentOf(isOf: (unsent: Unsent) => boolean): ReadonlyMap<string, Unsent> {
  const last = useRef<ReadonlyMap<string, Unsent>>(new Map());
  return useSyncExternalStore(outbox.subscribe, () => {
    const found = [...outbox.all.values()].filter(isOf);
    const isSame = found.length === last.current.size && found.every((one) => last.current.get(one.field) === one);
    if (!isSame) last.current = new Map(found.map((one) => [one.field, one]));
    return last.current;
  });
}

/** All of it, by field. */
export function useAllUnsent(): ReadonlyMap<string, Unsent> {
  return useSyncExternalStore(outbox.subscribe, () => outbox.all);
}
