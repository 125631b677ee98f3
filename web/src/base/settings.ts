import { useSyncExternalStore } from 'react';

/** What a person chose for the whole application; kept in this browser. */
export interface Settings {
  /** The dim theme: as the system has it, until a person chooses. */
  readonly dim: boolean;
  readonly symbols: 'distinctive' | 'rectangular';
  /** How wide the board is drawn on each mat, against the mat; as wide as it where nothing was chosen. */
  readonly zoom: Readonly<Partial<Record<MatName, number>>>;
  /** Mats around which the panels are folded away. */
  readonly folded: readonly MatName[];
  /** The job that leads a newcomer from an empty sheet to a lit lamp, as long as it does. */
  readonly firstJob: string | null;
}

/** The mats that boards lie on, by their steps. */
export type MatName = (typeof matNames)[number];
const matNames = ['board', 'inspect', 'power', 'card'] as const;

const KEY = 'saddlebag:settings';
const listeners = new Set<() => void>();
/** What the system prefers; null where nothing is asked, as for pictures on the command line. */
const system = globalThis.matchMedia?.('(prefers-color-scheme: dark)') ?? null;
/** What was chosen; what was not is as the system has it, or as it is at first. */
let chosen: Partial<Settings> = read();
let current: Settings = withSystem();

function read(): Partial<Settings> {
  try {
    const { dim, symbols, zoom, folded, firstJob } = JSON.parse(localStorage.getItem(KEY) ?? '{}') as {
      readonly [K in keyof Settings]?: unknown;
    };
    const scales = matNames.flatMap((name) => {
      const scale = (zoom as Record<string, unknown> | undefined)?.[name];
      return typeof scale === 'number' && Number.isFinite(scale) ? [[name, scale] as const] : [];
    });
    return {
      ...(typeof dim === 'boolean' && { dim }),
      ...(symbols === 'rectangular' && { symbols }),
      zoom: Object.fromEntries(scales),
      folded: Array.isArray(folded) ? matNames.filter((name) => folded.includes(name)) : [],
      firstJob: typeof firstJob === 'string' ? firstJob.slice(0, 64) : null,
    };
  } catch {
    return {};
  }
}

function withSystem(): Settings {
  return { dim: system?.matches === true, symbols: 'distinctive', zoom: {}, folded: [], firstJob: null, ...chosen };
}

// A lab that is darkened in the evening: the page goes with it, unless a person has chosen.
system?.addEventListener('change', () => show());

function show(): void {
  current = withSystem();
  applySettings();
  for (const listener of listeners) listener();
}

/** Puts the settings into effect on the page: the theme is a class of the root element. */
export function applySettings(): void {
  document.documentElement.classList.toggle('dark', current.dim);
}

/** Changes settings; when they cannot be stored they hold until the tab closes. */
export function changeSettings(change: Partial<Settings>): void {
  chosen = { ...chosen, ...change };
  try {
    localStorage.setItem(KEY, JSON.stringify(chosen));
  } catch {
    // A full or forbidden storage loses only the preference.
  }
  show();
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
