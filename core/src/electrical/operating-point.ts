import { elementAt } from '../element-at';
import type { Element, Stamps } from './elements';
import { SparseMatrix } from './sparse';

/** Newton's steps until a point counts as not found: so many, and for each node; a chain of transistor gates takes some two a gate. */
const STEPS = 200;
const STEPS_A_NODE = 4;
/** A point is found when no node moves by more than this share of its volts and these volts in a step. */
const RELATIVE = 1e-6;
const ABSOLUTE_V = 1e-7;
/** The most a node may move in one step, in volts. */
const STEP_V = 2;
/** From every node to ground, in siemens: what keeps a node that nothing holds from being anywhere. */
export const LEAK_S = 1e-12;
/** The first of the conductances that are stepped down when Newton's method does not end by itself. */
const FIRST_S = 1e-2;

/** The nodes of an island that are to be found, and the elements on them; other nodes of the elements have fixed volts. */
export interface Island {
  readonly free: readonly number[];
  readonly elements: readonly Element[];
}

/**
 * What a solution is: found or not, after how many steps, and whether a disturbance would grow away from it. `ohms` are those that each free
 * node shows to what is connected to it, in the island's order: Thévenin's resistances there.
 */
export interface Solution {
  readonly found: boolean;
  readonly steps: number;
  readonly isStable: boolean;
  readonly ohms: Float64Array;
}

/**
 * Finds the operating point of an island by nodal analysis and writes it into `volts` (by node), whose values are where the search
 * begins: from the last point a circuit with memory stays in its state. `isWarm` says that they are such a point: then what has changed is carried on gate
 * by gate first, since Newton's method alone takes some two steps for each gate of a chain. Newton's method with junctions held back; when that does not end,
 * conductances to ground that are stepped down by tens. Source: Nagel, "SPICE2" (1975).
 */
export function solveIsland(island: Island, volts: Float64Array, isWarm = false): Solution {
  if (island.free.length === 1 && island.elements.every(({ isActive }) => !isActive)) {
    const alone = solveAlone(island, volts);
    if (alone.found) return alone;
  }
  if (isWarm && island.free.length >= WAVE_NODES) wave(island, volts);
  const system = new System(island, volts.length);
  const before = island.free.map((node) => volts[node] as number);
  let steps = system.newton(volts, LEAK_S);
  let found = steps <= system.mostSteps;
  if (!found) {
    island.free.forEach((node, i) => {
      volts[node] = before[i] as number;
    });
    found = true;
    for (let siemens = FIRST_S; ; siemens = Math.max(LEAK_S, siemens / 10)) {
      const more = system.newton(volts, siemens);
      steps += more;
      if (more > system.mostSteps) found = false;
      if (!found || siemens === LEAK_S) break;
    }
  }
  const actives = island.elements.reduce((sum, e) => sum + (e.isActive ? 1 : 0), 0);
  const isStable = found && (actives < 2 || system.isStable(volts));
  const ohms = system.resistances(volts);
  system.release();
  return { found, steps, isStable, ohms };
}

/** Nodes of an island from which on changes are carried on gate by gate first. */
const WAVE_NODES = 24;
/** A gate that moves by less than this, in volts, wakes no other; each is looked at so often at the most, on average. */
const WAVE_V = 1e-3;
const WAVE_ROUNDS = 12;

/** What is solved at once in a wave: the nodes of a gate, and the elements on them. */
interface Block extends Island {
  readonly solver: RepeatedSolver;
}

/**
 * Carries changes through an island gate by gate: the output and control of each transistor together, all others held, from a queue, until nothing
 * moves. Leaves `volts` near the point that Newton's method is to find then.
 */
