import { pinOf } from '../../board';
import { finding } from '../../finding';
import { onceFor } from '../../memo';
import { type Context, spoken } from '../context';
import type { Rule } from '../rule';

/** A pull-down through which the inputs' current lifts the net above what they read as low. Asks the volts with every switch off. */
export const pullTooWeak: Rule = {
  id: 'pull-too-weak',
  *check(c) {
    for (const { ref, inputs, lifted, volts } of weakPulls(c)) {
      const least = Math.min(...inputs.map((p) => c.volts.thresholdsAt(p)?.low ?? c.limitsAt(p).inputLowV));
      // What the data sheets guarantee: all inputs at the most that they give.
      const takenA = inputs.reduce((ua, p) => ua + c.loadUaAt(p).low, 0) / 1e6;
      yield finding('pull-too-weak', [{ kind: 'part', ref }], {
        ref,
        pin: spoken(lifted),
        volts: volts.toFixed(1),
        least: least.toFixed(1),
        ohms: Math.floor(least / takenA / 10) * 10,
      });
    }
  },
};

interface WeakPull {
  readonly ref: string;
  readonly net: number;
  readonly inputs: readonly string[];
  /** The first input that reads no low. */
  readonly lifted: string;
  readonly volts: number;
}

/** The pull-downs of switches that hold no low. */
export const weakPulls: (c: Context) => readonly WeakPull[] = onceFor((c) =>
  c.of('resistor').flatMap(({ seated: { ref } }): WeakPull[] => {
    const [a, b] = [c.netOf(pinOf(ref, '1')), c.netOf(pinOf(ref, '2'))];
    const net = [a, b].find((n) => n !== undefined && !c.isOnRail(n));
    const other = net === a ? b : a;
    if (net === undefined || other === undefined || !c.feedsOf(other).ground) return [];
    if (c.feedsOf(net).outputs.length > 0 || c.feedsOf(net).switches.length === 0) return [];
    // What another resistor lifts is no matter of the inputs.
    if (c.throughResistors(net).some((to) => c.feedsOf(to).supply)) return [];
    const inputs = c.pinsOn(net).filter((p) => c.kindOf(p) === 'chip' && c.lead(p)?.type.role === 'input');
    const lifted = inputs.find((pin) => c.atRest.levelAt(pin) !== '0');
    const volts = c.atRest.voltsOfNet(net);
    return lifted === undefined || volts === null ? [] : [{ ref, net, inputs, lifted, volts }];
  }),
);
