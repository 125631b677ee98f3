/** A name with its range: `A[3:0]` is wires 3 down to 0 of A, `A[2]` one of them, `A` has none. */
export interface Range {
  readonly base: string;
  readonly high: number;
  readonly low: number;
}

/** Takes a written name apart; null when it has no range. */
export function rangeOf(name: string): Range | null {
  const open = name.indexOf('[');
  if (open < 0) return null;
  const [high, low] = name
    .slice(open + 1, -1)
    .split(':')
    .map(Number) as [number, number?];
  return { base: name.slice(0, open), high, low: low ?? high };
}

/** The wires of a range in the order written: `A[3:0]` is A3 A2 A1 A0. */
export function wiresOf({ base, high, low }: Range): string[] {
  const step = high >= low ? -1 : 1;
  return Array.from({ length: Math.abs(high - low) + 1 }, (_, i) => `${base}${high + step * i}`);
}
