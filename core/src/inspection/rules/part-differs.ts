import { standsIn, typeOf } from '../../catalogue';
import { type FindingCode, finding } from '../../finding';
import type { Context } from '../context';
import type { Rule } from '../rule';

/** A package seated as a part with other pins or another function than the packing says. */
export const partDiffers: Rule = { id: 'part-differs', check: (c) => others(c, 'part-differs') };

/** A package seated as a part with the same pins and the same function: it serves. */
export const partStandsIn: Rule = { id: 'part-stands-in', check: (c) => others(c, 'part-stands-in') };

function* others(c: Context, code: FindingCode & ('part-differs' | 'part-stands-in')) {
  for (const named of c.packing?.packages ?? []) {
    const { ref, part: wanted } = named;
    const seated = c.board.parts[ref];
    if (!seated || seated.part === wanted) continue;
    const [a, b] = [typeOf(named), typeOf(seated)];
    const serves = a !== null && b !== null && standsIn(a, b);
    if (serves === (code === 'part-stands-in'))
      yield finding(code, [{ kind: 'part', ref }], { ref, wanted, found: seated.part });
  }
}
