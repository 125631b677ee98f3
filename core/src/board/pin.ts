/** A pin of a seated part, cut into its part's reference and its own id: `U1.8` is pin 8 of U1. */
export interface CutPin {
  readonly ref: string;
  readonly id: string;
}

/** Cuts a pin's name at its first dot: references have none. Without a dot all of it is the reference. */
export function cutPin(pin: string): CutPin {
  const dot = pin.indexOf('.');
  return dot < 0 ? { ref: pin, id: '' } : { ref: pin.slice(0, dot), id: pin.slice(dot + 1) };
}

/** The name of a pin of a part: what `cutPin` cuts. */
export function pinOf(ref: string, id: string): string {
  return `${ref}.${id}`;
}

/** A pin in words: `U2.5` is `U2 pin 5`. */
export function spokenPin(pin: string): string {
  return pin.replace('.', ' pin ');
}
