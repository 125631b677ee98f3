import { finding } from '../../finding';
import type { Context, Known } from '../context';
import type { Rule } from '../rule';

/** Gates that make an inverter with their inputs joined or one of them tied. */
const canInvert: readonly string[] = ['nand', 'nor', 'xor', 'xnor', 'not'];

/** A chip of inverters that the spare gates of other chips could replace. */
export const spareGatesSuffice: Rule = {
  id: 'spare-gates-suffice',
  *check(c) {
    const chips = c.of('chip');
    for (const inverters of chips.filter(({ type }) => type.units.every((u) => u.gate?.kind === 'not'))) {
      const used = unitsOf(c, inverters).filter((u) => u.used).length;
      const spare = chips
        .filter((k) => k !== inverters)
        .flatMap((k) =>
          unitsOf(c, k)
            .filter((u) => !u.used && canInvert.includes(u.kind))
            .map(() => k.seated.ref),
        );
      if (used === 0 || spare.length < used) continue;
      const { ref } = inverters.seated;
      const facts = { ref, used, refs: [...new Set(spare)].join(' and ') };
      yield finding('spare-gates-suffice', [{ kind: 'part', ref }], facts);
    }
  },
};

/** The gates of a chip, and whether their outputs go anywhere. */
function unitsOf(c: Context, { type, named }: Known): { kind: string; used: boolean }[] {
  return type.units.flatMap((unit) => {
    const net = c.netOf(named(unit.outputs[0] ?? ''));
    return unit.gate ? [{ kind: unit.gate.kind, used: net !== undefined && c.pinsOn(net).length > 1 }] : [];
  });
}
