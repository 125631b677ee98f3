import { innerName, innerOf, type LampColour, type PartKind } from '../catalogue';
import { isTimer, leds, SUPPLY_V, timerOutput, ttlHigh } from '../electrical';
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

/** What gives a lamp its current on one side: volts there, the ohms on the way, and the output that has to bear it. */
interface Feed {
  readonly volts: number;
  readonly ohms: number;
  readonly output: string | null;
}

/** The current of a lamp that is lit: milliamperes, the ohms that limit it, and the chip outputs that bear it. */
export interface LampCurrent {
  readonly ma: number;
  readonly ohms: number;
  readonly outputs: readonly string[];
}

/**
 * The most current that a lamp gets while it is lit, whatever feeds it: rails, chip outputs, switches, transistors. Null when nothing
 * gives it any, or when there is no resistor at all on the way, which is told by itself.
 */
export function lampCurrent(c: Context, { anode, cathode, colour }: LedNets): LampCurrent | null {
  const [from, to] = [feedOf(c, anode, 'supply'), feedOf(c, cathode, 'ground')];
  if (!from || !to || from.ohms + to.ohms === 0) return null;
  const inside = from.output === null ? 0 : highAt(c, from.output).ohms;
  const ohms = from.ohms + to.ohms;
  const ma = (1000 * Math.max(0, from.volts - to.volts - leds[colour].leastV)) / (ohms + inside);
  return { ma, ohms, outputs: [from.output, to.output].filter((pin) => pin !== null) };
}

/** The current of a lamp that is lit, in milliamperes; null when no resistor limits it. */
export function lampMa(c: Context, lamp: LedNets): number | null {
  return lampCurrent(c, lamp)?.ma ?? null;
}

/** The volts of a chip output that is high, without load, and the ohms behind them. */
function highAt(c: Context, output: string): { readonly volts: number; readonly ohms: number } {
  const { dropV, ohms } = timerOutput.high;
  if (isTimer(c.partAt(output)?.seated.part ?? '')) return { volts: supplyVolts(c) - dropV, ohms };
  return c.familyAt(output).technology === 'TTL' ? ttlHigh : { volts: supplyVolts(c), ohms: 0 };
}

/** The volts of the board's supply; 5 V while there is none. */
function supplyVolts(c: Context): number {
  const volts = c.of('supply').map(({ seated }) => seated.value ?? SUPPLY_V);
  return volts.length > 0 ? Math.max(...volts) : SUPPLY_V;
}

/** The way of least ohms from a net to what brings it to a rail (Dijkstra 1959): resistors count, contacts and transistors that conduct do not. */
function feedOf(c: Context, net: number | undefined, rail: 'supply' | 'ground'): Feed | null {
  if (net === undefined) return null;
  const least = new Map([[net, 0]]);
  const open = new Set([net]);
  const done = new Set<number>();
  while (open.size > 0) {
    const at = [...open].reduce((a, b) => ((least.get(b) ?? 0) < (least.get(a) ?? 0) ? b : a));
    const ohms = least.get(at) ?? 0;
    open.delete(at);
    done.add(at);
    const there = sourceAt(c, at, rail);
    if (there) return { ...there, ohms };
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

function sourceAt(c: Context, net: number, rail: 'supply' | 'ground'): Omit<Feed, 'ohms'> | null {
  const feeds = c.feedsOf(net);
  if (feeds[rail]) return { volts: rail === 'supply' ? supplyVolts(c) : 0, output: null };
  const output = feeds.outputs.find((pin) => rail === 'ground' || c.driveOf(pin) !== 'open-collector');
  if (output === undefined) return null;
  return { volts: rail === 'ground' ? 0 : highAt(c, output).volts, output };
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

/** Whether a lamp has what gives it current on both sides, and no ohm on the way. */
export function isUnlimited(c: Context, { anode, cathode }: LedNets): boolean {
  const [from, to] = [feedOf(c, anode, 'supply'), feedOf(c, cathode, 'ground')];
  return from !== null && to !== null && from.ohms + to.ohms === 0;
}

/** Whether something that no ohm limits can bring a net to a rail: the rail, an output, a switch, a transistor. */
export function isStiff(c: Context, net: number | undefined): boolean {
  return (['supply', 'ground'] as const).some((rail) => feedOf(c, net, rail)?.ohms === 0);
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
