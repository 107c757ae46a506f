import { useSyncExternalStore } from 'react';

export type Theme = 'daybreak' | 'nightwatch';

const KEY = 'jolly-rota.theme';
const listeners = new Set<() => void>();

/** The theme in force, and how to change it. It follows the system until one is chosen (public/theme.js reads it first). */
export function useTheme(): [Theme, (theme: Theme) => void] {
  const theme = useSyncExternalStore(subscribe, current);
  return [theme, choose];
}

function current(): Theme {
  return document.documentElement.dataset['theme'] === 'nightwatch' ? 'nightwatch' : 'daybreak';
}

function choose(theme: Theme): void {
  localStorage.setItem(KEY, theme);
  document.documentElement.dataset['theme'] = theme;
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  const system = matchMedia('(prefers-color-scheme: dark)');
  const follow = () => {
    if (localStorage.getItem(KEY) !== null) return;
    document.documentElement.dataset['theme'] = system.matches ? 'nightwatch' : 'daybreak';
    listener();
  };
  system.addEventListener('change', follow);
  return () => {
    listeners.delete(listener);
    system.removeEventListener('change', follow);
  };
}
