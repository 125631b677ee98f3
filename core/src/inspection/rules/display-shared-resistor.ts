import { pinOf } from '../../board';
import { innerOf } from '../../catalogue';
import { finding } from '../../finding';
import { isStiff } from '../led';
import type { Rule } from '../rule';

/** A display whose segments have one resistor between them, in the common lead. */
export const displaySharedResistor: Rule = {
  id: 'display-shared-resistor',
  coveredBy: ['display-polarity'],
  *check(c) {
    for (const { seated, type } of c.of('display')) {
      const { ref } = seated;
      const common = c.netOf(`${ref}.3`);
      if (common === undefined || c.isFed(common)) continue;
      const [resistor] = c.resistorsOn(common);
      const bare = innerOf(type).lamps.filter(({ anode, cathode }) =>
        isStiff(c, c.netOf(pinOf(ref, anode === '3' ? cathode : anode))),
      );
      if (resistor && bare.length > 1)
        yield finding('display-shared-resistor', [{ kind: 'part', ref }], { ref, resistor: resistor.ref });
    }
  },
};
