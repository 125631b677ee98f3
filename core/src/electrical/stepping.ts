import { elementAt } from '../element-at';
import type { Watch } from './charge';
import { junctionPf } from './devices';
import { type Element, type SteppedCapacitor, steppedCapacitor } from './elements';
import type { CapacitorModel, IslandModel } from './island';
import { currentFrom, RepeatedSolver } from './operating-point';

/** Where in a step the trapezoidal part ends and Gear's begins, so that both have one matrix. */
const GAMMA = 2 - Math.SQRT2;
/** What a step may err by: a share of the volts, and these volts. */
const ERROR_SHARE = 3e-4;
const ERROR_V = 1e-4;
/** Steps in seconds: the first after a jump, of which two are Euler's; the least; the most. */
const FIRST_S = 1e-9;
const LEAST_S = 1e-10;
const MOST_S = 1;
/** An island rests when none of its capacitors moves by so many volts in a second. */
const REST_V_S = 1e-3;
/** What keeps a circuit that is equal on both sides from balancing on its edge for ever, in volts. */
const ASYMMETRY_V = 1e-6;

interface Charge {
  readonly between: readonly [a: number, b: number];
  readonly farads: number;
  readonly element: SteppedCapacitor;
  v: number;
  amps: number;
}

/** The end of a step that has been worked out and not yet been reached. */
interface Ahead {
  readonly seconds: number;
  readonly nodes: Float64Array;
  readonly v: Float64Array;
  readonly amps: Float64Array;
}

/**
 * An island with several capacitors, or with capacitors and transistors, in time: implicit steps by the TR-BDF2 rule under control of their error. Source: Bank et al., "Transient simulation of silicon devices
 * and circuits", IEEE Trans. CAD 4 (1985); Hosea and Shampine, "Analysis and implementation of TR-BDF2" (1996) for the error.
 * Junctions of transistors have the capacitance that they have, so that a flip takes time.
 */
export class SteppedIsland {
  private readonly charges: readonly Charge[];
  private readonly volts: Float64Array;
  private readonly solvers = new Map<number | string, { solver: RepeatedSolver; elements: readonly Element[] }>();
  private current: { solver: RepeatedSolver; elements: readonly Element[] } | null = null;
  private seconds = FIRST_S;
  private eulers = 2;
  private ahead: Ahead | null = null;
  private isFound = true;
  /** Whether every output on it does something that is known. */
  private isClear = true;

  constructor(
    readonly model: IslandModel,
    capacitors: readonly CapacitorModel[],
    private readonly fixed: { readonly volts: Float64Array; readonly positive: ReadonlySet<number> },
  ) {
    const own = model.parts.lasting.flatMap(junctionsOf);
    this.charges = [...capacitors.map(({ a, b, farads }) => ({ between: [a, b] as const, farads })), ...own].map(
      ({ between, farads }, i) => ({
        between,
        farads,
        element: steppedCapacitor(...between),
        v: i * ASYMMETRY_V,
        amps: 0,
      }),
    );
    this.volts = fixed.volts.slice();
  }

  /** Takes up how contacts and outputs stand now. Capacitors keep their volts. */
  turn(): void {
    const key = this.model.standing;
    let made = this.solvers.get(key);
    if (!made) {
      const elements = [...elementAt(this.model.corners(), 0).elements, ...this.charges.map((c) => c.element)];
      made = { elements, solver: new RepeatedSolver({ free: this.model.free, elements }, this.volts.length) };
      this.solvers.set(key, made);
    }
    if (made === this.current) return;
    this.current = made;
    this.isClear = !this.model.isLost && this.model.corners().length === 1;
    this.restart();
  }

  private restart(): void {
    this.ahead = null;
    this.seconds = FIRST_S;
    this.eulers = 2;
  }

  /** Lets so many seconds pass, at most as far as the step goes that was worked out last. */
  advance(seconds: number): void {
    const { ahead } = this;
    if (!ahead || seconds <= 0) return;
    const share = Math.min(1, seconds / ahead.seconds);
    const isWhole = share > 1 - 1e-9;
    this.model.free.forEach((node, i) => {
      const before = this.volts[node] as number;
      this.volts[node] = before + share * ((ahead.nodes[i] as number) - before);
    });
    this.charges.forEach((charge, i) => {
      charge.v += share * ((ahead.v[i] as number) - charge.v);
      charge.amps += share * ((ahead.amps[i] as number) - charge.amps);
    });
    if (isWhole) {
      this.ahead = null;
      if (this.eulers > 0) this.eulers--;
    } else this.restart();
  }

  /** Seconds until something has to be looked at: the end of the next step, or earlier where a watched level is passed; Infinity at rest. */
  nextCrossing(watches: readonly Watch[]): number {
    if (!this.current || (this.secondsToRest === 0 && this.eulers === 0)) return Infinity;
    this.ahead ??= this.stepTo(watches);
    return this.ahead?.seconds ?? Infinity;
  }

  private stepTo(watches: readonly Watch[]): Ahead | null {
    let step = this.tried(this.seconds);
    while (!step && this.seconds > LEAST_S) {
      this.seconds = Math.max(LEAST_S, this.seconds / 4);
      step = this.tried(this.seconds);
    }
    this.isFound = step !== null;
    if (!step) return null;
    const share = this.firstPassed(step, watches);
    return share >= 1 ? step : (this.tried(Math.max(LEAST_S, share * step.seconds), true) ?? step);
  }

