import { pinOf } from '../../board';
import { finding } from '../../finding';
import type { Rule } from '../rule';

/** The volts the wrong way round that an electrolytic capacitor bears for long. Source: data sheets of such capacitors, some 1 V. */
const BEARS_V = 1;

/** An electrolytic capacitor whose minus is at more volts than its plus while the board rests. */
export const capacitorReversed: Rule = {
  id: 'capacitor-reversed',
  *check(c) {
    for (const { seated } of c.of('capacitor')) {
      const { ref, part } = seated;
      if (part !== 'electrolytic') continue;
      const [plus, minus] = ['1', '2'].map((id) => pinOf(ref, id));
      if (!plus || !minus || !c.atRest.isKnown(plus) || !c.atRest.isKnown(minus)) continue;
      const volts = (c.atRest.voltsAt(minus) ?? 0) - (c.atRest.voltsAt(plus) ?? 0);
      if (volts > BEARS_V)
        yield finding('capacitor-reversed', [{ kind: 'part', ref }], { ref, volts: volts.toFixed(1) }, `rotate ${ref}`);
    }
  },
};
