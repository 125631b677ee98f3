import { useEffect, useSyncExternalStore } from 'react';

/** What kinds of things are found, in the order in which they are listed. */
export const foundKinds = ['step', 'action', 'finding', 'signal', 'on the board', 'part', 'job', 'help'] as const;

/** A thing that a search finds, and what happens when it is taken. */
export interface Searchable {
  readonly kind: (typeof foundKinds)[number];
  readonly title: string;
  /** More words that it is found by, shown behind it. */
  readonly detail: string;
  /** How well it fits, where something else has found it by the same words: 0 is best. */
  readonly rank?: number;
  /** The key that does the same. */
  readonly cap?: string;
  readonly take: () => void;
}

/** Gives what a place of the screen has to be found; asked when a search begins. */
export type SearchSource = () => readonly Searchable[];

let sources: readonly SearchSource[] = [];
let open = false;
const listeners = new Set<() => void>();

function tell(): void {
  for (const listener of listeners) listener();
}

/** Offers what a screen has to be found, for as long as it is there. */
export function useSearchable(source: SearchSource): void {
  useEffect(() => {
    sources = [...sources, source];
    return () => {
      sources = sources.filter((s) => s !== source);
    };
  }, [source]);
}

/** Everything that can be found now. */
export const searchables = (): readonly Searchable[] => sources.flatMap((source) => source());

/** Opens the search, or closes it. */
export function openSearch(isOpen: boolean): void {
  open = isOpen;
  tell();
}

/** Whether the search is open. */
export function useSearchOpen(): boolean {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => open,
  );
}
