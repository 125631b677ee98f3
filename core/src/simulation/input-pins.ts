import {
  type BoardVolts,
  type IslandPoint,
  type PinReader,
  READS,
  readingOf,
  type Thresholds,
  thresholdsOf,
} from '../electrical';
import { HIGH, LOW, UNKNOWN } from '../logic';
import type { Circuit } from './circuit';

/** No level yet. */
const NEVER = 255;

/** The volts of an island that moves by itself, as far as inputs ask for them. */
interface MovingVolts {
  readonly isSure: boolean;
  nodeV(row: number): readonly [least: number, most: number];
}

/** What inputs ask for beyond the board: the volts of a node now, whether nothing is known, and where a level that has changed is taken to. */
interface Surroundings {
  readonly rangeOf: (node: number) => readonly [least: number, most: number];
  readonly isShorted: () => boolean;
  readonly take: (unit: number, input: number, level: number) => void;
}

/**
 * The input pins of all chips on a board, by index: what each reads, from the volts of its net and its own thresholds. Those of Schmitt inputs
 * keep what they read between them; those that depend on volts (of a supply, a ground or a tap) are worked out again when these change.
 */
export class InputPins {
  readonly readers: readonly PinReader[];
  /** For each island the inputs on it. */
  readonly on: readonly number[][];
  private readonly onIsland: readonly Int32Array[];
  /** For each island the inputs elsewhere whose thresholds depend on its volts, and the nodes that any thresholds depend on. */
  readonly dependents: readonly number[][];
  readonly reference: readonly ReadonlySet<number>[];
  /** Inputs whose net is held by a supply, or that are in no hole. */
  readonly fixed: readonly number[];
  private readonly dependsOn: readonly number[][];
  private readonly level: Uint8Array;
  /** The units that read inputs, and as which of theirs: those of input r from `uses[r]` up to `uses[r + 1]`. */
  private readonly uses: Int32Array;
  private readonly useUnit: Int32Array;
  private readonly useInput: Int32Array;
  /** For each island whether any thresholds depend on its volts. */
  readonly isReference: Uint8Array;
  /** Thresholds that never change, and those that do as they were when what they depend on changed last. */
  private readonly steady: (Thresholds | undefined)[] = [];
  private readonly thresholds: (Thresholds | undefined)[] = [];
  private readonly placeOf: ReadonlyMap<PinReader, number>;

  constructor(
    private readonly board: BoardVolts,
    { units }: Circuit,
    private readonly around: Surroundings,
  ) {
    const { islands, readers } = board;
    this.readers = [...readers.values()];
    this.placeOf = new Map(this.readers.map((reader, r) => [reader, r]));
    this.level = new Uint8Array(this.readers.length).fill(NEVER);
    const indexOf = new Map([...readers.keys()].map((pin, r) => [pin, r]));
    const readAs: { unit: number; input: number }[][] = this.readers.map(() => []);
    units.forEach(({ inputPins }, unit) => {
      inputPins.forEach((pin, input) => {
        readAs[indexOf.get(pin) ?? -1]?.push({ unit, input });
      });
    });
    this.uses = new Int32Array(readAs.length + 1);
    readAs.forEach((uses, r) => {
      this.uses[r + 1] = (this.uses[r] as number) + uses.length;
    });
    this.useUnit = Int32Array.from(readAs.flat(), ({ unit }) => unit);
    this.useInput = Int32Array.from(readAs.flat(), ({ input }) => input);
    this.on = islands.map(() => []);
    this.dependents = islands.map(() => []);
    this.dependsOn = islands.map(() => []);
    const reference = islands.map(() => new Set<number>());
    this.reference = reference;
    this.readers.forEach((reader, r) => {
      const island = this.islandOf(r);
      if (island >= 0) this.on[island]?.push(r);
      const nodes = this.nodesBehind(reader);
      for (const node of nodes) {
        const other = board.islandOf[node] as number;
        reference[other]?.add(node);
        this.dependsOn[other]?.push(r);
        if (other !== island) this.dependents[other]?.push(r);
      }
      if (nodes.length === 0) this.steady[r] = thresholdsOf(reader, (node) => board.volts[node] as number);
    });
    this.onIsland = this.on.map((inputs) => Int32Array.from(inputs));
    this.fixed = [...this.readers.keys()].filter((r) => this.islandOf(r) < 0);
    this.isReference = Uint8Array.from(islands, (_, i) => {
      const depending =
        (this.dependents[i] as readonly number[]).length + (this.dependsOn[i] as readonly number[]).length;
      return depending > 0 ? 1 : 0;
    });
  }

  /** The nodes that no supply holds and that an input's thresholds depend on. */
  private nodesBehind({ chip, compares }: PinReader): number[] {
    const { islandOf } = this.board;
    const nodes = [chip.supply, chip.ground, compares?.tap.node ?? -1];
    return nodes.filter((node) => node >= 0 && (islandOf[node] as number) >= 0);
  }

  /** The island of an input, -1 where a supply holds its net or it has none. */
  islandOf(r: number): number {
    const { net } = this.readers[r] as PinReader;
    return net === null ? -1 : (this.board.islandOf[net] as number);
  }

