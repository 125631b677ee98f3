import { cutPin } from '../board';
import {
  type BoardVolts,
  fullMaThrough,
  type IslandStanding,
  outputMaIn,
  type PinReader,
  standingsOf,
  type UnclearReading,
  unclearIn,
} from '../electrical';
import { onceFor } from '../memo';
import { type Context, spoken } from './context';

/** An output of a chip with the current it carries in one standing, in milliamperes, low or high. */
export interface OutputCurrent {
  readonly pin: string;
  readonly level: 'low' | 'high';
  readonly ma: number;
}

/** The most that a lamp gets, in milliamperes, and the outputs that bear most of it then. */
export interface LampCurrent {
  readonly ma: number;
  readonly outputs: readonly OutputCurrent[];
}

/** A transistor in the standing that drives its base the hardest: currents in milliamperes; `loadMa` is what its load takes of metal. */
export interface BaseDrive {
  readonly givenMa: number;
  readonly loadMa: number;
}

/** An input that reads no level, and the standing in words: `U1 pin 3 is high`, `S1 is off`. */
export interface Unclear extends UnclearReading {
  readonly net: number;
  readonly when: string;
}

/** The worst of all ways in which a board may stand, as the electrical room finds them. */
export interface WorstCase {
  /** By the lamp's name. */
  readonly lamps: ReadonlyMap<string, LampCurrent>;
  /** By the output's pin: the most it carries. */
  readonly outputs: ReadonlyMap<string, OutputCurrent>;
  /** By the transistor's reference. */
  readonly bases: ReadonlyMap<string, BaseDrive>;
  /** The first on each net. */
  readonly unclear: readonly Unclear[];
  /** Inputs on analogue switches that nothing holds in some way in which these stand; the first on each net. */
  readonly released: readonly PinReader[];
  /** What everything beside the chips takes from the supplies, each island at its most, in milliamperes. */
  readonly loadMa: number;
}

/** Currents under so many milliamperes are leaks. */
const LEAK_MA = 1e-5;
/** An output bears a lamp when it carries at least this share of its current. */
const BEARING_SHARE = 0.9;

/** Asks each island of a board in each way it may stand, once for an inspection. */
export const worstCaseOf: (c: Context) => WorstCase = onceFor((c) => {
  const board = c.volts;
  const found = new Finder(c, board);
  if (!board.isMiswired) for (const island of board.islands) found.ask(island);
  return found;
});

type Island = BoardVolts['islands'][number];

class Finder implements WorstCase {
  readonly lamps = new Map<string, LampCurrent>();
  readonly outputs = new Map<string, OutputCurrent>();
  readonly bases = new Map<string, BaseDrive>();
  private readonly releasedOn = new Map<number, PinReader>();
  loadMa = 0;
  private readonly byNet = new Map<number, Unclear>();
  private readonly lampAt: ReadonlyMap<object, readonly [string, LampElement]>;
  private readonly transistorAt: ReadonlyMap<object, readonly [string, BaseElement]>;

  constructor(
    private readonly c: Context,
    private readonly board: BoardVolts,
  ) {
    this.lampAt = new Map([...board.lamps].map((lamp) => [lamp[1], lamp]));
    this.transistorAt = new Map([...board.transistors].map((one) => [one[1], one]));
  }

  get unclear(): readonly Unclear[] {
    return [...this.byNet.values()];
  }

  get released(): readonly PinReader[] {
    return [...this.releasedOn.values()];
  }

  /** Whether one output of a family alone drives inputs of the same that take no current: then all levels are its own. */
  private isPlain({ free, parts: { lasting, contacts, outputs } }: Island): boolean {
    const [output, ...others] = outputs;
    if (lasting.length + contacts.length + others.length > 0 || !output || output.joint) return false;
    const family = this.c.limitsAt(output.pin).id;
    const { readersOf } = this.board;
    return free.every((node) => (readersOf.get(node) ?? []).every(({ chip }) => chip.family === family));
  }

