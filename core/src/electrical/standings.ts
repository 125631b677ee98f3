import { elementAt } from '../element-at';
import type { BoardVolts } from './board-volts';
import { type Element, resistor } from './elements';
import { DRIVES, type Drive, type IslandModel, type IslandPoint, type OutputModel } from './island';
import { solveIsland } from './operating-point';
import { type PinReader, thresholdsOf } from './point-of-board';

/** Ways to stand up to which an island is asked for all; of one with more, each contact and output turns by itself. */
const MOST_WAYS = 256;
/** Nodes times ways up to which an island is asked so; a larger one is asked with all of them one way and all the other. */
const MOST_WORK = 16_384;

/** Metal across a device, to find what its load takes when it conducts fully, in ohms. */
const ACROSS_OHMS = 0.05;

/** An actuator (`S1`, `S2.3`) with the contacts of an island that it moves, by their index there. */
interface Mover {
  readonly actuator: string;
  readonly contacts: readonly number[];
}

/**
 * One way in which an island of a board may stand, at its operating point. It holds until the next one is asked for: the volts are one
 * array for all.
 */
export interface IslandStanding {
  readonly island: IslandModel;
  readonly point: IslandPoint;
  readonly isOn: (actuator: string) => boolean;
  /** What an output of the island does, by its index among its outputs. */
  readonly driveAt: (output: number) => Drive;
  /** The volts of nodes of the island and of those that supplies hold, by node. */
  readonly volts: Float64Array;
}

/** An input that reads no level though its volts are known. */
export interface UnclearReading {
  readonly pin: string;
  readonly reader: PinReader;
  readonly volts: number;
  /** It reads low up to `low` volts and high from `high` on. */
  readonly low: number;
  readonly high: number;
}

/**
 * Every way in which an island may stand: each actuator both ways, each output whatever it can do. Left out are ways in which outputs drive
 * one node against each other, ways that take more from the supplies than they give, and those whose volts nobody knows.
 */
export function* standingsOf(board: BoardVolts, island: IslandModel): Generator<IslandStanding> {
  const { contacts, outputs } = island.parts;
  const movers = moversOf(island);
  const choices = [
    ...movers.map((): readonly number[] => [0, 1]),
    ...outputs.map(({ can }) => can.map((drive) => DRIVES.indexOf(drive))),
  ];
  const isOn = new Map<string, boolean>();
  contacts.forEach(({ on }, i) => {
    island.setContact(i, !on);
  });
  for (const way of waysOf(choices, island.free.length)) {
    movers.forEach(({ actuator, contacts: own }, m) => {
      isOn.set(actuator, way[m] === 1);
      for (const i of own) island.setContact(i, (way[m] === 1) === contacts[i]?.on);
    });
    outputs.forEach((_, o) => {
      island.setOutput(o, elementAt(way, movers.length + o));
    });
    const driveAt = (o: number): Drive => island.driveAt(o);
    if (isFight(outputs, driveAt)) continue;
    const point = island.point(board.volts, board.positive);
    if (point.lost.includes(1) || 1000 * point.supplyA > board.limitMa) continue;
    island.free.forEach((node, i) => {
      board.volts[node] = (elementAt(point.least, i) + elementAt(point.most, i)) / 2;
    });
    yield { island, point, driveAt, isOn: (actuator) => isOn.get(actuator) === true, volts: board.volts };
  }
}

/** The actuators of an island. A lamp's, which opens only when it is destroyed, is none. */
function moversOf({ parts: { contacts } }: IslandModel): Mover[] {
  const byActuator = new Map<string, number[]>();
  contacts.forEach(({ actuator, isLamp }, i) => {
    if (!isLamp) byActuator.set(actuator, [...(byActuator.get(actuator) ?? []), i]);
  });
  return [...byActuator].map(([actuator, own]) => ({ actuator, contacts: own }));
}

/** Combinations of one choice each; all of them, or of many those that differ in one from all first or all last. */
function* waysOf(choices: readonly (readonly number[])[], nodes: number): Generator<number[]> {
  const count = choices.reduce((product, c) => product * c.length, 1);
  if (count <= MOST_WAYS && count * nodes <= MOST_WORK) {
    for (let n = 0; n < count; n++) {
      let rest = n;
      yield choices.map((c) => {
        const digit = elementAt(c, rest % c.length);
        rest = Math.floor(rest / c.length);
        return digit;
      });
    }
    return;
  }
  for (const end of [0, -1]) {
    const base = choices.map((c) => c.at(end) as number);
    yield base;
    if (2 * choices.length * nodes > MOST_WORK) continue;
    for (const [i, c] of choices.entries())
      for (const digit of c) if (digit !== base[i]) yield base.map((d, k) => (k === i ? digit : d));
  }
}

function isFight(outputs: readonly OutputModel[], driveAt: (output: number) => Drive): boolean {
  if (outputs.length < 2) return false;
  const driven = new Map<number, Drive>();
  return outputs.some(({ node }, i) => {
    const drive = driveAt(i);
    if (drive === 'off') return false;
    const other = driven.get(node);
    driven.set(node, drive);
    return other !== undefined && other !== drive;
  });
}

/** The current that an output of a standing carries, given or sunk, in milliamperes; 0 for one that is off. */
export function outputMaIn({ island, driveAt, volts }: IslandStanding, output: number): number {
  const model = island.parts.outputs[output];
  const drive = driveAt(output);
  return model && (drive === 'low' || drive === 'high') ? Math.abs(1000 * model[drive].amps(volts)) : 0;
}

/**
 * What a device would carry from its first node to its last if it were metal, in milliamperes: all that its load takes. Null where that has no
 * solution.
 */
export function fullMaThrough(board: BoardVolts, { island, volts }: IslandStanding, device: Element): number | null {
  const [from, to] = [device.nodes[0], device.nodes.at(-1)];
  const [corner] = island.corners();
  if (from === undefined || to === undefined || !corner) return null;
  const across = resistor(from, to, ACROSS_OHMS);
  const before = Float64Array.from(volts);
  const { found } = solveIsland({ free: island.free, elements: [...corner.elements, across] }, volts, false);
  const ma = 1000 * across.amps(volts);
  board.volts.set(before);
  return found ? Math.abs(ma) : null;
}

/** The inputs of chips with power that read no level in a standing, though something holds their volts. Comparators always read one. */
export function* unclearIn(board: BoardVolts, { island, point, volts }: IslandStanding): Generator<UnclearReading> {
  for (const [i, node] of island.free.entries()) {
    if (point.floats[i] === 1) continue;
    for (const reader of board.readersOf.get(node) ?? []) {
      const { chip, compares, pin } = reader;
      if (compares || !board.fixed.has(chip.supply) || !board.fixed.has(chip.ground)) continue;
      const { low, high } = thresholdsOf(reader, (at) => elementAt(volts, at));
      const own = elementAt(volts, node) - elementAt(volts, chip.ground);
      if (own > low && own < high) yield { pin, reader, volts: own, low, high };
    }
  }
}
