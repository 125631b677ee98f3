import { finding } from '../../finding';
import { type Context, spoken } from '../context';
import { ledsOf } from '../led';
import type { Rule } from '../rule';

/** Open-collector outputs whose net is read, or lights a lamp, and that no resistor pulls up: they can only pull low. */
export const openCollectorNoPullUp: Rule = {
  id: 'open-collector-no-pull-up',
  coveredBy: ['chip-no-supply', 'chip-no-ground', 'chip-turned-round'],
  *check(c) {
    const lit = new Set(ledsOf(c).map((lamp) => lamp.anode));
    for (const { index, pins } of c.nets.nets) {
      const { outputs } = c.feedsOf(index);
      const [pin] = outputs;
      if (pin === undefined || !outputs.every((o) => isOpenCollector(c, o)) || isPulledUp(c, index)) continue;
      const reader = pins.find((p) => c.kindOf(p) === 'chip' && c.lead(p)?.type.role === 'input');
      if (reader === undefined && !lit.has(index)) continue;
      const facts = { pin: spoken(pin), reader: reader === undefined ? 'the LED on it' : spoken(reader) };
      yield finding('open-collector-no-pull-up', [{ kind: 'pin', pin }], facts);
    }
  },
};

/** An output that only pulls low; a pin that is input and output at once is pulled up inside the chip. */
const isOpenCollector = (c: Context, pin: string): boolean =>
  c.driveOf(pin) === 'open-collector' && c.lead(pin)?.type.role === 'output';

const isPulledUp = (c: Context, net: number): boolean =>
  c.feedsOf(net).supply || c.throughResistors(net).some((n) => c.feedsOf(n).supply);