  ask(island: Island): void {
    if (this.isPlain(island)) return;
    const lamps = island.parts.contacts.flatMap(({ element }) => named(element, this.lampAt));
    const transistors = island.parts.lasting.flatMap((element) => named(element, this.transistorAt));
    const isLoad = island.free.some((net) => this.c.pinsOn(net).some((pin) => this.c.kindOf(pin) !== 'chip'));
    let mostA = 0;
    for (const standing of standingsOf(this.board, island)) {
      mostA = Math.max(mostA, standing.point.supplyA);
      const outputs = this.currents(standing);
      for (const [name, element] of lamps) this.lamp(name, 1000 * element.amps(standing.volts), outputs);
      for (const [ref, element] of transistors) this.base(ref, element, standing);
      for (const one of unclearIn(this.board, standing)) this.reading(one, standing);
      if (island.parts.outputs.some(({ joint }) => joint)) this.release(standing);
    }
    if (isLoad) this.loadMa += 1000 * mostA;
  }

  private currents(standing: IslandStanding): OutputCurrent[] {
    return standing.island.parts.outputs.flatMap(({ pin }, i) => {
      const level = standing.driveAt(i);
      if (level !== 'low' && level !== 'high') return [];
      const now = { pin, level, ma: outputMaIn(standing, i) };
      if (now.ma > (this.outputs.get(pin)?.ma ?? -1)) this.outputs.set(pin, now);
      return [now];
    });
  }

  private lamp(name: string, ma: number, outputs: readonly OutputCurrent[]): void {
    if (ma <= Math.max(LEAK_MA, this.lamps.get(name)?.ma ?? 0)) return;
    this.lamps.set(name, { ma, outputs: outputs.filter((o) => o.ma >= BEARING_SHARE * ma) });
  }

  private base(ref: string, element: BaseElement, standing: IslandStanding): void {
    const givenMa = 1000 * Math.abs(element.baseAmps(standing.volts));
    if (givenMa <= Math.max(LEAK_MA, this.bases.get(ref)?.givenMa ?? 0)) return;
    const loadMa = fullMaThrough(this.board, standing, element);
    if (loadMa !== null) this.bases.set(ref, { givenMa, loadMa });
  }

  private release({ island: { free }, point }: IslandStanding): void {
    free.forEach((net, row) => {
      if (point.floats[row] === 0 || this.c.throughAnalogueSwitches(net).length === 0) return;
      const reader = this.board.readersOf.get(net)?.find(({ opensHigh }) => !opensHigh);
      if (reader && !this.releasedOn.has(net)) this.releasedOn.set(net, reader);
    });
  }

  private reading(one: UnclearReading, standing: IslandStanding): void {
    const net = this.c.netOf(one.pin);
    if (net === undefined || this.byNet.has(net)) return;
    this.byNet.set(net, { ...one, net, when: whenOf(standing, net) });
  }
}

type ElementIn<M> = M extends ReadonlyMap<string, infer E> ? E : never;
type BaseElement = ElementIn<BoardVolts['transistors']>;
type LampElement = ElementIn<BoardVolts['lamps']>;

/** An element with its part's name, where it has one. */
const named = <E>(element: object, at: ReadonlyMap<object, readonly [string, E]>): (readonly [string, E])[] => {
  const there = at.get(element);
  return there ? [there] : [];
};

/** How an island stands, in words: the outputs on a net before all, then other outputs and switches; two of them at most. */
function whenOf({ island, driveAt, isOn }: IslandStanding, net: number): string {
  const { outputs, contacts } = island.parts;
  const driving = outputs.flatMap(({ pin, node }, i) =>
    driveAt(i) === 'off' ? [] : [{ is: `${spoken(pin)} is ${driveAt(i)}`, isNear: node === net }],
  );
  const actuators = [...new Set(contacts.flatMap(({ actuator, isLamp }) => (isLamp ? [] : [actuator])))];
  const switched = actuators.map((name) => `${cutPin(name).ref || name} is ${isOn(name) ? 'on' : 'off'}`);
  const said = [...driving.filter((d) => d.isNear), ...driving.filter((d) => !d.isNear)].map((d) => d.is);
  return [...said, ...switched].slice(0, 2).join(' and ') || 'the power is on';
}
