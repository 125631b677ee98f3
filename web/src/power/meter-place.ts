import { useSyncExternalStore } from 'react';

/** What a meter is held to: a hole or pin by its name, or a lamp by its own. */
export interface MeterPlace {
  readonly kind: 'hole' | 'pin' | 'lamp';
  readonly name: string;
}

let pointed: MeterPlace | null = null;
const listeners = new Set<() => void>();

/** Holds the meter to what the pointer is over; null takes it away. */
export function pointMeter(place: MeterPlace | null): void {
  if (place?.kind === pointed?.kind && place?.name === pointed?.name) return;
  pointed = place;
  for (const listener of listeners) listener();
}

/** What the pointer holds the meter to. */
export function usePointedMeter(): MeterPlace | null {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => pointed,
  );
}
