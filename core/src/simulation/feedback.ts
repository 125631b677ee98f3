import type { Circuit } from './circuit';

/**
 * For each driver of a circuit whether what it does comes back to its own unit, through others or at once: 1 or 0. `readersOf` gives the units that
 * read a driver. How things are wired does not change while a board is under power, so this is found once.
 */
export function feedbackOf(
  { units, driverPin }: Circuit,
  readersOf: (driver: number) => readonly number[],
): Uint8Array {
  const read = driverPin.map((_, d) => [...new Set(readersOf(d))]);
  const feedback = new Uint8Array(driverPin.length);
  units.forEach(({ driver, outputs }, start) => {
    for (let d = driver; d < driver + outputs; d++) feedback[d] = comesBack({ start, from: d }, read, units) ? 1 : 0;
  });
  return feedback;
}

function comesBack(
  { start, from }: { readonly start: number; readonly from: number },
  read: readonly (readonly number[])[],
  units: Circuit['units'],
): boolean {
  const seen = new Set<number>();
  const next = [...(read[from] ?? [])];
  for (const u of next) {
    if (u === start) return true;
    const unit = units[u];
    if (!unit || seen.has(u)) continue;
    seen.add(u);
    for (let d = unit.driver; d < unit.driver + unit.outputs; d++) next.push(...(read[d] ?? []));
  }
  return false;
}