  private rowOf(r: number): number {
    return this.board.rowOf[(this.readers[r] as PinReader).net ?? -1] as number;
  }

  private middleOf(node: number): number {
    const [least, most] = this.around.rangeOf(node);
    return (least + most) / 2;
  }

  /** The units that read an input. */
  unitsOf(r: number): number[] {
    return [...this.useUnit.subarray(this.uses[r], this.uses[r + 1])];
  }

  /** Whether the thresholds of an input never change. */
  isSteady(r: number): boolean {
    return this.steady[r] !== undefined;
  }

  /** The volts at which an input turns over, against the board's ground: at or under the first it is low, from the second on high. */
  turningV(r: number): readonly [low: number, high: number] {
    const { low, high } = this.thresholdsOf(r);
    const ground = this.groundOf(this.readers[r] as PinReader);
    return [low + ground, high + ground];
  }

  private thresholdsOf(r: number): Thresholds {
    const known = this.steady[r] ?? this.thresholds[r];
    if (known) return known;
    const made = thresholdsOf(this.readers[r] as PinReader, (node) => this.middleOf(node));
    this.thresholds[r] = made;
    return made;
  }

  private groundOf({ chip: { ground } }: PinReader): number {
    if (ground < 0) return 0;
    return (this.board.islandOf[ground] as number) < 0 ? (this.board.volts[ground] as number) : this.middleOf(ground);
  }

  /** Forgets the thresholds that depend on the volts of an island, which have changed. */
  forget(i: number): void {
    for (const r of this.dependsOn[i] as readonly number[]) this.thresholds[r] = undefined;
  }

  /** Reads all inputs on an island at a point. */
  readPoint(i: number, point: IslandPoint): void {
    const codes = point.readings ?? this.codesAt(i, point);
    const inputs = this.onIsland[i] as Int32Array;
    for (let n = 0; n < inputs.length; n++) this.put(inputs[n] as number, codes[n] as number);
  }

  /** Reads one input on an island at a point. */
  readAt(r: number, point: IslandPoint): void {
    this.put(r, this.codeAt(r, point));
  }

  /** For each input on an island what it makes of a point: a level, or how it depends on what it read before. */
  private codesAt(i: number, point: IslandPoint): Uint8Array {
    const inputs = this.on[i] as readonly number[];
    const codes = Uint8Array.from(inputs, (r) => this.codeAt(r, point));
    if (!this.around.isShorted() && inputs.every((r) => this.isSteady(r))) point.readings = codes;
    return codes;
  }

  private codeAt(r: number, { least, most, floats, lost }: IslandPoint): number {
    const row = this.rowOf(r);
    if (this.around.isShorted() || lost[row] === 1) return UNKNOWN;
    if (floats[row] === 1) return (this.readers[r] as PinReader).opensHigh ? HIGH : UNKNOWN;
    return this.code(r, least[row] as number, most[row] as number);
  }

  private code(r: number, least: number, most: number): number {
    const ground = this.groundOf(this.readers[r] as PinReader);
    return readingOf(this.thresholdsOf(r), least - ground, most - ground);
  }

  /** Reads all inputs on an island that moves by itself. */
  readMoving(i: number, volts: MovingVolts): void {
    const isLost = this.around.isShorted() || !volts.isSure;
    for (const r of this.on[i] as readonly number[])
      this.put(r, isLost ? UNKNOWN : this.code(r, ...volts.nodeV(this.rowOf(r))));
  }

  /** Reads an input that hangs on a supply, or on nothing. */
  readFixed(r: number): void {
    const { net, opensHigh } = this.readers[r] as PinReader;
    if (net === null) this.put(r, opensHigh ? HIGH : UNKNOWN);
    else this.put(r, this.around.isShorted() ? UNKNOWN : this.code(r, ...this.around.rangeOf(net)));
  }

  /** Has every input read nothing. */
  lose(): void {
    for (let r = 0; r < this.readers.length; r++) this.put(r, UNKNOWN);
  }

  private put(r: number, code: number): void {
    const level = code <= UNKNOWN ? code : this.kept(r, code);
    if (this.level[r] === level) return;
    this.level[r] = level;
    const end = this.uses[r + 1] as number;
    for (let n = this.uses[r] as number; n < end; n++)
      this.around.take(this.useUnit[n] as number, this.useInput[n] as number, level);
  }

  /** What a Schmitt input reads between its thresholds: what it did. */
  private kept(r: number, code: number): number {
    const last = this.level[r] as number;
    if (last === HIGH && (code === READS.keeps || code === READS.keepsHigh)) return HIGH;
    return last === LOW && (code === READS.keeps || code === READS.keepsLow) ? LOW : UNKNOWN;
  }

  /** What an input reads: LOW, HIGH or UNKNOWN. */
  levelOf(reader: PinReader): number {
    const level = this.level[this.placeOf.get(reader) ?? -1] ?? UNKNOWN;
    return level === NEVER ? UNKNOWN : level;
  }
}
