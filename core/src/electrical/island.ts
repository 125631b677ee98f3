import type { Element } from './elements';
import { currentFrom, type Island, solveIsland } from './operating-point';

/** What a chip's output does to its pin. `unknown`: low or high, and nobody knows which. `dead`: its chip has no supply. */
export type Drive = 'low' | 'high' | 'unknown' | 'off' | 'dead';

/** The drives by number: the first three are the levels of `logic`. */
export const DRIVES: readonly Drive[] = ['low', 'high', 'unknown', 'off', 'dead'];

/** A contact between two nodes, closed while its actuator stands `on` or off. */
export interface ContactModel {
  readonly actuator: string;
  readonly on: boolean;
  readonly element: Element;
  /** It is a lamp, closed until it is destroyed. */
  readonly isLamp?: true;
}

/**
 * An output pin of a chip with the stages that drive it. Of an analogue switch both stages are a resistor to its other end: open while `low`,
 * closed while `high`; `joint` says in which of all the ways that its unit's switches can stand together it is closed.
 */
export interface OutputModel {
  readonly pin: string;
  readonly ref: string;
  readonly node: number;
  /** What it can do while its chip has power. */
  readonly can: readonly Drive[];
  readonly low: Element;
  readonly high: Element;
  readonly joint?: { readonly unit: string; readonly ways: readonly boolean[] };
}

/** The ways in which some analogue switches of one unit can stand together, each once: which of them are closed, in their order. */
export function jointClosings(switches: readonly OutputModel[]): readonly (readonly boolean[])[] {
  const all = (switches[0]?.joint?.ways ?? []).map((_, way) => switches.map(({ joint }) => joint?.ways[way] === true));
  return [...new Map(all.map((way) => [way.join(), way])).values()];
}

/** A capacitor between two nodes, in farads. */
export interface CapacitorModel {
  readonly ref: string;
  readonly a: number;
  readonly b: number;
  readonly farads: number;
}

/** A potentiometer: the elements that it is at each position, from 0 with its wiper at the first end to DIAL_END. */
export interface DialModel {
  readonly ref: string;
  readonly at: (position: number) => readonly Element[];
}

/** The last position of a dial. */
export const DIAL_END = 100;
/** Where a dial stands until it is turned. */
export const DIAL_MIDDLE = 50;

/** What lies between the nodes of an island. */
export interface IslandParts {
  readonly lasting: readonly Element[];
  readonly contacts: readonly ContactModel[];
  readonly outputs: readonly OutputModel[];
  readonly capacitors: readonly CapacitorModel[];
  readonly dials: readonly DialModel[];
}

/** Ways in which the unknown outputs of one island may stand that are tried, as many as six outputs have; of more, all that they reach is unknown. */
const MOST_CORNERS = 64;
/** Behind more ohms than these a node counts as floating: an insulation, not a path. */
const FLOATING_OHMS = 1e8;
/** Nodes of an island up to which it is solved; of a larger one nothing is known. Some 500 transistors hang together in one of so many. */
export const MOST_NODES = 1500;
/** Volts that an island keeps in all its operating points; a walk asks for a handful, whatever its rows. */
const MOST_KEPT = 65_536;

/** Ways to stand up to which points are kept in a list instead of a map. */
const MOST_LISTED = 1024;

/** What an island is found to be: by its nodes the least and the most volts, what floats and what nobody knows; and what the supplies give it. */
export interface IslandPoint {
  readonly least: Float64Array;
  readonly most: Float64Array;
  readonly floats: Uint8Array;
  readonly lost: Uint8Array;
  readonly supplyA: number;
  /** What the inputs on it read there, once the simulator has asked; its own to keep. */
  readings: Uint8Array | null;
}

/** The elements that conduct in one of the ways in which unknown outputs may stand. */
export interface Corner {
  readonly elements: readonly Element[];
}

/**
 * Nodes that hang together through elements, contacts and outputs, cut at the supplies, and how the contacts and outputs on it stand. Its operating
 * point depends on nothing else, so it is kept by that; where the island can remember, by the point that it comes from as well.
 * Capacitors are open here: see `charge` and `stepping` for islands in time.
 */
export class IslandModel {
  /** How each contact (0 open, 1 closed), then each output (by `DRIVES`) and then each dial (by its position) stands. */
  private readonly digits: Uint8Array;
  private readonly weights: Float64Array;
  /** Where the digits of the outputs begin. */
  private readonly firstOutput: number;
  private key = 0;
  /** Whether a number is wide enough for a key of all contacts and outputs. */
  private readonly isNarrow: boolean;
  private readonly kept = new Map<number | string, IslandPoint>();
  /** Of islands that remember: by the point that they come from, those that they go to. */
  private readonly from = new WeakMap<IslandPoint, Map<number | string, IslandPoint>>();
  private last: IslandPoint | null = null;
  /** Of islands that can stand in few ways and do not remember, the points by the key. */
  private readonly listed: (IslandPoint | undefined)[] = [];
  private readonly isListed: boolean;
  readonly remembers: boolean;
  /** Whether no element joins it to a supply: then nothing holds any of its nodes. */
  readonly isAdrift: boolean;

