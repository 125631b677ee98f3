/** A number with at most four digits, in the largest unit of which there is at least one. */
function scaled(value: number, units: readonly (readonly [size: number, unit: string])[]): string {
  const [size, unit] = units.find(([s]) => Math.abs(value) >= s) ?? units.at(-1) ?? [1, ''];
  return `${Number((value / size).toPrecision(4))} ${unit}`;
}

const times = [
  [3600e9, 'h'],
  [60e9, 'min'],
  [1e9, 's'],
  [1e6, 'ms'],
  [1e3, 'µs'],
  [1, 'ns'],
] as const;
const rates = [
  [1e6, 'MHz'],
  [1e3, 'kHz'],
  [1, 'Hz'],
] as const;

/** A time in nanoseconds as people read it: `14.58 ms`. */
export const timeWords = (ns: number): string => scaled(ns, times);

/** A frequency in hertz as people read it: `1.43 kHz`. */
export const hertzWords = (hertz: number): string => scaled(hertz, rates);
