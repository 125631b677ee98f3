import { pinOf } from '../../board';
import { families, readPartNumber } from '../../catalogue';
import { finding } from '../../finding';
import { carries } from '../power';
import type { Rule } from '../rule';

/** A supply outside what the families on it are made for; over their absolute maximum is another finding. */
export const supplyOutOfRange: Rule = {
  id: 'supply-out-of-range',
  *check(c) {
    for (const { ref, volts, family } of suppliedFamilies(c)) {
      const { supplyV, absoluteMaxV, title } = families[family];
      const [least, most] = supplyV;
      if ((volts >= least && volts <= most) || volts > absoluteMaxV) continue;
      yield finding('supply-out-of-range', [{ kind: 'part', ref }], { ref, volts, title, least, most });
    }
  },
};

/** A supply over the absolute maximum of a family on it. */
export const supplyOverMaximum: Rule = {
  id: 'supply-over-maximum',
  *check(c) {
    for (const { ref, volts, family } of suppliedFamilies(c)) {
      const { absoluteMaxV, title } = families[family];
      if (volts > absoluteMaxV)
        yield finding('supply-over-maximum', [{ kind: 'part', ref }], { ref, volts, title, most: absoluteMaxV });
    }
  },
};

/** Each supply with each family of the chips that it feeds. */
function suppliedFamilies(c: Parameters<Rule['check']>[0]) {
  return c.of('supply').flatMap(({ seated }) => {
    const net = c.netOf(`${seated.ref}.+`);
    const fed = c.of('chip').filter(({ seated: chip, type }) => {
      const pin = pinOf(chip.ref, type.pins.find((p) => p.role === 'supply')?.id ?? '');
      return net !== undefined && c.netOf(pin) === net && carries(c, pin, 'supply');
    });
    const found = new Set(fed.map(({ seated: chip }) => readPartNumber(chip.part)?.family ?? c.family));
    return [...found].map((family) => ({ ref: seated.ref, volts: seated.value ?? 5, family }));
  });
}
