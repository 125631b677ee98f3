import type { Nets } from '../board';
import type { FamilyId, PartType } from '../catalogue';
import type { Element } from './elements';
import type { IslandPoint } from './island';
import { type Thresholds, thresholdsAt } from './pin-models';

/** What a pin reads: low, high, or nobody knows. */
export type ReadLevel = '0' | '1' | '?';

/** A chip as its pins see it; `supply` and `ground` are nodes, -1 for a pin in no hole. */
export interface SeatedChip {
  readonly ref: string;
  readonly part: string;
  readonly type: PartType;
  readonly family: FamilyId;
  readonly supply: number;
  readonly ground: number;
}

/** An input pin: its net (null in no hole), its chip, and whether it reads high while nothing holds it. */
export interface PinReader {
  readonly net: number | null;
  readonly chip: SeatedChip;
  readonly opensHigh: boolean;
}

/** What stays of a board while it is under power: its nets, those that supplies hold, its inputs and its lamps. */
export interface PinTable {
  readonly nets: Nets;
  readonly fixed: ReadonlyMap<number, number>;
  /** The most volts that a supply of the board gives; those that boards are planned for while it has none. */
  readonly supplyV: number;
  readonly readers: ReadonlyMap<string, PinReader>;
  readonly readersOf: ReadonlyMap<number, readonly PinReader[]>;
  readonly lamps: ReadonlyMap<string, Element>;
}

/** The volts of a board as it stands, by net, each with the least and the most that they can be. */
export class OperatingPoint {
  private readonly least: Float64Array;
  private readonly most: Float64Array;
  private readonly floats: Uint8Array;
  private readonly lost: Uint8Array;
  /** What the supplies give, in milliamperes. */
  supplyMa = 0;
  /** Whether supply and ground are joined, by metal or by what takes more than a supply gives, so that nothing is known. */
  readonly isShorted: boolean;

  /** Thresholds by chip, as far as they were asked for. */
  private readonly thresholds = new Map<SeatedChip, Thresholds>();

  /**
   * Begins with what supplies hold and nothing else known, or with the point `before`, of which islands that are the same need not be
   * taken up again. `isShorted` says that supply and ground are joined: then nothing is known at all.
   */
  constructor(
    private readonly board: PinTable,
    {
      isShorted = false,
      before = null,
    }: { readonly isShorted?: boolean; readonly before?: OperatingPoint | null } = {},
  ) {
    this.isShorted = isShorted;
    const nodes = board.nets.nets.length;
    this.least = before?.least.slice() ?? new Float64Array(nodes);
    this.most = before?.most.slice() ?? new Float64Array(nodes);
    this.floats = before?.floats.slice() ?? new Uint8Array(nodes);
    this.lost = before?.lost.slice() ?? new Uint8Array(nodes).fill(1);
    for (const [node, volts] of board.fixed) {
      if (!isShorted) this.lost[node] = 0;
      this.least[node] = volts;
      this.most[node] = volts;
    }
  }

  /** Takes up what an island was found to be. */
  take(free: readonly number[], { least, most, floats, lost }: IslandPoint): void {
    free.forEach((node, i) => {
      this.least[node] = least[i] as number;
      this.most[node] = most[i] as number;
      this.floats[node] = floats[i] as number;
      this.lost[node] = lost[i] as number;
    });
  }

  /** The volts of a pin, the middle where they are not known for sure; null for a pin in no hole. */
  voltsAt(pin: string): number | null {
    const net = this.board.nets.ofPin.get(pin);
    return net === undefined ? null : this.middle(net);
  }

  /** Whether the volts of a pin are known: something holds them, and nothing that is unknown moves them. */
  isKnown(pin: string): boolean {
    const net = this.board.nets.ofPin.get(pin);
    return net !== undefined && this.floats[net] === 0 && this.lost[net] === 0 && !this.isWide(net);
  }

  /** Whether nothing holds a pin at any volts; so too of a pin in no hole. */
  isFloating(pin: string): boolean {
    const net = this.board.nets.ofPin.get(pin);
    return net === undefined || (this.floats[net] === 1 && this.lost[net] === 0);
  }

  /** The volts of a net, by its index; null where nothing holds it or nobody knows. */
  voltsOfNet(net: number): number | null {
    return this.floats[net] === 1 || this.lost[net] === 1 || this.isWide(net) ? null : this.middle(net);
  }

  /** Volts between the supply pins of a chip; 0 where one of them is in no hole. */
  supplyOf({ supply, ground }: Pick<SeatedChip, 'supply' | 'ground'>): number {
    return supply < 0 || ground < 0 ? 0 : this.middle(supply) - this.middle(ground);
  }

  /**
   * What a pin reads. An input of a chip reads by its own thresholds at the supply that reaches it, and open as its family, or the chip
   * itself, has it. Any other pin is told as the inputs on its net read it, or as an HC input would where there is none.
   */
  levelAt(pin: string): ReadLevel {
    const reader = this.board.readers.get(pin);
    if (reader) return this.readBy(reader);
    const net = this.board.nets.ofPin.get(pin);
    return net === undefined ? '?' : this.levelOfNet(net);
  }

  /** What the inputs on a net read, if they agree; without inputs, what an HC input would read there. */
  levelOfNet(net: number): ReadLevel {
    const readers = this.board.readersOf.get(net) ?? [];
    if (readers.length === 0) return this.between(net, thresholdsAt('HC', this.board.supplyV), 0);
    const [first = '?', ...others] = readers.map((reader) => this.readBy(reader));
    return others.every((level) => level === first) ? first : '?';
  }

  private readBy({ net, chip, opensHigh }: PinReader): ReadLevel {
    if (this.isShorted) return '?';
    const opens = opensHigh ? '1' : '?';
    if (net === null) return opens;
    if (this.floats[net] === 1 && this.lost[net] === 0) return opens;
    const ground = chip.ground < 0 ? 0 : this.middle(chip.ground);
    return this.between(net, this.thresholdsOf(chip), ground);
  }

  private thresholdsOf(chip: SeatedChip): Thresholds {
    const known = this.thresholds.get(chip);
    if (known) return known;
    const made = thresholdsAt(chip.family, this.supplyOf(chip));
    this.thresholds.set(chip, made);
    return made;
  }

  private between(net: number, { low, high }: Thresholds, ground: number): ReadLevel {
    if (this.lost[net] === 1 || this.floats[net] === 1) return '?';
    return (this.most[net] as number) - ground <= low ? '0' : (this.least[net] as number) - ground >= high ? '1' : '?';
  }

  private middle(node: number): number {
    return ((this.least[node] as number) + (this.most[node] as number)) / 2;
  }

  /** The current through a lamp, by its name, in milliamperes; 0 for one whose leads are in no hole. */
  lampMa(name: string): number {
    const lamp = this.board.lamps.get(name);
    if (!lamp || this.isShorted) return 0;
    // The lamp asks for the volts of its own two nodes alone.
    for (const node of lamp.nodes) this.middles[node] = this.middle(node);
    return 1000 * lamp.amps(this.middles);
  }

  private get middles(): Float64Array {
    this.scratch ??= new Float64Array(this.least.length);
    return this.scratch;
  }

  private scratch: Float64Array | null = null;

  /** Whether the volts at both leads of a lamp are known. */
  isLampKnown(name: string): boolean {
    const lamp = this.board.lamps.get(name);
    return !this.isShorted && !lamp?.nodes.some((node) => this.lost[node] === 1 || this.isWide(node));
  }

  private isWide(node: number): boolean {
    return (this.most[node] as number) - (this.least[node] as number) > 0.1;
  }
}
