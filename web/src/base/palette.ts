import { elementAt } from '@saddlebag/core';

/**
 * The colours of signals, in the order in which signals take them. Each keeps 3:1 contrast on the mat
 * and the set differs, from the red of supply wires too, for colour-blind eyes (palette.test.ts); tags put the name beside the colour.
 */
export const palette = [
  '#0F9ABD',
  '#D9BC12',
  '#AA8EF6',
  '#389475',
  '#BD6C0F',
  '#EA9AAF',
  '#77DF68',
  '#BCC2E6',
  '#A855F1',
  '#DDCBA6',
  '#ED1DA7',
  '#00B46C',
] as const;

/** Which signals are seen beside each other, each with how much it would matter if they looked the same. */
export type Neighbours = ReadonlyMap<string, ReadonlyMap<string, number>>;

const none: Neighbours = new Map();

/** How often the colours given are looked at again. */
const PASSES = 20;

/**
 * Gives every signal a colour: supply red, ground black, the others from the palette in their order, each the first colour that none of its
 * neighbours has, those with the most neighbours first (Welsh and Powell 1967); where all are taken, that which matters least, and then
 * again as long as that makes it better.
 */
export class Colours {
  private readonly byName = new Map<string, string>();

  constructor(signals: readonly string[], neighbours: Neighbours = none) {
    const names = [...new Set(signals)].filter((s) => s !== '0' && s !== '1' && s !== '');
    const [degree, order] = [(n: string) => neighbours.get(n)?.size ?? 0, new Map(names.map((n, i) => [n, i]))];
    const given = new Map<string, number>();
    const paint = (name: string): boolean => {
      const first = order.get(name) ?? 0;
      // What each colour would cost.
      const costs = palette.map(() => 0);
      for (const [other, weight] of neighbours.get(name) ?? []) {
        const colour = given.get(other);
        if (colour !== undefined) costs[colour] = elementAt(costs, colour) + weight;
      }
      const least = Math.min(...costs);
      const before = given.get(name);
      if (before !== undefined && costs[before] === least) return false;
      const best = palette.map((_, k) => (first + k) % palette.length).find((c) => costs[c] === least) ?? 0;
      given.set(name, best);
      return true;
    };
    const few = names.filter((name) => degree(name) < palette.length);
    const crowded = names.filter((name) => degree(name) >= palette.length).sort((a, b) => degree(b) - degree(a));
    for (const name of [...crowded, ...few]) paint(name);
    for (let pass = 0; pass < PASSES && [...crowded, ...few].map(paint).includes(true); pass++);
    for (const [name, colour] of given) this.byName.set(name, elementAt(palette, colour));
  }

  /** The colour of a signal; null for a net that has no name. */
  of(signal: string | undefined): string | null {
    if (signal === undefined) return null;
    if (signal === '1') return 'var(--sb-colors-supply-wire)';
    if (signal === '0') return 'var(--sb-colors-ground-wire)';
    return this.byName.get(signal) ?? null;
  }

  /** Equal for equal colours of equal signals. */
  get key(): string {
    return [...this.byName].join(' ');
  }
}

/** A signal's colour as a line on paper: the same hue, darker, so that it keeps its contrast there. */
export const onPaper = (colour: string): string => `color-mix(in srgb, ${colour} 78%, var(--sb-colors-ink))`;
