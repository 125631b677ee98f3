import { type BipolarModel, type JunctionModel, type MosfetModel, THERMAL_V } from './devices';

/**
 * Where an element writes what it does at the volts it was given: amperes that leave a node into it, and how they change
 * with the volts of a node (siemens). Nodes go by index; those with fixed volts take the same calls.
 */
export interface Stamps {
  current(node: number, amps: number): void;
  conductance(node: number, byNode: number, siemens: number): void;
  /** Says that a junction was held back, so that the solution is not yet one. */
  limited(): void;
}

/**
 * A piece of a circuit between nodes. `stamp` linearises it at the given volts; an element may remember where it was last
 * linearised, to go towards a solution in steps that an exponential bears. `amps` is the current into its first node's lead.
 */
export interface Element {
  readonly nodes: readonly number[];
  stamp(volts: Float64Array, into: Stamps): void;
  amps(volts: Float64Array): number;
  /** Whether it can amplify: only circuits with such elements can be unstable. */
  readonly isActive?: boolean;
  /** A node that steers it and takes no current: where nothing holds that, nobody knows what the element does. */
  readonly gate?: number;
}

const at = (volts: Float64Array, node: number): number => volts[node] as number;

/** Writes a current from `a` to `b`, with its slope, that depends on the volts between them alone. */
function between(into: Stamps, [a, b]: readonly [number, number], amps: number, siemens: number): void {
  into.current(a, amps);
  into.current(b, -amps);
  into.conductance(a, a, siemens);
  into.conductance(a, b, -siemens);
  into.conductance(b, a, -siemens);
  into.conductance(b, b, siemens);
}

/** A resistor. */
export function resistor(a: number, b: number, ohms: number): Element {
  const siemens = 1 / ohms;
  const amps = (volts: Float64Array): number => (at(volts, a) - at(volts, b)) * siemens;
  return { nodes: [a, b], amps, stamp: (volts, into) => between(into, [a, b], amps(volts), siemens) };
}

/** What a held capacitor has in series, in siemens: so much that no current of a board moves its volts by a microvolt. */
const SOURCE_S = 1e5;

/** Two nodes held at some volts from each other; `amps` is what that takes. */
export interface VoltsSource extends Element {
  sourceV: number;
}

/** Holds two nodes apart at volts that can be set, as a capacitor does for a moment. */
export function voltsSource(a: number, b: number): VoltsSource {
  const self: VoltsSource = {
    sourceV: 0,
    nodes: [a, b],
    amps: (volts) => (at(volts, a) - at(volts, b) - self.sourceV) * SOURCE_S,
    stamp: (volts, into) => between(into, [a, b], self.amps(volts), SOURCE_S),
  };
  return self;
}

/** A capacitor over one step of time: amperes are `siemens` times its volts, less `offsetA`. */
export interface SteppedCapacitor extends Element {
  siemens: number;
  offsetA: number;
}

/** A capacitor whose step is set before each solution. Source: companion models, Nagel, "SPICE2" (1975), 4.2. */
export function steppedCapacitor(a: number, b: number): SteppedCapacitor {
  const self: SteppedCapacitor = {
    siemens: 0,
    offsetA: 0,
    nodes: [a, b],
    amps: (volts) => (at(volts, a) - at(volts, b)) * self.siemens - self.offsetA,
    stamp: (volts, into) => between(into, [a, b], self.amps(volts), self.siemens),
  };
  return self;
}

/**
 * A junction with resistance in series, from anode to cathode. The current is had in closed form from Wright's omega function,
 * so it needs no node inside and no limiter. Source: Banwell and Jayakumar, "Exact analytical solution for current flow
 * through diode with series resistance", Electronics Letters 36 (2000).
 */
