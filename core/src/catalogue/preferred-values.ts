/** Steps of a decade in which resistors and capacitors are made. Source: IEC 60063, series E12. */
export const E12 = [1, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2] as const;
/** The same, series E24. */
export const E24 = [...E12, 1.1, 1.3, 1.6, 2, 2.4, 3, 3.6, 4.3, 5.1, 6.2, 7.5, 9.1].sort((a, b) => a - b);

/** All values of a series from the least to the most, ascending, in the unit of these. */
export function valuesOf(series: readonly number[], { least, most }: { least: number; most: number }): number[] {
  return Array.from({ length: 25 }, (_, d) => d - 12)
    .flatMap((decade) => series.map((step) => Number(`${step}e${decade}`)))
    .filter((value) => value >= least * 0.999 && value <= most * 1.001);
}
