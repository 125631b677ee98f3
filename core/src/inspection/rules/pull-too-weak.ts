import { finding } from '../../finding';
import { spoken } from '../context';
import type { Rule } from '../rule';

/** A pull-down through which the inputs' current lifts the net above what they read as low. */
export const pullTooWeak: Rule = {
  id: 'pull-too-weak',
  *check(c) {
    for (const { seated } of c.of('resistor')) {
      const [a, b] = [c.netOf(`${seated.ref}.1`), c.netOf(`${seated.ref}.2`)];
      const net = [a, b].find((n) => n !== undefined && !c.isOnRail(n));
      const other = net === a ? b : a;
      if (net === undefined || other === undefined || !c.feedsOf(other).ground) continue;
      if (c.feedsOf(net).outputs.length > 0 || c.feedsOf(net).switches.length === 0) continue;
      const inputs = c.pinsOn(net).filter((p) => c.kindOf(p) === 'chip' && c.lead(p)?.type.role === 'input');
      const all = inputs.map((p) => c.familyAt(p));
      const ohms = seated.value ?? 1000;
      const volts = (all.reduce((ua, f) => ua + f.inputUa.low, 0) * ohms) / 1e6;
      const least = Math.min(...all.map((f) => f.inputLowV));
      if (all.length === 0 || volts <= least) continue;
      const places = [{ kind: 'part' as const, ref: seated.ref }];
      yield finding('pull-too-weak', places, {
        ref: seated.ref,
        pin: spoken(inputs[0] ?? ''),
        volts: volts.toFixed(1),
        least,
        ohms: Math.floor((ohms * least) / volts / 10) * 10,
      });
    }
  },
};