export function junction(anode: number, cathode: number, { saturationA, emission, ohms }: JunctionModel): Element {
  const [scale, drop] = [emission * THERMAL_V, saturationA * ohms];
  const offset = Math.log(drop / scale);
  const omegaAt = (volts: Float64Array): number =>
    omega(offset + (at(volts, anode) - at(volts, cathode) + drop) / scale);
  const ampsOf = (w: number): number => (w * scale) / ohms - saturationA;
  return {
    nodes: [anode, cathode],
    amps: (volts) => ampsOf(omegaAt(volts)),
    stamp(volts, into) {
      const w = omegaAt(volts);
      between(into, [anode, cathode], ampsOf(w), w / (1 + w) / ohms);
    },
  };
}

/** Wright's omega function of a real number: the w with w + ln w = x. Newton's steps from an estimate, good to 1e-12. */
export function omega(x: number): number {
  if (x < -30) return Math.exp(x);
  let w = x > 1 ? x - Math.log(x) : x < -1.5 ? Math.exp(x) : Math.exp((2 * x - 2) / 3);
  for (let n = 0; n < 5; n++) {
    const rest = x - w - Math.log(w);
    w *= Math.max(0.1, 1 + rest / (1 + w));
    if (Math.abs(rest) < 1e-13 * (1 + Math.abs(x))) break;
  }
  return w;
}

/** Softened max(0, x) with its slope: straight from some `width` volts on, never quite zero below. */
function softened(x: number, width: number): readonly [value: number, slope: number] {
  const e = Math.exp(-Math.abs(x) / width);
  const value = Math.max(x, 0) + width * Math.log1p(e);
  return [value, x > 0 ? 1 / (1 + e) : e / (1 + e)];
}

/** The width over which a bipolar stage begins to conduct, in volts. */
const KNEE_V = 0.03;

/** A stage holds its level against what leaks, in ohms: without load its net is not floating. */
const HOLD_OHMS = 20_000;

/** A stage whose current, and its slope, depend on the volts between its two nodes alone. */
function stage(a: number, b: number, of: (v: number) => readonly [amps: number, siemens: number]): Element {
  const here = (volts: Float64Array): readonly [number, number] => of(at(volts, a) - at(volts, b));
  return {
    nodes: [a, b],
    amps: (volts) => here(volts)[0],
    stamp(volts, into) {
      const [amps, siemens] = here(volts);
      between(into, [a, b], amps, siemens);
    },
  };
}

/**
 * A stage that lets current pass one way: from `a` to `b` while there are more than `dropV` volts between them, through `ohms`; the other
 * way it only holds its level. The upper half of a TTL output is one.
 */
export function bipolarStage(a: number, b: number, { dropV, ohms }: { dropV: number; ohms: number }): Element {
  return stage(a, b, (v) => {
    const [value, slope] = softened(v - dropV, KNEE_V);
    return [value / ohms + (v - dropV) / HOLD_OHMS, slope / ohms + 1 / HOLD_OHMS];
  });
}

/**
 * A saturated transistor from `a` to `b`: it drops `dropV` volts before its `ohms` count, and none without current. The lower half of a TTL
 * output is one, and an open collector that is on.
 */
export function saturatedStage(a: number, b: number, { dropV, ohms }: { dropV: number; ohms: number }): Element {
  const [none] = softened(-dropV, KNEE_V);
  return stage(a, b, (v) => {
    const [value, slope] = softened(v - dropV, KNEE_V);
    return [(value - none) / ohms + v / HOLD_OHMS, slope / ohms + 1 / HOLD_OHMS];
  });
}

/** What a Zener diode does beyond its junction: from its cathode to its anode current passes above the volts at which it breaks down. */
export function breakdown(
  cathode: number,
  anode: number,
  { breakdownV, ohms }: { breakdownV: number; ohms: number },
): Element {
  return stage(cathode, anode, (v) => {
    const [value, slope] = softened(v - breakdownV, KNEE_V);
    return [value / ohms, slope / ohms];
  });
}

/** A bipolar input: the base resistor, the junction in front of it, and where its current turns away from the pin. */
export interface BipolarInputModel {
  readonly ohms: number;
  readonly junctionV: number;
  readonly thresholdV: number;
}

