import { useSyncExternalStore } from 'react';
import { Outbox, type Unsent } from './outbox.ts';

/** What this browser has not sent yet, of whoever is signed in. */
export const outbox = new Outbox(window.localStorage);

window.addEventListener('online', () => void outbox.connected());
window.addEventListener('focus', () => void outbox.flush());
window.addEventListener('storage', ({ key }) => {
  if (outbox.isOwn(key)) outbox.look();
});

/** What was typed into a field and is not there yet; null where nothing is. */
export function useUnsent(field: string): Unsent | null {
  return useSyncExternalStore(outbox.subscribe, () => outbox.get(field));
}

/** All of it, by field. */
export function useAllUnsent(): ReadonlyMap<string, Unsent> {
  return useSyncExternalStore(outbox.subscribe, () => outbox.all);
}
