import { useSyncExternalStore } from 'react';

export type Theme = 'daylight' | 'night';
const STORE = 'blunko.theme';
const listeners = new Set<() => void>();

const page = () => document.documentElement.dataset;

/** As `theme.js` found it before the first paint, or as it was chosen since. */
export const currentTheme = (): Theme => (page().chosen === 'night' ? 'night' : 'daylight');

export function applyTheme(theme = currentTheme()): void {
  page().theme = theme;
}

export function chooseTheme(theme: Theme): void {
  localStorage.setItem(STORE, theme);
  page().chosen = theme;
  applyTheme(theme);
  for (const listener of listeners) listener();
}

export function useTheme(): Theme {
  return useSyncExternalStore((changed) => {
    listeners.add(changed);
    return () => listeners.delete(changed);
  }, currentTheme);
}
