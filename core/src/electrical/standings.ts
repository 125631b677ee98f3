import { elementAt } from '../element-at';
import type { BoardVolts } from './board-volts';
import { type Element, resistor } from './elements';
import { DRIVES, type Drive, type IslandModel, type IslandPoint, jointClosings, type OutputModel } from './island';
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
  const isOn = new Map<string, boolean>();
  contacts.forEach(({ on }, i) => {
    island.setContact(i, !on);
  });
  const choices = [...moversOf(island).map((mover) => ofMover(island, mover, isOn)), ...choicesOfOutputs(island)];
  const ways = waysOf(
    choices.map((choice) => choice.ways),
    island.free.length,
  );
  for (const way of ways) {
    choices.forEach(({ put }, i) => {
      put(elementAt(way, i));
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

/** Something on an island that can stand in several ways, by their numbers. */
interface Choice {
  readonly ways: number;
  readonly put: (way: number) => void;
}

function ofMover(island: IslandModel, { actuator, contacts: own }: Mover, isOn: Map<string, boolean>): Choice {
  const { contacts } = island.parts;
  const put = (way: number): void => {
    isOn.set(actuator, way === 1);
    for (const i of own) island.setContact(i, (way === 1) === contacts[i]?.on);
  };
  return { ways: 2, put };
}

/** Each output by itself; the analogue switches of one unit together, since one closes as another opens. */
function choicesOfOutputs(island: IslandModel): Choice[] {
  const { outputs } = island.parts;
  const single = outputs.flatMap(({ can, joint }, output): Choice[] =>
    joint ? [] : [{ ways: can.length, put: (way) => island.setOutput(output, DRIVES.indexOf(elementAt(can, way))) }],
  );
  const units = new Set(outputs.flatMap(({ joint }) => joint?.unit ?? []));
  const joint = [...units].map((unit): Choice => {
    const slots = [...outputs.keys()].filter((output) => outputs[output]?.joint?.unit === unit);
    const ways = jointClosings(slots.map((output) => elementAt(outputs, output)));
    const put = (way: number): void => {
      slots.forEach((output, k) => {
        island.setOutput(output, DRIVES.indexOf(elementAt(elementAt(ways, way), k) ? 'high' : 'low'));
      });
    };
    return { ways: ways.length, put };
  });
  return [...joint, ...single];
}

/** The actuators of an island. A lamp's, which opens only when it is destroyed, is none. */
function moversOf({ parts: { contacts } }: IslandModel): Mover[] {
  const byActuator = new Map<string, number[]>();
  contacts.forEach(({ actuator, isLamp }, i) => {
    if (!isLamp) byActuator.set(actuator, [...(byActuator.get(actuator) ?? []), i]);
  });
  return [...byActuator].map(([actuator, own]) => ({ actuator, contacts: own }));
}

/** Combinations of one way of each choice; all of them, or of many those that differ in one from all first or all last. */
function* waysOf(choices: readonly number[], nodes: number): Generator<number[]> {
  const count = choices.reduce((product, ways) => product * ways, 1);
  if (count <= MOST_WAYS && count * nodes <= MOST_WORK) {
    for (let n = 0; n < count; n++) {
      let rest = n;
      yield choices.map((ways) => {
        const way = rest % ways;
        rest = Math.floor(rest / ways);
        return way;
      });
    }
    return;
  }
  for (const base of [choices.map(() => 0), choices.map((ways) => ways - 1)]) {
    yield base;
    if (2 * choices.length * nodes > MOST_WORK) continue;
    for (const [i, ways] of choices.entries())
      for (let way = 0; way < ways; way++) if (way !== base[i]) yield base.map((w, k) => (k === i ? way : w));
  }
}

/** Whether outputs drive one node against each other, or nodes that closed analogue switches join. */
function isFight(outputs: readonly OutputModel[], driveAt: (output: number) => Drive): boolean {
  if (outputs.length < 2) return false;
  const parent = new Map<number, number>();
  const root = (node: number): number => {
    const up = parent.get(node);
    return up === undefined ? node : root(up);
  };
  outputs.forEach(({ joint, high }, i) => {
    const [a = -1, b = -1] = joint && driveAt(i) === 'high' ? high.nodes.map(root) : [];
    if (a !== b) parent.set(a, b);
  });
  const driven = new Map<number, Drive>();
  return outputs.some(({ node, joint }, i) => {
    const drive = driveAt(i);
    if (drive === 'off' || joint) return false;
    const other = driven.get(root(node));
    driven.set(root(node), drive);
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
