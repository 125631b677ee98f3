import { baseEmitter, neededBaseMa, SUPPLY_V } from '../../electrical';
import { finding } from '../../finding';
import type { Rule } from '../rule';
import { baseMa, isAt, loadMa, transistorsOf } from '../transistor';

/** A base resistor so large that the transistor cannot carry what its load takes: the lamp is dim, the level no level. */
export const baseTooWeak: Rule = {
  id: 'base-too-weak',
  coveredBy: ['transistor-reversed'],
  *check(c) {
    for (const t of transistorsOf(c)) {
      if (t.kind === 'nmos' || !isAt(c, t.emitter.net, t.home)) continue;
      const [given, load] = [baseMa(c, t), loadMa(c, t)];
      if (given === null || load === 0 || given >= neededBaseMa(load)) continue;
      // Twice what is needed, to two figures: gains fall in the cold.
      const ohms = Number(((1000 * (SUPPLY_V - baseEmitter.typicalV)) / (2 * neededBaseMa(load))).toPrecision(2));
      const facts = { ref: t.ref, given: shown(given), load: shown(load), needed: shown(neededBaseMa(load)), ohms };
      yield finding('base-too-weak', [{ kind: 'part', ref: t.ref }], facts);
    }
  },
};

const shown = (ma: number): string => ma.toPrecision(2);
