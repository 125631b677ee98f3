import { type Board, extractNets } from '../../board';
import { finding } from '../../finding';
import type { Rule } from '../rule';

/** The positive and the negative lead of a supply are in one net. */
export const supplyShorted: Rule = {
  id: 'supply-shorted',
  *check(c) {
    for (const { seated } of c.of('supply')) {
      const net = c.netOf(`${seated.ref}.+`);
      if (net === undefined || net !== c.netOf(`${seated.ref}.-`)) continue;
      const culprit = culpritIn(c.board, c.nets.nets[net]?.jumpers ?? [], seated.ref);
      const place = culprit ? { kind: 'jumper' as const, id: culprit } : { kind: 'part' as const, ref: seated.ref };
      const fix = culprit ? `pull ${culprit}` : undefined;
      yield finding('supply-shorted', [place], { when: '', culprit: culprit ?? 'what joins them' }, fix);
    }
  },
};

/** The jumper without which supply and ground would be apart; the last laid comes first. */
function culpritIn(board: Board, jumpers: readonly string[], supply: string): string | undefined {
  return [...jumpers].reverse().find((id) => {
    const rest = { ...board.jumpers };
    delete rest[id];
    const { ofPin } = extractNets({ ...board, jumpers: rest });
    return ofPin.get(`${supply}.+`) !== ofPin.get(`${supply}.-`);
  });
}
