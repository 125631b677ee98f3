import { useSyncExternalStore } from 'react';

/** What a person chose for the whole application; kept in this browser. */
export interface Settings {
  readonly dim: boolean;
  readonly symbols: 'distinctive' | 'rectangular';
}

const KEY = 'saddlebag:settings';
const plain: Settings = { dim: false, symbols: 'distinctive' };
const listeners = new Set<() => void>();
let current: Settings = read();

function read(): Settings {
  try {
    const stored = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Settings>;
    return { dim: stored.dim === true, symbols: stored.symbols === 'rectangular' ? 'rectangular' : 'distinctive' };
  } catch {
    return plain;
  }
}

/** Puts the settings into effect on the page: the theme is a class of the root element. */
export function applySettings(): void {
  document.documentElement.classList.toggle('dark', current.dim);
}

/** Changes settings; when they cannot be stored they hold until the tab closes. */
export function changeSettings(change: Partial<Settings>): void {
  current = { ...current, ...change };
  try {
    localStorage.setItem(KEY, JSON.stringify(current));
  } catch {
    // A full or forbidden storage loses only the preference.
  }
  applySettings();
  for (const listener of listeners) listener();
}

/** The settings as they are now, for who is not drawn again when they change. */
export const settings = (): Settings => current;

/** The person's settings; a component that uses them is drawn again when one changes, in this tab or another. */
export function useSettings(): Settings {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => current,
    () => current,
  );
}
