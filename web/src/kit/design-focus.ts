import { useSyncExternalStore } from 'react';

/** What the person looks at on the Design step: a row of the table, the signal asked about, a gate of the diagram by its net, and why its last change was refused. */
export interface DesignFocus {
  readonly row: number | null;
  readonly signal: string | null;
  readonly gate: string | null;
  readonly refused: string | null;
}

const nothing: DesignFocus = { row: null, signal: null, gate: null, refused: null };
let focus = nothing;
const listeners = new Set<() => void>();

/** Looks at a row, or a signal, or both; null looks away. */
export function lookAt(change: Partial<DesignFocus>): void {
  focus = { ...focus, ...change };
  for (const tell of listeners) tell();
}

/** The row and signal looked at. */
export function useDesignFocus(): DesignFocus {
  return useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => focus,
  );
}
