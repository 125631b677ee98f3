import { type Board, extractNets, type Nets, pinOf } from '../board';
import { E24, type FamilyId, families, valuesOf } from '../catalogue';
import { BoardVolts, leds, standingsOf } from '../electrical';
import { Context } from './context';
import { type LedNets, ledsOf } from './led';
import { worstCaseOf } from './worst-case';

/** A resistor whose value follows from data sheets: it stands before an LED, or pulls inputs to a rail. */
export interface FoundResistor {
  readonly ref: string;
  readonly ohms: number;
  readonly use: 'led' | 'pull-up' | 'pull-down';
  /** The lamp that it stands before, or the first input that it pulls. */
  readonly of: string;
  /** The most that the lamp gets with it, in milliamperes; null of one that pulls. */
  readonly ma: number | null;
  /** The least and the most of the series E24 that data sheets allow. */
  readonly leastOhms: number;
  readonly mostOhms: number;
  /** The value of the series E24 that suits best. */
  readonly suggestedOhms: number;
}

const OHMS = valuesOf(E24, { least: 10, most: 1e6 });
/** What an LED gets that is to be seen well and loads no output: the planned boards give theirs as much. */
const USUAL_LED_MA = 3.2;
/** Beyond so many ohms a pull picks up noise, whatever data sheets allow; and the one that every bench has. */
const MOST_PULL_OHMS = 100_000;
const USUAL_PULL_OHMS = 10_000;
/** What a closed switch wastes in its pull at the most, in amperes. */
const MOST_WASTE_A = 0.025;
/** What an open-collector output that is off still lets through, in amperes. Source: IOH of the SN7403, SN74LS03 and SN74HC03. */
const offLeakA = (family: FamilyId): number =>
  families[family].technology === 'CMOS' ? 5e-6 : family === '74' ? 250e-6 : 100e-6;

/** Works out the resistors of a board; `ledMa` is what an LED is wanted to get, `drawerOhms` what the drawer has: it comes first where it is allowed. */
export function resistorsOf(
  board: Board,
  {
    nets = extractNets(board),
    family,
    ledMa = USUAL_LED_MA,
    drawerOhms = [],
  }: { nets?: Nets; family: FamilyId; ledMa?: number; drawerOhms?: readonly number[] },
): FoundResistor[] {
  const c = new Context(board, nets, { packing: null, family });
  const before = ledsOf(c).flatMap((lamp) => beforeLed(c, lamp, ledMa) ?? []);
  const taken = new Set(before.map((r) => r.ref));
  const pulls = c.of('resistor').flatMap(({ seated: { ref } }) => (taken.has(ref) ? [] : (pull(c, ref) ?? [])));
  return [...before, ...pulls].map((found) => fromDrawer(found, drawerOhms));
}

/** The value that suits best of those of the drawer that are allowed; the best of the series where none is. */
function fromDrawer(found: FoundResistor, drawerOhms: readonly number[]): FoundResistor {
  const { leastOhms, mostOhms, suggestedOhms } = found;
  const off = (ohms: number): number => Math.abs(Math.log(ohms / suggestedOhms));
  const [nearest] = drawerOhms.filter((ohms) => ohms >= leastOhms && ohms <= mostOhms).sort((a, b) => off(a) - off(b));
  return nearest === undefined ? found : { ...found, suggestedOhms: nearest };
}

/** The resistor that shares a net with a lamp and nothing else. */
function beforeLed(c: Context, lamp: LedNets, wantedMa: number): FoundResistor | null {
  const ends = [lamp.anode, lamp.cathode].flatMap((net) => net ?? []);
  const [own] = ends.flatMap((net) => (c.pinsOn(net).length === 2 ? c.resistorsOn(net) : []));
  const current = worstCaseOf(c).lamps.get(lamp.name);
  if (!own || !current) return null;
  const guaranteed = current.outputs.flatMap(({ pin, level }) => {
    const { technology, outputMa } = c.limitsAt(pin);
    // A TTL output gives little when it is high, and the LED is dim: that is no harm to it.
    return technology === 'TTL' && level === 'high' ? [] : [outputMa[level]];
  });
  const mostMa = Math.min(leds[lamp.colour].mostMa, ...guaranteed);
  const maWith = mostThrough(c, lamp, own.ref);
  const least = firstWithin(maWith, mostMa);
  const suited = firstWithin(maWith, Math.min(wantedMa, mostMa));
  const dimmest = firstWithin(maWith, leds[lamp.colour].dimMa);
  return {
    ref: own.ref,
    ohms: own.ohms,
    use: 'led',
    of: lamp.name,
    ma: current.ma,
    leastOhms: least,
    mostOhms: Math.max(least, OHMS[OHMS.indexOf(dimmest) - 1] ?? least),
    suggestedOhms: suited,
  };
}

