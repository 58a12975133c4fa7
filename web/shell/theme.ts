import { useSyncExternalStore } from 'react';

export type Theme = 'daylight' | 'night';
const STORE = 'blunko.theme';
const listeners = new Set<() => void>();

/** The chosen theme, or the one the machine asks for. */
export function currentTheme(): Theme {
  const chosen = localStorage.getItem(STORE);
  if (chosen === 'daylight' || chosen === 'night') return chosen;
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'daylight';
}

export function applyTheme(theme = currentTheme()): void {
  document.documentElement.dataset.theme = theme;
}

export function chooseTheme(theme: Theme): void {
  localStorage.setItem(STORE, theme);
  applyTheme(theme);
  for (const listener of listeners) listener();
}

export function useTheme(): Theme {
  return useSyncExternalStore((changed) => {
    listeners.add(changed);
    return () => listeners.delete(changed);
  }, currentTheme);
}
