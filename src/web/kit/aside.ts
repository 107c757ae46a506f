import { useSyncExternalStore } from 'react';

/** What was being written and can't be read any more: kept as it is, until whoever wrote it has copied it or lets it go. */
const ASIDE = 'jolly-rota.aside.';
const listeners = new Set<() => void>();

/** The texts of one person, by where each is kept. */
export type Asides = Readonly<Record<string, string>>;

export function putAside(personId: string, about: string, text: string): void {
  sessionStorage.setItem(`${ASIDE}${personId}.${about}`, text);
  tell();
}

export function letAsideGo(place: string): void {
  sessionStorage.removeItem(place);
  tell();
}

export function forgetAllAsides(): void {
  for (const place of placesOf('')) sessionStorage.removeItem(place);
  tell();
}

/** Read as texts, so that what has not changed is the same to React. */
export function useAsides(personId: string): Asides {
  const read = useSyncExternalStore(subscribe, () =>
    JSON.stringify(placesOf(personId).map((place) => [place, sessionStorage.getItem(place) ?? ''])),
  );
  return Object.fromEntries(JSON.parse(read) as [string, string][]);
}

function placesOf(personId: string): string[] {
  return Object.keys(sessionStorage)
    .filter((place) => place.startsWith(`${ASIDE}${personId}`))
    .sort();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function tell(): void {
  for (const listener of listeners) listener();
}
