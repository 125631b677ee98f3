import type { Family } from '../../catalogue';
import { finding } from '../../finding';
import { onceFor } from '../../memo';
import { type Context, spoken } from '../context';
import type { Rule } from '../rule';

/** An output that the inputs on its net take more current from than its family guarantees. */
export const fanOut: Rule = {
  id: 'fan-out',
  *check(c) {
    for (const { pin, family, inputs } of outputsWithInputs(c)) {
      const sum = (of: 'low' | 'high'): number => inputs.reduce((ua, i) => ua + i.family.inputUa[of], 0) / 1000;
      const [low, high] = [sum('low'), sum('high')];
      if (low <= family.outputMa.low && high <= family.outputMa.high) continue;
      const worst = low > family.outputMa.low ? 'low' : 'high';
      yield finding('fan-out', [{ kind: 'pin', pin }], {
        pin: spoken(pin),
        inputs: inputs.length,
        taken: (worst === 'low' ? low : high).toFixed(1),
        level: worst,
        most: family.outputMa[worst],
      });
    }
  },
};

/** An output whose high is not surely high, or whose low is not surely low, for an input of another family. */
export const levelsDoNotMeet: Rule = {
  id: 'levels-do-not-meet',
  *check(c) {
    for (const { pin, family, inputs } of outputsWithInputs(c)) {
      const [bad] = inputs.filter(
        (i) => family.outputHighV < i.family.inputHighV || family.outputLowV > i.family.inputLowV,
      );
      if (!bad) continue;
      yield finding('levels-do-not-meet', [{ kind: 'pin', pin: bad.pin }], {
        pin: spoken(pin),
        from: family.title,
        to: spoken(bad.pin),
        of: bad.family.title,
        gives: family.outputHighV,
        wants: bad.family.inputHighV,
      });
    }
  },
};

interface Loaded {
  readonly pin: string;
  readonly family: Family;
  readonly inputs: readonly { readonly pin: string; readonly family: Family }[];
}

/** Every output of a chip with the chips' inputs on its net; two rules ask for the same. */
const outputsWithInputs: (c: Context) => readonly Loaded[] = onceFor((c) =>
  c.nets.nets.flatMap(({ index, pins }) => {
    const inputs = pins.filter((p) => c.kindOf(p) === 'chip' && c.lead(p)?.type.role === 'input');
    if (inputs.length === 0) return [];
    return c.feedsOf(index).outputs.map((pin) => ({
      pin,
      family: c.familyAt(pin),
      inputs: inputs.map((p) => ({ pin: p, family: c.familyAt(p) })),
    }));
  }),
);