  constructor(
    readonly free: readonly number[],
    readonly parts: IslandParts,
  ) {
    const { lasting, contacts, outputs, dials } = parts;
    this.firstOutput = contacts.length;
    this.remembers = lasting.filter((element) => element.isActive).length > 1;
    const own = new Set(free);
    const all = [
      ...[...lasting, ...contacts.map((c) => c.element), ...outputs.flatMap(({ low, high }) => [low, high])],
      ...dials.flatMap((dial) => dial.at(DIAL_MIDDLE)),
    ];
    this.isAdrift = all.every(({ nodes }) => nodes.every((node) => own.has(node)));
    const bases = [...contacts.map(() => 2), ...outputs.map(() => DRIVES.length), ...dials.map(() => DIAL_END + 1)];
    const ways = bases.reduce((product, base) => product * base, 1);
    this.isNarrow = ways < Number.MAX_SAFE_INTEGER;
    this.isListed = !this.remembers && ways <= MOST_LISTED;
    this.digits = new Uint8Array(bases.length);
    this.weights = new Float64Array(this.digits.length);
    let weight = 1;
    for (let i = 0; i < this.digits.length; i++) {
      this.weights[i] = weight;
      weight *= bases[i] as number;
    }
    dials.forEach((_, i) => {
      this.setDial(i, DIAL_MIDDLE);
    });
  }

  private put(i: number, digit: number): boolean {
    const before = this.digits[i] as number;
    if (before === digit) return false;
    this.digits[i] = digit;
    this.key += (digit - before) * (this.weights[i] as number);
    return true;
  }

  /** Opens or closes a contact, by its index; false where it stood so before. */
  setContact(i: number, isClosed: boolean): boolean {
    return this.put(i, isClosed ? 1 : 0);
  }

  /** Says what an output does, by its index, as a number of `DRIVES`; false where it did so before. */
  setOutput(i: number, drive: number): boolean {
    return this.put(this.firstOutput + i, drive);
  }

  /** Turns a dial, by its index, to a position; false where it stood so before. */
  setDial(i: number, position: number): boolean {
    return this.put(this.parts.contacts.length + this.parts.outputs.length + i, position);
  }

  /** What an output does, by its index. */
  driveAt(i: number): Drive {
    return DRIVES[this.digits[this.parts.contacts.length + i] as number] ?? 'off';
  }

  /** How all contacts and outputs stand, as a key. */
  get standing(): number | string {
    return this.isNarrow ? this.key : this.digits.join();
  }

  /** Whether an output of a chip without supply is on it, or more are unknown than are tried. */
  get isLost(): boolean {
    const { outputs } = this.parts;
    if (outputs.some((_, i) => this.driveAt(i) === 'dead')) return true;
    return this.open().reduce((corners, ways) => corners * ways.length, 1) > MOST_CORNERS;
  }

  /** What conducts as contacts and outputs stand: one corner, or all those that unknown outputs can make. */
  corners(): Corner[] {
    const { lasting, contacts, outputs, dials } = this.parts;
    const elements = [...lasting];
    dials.forEach((dial, i) => {
      elements.push(...dial.at(this.digits[contacts.length + outputs.length + i] as number));
    });
    contacts.forEach(({ element }, i) => {
      if (this.digits[i] === 1) elements.push(element);
    });
    outputs.forEach((output, i) => {
      const drive = this.driveAt(i);
      if (drive === 'low' || drive === 'high') elements.push(output[drive]);
    });
    const open = this.open();
    const count = open.reduce((corners, ways) => corners * ways.length, 1);
    return Array.from({ length: count > MOST_CORNERS ? 1 : count }, (_, corner) => {
      let rest = corner;
      const chosen = open.flatMap((ways) => {
        const way = ways[rest % ways.length] as readonly Element[];
        rest = Math.floor(rest / ways.length);
        return way;
      });
      return { elements: [...elements, ...chosen] };
    });
  }

  /** For each output that is unknown, and for the unknown analogue switches of each unit together, what conducts in each of the ways in which they may stand. */
  private open(): (readonly Element[])[][] {
    const { outputs } = this.parts;
    const units = new Set<string>();
    const single = outputs.flatMap(({ low, high, joint }, i) => {
      if (this.driveAt(i) !== 'unknown') return [];
      if (!joint) return [[[low], [high]]];
      units.add(joint.unit);
      return [];
    });
    return units.size === 0 ? single : [...single, ...[...units].map((unit) => this.closings(unit))];
  }

