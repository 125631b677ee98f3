import type { Place } from '../../finding';
import { shownSignal } from '../../planning';
import { bridgeIn, joinedFinding } from '../bridge';
import { spoken } from '../context';
import type { Rule } from '../rule';

/** Two signals of the design in one net, or an output in one net with a switch; outputs alone are told by themselves. */
export const signalsJoined: Rule = {
  id: 'signals-joined',
  coveredBy: ['supply-shorted', 'chip-turned-round'],
  *check(c) {
    const byNet = new Map<number | undefined, [string, string][]>();
    for (const [signal, pin] of c.sources) byNet.set(c.netOf(pin), [...(byNet.get(c.netOf(pin)) ?? []), [signal, pin]]);
    for (const net of c.nets.nets) {
      const { outputs, switches } = c.feedsOf(net.index);
      const signals = byNet.get(net.index) ?? [];
      const joined = signals.length > 1 && outputs.length < 2;
      if (!joined && !(outputs.length === 1 && switches.length > 0)) continue;
      const pins = joined ? signals.map(([, pin]) => pin) : [...outputs, ...switches];
      const names = joined ? signals.map(([name]) => name) : pins.map(spoken);
      const places = pins.map((pin): Place => ({ kind: 'pin', pin }));
      yield joinedFinding('signals-joined', bridgeIn(c, net.index, pins), places, {
        signals: names.map(shownSignal).join(' and '),
      });
    }
  },
};