/**
 * An input of a bipolar chip: a resistor from supply behind a junction, whose current leaves by the pin while the pin is
 * under the threshold and turns into the chip above it.
 */
export function bipolarInput(
  pin: number,
  { supply, ground }: { supply: number; ground: number },
  { ohms, junctionV, thresholdV }: BipolarInputModel,
): Element {
  // How far over the threshold it was linearised last, in knees.
  let last = 0;
  // Past the knee nothing tells the way back, so no step leaps over it; and none crosses its middle without a stop there, where it is
  // steepest, since from side to side Newton's steps can go on for ever.
  const stopped = (now: number): number => {
    if (last * now < 0 && Math.abs(now) > 0.5) return 0;
    return now > 0 && now > last + 2 ? Math.max(0, last) + 2 : now;
  };
  const over = (volts: Float64Array): number => (at(volts, pin) - at(volts, ground) - thresholdV) / KNEE_V;
  const of = (volts: Float64Array, knees: number): readonly [amps: number, byPin: number, bySupply: number] => {
    const share = 1 / (1 + Math.exp(Math.max(-60, Math.min(60, knees))));
    const full = (at(volts, supply) - at(volts, ground) - junctionV - thresholdV - knees * KNEE_V) / ohms;
    return [full * share, -share / ohms - (full * share * (1 - share)) / KNEE_V, share / ohms];
  };
  return {
    nodes: [pin, supply, ground],
    amps: (volts) => -of(volts, over(volts))[0],
    stamp(volts, into) {
      const now = over(volts);
      const held = stopped(now);
      if (held !== now) into.limited();
      last = held;
      const [base, byPin, bySupply] = of(volts, held);
      const amps = base + byPin * (now - held) * KNEE_V;
      into.current(pin, -amps);
      into.current(supply, amps);
      for (const [node, sign] of [
        [pin, -1],
        [supply, 1],
      ] as const) {
        into.conductance(node, pin, sign * byPin);
        into.conductance(node, supply, sign * bySupply);
        into.conductance(node, ground, -sign * (byPin + bySupply));
      }
    },
  };
}

/** The exponential of a junction goes on straight from this current, so that a base straight across the rails has a solution. */
const STRAIGHT_A = 1;

/** A junction's current and slope at `v` volts. */
function shockley(v: number, saturationA: number): readonly [amps: number, siemens: number] {
  const most = THERMAL_V * Math.log(STRAIGHT_A / saturationA);
  const e = saturationA * Math.exp(Math.min(v, most) / THERMAL_V);
  const siemens = e / THERMAL_V;
  return [e - saturationA + Math.max(0, v - most) * siemens, siemens];
}

/**
 * Holds a junction's next voltage back to what its exponential bears, as Nagel describes it ("SPICE2: a computer program to
 * simulate semiconductor circuits", 1975, 3.3.2).
 */
function heldBack(next: number, last: number, saturationA: number): number {
  const critical = THERMAL_V * Math.log(THERMAL_V / (Math.SQRT2 * saturationA));
  if (next <= critical || Math.abs(next - last) <= 2 * THERMAL_V) return next;
  if (last <= 0) return THERMAL_V * Math.log(Math.max(next / THERMAL_V, 1e-9));
  const step = 1 + (next - last) / THERMAL_V;
  return step > 0 ? last + THERMAL_V * Math.log(step) : critical;
}

/** A bipolar transistor: `amps` is its collector current, `baseAmps` what flows into its base. */
export interface BipolarElement extends Element {
  baseAmps(volts: Float64Array): number;
}

