import { bridgeIn, joinedFinding } from '../bridge';
import type { Rule } from '../rule';

/** The positive and the negative lead of a supply are in one net. */
export const supplyShorted: Rule = {
  id: 'supply-shorted',
  *check(c) {
    for (const { seated } of c.of('supply')) {
      const net = c.netOf(`${seated.ref}.+`);
      if (net === undefined || net !== c.netOf(`${seated.ref}.-`)) continue;
      const bridge = bridgeIn(c, net, [`${seated.ref}.+`, `${seated.ref}.-`]);
      yield joinedFinding('supply-shorted', bridge, bridge ? [] : [{ kind: 'part', ref: seated.ref }], {});
    }
  },
};
