/** Typical and greatest, going high; typical and greatest, going low; in nanoseconds. */
export type Figures = readonly [rise: number, mostRise: number, fall: number, mostFall: number];
/** Delays of a chip: of all its outputs, or by the names of some. */
export type OfChip = Figures | Readonly<Record<string, Figures>>;

/** What the data sheets of one family give, by the base numbers of the chips. */
export type DelaysOfChips = Readonly<Record<string, OfChip>>;

/** The same times for both edges. */
export function both(typical: number, most: number): Figures {
  return [typical, most, typical, most];
}
