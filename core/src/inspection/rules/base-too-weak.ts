import { finding } from '../../finding';
import type { Rule } from '../rule';
import { baseMa, isAt, loadMa, transistorsOf } from '../transistor';

/** Collector currents in milliamperes, and the least gain (hFE at 1 V) up to them: data sheet of the 2N3904; the 2N3906 has no less. */
const gains = [
  [0.1, 40],
  [1, 70],
  [10, 100],
  [50, 60],
  [100, 30],
] as const;

/** The base current that surely carries a collector current, in milliamperes. */
function neededMa(ma: number): number {
  const gain = gains.find(([most]) => ma <= most)?.[1] ?? 30;
  return ma / gain;
}

/** A base resistor so large that the transistor cannot carry what its load takes: the lamp is dim, the level no level. */
export const baseTooWeak: Rule = {
  id: 'base-too-weak',
  coveredBy: ['transistor-reversed'],
  *check(c) {
    for (const t of transistorsOf(c)) {
      if (t.kind === 'nmos' || !isAt(c, t.emitter.net, t.home)) continue;
      const [given, load] = [baseMa(c, t), loadMa(c, t)];
      if (given === null || load === 0 || given >= neededMa(load)) continue;
      // Twice what is needed, to two figures: gains fall in the cold.
      const ohms = Number((4300 / (2 * neededMa(load))).toPrecision(2));
      const facts = { ref: t.ref, given: shown(given), load: shown(load), needed: shown(neededMa(load)), ohms };
      yield finding('base-too-weak', [{ kind: 'part', ref: t.ref }], facts);
    }
  },
};

const shown = (ma: number): string => ma.toPrecision(2);
