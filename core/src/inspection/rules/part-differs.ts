import { standsIn, typeOf } from '../../catalogue';
import { type FindingCode, finding } from '../../finding';
import type { Context } from '../context';
import type { Rule } from '../rule';

/** A package seated as a part with other pins or another function than the packing says. */
export const partDiffers: Rule = { id: 'part-differs', check: (c) => others(c, 'part-differs') };

/** A package seated as a part with the same pins and the same function: it serves. */
export const partStandsIn: Rule = { id: 'part-stands-in', check: (c) => others(c, 'part-stands-in') };

/** A memory programmed otherwise than the sheet says. */
export const contentsDiffer: Rule = { id: 'contents-differ', check: (c) => others(c, 'contents-differ') };

type Code = FindingCode & ('part-differs' | 'part-stands-in' | 'contents-differ');

function* others(c: Context, code: Code) {
  for (const named of c.packing?.packages ?? []) {
    const { ref, part: wanted } = named;
    const seated = c.board.parts[ref];
    if (!seated || (seated.part === wanted && seated.own === named.own)) continue;
    const [a, b] = [typeOf(named), typeOf(seated)];
    const serves = a !== null && b !== null && standsIn(a, b);
    if (seated.part === wanted) {
      if (!serves && code === 'contents-differ') yield finding(code, [{ kind: 'part', ref }], { ref, part: wanted });
    } else if (code !== 'contents-differ' && serves === (code === 'part-stands-in'))
      yield finding(code, [{ kind: 'part', ref }], { ref, wanted, found: seated.part });
  }
}
