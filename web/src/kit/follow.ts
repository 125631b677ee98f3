import { useSyncExternalStore } from 'react';

/** The signal that is lit everywhere: the one pointed at, otherwise the one pinned with F. */
let pointed: string | null = null;
let pinned: string | null = null;
const listeners = new Set<() => void>();

function tell(): void {
  for (const listener of listeners) listener();
}

const followed = (): string | null => pointed ?? pinned;

/** Lights a signal while it is pointed at; null lets go. */
export function pointAt(signal: string | null): void {
  if (pointed === signal) return;
  pointed = signal;
  tell();
}

/** Keeps a signal lit, or lets it go when it is lit already. */
export function pin(signal: string | null): void {
  pinned = pinned === signal ? null : signal;
  tell();
}

/** Keeps a signal lit, whatever was lit before. */
export function keep(signal: string): void {
  pinned = signal;
  tell();
}

/** Lets go of whatever is lit. */
export function letGo(): void {
  if (pointed === null && pinned === null) return;
  pointed = null;
  pinned = null;
  tell();
}

/** The signal that is kept lit, or null; not one that is only pointed at. */
export function useKeptSignal(): string | null {
  return useSyncExternalStore(listen, () => pinned);
}

function listen(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** The signal that is lit, or null. */
export function useFollowed(): string | null {
  return useSyncExternalStore(listen, followed);
}

/** Whether any signal is lit; who asks this is not drawn again when another one is. */
export function useIsFollowing(): boolean {
  return useSyncExternalStore(listen, () => followed() !== null);
}

/** Whether another signal than this one is lit. */
export function useIsOutshone(signal: string): boolean {
  return useSyncExternalStore(listen, () => followed() !== null && followed() !== signal);
}

/** Handlers that light a signal while the pointer or the focus is on an element. */
export function followProps(signal: string | null | undefined) {
  if (signal === null || signal === undefined) return {};
  return {
    'data-signal': signal,
    onPointerEnter: () => pointAt(signal),
    onPointerLeave: () => pointAt(null),
    onFocus: () => pointAt(signal),
    onBlur: () => pointAt(null),
  };
}
