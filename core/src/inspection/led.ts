import { innerName, innerOf, type PartKind } from '../catalogue';
import type { Context } from './context';

/** A lamp: an LED, or one of those in a bar or a display, with the nets of its ends. */
export interface LedNets {
  /** The part's reference, and the lamp's own name: the same for an LED. */
  readonly ref: string;
  readonly name: string;
  readonly kind: PartKind;
  readonly anode: number | undefined;
  readonly cathode: number | undefined;
}

/** Volts over a red LED that is lit, and of the supply. */
const LED_V = 1.8;
const SUPPLY_V = 5;

/** The current of a lamp that is lit, in milliamperes; null when no resistor limits it. */
export function lampMa(c: Context, { anode, cathode }: LedNets): number | null {
  // What lies behind a rail has nothing to do with this lamp.
  const ends = [anode, cathode].filter((net): net is number => net !== undefined && !c.isFed(net));
  const ohms = Math.min(...ends.flatMap((net) => c.resistorsOn(net).map((r) => r.ohms)));
  return Number.isFinite(ohms) && ohms > 0 ? (1000 * (SUPPLY_V - LED_V)) / ohms : null;
}

/** All lamps of a board; several rules ask for them. */
export function ledsOf(c: Context): readonly LedNets[] {
  const known = lampsOf.get(c);
  if (known) return known;
  const lamps = c.known.flatMap(({ seated: { ref }, type, named }) =>
    innerOf(type).lamps.map(({ name, anode, cathode }) => ({
      ref,
      name: innerName(ref, name),
      kind: type.kind,
      anode: c.netOf(named(anode)),
      cathode: c.netOf(named(cathode)),
    })),
  );
  lampsOf.set(c, lamps);
  return lamps;
}

const lampsOf = new WeakMap<Context, readonly LedNets[]>();

/** The first of several lamps of each part: what is wrong with all segments of a display is said once. */
export function* oncePerPart(lamps: Iterable<LedNets>): Generator<LedNets> {
  const said = new Set<string>();
  for (const lamp of lamps) {
    if (said.has(lamp.ref)) continue;
    said.add(lamp.ref);
    yield lamp;
  }
}

/** Whether something that carries current without a limit is on a net: a rail, an output, a switch, a transistor at a rail. */
export function isStiff(c: Context, net: number | undefined): boolean {
  if (net === undefined) return false;
  const { supply, ground, outputs, switches } = c.feedsOf(net);
  if (supply || ground || outputs.length > 0 || switches.length > 0) return true;
  return c.throughValves(net).some((to) => c.isFed(to));
}

/** What a net leads to, directly or through one resistor, and from there through a transistor or diode that conducts. */
export function reach(c: Context, net: number | undefined): { ground: boolean; supply: boolean; source: boolean } {
  // A rail has resistors to everything: what is on one leads nowhere else.
  const near = net === undefined ? [] : c.isFed(net) ? [net] : [net, ...c.throughResistors(net)];
  const beyond = near.filter((n) => !c.isFed(n)).flatMap((n) => c.throughValves(n));
  const far = beyond.filter((n) => !c.isFed(n)).flatMap((n) => c.throughResistors(n));
  const nets = [...near, ...beyond, ...far];
  const feeds = nets.map((n) => c.feedsOf(n));
  return {
    ground: feeds.some((f) => f.ground),
    supply: feeds.some((f) => f.supply),
    source: feeds.some((f) => f.supply || f.outputs.length > 0 || f.switches.length > 0),
  };
}

/** Whether an LED sits the wrong way round: ground behind its anode, a source behind its cathode. */
export function isReversed(c: Context, { anode, cathode }: LedNets): boolean {
  const [a, k] = [reach(c, anode), reach(c, cathode)];
  const grounded = cathode !== undefined && c.feedsOf(cathode).ground;
  return a.ground && !a.source && k.source && !grounded;
}
