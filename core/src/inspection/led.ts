import { innerName, innerOf, type LampColour, type PartKind } from '../catalogue';
import { onceFor } from '../memo';
import type { Context } from './context';

/** A lamp: an LED, or one of those in a bar or a display, with the nets of its ends. */
export interface LedNets {
  /** The part's reference, and the lamp's own name: the same for an LED. */
  readonly ref: string;
  readonly name: string;
  readonly kind: PartKind;
  readonly colour: LampColour;
  /** Its two pins, anode first, as they are named on the board. */
  readonly pins: readonly [anode: string, cathode: string];
  readonly anode: number | undefined;
  readonly cathode: number | undefined;
}

/** The least ohms on the way from a net to what brings it to a rail (Dijkstra 1959), or null: resistors count, contacts and transistors do not. */
function ohmsTo(c: Context, net: number | undefined, rail: 'supply' | 'ground'): number | null {
  if (net === undefined) return null;
  const least = new Map([[net, 0]]);
  const open = new Set([net]);
  const done = new Set<number>();
  while (open.size > 0) {
    const at = [...open].reduce((a, b) => ((least.get(b) ?? 0) < (least.get(a) ?? 0) ? b : a));
    const ohms = least.get(at) ?? 0;
    open.delete(at);
    done.add(at);
    if (isSource(c, at, rail)) return ohms;
    // A rail of the other kind leads nowhere else.
    if (c.isFed(at)) continue;
    for (const { to, ohms: more } of waysFrom(c, at)) {
      if (done.has(to) || ohms + more >= (least.get(to) ?? Number.POSITIVE_INFINITY)) continue;
      least.set(to, ohms + more);
      open.add(to);
    }
  }
  return null;
}

function isSource(c: Context, net: number, rail: 'supply' | 'ground'): boolean {
  const { outputs, ...feeds } = c.feedsOf(net);
  return feeds[rail] || outputs.some((pin) => rail === 'ground' || c.driveOf(pin) !== 'open-collector');
}

function waysFrom(c: Context, net: number): readonly { to: number; ohms: number }[] {
  const free = [...c.throughContacts(net), ...c.throughDevices(net)].map((to) => ({ to, ohms: 0 }));
  return [...c.resistorsOn(net), ...free];
}

/** All lamps of a board; several rules ask for them. */
export const ledsOf: (c: Context) => readonly LedNets[] = onceFor((c) =>
  c.known.flatMap(({ seated: { ref }, type, named }) =>
    innerOf(type).lamps.map(({ name, anode, cathode, colour = 'red' }) => ({
      colour,
      ref,
      name: innerName(ref, name),
      kind: type.kind,
      pins: [named(anode), named(cathode)] as const,
      anode: c.netOf(named(anode)),
      cathode: c.netOf(named(cathode)),
    })),
  ),
);

/** The first of several lamps of each part: what is wrong with all segments of a display is said once. */
export function* oncePerPart(lamps: Iterable<LedNets>): Generator<LedNets> {
  const said = new Set<string>();
  for (const lamp of lamps) {
    if (said.has(lamp.ref)) continue;
    said.add(lamp.ref);
    yield lamp;
  }
}

/** The ohms that limit the current of a lamp; null when nothing gives it any on one of its sides. */
export function seriesOhms(c: Context, { anode, cathode }: LedNets): number | null {
  const [from, to] = [ohmsTo(c, anode, 'supply'), ohmsTo(c, cathode, 'ground')];
  return from === null || to === null ? null : from + to;
}

/** Whether something that no ohm limits can bring a net to a rail: the rail, an output, a switch, a transistor. */
export function isStiff(c: Context, net: number | undefined): boolean {
  return (['supply', 'ground'] as const).some((rail) => ohmsTo(c, net, rail) === 0);
}

/** What a net leads to: rails, signals (outputs and switches), and whether it gives current at all. */
interface Reach {
  readonly ground: boolean;
  readonly supply: boolean;
  readonly signal: boolean;
  readonly source: boolean;
}

/** What a net leads to, directly or through one resistor, and from there through a transistor or diode that conducts. */
export function reach(c: Context, net: number | undefined): Reach {
  // A rail has resistors to everything: what is on one leads nowhere else.
  const near = net === undefined ? [] : c.isFed(net) ? [net] : [net, ...c.throughResistors(net)];
  const beyond = near.filter((n) => !c.isFed(n)).flatMap((n) => c.throughDevices(n));
  const far = beyond.filter((n) => !c.isFed(n)).flatMap((n) => c.throughResistors(n));
  const nets = [...near, ...beyond, ...far];
  const feeds = nets.map((n) => c.feedsOf(n));
  return {
    ground: feeds.some((f) => f.ground),
    supply: feeds.some((f) => f.supply),
    signal: feeds.some((f) => !f.supply && !f.ground && (f.outputs.length > 0 || f.switches.length > 0)),
    source: feeds.some((f) => f.supply || f.outputs.length > 0 || f.switches.length > 0),
  };
}

/** Whether an LED sits the wrong way round: ground behind its anode, a source behind its cathode. */
export function isReversed(c: Context, lamp: LedNets): boolean {
  const [a, k] = [reach(c, lamp.anode), reach(c, lamp.cathode)];
  const grounded = lamp.cathode !== undefined && c.feedsOf(lamp.cathode).ground;
  return a.ground && !a.source && k.source && !grounded && !hasCathodeOnSupply(c, lamp);
}

/**
 * Whether the cathode of a lamp that shows a signal leads to supply and to nothing that could pull it low: turning the lamp would not
 * help, its far end is at the wrong rail.
 */
export function hasCathodeOnSupply(c: Context, { name, anode, cathode }: LedNets): boolean {
  const k = reach(c, cathode);
  if (!k.supply || k.ground || k.signal) return false;
  const a = reach(c, anode);
  return a.signal || (a.source && !a.supply) || c.isLabelled(name);
}
