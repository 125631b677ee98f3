import { baseEmitter, mostCollectorMa, neededBaseMa } from '../../electrical';
import { finding } from '../../finding';
import type { Rule } from '../rule';
import { isAt, transistorsOf } from '../transistor';
import { worstCaseOf } from '../worst-case';

/** A base that gets less, driven its hardest, than a transistor of the least gain needs to carry its load. */
export const baseTooWeak: Rule = {
  id: 'base-too-weak',
  coveredBy: ['transistor-reversed'],
  *check(c) {
    for (const { ref, emitter, home } of transistorsOf(c)) {
      const drive = worstCaseOf(c).bases.get(ref);
      if (!drive || !isAt(c, emitter.net, home)) continue;
      const { givenMa, loadMa } = drive;
      const neededMa = neededBaseMa(loadMa);
      // A load that no transistor of this size carries has no resistor, which is told by itself.
      if (givenMa >= neededMa || loadMa > mostCollectorMa) continue;
      // Twice what is needed, to two figures: gains fall in the cold.
      const ohms = Number(((1000 * (c.volts.supplyV - baseEmitter.typicalV)) / (2 * neededMa)).toPrecision(2));
      const facts = { ref, given: shown(givenMa), load: shown(loadMa), needed: shown(neededMa), ohms };
      yield finding('base-too-weak', [{ kind: 'part', ref }], facts);
    }
  },
};

const shown = (ma: number): string => ma.toPrecision(2);
