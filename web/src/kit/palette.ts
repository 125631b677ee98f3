/**
 * The colours of signals, in the order in which signals take them. Each keeps 3:1 contrast on the mat
 * and the set differs for colour-blind eyes (palette.test.ts); tags put the name beside the colour.
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
  '#EF3969',
] as const;

/** Gives every signal a colour: supply red, ground black, the others from the palette, again from its start when it ends. */
export class Colours {
  private readonly byName: ReadonlyMap<string, string>;

  constructor(signals: readonly string[]) {
    const names = [...new Set(signals)].filter((s) => s !== '0' && s !== '1');
    this.byName = new Map(names.map((name, i) => [name, palette[i % palette.length] as string]));
  }

  /** The colour of a signal; null for a net that has no name in the design. */
  of(signal: string | undefined): string | null {
    if (signal === undefined) return null;
    if (signal === '1') return 'var(--sb-colors-supply-wire)';
    if (signal === '0') return 'var(--sb-colors-ground-wire)';
    return this.byName.get(signal) ?? this.byName.get(signal.split('.')[0] ?? '') ?? null;
  }
}

/** A signal's colour as a line on paper: the same hue, darker, so that it keeps its contrast there. */
export const onPaper = (colour: string): string => `color-mix(in srgb, ${colour} 78%, var(--sb-colors-ink))`;
