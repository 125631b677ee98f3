import type { Nets } from '../board';
import type { FamilyId, PartType } from '../catalogue';
import { elementAt } from '../element-at';
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

/** The tap of a divider inside a timer: its node, or null where its pin is in no hole, and the share of the supply that it has by itself. */
export interface Tap {
  readonly node: number | null;
  readonly shareOfSupply: number;
}

/** An input pin: its name (`U1.3`), its net (null in no hole), its chip, whether it reads high while nothing holds it, and how it tells low from high. */
export interface PinReader {
  readonly pin: string;
  readonly net: number | null;
  readonly chip: SeatedChip;
  /** How many unit loads of its family it is. */
  readonly loads: number;
  readonly opensHigh: boolean;
  /** Whether it switches at two levels, one going up and one going down. */
  readonly hasHysteresis: boolean;
  /** Levels of its own, in volts, whatever its family. */
  readonly levels?: { readonly low: number; readonly high: number };
  /** Where it compares its volts with a share of a tap's. */
  readonly compares?: { readonly tap: Tap; readonly share: number };
}

/** The levels of an input pin, in volts against its chip's ground; `voltsAt` tells those of the nodes that it depends on. */
export function thresholdsOf(reader: PinReader, voltsAt: (node: number) => number): Thresholds {
  const { chip, levels, compares, hasHysteresis } = reader;
  if (levels) return { ...levels, hasHysteresis: false };
  const ground = chip.ground < 0 ? 0 : voltsAt(chip.ground);
  const supplyV = chip.supply < 0 || chip.ground < 0 ? 0 : voltsAt(chip.supply) - ground;
  if (!compares) return thresholdsAt(chip.family, supplyV, hasHysteresis);
  const { tap, share } = compares;
  const tapV = tap.node === null ? supplyV * tap.shareOfSupply : voltsAt(tap.node) - ground;
  return { low: share * tapV, high: share * tapV, hasHysteresis: false };
}

/** What stays of a board while it is under power: its nets, those that supplies hold, its inputs and its lamps. */
export interface PinTable {
  readonly nets: Nets;
  readonly fixed: ReadonlyMap<number, number>;
  /** The most volts that a supply of the board gives; those that boards are planned for while it has none. */
  readonly supplyV: number;
  readonly readers: ReadonlyMap<string, PinReader>;
  readonly readersOf: ReadonlyMap<number, readonly PinReader[]>;
  /** The family by whose levels a net without inputs is judged: that of a chip whose output is on it, or HC. */
  judgeOf(net: number): FamilyId;
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
  /** Whether supply and ground are joined, by metal or by what takes more than a supply gives, so that nothing is known but the volts of the supplies. */
  readonly isShorted: boolean;

  /** What an input reads as it was told, by one who knows what it read before; null where only its volts tell. */
  private readonly told: ((reader: PinReader) => ReadLevel) | null;

  /**
   * Begins with what supplies hold and nothing else known. `isShorted` says that supply and ground are joined: then nothing else ever is, and
   * `held` has the volts that their limits leave the supplies. `told` gives what inputs read, where that does not follow from their volts alone.
   */
  constructor(
    private readonly board: PinTable,
    {
      isShorted = false,
      told = null,
      held = null,
    }: {
      readonly isShorted?: boolean;
      readonly told?: ((reader: PinReader) => ReadLevel) | null;
      readonly held?: ((node: number) => number) | null;
    } = {},
  ) {
    this.isShorted = isShorted;
    this.told = told;
    const nodes = board.nets.nets.length;
    this.least = new Float64Array(nodes);
    this.most = new Float64Array(nodes);
    this.floats = new Uint8Array(nodes);
    this.lost = new Uint8Array(nodes).fill(1);
    for (const [node, set] of board.fixed) {
      const volts = held ? held(node) : set;
      if (!isShorted || held) this.lost[node] = 0;
      this.least[node] = volts;
      this.most[node] = volts;
    }
  }

  /** Takes up what an island was found to be. */
  take(free: readonly number[], { least, most, floats, lost }: Omit<IslandPoint, 'supplyA'>): void {
    free.forEach((node, i) => {
      this.least[node] = elementAt(least, i);
      this.most[node] = elementAt(most, i);
      this.floats[node] = elementAt(floats, i);
      this.lost[node] = elementAt(lost, i);
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
   * itself, has it. Any other pin is told as its net is (`levelOfNet`).
   */
  levelAt(pin: string): ReadLevel {
    const reader = this.board.readers.get(pin);
    if (reader) return this.readBy(reader);
    const net = this.board.nets.ofPin.get(pin);
    return net === undefined ? '?' : this.levelOfNet(net);
  }

  /** What the inputs on a net read, if they agree; without inputs, what one of the family that drives it would read there, or of HC. */
  levelOfNet(net: number): ReadLevel {
    const readers = this.board.readersOf.get(net) ?? [];
    if (readers.length === 0) return this.between(net, thresholdsAt(this.board.judgeOf(net), this.board.supplyV), 0);
    const [first = '?', ...others] = readers.map((reader) => this.readBy(reader));
    return others.every((level) => level === first) ? first : '?';
  }

  private readBy(reader: PinReader): ReadLevel {
    if (this.isShorted) return '?';
    if (this.told) return this.told(reader);
    const { net, chip, opensHigh } = reader;
    const opens = opensHigh ? '1' : '?';
    if (net === null) return opens;
    if (this.floats[net] === 1 && this.lost[net] === 0) return opens;
    const ground = chip.ground < 0 ? 0 : this.middle(chip.ground);
    return this.between(
      net,
      thresholdsOf(reader, (node) => this.middle(node)),
      ground,
    );
  }

  private between(net: number, { low, high }: Omit<Thresholds, 'hasHysteresis'>, ground: number): ReadLevel {
    if (this.isShorted || this.lost[net] === 1 || this.floats[net] === 1) return '?';
    return elementAt(this.most, net) - ground <= low ? '0' : elementAt(this.least, net) - ground >= high ? '1' : '?';
  }

  private middle(node: number): number {
    return (elementAt(this.least, node) + elementAt(this.most, node)) / 2;
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
    return elementAt(this.most, node) - elementAt(this.least, node) > 0.1;
  }
}
