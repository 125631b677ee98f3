/** How a number of several signals is written; `signed` is two's complement, the first signal being the sign. */
export type NumberForm = 'binary' | 'decimal' | 'hex' | 'signed';

/** The forms, each after the one that a press makes of it. */
export const numberForms: readonly NumberForm[] = ['binary', 'decimal', 'hex', 'signed'];

/** Several rows of a trace shown as one number; `of` has the most significant first. */
export interface TraceNumber {
  readonly name: string;
  readonly of: readonly string[];
  readonly form: NumberForm;
}

/** Where the two marks of a trace stand, in nanoseconds since power up; null where one is not set. */
export interface KeptMarks {
  readonly a: number | null;
  readonly b: number | null;
}

/**
 * How the trace of a board is looked at: `pins` are traced beside the labelled signals; rows stand in `order`, those that it does not name
 * after them; `numbers` stand in the place of their signals; `speed` is seconds of the board in a second of the person's, `null` as fast as it goes;
 * `marks` come again when time reaches them.
 */
export interface TraceSetup {
  readonly pins: readonly string[];
  readonly order: readonly string[];
  readonly numbers: readonly TraceNumber[];
  readonly speed?: number | null;
  readonly marks?: KeptMarks;
}

/** A trace that nobody has arranged. */
export const plainTrace: TraceSetup = { pins: [], order: [], numbers: [] };

/** The most pins that are traced beside the labelled signals; of more, the first are let go. */
export const MOST_TRACED = 16;
/** The most letters of a pin's name, and of a row's. */
export const TRACE_LETTERS = { pin: 40, row: 80 } as const;
/** The most numbers in a trace. */
export const MOST_NUMBERS = 16;
/** The most signals in a number. */
export const MOST_NUMBER_BITS = 32;
/** The most rows whose order is kept. */
export const MOST_ORDERED = 200;

/** A row of an arranged trace: a signal, or several as a number. */
export type TraceRowShown = { readonly name: string; readonly number: TraceNumber | null };

/** The rows of a trace as a setup has them, from the names of all that is traced. Numbers of signals that are gone show nothing. */
export function arranged(names: readonly string[], { order, numbers }: TraceSetup): TraceRowShown[] {
  const whole = numbers.filter(({ of }) => of.every((name) => names.includes(name)));
  const taken = new Set(whole.flatMap(({ of }) => of));
  const rows = [
    ...names.filter((name) => !taken.has(name)).map((name): TraceRowShown => ({ name, number: null })),
    ...whole.map((number): TraceRowShown => ({ name: number.name, number })),
  ];
  const placeOf = (name: string): number => {
    const at = order.indexOf(name);
    return at < 0 ? order.length : at;
  };
  // A number that was never moved stands where its first signal would.
  const own = ({ name, number }: TraceRowShown): number => names.indexOf(number?.of[0] ?? name);
  return rows.sort((a, b) => placeOf(a.name) - placeOf(b.name) || own(a) - own(b));
}

/** The setup with a row moved by so many places. */
export function withRowMoved(setup: TraceSetup, names: readonly string[], name: string, by: number): TraceSetup {
  const order = arranged(names, setup).map((row) => row.name);
  const from = order.indexOf(name);
  if (from < 0) return setup;
  order.splice(from, 1);
  order.splice(Math.max(0, Math.min(order.length, from + by)), 0, name);
  return { ...setup, order: order.slice(0, MOST_ORDERED) };
}

/** The setup with a pin traced, or no longer; numbers that it is part of end with it. */
export function withPin(setup: TraceSetup, pin: string): TraceSetup {
  if (!setup.pins.includes(pin)) return { ...setup, pins: [...setup.pins, pin].slice(-MOST_TRACED) };
  return {
    ...setup,
    pins: setup.pins.filter((p) => p !== pin),
    order: setup.order.filter((name) => name !== pin),
    numbers: setup.numbers.filter(({ of }) => !of.includes(pin)),
  };
}

/** The setup with some signals as one number, the first the most significant, named by what they share: `Q3 … Q0` is `Q3:0`. */
export function withNumber(setup: TraceSetup, of: readonly string[]): TraceSetup {
  const bits = [...new Set(of)].slice(0, MOST_NUMBER_BITS);
  const [first, last] = [bits[0], bits[bits.length - 1]];
  if (first === undefined || last === undefined || bits.length < 2 || setup.numbers.length >= MOST_NUMBERS)
    return setup;
  const stem = (name: string): string => /^(.*?)\d*$/.exec(name)?.[1] ?? name;
  const isShared = stem(first) !== '' && bits.every((name) => stem(name) === stem(first));
  const name = isShared ? `${first}:${last.slice(stem(last).length)}` : `${first}…${last}`;
  const others = setup.numbers.filter((n) => n.name !== name && !n.of.some((bit) => bits.includes(bit)));
  return { ...setup, numbers: [...others, { name, of: bits, form: 'binary' }] };
}

/** The setup with a number written in another form, or, without one, taken apart into its signals. */
export function withForm(setup: TraceSetup, name: string, form: NumberForm | null): TraceSetup {
  const numbers = setup.numbers.flatMap((n) => (n.name !== name ? [n] : form === null ? [] : [{ ...n, form }]));
  return { ...setup, numbers };
}