  /** The share of a step at which a watched level is passed first; 1 where none is. */
  private firstPassed({ nodes, seconds }: Ahead, watches: readonly Watch[]): number {
    let first = 1;
    for (const { row, volts } of watches) {
      const start = this.volts[this.model.free[row] as number] as number;
      const end = nodes[row] as number;
      if (start < volts === end < volts) continue;
      first = Math.min(first, (volts - start) / (end - start) + LEAST_S / seconds);
    }
    return first;
  }

  /** Works a step out; null where it is not found, or errs too much and could be shorter. */
  private tried(seconds: number, isForced = false): Ahead | null {
    const made = this.current;
    if (!made) return null;
    const work = this.volts.slice();
    const before = this.charges.map(({ v }) => v);
    if (this.eulers > 0) {
      this.setStep((c) => [c.farads / seconds, (c.farads / seconds) * c.v]);
      return made.solver.solve(work) ? this.ended(seconds, work) : null;
    }
    this.setStep((c) => {
      const siemens = (2 * c.farads) / (GAMMA * seconds);
      return [siemens, siemens * c.v + c.amps];
    });
    if (!made.solver.solve(work)) return null;
    const middle = this.charges.map((c) => this.across(c, work));
    const middleA = this.charges.map(({ element }) => element.amps(work));
    const share = 1 / (GAMMA * (2 - GAMMA));
    this.setStep((c, i) => {
      const siemens = (c.farads * (2 - GAMMA)) / ((1 - GAMMA) * seconds);
      const from = share * ((middle[i] as number) - (1 - GAMMA) ** 2 * (before[i] as number));
      return [siemens, siemens * from];
    });
    if (!made.solver.solve(work)) return null;
    const end = this.ended(seconds, work);
    const error = this.errorOf(end, middleA);
    if (error > 1 && !isForced && seconds > LEAST_S) return null;
    if (!isForced) {
      const factor = Math.max(0.3, Math.min(4, 0.9 * Math.max(error, 1e-6) ** (-1 / 3)));
      this.seconds = Math.max(LEAST_S, Math.min(MOST_S, seconds * factor));
    }
    return end;
  }

  /** The error of a step against what it may be: 1 is the limit. */
  private errorOf({ seconds, v, amps }: Ahead, middleA: readonly number[]): number {
    const scale = (2 * seconds * (-3 * GAMMA ** 2 + 4 * GAMMA - 2)) / (12 * (2 - GAMMA));
    let worst = 0;
    this.charges.forEach((c, i) => {
      const bend = c.amps / GAMMA - (middleA[i] as number) / (GAMMA * (1 - GAMMA)) + (amps[i] as number) / (1 - GAMMA);
      const error = Math.abs((scale * bend) / c.farads);
      worst = Math.max(worst, error / (ERROR_V + ERROR_SHARE * Math.abs(v[i] as number)));
    });
    return worst;
  }

  private setStep(of: (charge: Charge, i: number) => readonly [siemens: number, offsetA: number]): void {
    this.charges.forEach((c, i) => {
      const [siemens, offsetA] = of(c, i);
      c.element.siemens = siemens;
      c.element.offsetA = offsetA;
    });
  }

  private across({ between: [a, b] }: Charge, volts: Float64Array): number {
    return (volts[a] as number) - (volts[b] as number);
  }

  private ended(seconds: number, work: Float64Array): Ahead {
    return {
      seconds,
      nodes: Float64Array.from(this.model.free, (node) => work[node] as number),
      v: Float64Array.from(this.charges, (c) => this.across(c, work)),
      amps: Float64Array.from(this.charges, ({ element }) => element.amps(work)),
    };
  }

  /** Whether nothing moves any more. */
  get isResting(): boolean {
    return this.secondsToRest === 0;
  }

  /** 0 where nothing moves any more; Infinity otherwise, since nobody knows how long it takes. */
  get secondsToRest(): number {
    if (this.eulers > 0) return Infinity;
    return this.charges.every((c) => Math.abs(c.amps / c.farads) < REST_V_S) ? 0 : Infinity;
  }

  /** The volts of a node, by its index in the island, as the least and the most that they can be. */
  nodeV(row: number): readonly [least: number, most: number] {
    const v = this.volts[this.model.free[row] as number] as number;
    return [v, v];
  }

  /** Whether its volts are known. */
  get isSure(): boolean {
    return this.isFound && this.isClear;
  }

  /** What the supplies give into it now, in amperes. */
  get supplyA(): number {
    return currentFrom(this.fixed.positive, this.current?.elements ?? [], this.volts);
  }
}

/** The capacitances of a transistor's junctions; none of other elements. */
function junctionsOf({ nodes, isActive, gate }: Element): { between: readonly [number, number]; farads: number }[] {
  if (!isActive) return [];
  const [out, control, common] = [elementAt(nodes, 0), elementAt(nodes, 1), elementAt(nodes, 2)];
  const { toCommon, toOut } = gate === undefined ? junctionPf.bipolar : junctionPf.mosfet;
  return [
    { between: [control, common], farads: toCommon * 1e-12 },
    { between: [control, out], farads: toOut * 1e-12 },
  ];
}
