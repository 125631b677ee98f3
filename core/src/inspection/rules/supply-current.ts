import { supplyMa } from '../../catalogue';
import { supplyLimitMaOf } from '../../electrical';
import { finding } from '../../finding';
import type { Context } from '../context';
import { carries } from '../power';
import type { Rule } from '../rule';
import { worstCaseOf } from '../worst-case';

/** Chips, with everything else at its most, that take more from one supply than a port gives. */
export const supplyCurrent: Rule = {
  id: 'supply-current',
  *check(c) {
    for (const { seated } of c.of('supply')) {
      const { ref } = seated;
      const chips = chipsOn(c, c.netOf(`${ref}.+`));
      const loads = c.of('supply').length > 1 ? 0 : worstCaseOf(c).loadMa;
      const ma = chips + loads;
      const most = supplyLimitMaOf([seated]);
      if (ma <= most) continue;
      const facts = { ref, ma: ma.toFixed(0), chips: chips.toFixed(0), loads: loads.toFixed(0), most };
      yield finding('supply-current', [{ kind: 'part', ref }], facts);
    }
  },
};

/** The chips that a net supplies, at the most that each takes; those without a figure count for nothing. */
function chipsOn(c: Context, net: number | undefined): number {
  const fed = c.of('chip').filter(({ type, named }) => {
    const pin = named(type.pins.find((p) => p.role === 'supply')?.id ?? '');
    return net !== undefined && c.netOf(pin) === net && carries(c, pin, 'supply');
  });
  return fed.reduce((sum, { seated }) => sum + (supplyMa(seated.part, c.family) ?? 0), 0);
}
