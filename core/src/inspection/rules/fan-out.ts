import type { PinLimits } from '../../electrical';
import { finding } from '../../finding';
import { onceFor } from '../../memo';
import { type Context, spoken } from '../context';
import type { Rule } from '../rule';

/** An output that the inputs on its net take more current from than its data sheet guarantees. */
export const fanOut: Rule = {
  id: 'fan-out',
  *check(c) {
    for (const { pin, limits, inputs } of outputsWithInputs(c)) {
      const sum = (of: 'low' | 'high'): number => inputs.reduce((ua, pin) => ua + c.loadUaAt(pin)[of], 0) / 1000;
      const [low, high] = [sum('low'), sum('high')];
      const { outputMa } = limits;
      // What does not drive high guarantees nothing there: its pull-up gives the current.
      const worst = low > outputMa.low ? 'low' : high > outputMa.high && outputMa.high > 0 ? 'high' : null;
      if (worst === null) continue;
      yield finding('fan-out', [{ kind: 'pin', pin }], {
        pin: spoken(pin),
        inputs: inputs.length,
        taken: (worst === 'low' ? low : high).toFixed(1),
        level: worst,
        most: outputMa[worst],
      });
    }
  },
};

interface Loaded {
  readonly pin: string;
  readonly limits: PinLimits;
  readonly inputs: readonly string[];
}

/** Every output of a chip with the chips' inputs on its net. */
const outputsWithInputs: (c: Context) => readonly Loaded[] = onceFor((c) =>
  c.nets.nets.flatMap(({ index, pins }) => {
    const inputs = pins.filter((p) => c.kindOf(p) === 'chip' && c.lead(p)?.type.role === 'input');
    if (inputs.length === 0) return [];
    return c.feedsOf(index).outputs.map((pin) => ({ pin, limits: c.limitsAt(pin), inputs }));
  }),
);
