import { pinOf } from '../../board';
import { finding } from '../../finding';
import { spoken } from '../context';
import type { Rule } from '../rule';

/** A pull-down through which the inputs' current lifts the net above what they read as low. Asks the volts with every switch off. */
export const pullTooWeak: Rule = {
  id: 'pull-too-weak',
  *check(c) {
    for (const { seated } of c.of('resistor')) {
      const [a, b] = [c.netOf(pinOf(seated.ref, '1')), c.netOf(pinOf(seated.ref, '2'))];
      const net = [a, b].find((n) => n !== undefined && !c.isOnRail(n));
      const other = net === a ? b : a;
      if (net === undefined || other === undefined || !c.feedsOf(other).ground) continue;
      if (c.feedsOf(net).outputs.length > 0 || c.feedsOf(net).switches.length === 0) continue;
      const inputs = c.pinsOn(net).filter((p) => c.kindOf(p) === 'chip' && c.lead(p)?.type.role === 'input');
      const lifted = inputs.find((pin) => c.atRest.levelAt(pin) !== '0');
      const volts = c.atRest.voltsOfNet(net);
      if (lifted === undefined || volts === null) continue;
      const all = inputs.map((p) => c.familyAt(p));
      const least = Math.min(...all.map((f) => f.inputLowV));
      // What the data sheets guarantee: all inputs at the most that they give.
      const takenA = all.reduce((ua, f) => ua + f.inputUa.low, 0) / 1e6;
      yield finding('pull-too-weak', [{ kind: 'part', ref: seated.ref }], {
        ref: seated.ref,
        pin: spoken(lifted),
        volts: volts.toFixed(1),
        least,
        ohms: Math.floor(least / takenA / 10) * 10,
      });
    }
  },
};
