import type { Element } from './elements';
import { currentFrom, type Island, solveIsland } from './operating-point';

/** What a chip's output does to its pin. `unknown`: low or high, and nobody knows which. `dead`: its chip has no supply. */
export type Drive = 'low' | 'high' | 'off' | 'unknown' | 'dead';

const DRIVES: readonly Drive[] = ['low', 'high', 'off', 'unknown', 'dead'];

/** A contact between two nodes, closed while its actuator stands `on` or off. */
export interface ContactModel {
  readonly actuator: string;
  readonly on: boolean;
  readonly element: Element;
}

/** An output pin of a chip with the stages that drive it. */
export interface OutputModel {
  readonly pin: string;
  readonly ref: string;
  readonly low: Element;
  readonly high: Element;
}

/** Unknown outputs of one island whose corners are tried; of more, all that they reach is unknown. */
const MOST_UNKNOWN = 6;
/** Behind more ohms than these a node counts as floating: an insulation, not a path. */
const FLOATING_OHMS = 1e8;
/** Nodes of an island up to which it is solved; of a larger one nothing is known. Some 500 transistors hang together in one of so many. */
export const MOST_NODES = 1500;
/** Volts that an island keeps in all its operating points; a walk asks for a handful, whatever its rows. */
const MOST_KEPT = 65_536;

/** What an island is found to be: by its nodes the least and the most volts, what floats and what nobody knows; and what the supplies give it. */
export interface IslandPoint {
  readonly least: Float64Array;
  readonly most: Float64Array;
  readonly floats: Uint8Array;
  readonly lost: Uint8Array;
  readonly supplyA: number;
}

/**
 * Nodes that hang together through elements, contacts and outputs, cut at the supplies. Its operating point depends only on how its own
 * contacts and outputs stand, so it is kept by that; an island that can remember is solved anew from where it was left.
 */
export class IslandModel {
  private readonly kept = new Map<number | string, IslandPoint>();
  private readonly remembers: boolean;
  /** Whether a number is wide enough for a key of all contacts and outputs. */
  private readonly isNarrow: boolean;

  constructor(
    readonly free: readonly number[],
    private readonly lasting: readonly Element[],
    readonly contacts: readonly ContactModel[],
    readonly outputs: readonly OutputModel[],
  ) {
    this.remembers = lasting.filter((element) => element.isActive).length > 1;
    this.isNarrow = 2 ** contacts.length * DRIVES.length ** outputs.length < Number.MAX_SAFE_INTEGER;
  }

  /** The point for contacts and outputs as they stand. `volts` has the fixed nodes, and where the search begins; `positive` are supply leads. */
  pointAt(
    isOn: (actuator: string) => boolean,
    driveOf: (output: OutputModel) => Drive,
    volts: Float64Array,
    positive: ReadonlySet<number>,
  ): IslandPoint {
    const key = this.keyOf(isOn, driveOf);
    const before = this.remembers ? undefined : this.kept.get(key);
    if (before) return before;
    const closed = this.contacts.filter((c) => isOn(c.actuator) === c.on);
    const point = this.solved(closed, this.outputs.map(driveOf), volts, positive);
    if (this.kept.size * (this.free.length + 1) >= MOST_KEPT) this.kept.clear();
    if (!this.remembers) this.kept.set(key, point);
    return point;
  }

  private keyOf(isOn: (actuator: string) => boolean, driveOf: (output: OutputModel) => Drive): number | string {
    let key = 0;
    let text = '';
    for (const { actuator, on } of this.contacts) {
      const digit = isOn(actuator) === on ? 1 : 0;
      if (this.isNarrow) key = 2 * key + digit;
      else text += digit;
    }
    for (const output of this.outputs) {
      const digit = DRIVES.indexOf(driveOf(output));
      if (this.isNarrow) key = DRIVES.length * key + digit;
      else text += digit;
    }
    return this.isNarrow ? key : text;
  }

  private solved(
    closed: readonly ContactModel[],
    drives: readonly Drive[],
    volts: Float64Array,
    positive: ReadonlySet<number>,
  ): IslandPoint {
    const elements = [...this.lasting, ...closed.map((c) => c.element)];
    const unknown: OutputModel[] = [];
    this.outputs.forEach((output, i) => {
      if (drives[i] === 'low' || drives[i] === 'high') elements.push(output[drives[i]]);
      else if (drives[i] === 'unknown') unknown.push(output);
    });
    const n = this.free.length;
    const [least, most] = [new Float64Array(n).fill(Infinity), new Float64Array(n).fill(-Infinity)];
    const [floats, lost] = [new Uint8Array(n), new Uint8Array(n)];
    const corners = unknown.length > MOST_UNKNOWN ? 1 : 2 ** unknown.length;
    if (unknown.length > MOST_UNKNOWN || drives.includes('dead')) lost.fill(1);
    if (n > MOST_NODES) return { least: least.fill(0), most: most.fill(0), floats, lost: lost.fill(1), supplyA: 0 };
    const start = this.free.map((node) => volts[node] as number);
    let island: Island = { free: this.free, elements };
    for (let corner = 0; corner < corners; corner++) {
      const stages = unknown.map((output, i) => ((corner >> i) & 1 ? output.high : output.low));
      island = { free: this.free, elements: [...elements, ...stages] };
      this.free.forEach((node, i) => {
        volts[node] = start[i] as number;
      });
      const { found, isStable, ohms } = solveIsland(island, volts);
      if (!found || !isStable) lost.fill(1);
      this.free.forEach((node, i) => {
        least[i] = Math.min(least[i] as number, volts[node] as number);
        most[i] = Math.max(most[i] as number, volts[node] as number);
        if (corner === 0 && (ohms[i] as number) > FLOATING_OHMS) floats[i] = 1;
      });
      // A gate that nothing holds keeps whatever charge it has.
      const isHeld = (node: number): boolean => floats[this.free.indexOf(node)] !== 1;
      if (island.elements.some(({ gate }) => gate !== undefined && !isHeld(gate))) lost.fill(1);
    }
    return { least, most, floats, lost, supplyA: currentFrom(positive, island.elements, volts) };
  }
}