/** The most that a lamp gets in any way its island may stand, in milliamperes, by the ohms of the resistor before it. */
function mostThrough({ board, nets }: Context, lamp: LedNets, ref: string): (ohms: number) => number {
  const part = board.parts[ref];
  return (ohms) => {
    if (!part) return 0;
    const volts = new BoardVolts({ ...board, parts: { ...board.parts, [ref]: { ...part, value: ohms } } }, nets);
    const element = volts.lamps.get(lamp.name);
    const island = volts.islands[element?.nodes.map((n) => volts.islandOf[n] ?? -1).find((i) => i >= 0) ?? -1];
    let most = 0;
    if (element && island)
      for (const standing of standingsOf(volts, island)) most = Math.max(most, 1000 * element.amps(standing.volts));
    return most;
  };
}

/** The least of the series with which a current, which falls with the ohms, is within a limit. */
function firstWithin(maWith: (ohms: number) => number, mostMa: number): number {
  let [low, high] = [0, OHMS.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (maWith(OHMS[middle] ?? 0) <= mostMa) high = middle;
    else low = middle + 1;
  }
  return OHMS[low] ?? USUAL_PULL_OHMS;
}

/** A resistor from inputs of chips to a rail, with switches or open-collector outputs on the other side. */
function pull(c: Context, ref: string): FoundResistor | null {
  const ends = ['1', '2'].flatMap((id) => c.netOf(pinOf(ref, id)) ?? []);
  const net = ends.find((n) => !c.isOnRail(n));
  const rail = ends.find((n) => c.isOnRail(n));
  if (net === undefined || rail === undefined) return null;
  const { outputs, switches } = c.feedsOf(net);
  const isUp = c.feedsOf(rail).supply;
  const isOpen = outputs.length > 0 && isUp && outputs.every((pin) => c.driveOf(pin) === 'open-collector');
  const inputs = c.pinsOn(net).filter((pin) => c.kindOf(pin) === 'chip' && c.lead(pin)?.type.role === 'input');
  const [first] = inputs;
  if (first === undefined || (outputs.length > 0 ? !isOpen : switches.length === 0)) return null;
  const loads = inputs.map((pin) => c.loadUaAt(pin));
  const lowA = loads.reduce((sum, { low }) => sum + low, 0) / 1e6;
  const highA = loads.reduce((sum, { high }) => sum + high, 0) / 1e6;
  const leakA = outputs.reduce((sum, pin) => sum + offLeakA(c.limitsAt(pin).id), 0);
  const { supplyV } = c.volts;
  const dropV = isUp
    ? supplyV - Math.max(...inputs.map((pin) => c.volts.thresholdsAt(pin)?.high ?? c.limitsAt(pin).inputHighV))
    : Math.min(...inputs.map((pin) => c.volts.thresholdsAt(pin)?.low ?? c.limitsAt(pin).inputLowV));
  const sunkOhms = outputs.map((pin) => {
    const { outputMa, outputLowV } = c.limitsAt(pin);
    return (supplyV - outputLowV) / Math.max(1e-6, outputMa.low / 1000 - lowA);
  });
  const mostOhms = atMost(Math.min(MOST_PULL_OHMS, dropV / Math.max(1e-9, isUp ? highA + leakA : lowA)));
  const leastOhms = atLeast(Math.max(supplyV / MOST_WASTE_A, ...sunkOhms));
  const seated = c.resistorsOn(net).find((r) => r.ref === ref)?.ohms ?? USUAL_PULL_OHMS;
  return {
    ref,
    ohms: seated,
    use: isUp ? 'pull-up' : 'pull-down',
    of: first,
    ma: null,
    leastOhms,
    mostOhms,
    suggestedOhms: between(leastOhms, mostOhms),
  };
}

const atMost = (ohms: number): number => OHMS.findLast((value) => value <= ohms) ?? OHMS[0] ?? 10;
const atLeast = (ohms: number): number => OHMS.find((value) => value >= ohms) ?? MOST_PULL_OHMS;

/** The usual value where it is allowed, otherwise the one in the middle of what is, on a scale of ratios; the most where nothing is. */
function between(least: number, most: number): number {
  if (least <= USUAL_PULL_OHMS && USUAL_PULL_OHMS <= most) return USUAL_PULL_OHMS;
  return least >= most ? most : atMost(Math.sqrt(least * most));
}