/** A bipolar transistor; `polarity` is 1 for NPN and -1 for PNP. */
export function bipolar(
  { collector, base, emitter }: { collector: number; base: number; emitter: number },
  polarity: 1 | -1,
  { saturationA, forward, reverse }: BipolarModel,
): BipolarElement {
  let [lastBe, lastBc] = [0, 0];
  const read = (volts: Float64Array): readonly [be: number, bc: number] => [
    polarity * (at(volts, base) - at(volts, emitter)),
    polarity * (at(volts, base) - at(volts, collector)),
  ];
  const collectorAmps = (f: number, r: number): number => polarity * (f - r - r / reverse);
  return {
    nodes: [collector, base, emitter],
    isActive: true,
    amps(volts) {
      const [be, bc] = read(volts);
      return collectorAmps(shockley(be, saturationA)[0], shockley(bc, saturationA)[0]);
    },
    baseAmps(volts) {
      const [be, bc] = read(volts);
      return polarity * (shockley(be, saturationA)[0] / forward + shockley(bc, saturationA)[0] / reverse);
    },
    stamp(volts, into) {
      const [be, bc] = read(volts);
      const [heldBe, heldBc] = [heldBack(be, lastBe, saturationA), heldBack(bc, lastBc, saturationA)];
      if (Math.abs(heldBe - be) + Math.abs(heldBc - bc) > 1e-3) into.limited();
      [lastBe, lastBc] = [heldBe, heldBc];
      const [f, gf] = shockley(heldBe, saturationA);
      const [r, gr] = shockley(heldBc, saturationA);
      // Seen from where the volts are: the currents of the held point, gone on straight.
      const [forth, back] = [f + gf * (be - heldBe), r + gr * (bc - heldBc)];
      const [ic, ib] = [forth - back - back / reverse, forth / forward + back / reverse];
      into.current(collector, polarity * ic);
      into.current(base, polarity * ib);
      into.current(emitter, -polarity * (ic + ib));
      // By base-emitter and base-collector volts; the signs of a PNP cancel.
      const [cBe, cBc] = [gf, -gr - gr / reverse];
      const [bBe, bBc] = [gf / forward, gr / reverse];
      const row = (node: number, byBe: number, byBc: number): void => {
        into.conductance(node, base, byBe + byBc);
        into.conductance(node, emitter, -byBe);
        into.conductance(node, collector, -byBc);
      };
      row(collector, cBe, cBc);
      row(base, bBe, bBc);
      row(emitter, -cBe - bBe, -cBc - bBc);
    },
  };
}

/** A MOSFET of enhancement type; `polarity` is 1 for an N channel. It conducts alike both ways, and its gate takes no current. */
export function mosfet(
  { drain, gate, source }: { drain: number; gate: number; source: number },
  polarity: 1 | -1,
  { thresholdV, gain }: MosfetModel,
): Element {
  const of = (volts: Float64Array) => {
    const isTurned = polarity * (at(volts, drain) - at(volts, source)) < 0;
    const [d, s] = isTurned ? [source, drain] : [drain, source];
    const ds = polarity * (at(volts, d) - at(volts, s));
    const [over, slope] = softened(polarity * (at(volts, gate) - at(volts, s)) - thresholdV, KNEE_V);
    const isSaturated = ds > over;
    const amps = isSaturated ? (gain * over * over) / 2 : gain * (over * ds - (ds * ds) / 2);
    const byGate = (isSaturated ? gain * over : gain * ds) * slope;
    const byDrain = isSaturated ? 0 : gain * (over - ds);
    return { d, s, isTurned, amps, byGate, byDrain };
  };
  return {
    nodes: [drain, gate, source],
    isActive: true,
    gate,
    amps(volts) {
      const { amps, isTurned } = of(volts);
      return polarity * (isTurned ? -amps : amps);
    },
    stamp(volts, into) {
      const { d, s, amps, byGate, byDrain } = of(volts);
      into.current(d, polarity * amps);
      into.current(s, -polarity * amps);
      for (const [node, sign] of [
        [d, 1],
        [s, -1],
      ] as const) {
        into.conductance(node, gate, sign * byGate);
        into.conductance(node, d, sign * byDrain);
        into.conductance(node, s, -sign * (byGate + byDrain));
      }
    },
  };
}