function wave(island: Island, volts: Float64Array): void {
  const elementsOn = new Map<number, Element[]>(island.free.map((node) => [node, []]));
  for (const element of island.elements) for (const node of new Set(element.nodes)) elementsOn.get(node)?.push(element);
  const blockOf = new Map<number, number>();
  const blocks: Block[] = [];
  const add = (nodes: readonly number[]): void => {
    const free = nodes.filter((node) => elementsOn.has(node) && !blockOf.has(node));
    if (free.length === 0) return;
    for (const node of free) blockOf.set(node, blocks.length);
    const elements = [...new Set(free.flatMap((node) => elementsOn.get(node) ?? []))];
    blocks.push({ free, elements, solver: new RepeatedSolver({ free, elements }, volts.length) });
  };
  for (const { isActive, nodes } of island.elements) if (isActive) add(nodes.slice(0, 2));
  for (const node of island.free) add([node]);
  const queue = blocks.map((_, b) => b);
  const isQueued = new Uint8Array(blocks.length).fill(1);
  for (let n = 0; n < queue.length && n < WAVE_ROUNDS * blocks.length; n++) {
    const b = queue[n] as number;
    isQueued[b] = 0;
    const { free, elements, solver } = elementAt(blocks, b);
    const before = free.map((node) => volts[node] as number);
    if (!solver.solve(volts))
      free.forEach((node, i) => {
        volts[node] = before[i] as number;
      });
    if (free.every((node, i) => Math.abs((volts[node] as number) - (before[i] as number)) < WAVE_V)) continue;
    for (const element of elements)
      for (const node of element.nodes) {
        const other = blockOf.get(node);
        if (other === undefined || other === b || isQueued[other] === 1) continue;
        isQueued[other] = 1;
        queue.push(other);
      }
  }
}

/** The one equation of an island of a single node, without a matrix around it. */
function solveAlone({ free, elements }: Island, volts: Float64Array): Solution {
  const node = elementAt(free, 0);
  const before = volts[node] as number;
  let [rest, slope, isHeld] = [0, 0, false];
  const into: Stamps = {
    current: (at, amps) => {
      if (at === node) rest += amps;
    },
    conductance: (at, by, siemens) => {
      if (at === node && by === node) slope += siemens;
    },
    limited: () => {
      isHeld = true;
    },
  };
  for (let steps = 1; steps <= STEPS; steps++) {
    const now = volts[node] as number;
    [rest, slope, isHeld] = [LEAK_S * now, LEAK_S, false];
    for (const element of elements) element.stamp(volts, into);
    const by = Math.max(-STEP_V, Math.min(STEP_V, -rest / slope));
    volts[node] = now + by;
    if (!isHeld && Math.abs(by) <= ABSOLUTE_V + RELATIVE * Math.abs(now + by))
      return { found: true, steps, isStable: true, ohms: Float64Array.of(1 / slope) };
  }
  volts[node] = before;
  return { found: false, steps: STEPS, isStable: false, ohms: Float64Array.of(0) };
}

/** Amperes that leave some nodes into the elements at given volts, all together. */
export function currentFrom(nodes: ReadonlySet<number>, elements: readonly Element[], volts: Float64Array): number {
  let sum = 0;
  const into: Stamps = {
    current: (node, amps) => {
      if (nodes.has(node)) sum += amps;
    },
    conductance: () => {},
    limited: () => {},
  };
  for (const element of elements) element.stamp(volts, into);
  return sum;
}

/** For each node its row, -1 for those that are not to be found: one array for all islands, which are solved one after the other. */
let rows = new Int32Array(0);

function rowsFor(nodes: number): Int32Array {
  if (rows.length < nodes) rows = new Int32Array(nodes).fill(-1);
  return rows;
}

/** How a disturbance is followed: so many steps, of which the last half counts; and the growth that is taken for instability. */
const GROWTH_STEPS = 40;
const GROWTH = 1.2;
const GROWTH_S = [1e-2, 1e-3] as const;

/** Solves one island again and again while its elements change what they do but not what they join: the elimination is worked out once. */
export class RepeatedSolver {
  private readonly system: System;

  constructor(island: Island, nodes: number) {
    this.system = new System(island, nodes);
    this.system.release();
  }

  /** Newton's method from where `volts` are; false where it does not end. `volts` are then where it was left. */
  solve(volts: Float64Array): boolean {
    this.system.claim();
    const found = this.system.newton(volts, LEAK_S) <= this.system.mostSteps;
    this.system.release();
    return found;
  }
}

/** The equations of an island: a matrix over its free nodes, and the currents that are to vanish. */
class System implements Stamps {
  private readonly n: number;
  /** For each node its row, -1 for nodes with fixed volts. */
  private readonly rowOf: Int32Array;
  private readonly matrix: SparseMatrix;
  private readonly rest: Float64Array;
  private isHeld = false;
  readonly mostSteps: number;