  /** What the unknown analogue switches of a unit make in each way that agrees with those that are known. */
  private closings(unit: string): (readonly Element[])[] {
    const slots = [...this.parts.outputs.keys()].filter((i) => this.parts.outputs[i]?.joint?.unit === unit);
    const own = slots.map((i) => this.parts.outputs[i] as OutputModel);
    const drives = slots.map((i) => this.driveAt(i));
    const unknown = own.filter((_, k) => drives[k] === 'unknown');
    const agreeing = jointClosings(own).filter((way) =>
      drives.every((drive, k) => drive === 'unknown' || (drive === 'high') === way[k]),
    );
    const made = agreeing.map((way) =>
      own.flatMap(({ low, high }, k) => (drives[k] === 'unknown' ? [way[k] ? high : low] : [])),
    );
    // While a level passes through the chip its switches may stand as no settled input has them.
    return made.length > 0 ? made : [unknown.map(({ low }) => low), unknown.map(({ high }) => high)];
  }

  /** The point for contacts and outputs as they stand. `volts` has the fixed nodes, and where the search begins; `positive` are supply leads. */
  point(volts: Float64Array, positive: ReadonlySet<number>): IslandPoint {
    if (!this.isListed) return this.found(volts, positive);
    const listed = this.listed[this.key];
    if (listed) return listed;
    const point = this.solved(volts, positive);
    this.listed[this.key] = point;
    return point;
  }

  private found(volts: Float64Array, positive: ReadonlySet<number>): IslandPoint {
    const kept = this.keptFrom();
    const key = this.standing;
    const before = kept.get(key);
    if (before) {
      this.last = before;
      return before;
    }
    if (this.remembers && this.last) this.startFrom(this.last, volts);
    const point = this.solved(volts, positive);
    if (kept.size * (this.free.length + 1) >= MOST_KEPT) kept.clear();
    const known = this.remembers ? this.sameAs(point) : point;
    kept.set(key, known);
    this.last = known;
    return known;
  }

  private keptFrom(): Map<number | string, IslandPoint> {
    if (!this.remembers || !this.last) return this.kept;
    let kept = this.from.get(this.last);
    if (!kept) {
      kept = new Map();
      this.from.set(this.last, kept);
    }
    return kept;
  }

  private startFrom({ least }: IslandPoint, volts: Float64Array): void {
    this.free.forEach((node, i) => {
      volts[node] = least[i] as number;
    });
  }

  /** Points that were found before, by their volts to a tenth of a millivolt: a circuit with memory comes back to few. */
  private readonly known = new Map<string, IslandPoint>();

  private sameAs(point: IslandPoint): IslandPoint {
    const text = [point.least, point.most]
      .map((volts) => Array.from(volts, (v) => Math.round(v * 1e4)).join())
      .concat(String(point.lost), String(point.floats))
      .join(';');
    const before = this.known.get(text);
    if (before) return before;
    if (this.known.size * (this.free.length + 1) >= MOST_KEPT) this.known.clear();
    this.known.set(text, point);
    return point;
  }

  private solved(volts: Float64Array, positive: ReadonlySet<number>): IslandPoint {
    const n = this.free.length;
    const [least, most] = [new Float64Array(n).fill(Infinity), new Float64Array(n).fill(-Infinity)];
    const [floats, lost] = [new Uint8Array(n), new Uint8Array(n)];
    if (this.isLost) lost.fill(1);
    if (this.isAdrift)
      return { least: least.fill(0), most: most.fill(0), floats: floats.fill(1), lost, supplyA: 0, readings: null };
    if (n > MOST_NODES)
      return { least: least.fill(0), most: most.fill(0), floats, lost: lost.fill(1), supplyA: 0, readings: null };
    const start = this.free.map((node) => volts[node] as number);
    // From a point that is known: a circuit that has not been set must not be talked into a state.
    const isWarm = this.remembers && this.last !== null && !this.last.lost.includes(1);
    const corners = this.corners();
    corners.forEach(({ elements }, corner) => {
      this.free.forEach((node, i) => {
        volts[node] = start[i] as number;
      });
      const { found, isStable, ohms } = solveIsland({ free: this.free, elements }, volts, isWarm);
      if (!found || !isStable) lost.fill(1);
      this.free.forEach((node, i) => {
        least[i] = Math.min(least[i] as number, volts[node] as number);
        most[i] = Math.max(most[i] as number, volts[node] as number);
        if (corner === 0 && (ohms[i] as number) > FLOATING_OHMS) floats[i] = 1;
      });
      if (hangsOnOpenGate({ free: this.free, elements }, floats)) lost.fill(1);
    });
    const supplyA = currentFrom(positive, corners.at(-1)?.elements ?? [], volts);
    return { least, most, floats, lost, supplyA, readings: null };
  }
}

/** Whether something is steered by a gate that nothing holds: it keeps whatever charge it has. */
function hangsOnOpenGate({ free, elements }: Island, floats: Uint8Array): boolean {
  return elements.some(({ gate }) => gate !== undefined && floats[free.indexOf(gate)] === 1);
}
