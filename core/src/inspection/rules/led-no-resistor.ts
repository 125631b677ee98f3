import { extractNets } from '../../board';
import { finding } from '../../finding';
import { bridgeIn, joinedFinding } from '../bridge';
import { Context } from '../context';
import { type LedNets, ledsOf, oncePerPart, seriesOhms } from '../led';
import type { Rule } from '../rule';

/** A lamp that nothing limits the current of, with no resistor beside it. */
export const ledNoResistor: Rule = {
  id: 'led-no-resistor',
  *check(c) {
    for (const lamp of oncePerPart(unlimited(c))) {
      if (bypass(c, lamp)) continue;
      const zero = resistorsAt(c, lamp).find((r) => r.ohms === 0);
      const has = zero ? `${zero.ref}, of 0 Ω, in series, which limits nothing` : 'no resistor in series';
      yield finding('led-no-resistor', [{ kind: 'part', ref: lamp.ref }], { ref: lamp.name, has });
    }
  },
};

/** A lamp that has a resistor, past which a jumper leads. */
export const ledResistorBridged: Rule = {
  id: 'led-resistor-bridged',
  *check(c) {
    for (const lamp of oncePerPart(unlimited(c))) {
      const past = bypass(c, lamp);
      if (!past) continue;
      const facts = { ref: lamp.name, resistor: past.resistor };
      yield joinedFinding('led-resistor-bridged', past.bridge, [{ kind: 'part', ref: lamp.ref }], facts);
    }
  },
};

/** LEDs whose current nothing limits; a buzzer needs nothing for it. */
function unlimited(c: Context): LedNets[] {
  return ledsOf(c).filter((lamp) => lamp.colour !== 'sound' && seriesOhms(c, lamp) === 0);
}

/** The resistor beside a lamp and the jumper that leads past it, without which the lamp would be as it should; null where there is no such jumper. */
function bypass(c: Context, lamp: LedNets): { resistor: string; bridge: string } | null {
  const [resistor] = resistorsAt(c, lamp).filter((r) => r.ohms > 0);
  if (!resistor) return null;
  const bridge = bridgeIn(c, lamp.cathode) ?? bridgeIn(c, lamp.anode);
  return bridge !== undefined && isLimitedWithout(c, lamp, bridge) ? { resistor: resistor.ref, bridge } : null;
}

function isLimitedWithout(c: Context, lamp: LedNets, jumper: string): boolean {
  const { [jumper]: _, ...jumpers } = c.board.jumpers;
  const board = { ...c.board, jumpers };
  const rest = new Context(board, extractNets(board), { packing: null, family: c.family });
  const same = ledsOf(rest).find((l) => l.name === lamp.name);
  return same !== undefined && (seriesOhms(rest, same) ?? 0) > 0;
}

/** The resistors on the nets of a lamp; on a rail, only those that have both ends there. */
function resistorsAt(c: Context, { anode, cathode }: LedNets): { ref: string; ohms: number }[] {
  const nets = [anode, cathode].filter((net) => net !== undefined);
  const beside = nets.filter((net) => !c.isFed(net)).flatMap((net) => c.resistorsOn(net));
  const inside = c.of('resistor').filter(({ named }) => {
    const [a, b] = [c.netOf(named('1')), c.netOf(named('2'))];
    return a !== undefined && a === b && nets.includes(a);
  });
  return [...beside, ...inside.map(({ seated }) => ({ ref: seated.ref, ohms: seated.value ?? 1000 }))];
}