  constructor(
    private readonly island: Island,
    nodes: number,
  ) {
    this.n = island.free.length;
    this.rowOf = rowsFor(nodes);
    this.claim();
    const rowsOf = (element: Element): number[] => {
      const rows = element.nodes.map((node) => this.rowOf[node] as number);
      return [...new Set(rows)].filter((row) => row >= 0);
    };
    this.matrix = new SparseMatrix(this.n, island.elements.map(rowsOf));
    this.mostSteps = STEPS + STEPS_A_NODE * this.n;
    this.rest = new Float64Array(this.n);
  }

  current(node: number, amps: number): void {
    const row = this.rowOf[node] as number;
    if (row >= 0) this.rest[row] = (this.rest[row] as number) + amps;
  }

  conductance(node: number, byNode: number, siemens: number): void {
    const [row, column] = [this.rowOf[node] as number, this.rowOf[byNode] as number];
    if (row >= 0 && column >= 0) this.matrix.add(row, column, siemens);
  }

  limited(): void {
    this.isHeld = true;
  }

  private linearise(volts: Float64Array, siemens: number): void {
    this.matrix.clear();
    this.rest.fill(0);
    this.isHeld = false;
    for (const element of this.island.elements) element.stamp(volts, this);
    for (const node of this.island.free) {
      this.current(node, siemens * (volts[node] as number));
      this.conductance(node, node, siemens);
    }
  }

  /** Steps until the point is found; more than `mostSteps` when it is not. */
  newton(volts: Float64Array, siemens: number): number {
    const step = new Float64Array(this.n);
    for (let steps = 1; steps <= this.mostSteps; steps++) {
      this.linearise(volts, siemens);
      for (let i = 0; i < this.n; i++) step[i] = -(this.rest[i] as number);
      if (!this.matrix.factor()) return this.mostSteps + 1;
      this.matrix.solve(step);
      let moves = this.isHeld;
      for (let i = 0; i < this.n; i++) {
        const node = this.island.free[i] as number;
        const by = Math.max(-STEP_V, Math.min(STEP_V, step[i] as number));
        const next = (volts[node] as number) + by;
        if (!Number.isFinite(next)) return this.mostSteps + 1;
        volts[node] = next;
        if (Math.abs(by) > ABSOLUTE_V + RELATIVE * Math.abs(next)) moves = true;
      }
      if (!moves) return steps;
    }
    return this.mostSteps + 1;
  }

  /** Takes the array of rows for this island. */
  claim(): void {
    this.island.free.forEach((node, row) => {
      this.rowOf[node] = row;
    });
  }

  /** Gives the array of rows back for the next island. */
  release(): void {
    for (const node of this.island.free) this.rowOf[node] = -1;
  }

  resistances(volts: Float64Array): Float64Array {
    const ohms = new Float64Array(this.n);
    this.linearise(volts, LEAK_S);
    if (!this.matrix.factor()) return ohms.fill(Number.POSITIVE_INFINITY);
    const x = new Float64Array(this.n);
    for (let row = 0; row < this.n; row++) {
      x.fill(0);
      x[row] = 1;
      this.matrix.solve(x);
      ohms[row] = x[row] as number;
    }
    return ohms;
  }

  /**
   * Whether a disturbance dies out when every node has a capacitance to ground. Follows one by x <- 2g (J + gI)⁻¹ x - x, the
   * trapezoidal rule with a step that g stands for, and takes the mean growth of the last steps.
   */
  isStable(volts: Float64Array): boolean {
    return GROWTH_S.every((siemens) => this.growth(volts, siemens) < GROWTH);
  }

  private growth(volts: Float64Array, siemens: number): number {
    this.linearise(volts, siemens);
    if (!this.matrix.factor()) return Number.POSITIVE_INFINITY;
    const x = Float64Array.from({ length: this.n }, (_, i) => 1 + ((i * 0.618034) % 1));
    const y = new Float64Array(this.n);
    let sum = 0;
    for (let step = 0; step < GROWTH_STEPS; step++) {
      y.set(x);
      this.matrix.solve(y);
      let size = 0;
      for (let i = 0; i < this.n; i++) {
        x[i] = 2 * siemens * (y[i] as number) - (x[i] as number);
        size += (x[i] as number) ** 2;
      }
      size = Math.sqrt(size);
      if (size === 0) return 0;
      if (step >= GROWTH_STEPS / 2) sum += Math.log(size);
      for (let i = 0; i < this.n; i++) x[i] = (x[i] as number) / size;
    }
    return Math.exp(sum / (GROWTH_STEPS / 2));
  }
}
