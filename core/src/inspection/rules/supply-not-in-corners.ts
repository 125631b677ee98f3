import { finding } from '../../finding';
import type { Rule } from '../rule';

/** A chip whose supply and ground are not the last pin and the one across: the habit of the hand is wrong there. */
export const supplyNotInCorners: Rule = {
  id: 'supply-not-in-corners',
  partsAlone: true,
  *check(c) {
    for (const { seated, type } of c.of('chip')) {
      const pinOf = (role: string): string | undefined => type.pins.find((p) => p.role === role)?.id;
      const [supply, ground] = [pinOf('supply'), pinOf('ground')];
      const usual = supply === String(type.pins.length) && ground === String(type.pins.length / 2);
      if (usual || supply === undefined || ground === undefined) continue;
      const { ref, part } = seated;
      yield finding('supply-not-in-corners', [{ kind: 'part', ref }], { ref, part, supply, ground });
    }
  },
};
