import type { Board, Nets } from '../board';
import {
  BoardVolts,
  type IslandModel,
  type IslandPoint,
  jointClosings,
  LEAST_SUPPLY_V,
  type PinReader,
  READS,
  readingOf,
  thresholdsOf,
} from '../electrical';
import { elementAt } from '../element-at';
import { compile, HIGH, LOW, type Network, type Operation, opcode, type Program, sweep, UNKNOWN } from '../logic';
import type { Circuit } from './circuit';
import { levelShown, type Panel } from './panel';
import { lampStateAt } from './powered-board';
import { DEAD, RELEASED } from './unit-states';

/** Ways in which the contacts and outputs on one island may stand, up to which they are all looked at. */
const MOST_WAYS = 512;

/** Thrown inside, where a board is no function of its switches, or not one that is found this way. */
class NotSwept extends Error {}

/** A level that may be unknown, as two nets of the network: whether it may be high, and whether it may be low. */
interface Rails {
  readonly mayHigh: string;
  readonly mayLow: string;
}

/** What a driver may do, as nets of the network. */
interface DriverRails extends Rails {
  readonly mayFloat: string;
}

const unknown: Rails = { mayHigh: '1', mayLow: '1' };
const low: Rails = { mayHigh: '0', mayLow: '1' };
const high: Rails = { mayHigh: '1', mayLow: '0' };
const railsOf = (level: number): Rails => (level === LOW ? low : level === HIGH ? high : unknown);

/** A board as a program: what each of its lamps shows, as two planes, by the switches of a panel. */
export class BoardSweep {
  constructor(
    private readonly program: Program,
    private readonly outputs: number,
  ) {}

  /** Works all rows out, 32 to a word, and gives what the lamps show, row after row: LOW, HIGH or UNKNOWN for each output. */
  *sweep(): Generator<number[]> {
    const { columns, rows } = sweep(this.program);
    const { outputs } = this;
    for (let row = 0; row < rows; row++) {
      const [word, bit] = [row >>> 5, row & 31];
      const seen: number[] = [];
      for (let o = 0; o < outputs; o++) {
        const mayHigh = ((columns[2 * o] as Int32Array)[word] as number) >>> bit;
        const mayLow = ((columns[2 * o + 1] as Int32Array)[word] as number) >>> bit;
        seen.push(((mayHigh ^ mayLow) & 1) === 0 ? UNKNOWN : mayHigh & 1);
      }
      yield seen;
    }
  }
}

/**
 * Compiles a board to a program of the rows that its switches can be set to, or null where it is no function of them: where it stores
 * something, reads itself, has transistors that remember, or a supply that does not hold. Each island is solved once for each way in which the
 * contacts and outputs on it can stand, and becomes gates; levels have two planes, so that what is unknown stays so. The event simulator is
 * the reference.
 */
export function compileSweep(
  board: Board,
  nets: Nets,
  { circuit, panel }: { readonly circuit: Circuit; readonly panel: Panel },
): BoardSweep | null {
  try {
    const compiler = new SweepCompiler(new BoardVolts(board, nets), circuit, panel);
    return new BoardSweep(compile(compiler.network()), panel.leds.length);
  } catch (e) {
    if (e instanceof NotSwept) return null;
    throw e;
  }
}

/** What may be the case, as a net of the network, and what then stands so on an island. */
interface Choice {
  readonly literal: string;
  readonly put: () => void;
}

/** One way in which an island can stand: the nets of the network that are all high if it may, and the point that follows. */
interface Way {
  readonly literals: readonly string[];
  readonly point: IslandPoint;
}

class SweepCompiler {
  private readonly gates: Network['gates'][number][] = [];
  private readonly known = new Map<string, string>();
  private readonly inputOf = new Map<string, string>();
  private readonly driverOf: ReadonlyMap<string, number>;
  private readonly ways = new Map<number, readonly Way[]>();
  private readonly units = new Map<number, readonly DriverRails[]>();
  private readonly open = new Set<number>();
  private mostA = 0;

  constructor(
    private readonly volts: BoardVolts,
    private readonly circuit: Circuit,
    private readonly panel: Panel,
  ) {
    const { switches, units, driverPin } = circuit;
    if (volts.isMiswired || units.some((u) => u.machine.stored.length > 0)) throw new NotSwept();
    if (volts.islands.some((island) => island.remembers)) throw new NotSwept();
    const isFixed = (node: number): boolean => node < 0 || volts.fixed.has(node);
    if (!volts.chips.every(({ supply, ground }) => isFixed(supply) && isFixed(ground))) throw new NotSwept();
    panel.switches.forEach((s, i) => {
      const { ref } = switches[s] ?? { ref: '' };
      if (s >= 0 && this.inputOf.has(ref)) throw new NotSwept();
      if (s >= 0) this.inputOf.set(ref, `in ${i}`);
    });
    this.driverOf = new Map(driverPin.map((pin, d) => [pin, d]));
  }

  network(): Network {
    const lamps = this.panel.leds.map((led, o) => this.lamp(led, this.panel.inverted[o] ?? false));
    // Islands that no lamp hangs on draw current all the same.
    this.volts.islands.forEach((_, i) => {
      this.waysOf(i);
    });
    if (1000 * this.mostA > this.volts.limitMa) throw new NotSwept();
    return {
      inputs: this.panel.switches.map((_, i) => `in ${i}`),
      gates: this.gates,
      outputs: lamps.flatMap(({ mayHigh, mayLow }) => [mayHigh, mayLow]),
    };
  }

  /** A gate over some nets, the same one again for the same; constants are worked out. */
  private gate(kind: 'and' | 'or' | 'not', nets: readonly string[]): string {
    const [forcing, neutral] = kind === 'and' ? ['0', '1'] : ['1', '0'];
    if (kind !== 'not') {
      if (nets.includes(forcing)) return forcing;
      const own = [...new Set(nets)].filter((net) => net !== neutral).sort();
      if (own.length < 2) return own[0] ?? neutral;
      return this.made(kind, own);
    }
    const [net = '0'] = nets;
    return net === '0' ? '1' : net === '1' ? '0' : this.made(kind, nets);
  }

  private made(kind: Operation, nets: readonly string[]): string {
    const key = `${kind} ${nets.join()}`;
    const before = this.known.get(key);
    if (before !== undefined) return before;
    const output = `g ${this.gates.length}`;
    this.gates.push({ output, kind, inputs: nets });
    this.known.set(key, output);
    return output;
  }

  private lamp(index: number, inverted: boolean): Rails {
    const name = this.circuit.leds[index]?.ref ?? '';
    const element = this.volts.lamps.get(name);
    const colour = this.volts.lampColours.get(name);
    if (!element) return railsOf(index < 0 ? UNKNOWN : levelShown('dark', inverted));
    const { islandOf, rowOf, volts: fixed } = this.volts;
    const island = element.nodes.map((node) => islandOf[node] as number).find((i) => i >= 0) ?? -1;
    const scratch = fixed.slice();
    const shown = ({ least, most, lost }: IslandPoint): number => {
      for (const node of element.nodes) {
        const row = rowOf[node] as number;
        if (row < 0) continue;
        if (lost[row] === 1) return UNKNOWN;
        scratch[node] = ((least[row] as number) + (most[row] as number)) / 2;
      }
      return levelShown(lampStateAt(1000 * element.amps(scratch), colour), inverted);
    };
    if (island < 0) return railsOf(levelShown(lampStateAt(1000 * element.amps(scratch), colour), inverted));
    return this.joined(this.waysOf(island), shown);
  }

  /** What something on an island may be, from what it is in each way in which the island can stand. */
  private joined(ways: readonly Way[], levelIn: (point: IslandPoint) => number): Rails {
    const levels = ways.map(({ point }) => levelIn(point));
    const may = (level: number): string => {
      if (levels.every((l) => l === level || l === UNKNOWN)) return '1';
      const terms = ways.filter((_, w) => levels[w] === level || levels[w] === UNKNOWN);
      return this.gate(
        'or',
        terms.map(({ literals }) => this.gate('and', literals)),
      );
    };
    return { mayHigh: may(HIGH), mayLow: may(LOW) };
  }

  /** All ways in which the contacts and outputs on an island can stand, each with its point. */
  private waysOf(i: number): readonly Way[] {
    const before = this.ways.get(i);
    if (before) return before;
    if (this.open.has(i)) throw new NotSwept();
    this.open.add(i);
    const island = elementAt(this.volts.islands, i);
    const { contacts, outputs, capacitors } = island.parts;
    const choices: (readonly Choice[])[] = [];
    for (const actuator of new Set(contacts.map((c) => c.actuator))) {
      const net = this.inputOf.get(actuator);
      const put = (isOn: boolean) => (): void => {
        contacts.forEach((c, slot) => {
          if (c.actuator === actuator) island.setContact(slot, c.on === isOn);
        });
      };
      choices.push(
        net === undefined
          ? [{ literal: '1', put: put(false) }]
          : [
              { literal: this.gate('not', [net]), put: put(false) },
              { literal: net, put: put(true) },
            ],
      );
    }
    const units = new Set(outputs.flatMap(({ joint }) => joint?.unit ?? []));
    choices.push(...[...units].map((unit) => this.closings(island, unit)));
    outputs.forEach(({ pin, joint }, slot) => {
      if (joint) return;
      const rails = this.driverRails(this.driverOf.get(pin) ?? -1);
      const of = (literal: string, drive: number) => ({ literal, put: () => void island.setOutput(slot, drive) });
      choices.push(
        rails === null
          ? [of('1', DEAD)]
          : [of(rails.mayLow, LOW), of(rails.mayHigh, HIGH), of(rails.mayFloat, RELEASED)].filter(
              ({ literal }) => literal !== '0',
            ),
      );
    });
    if (choices.reduce((count, list) => count * list.length, 1) > MOST_WAYS) throw new NotSwept();
    const ways: Way[] = [];
    const choose = (from: number, literals: readonly string[]): void => {
      const list = choices[from];
      if (!list) {
        ways.push({ literals, point: island.point(this.volts.volts, this.volts.positive) });
        return;
      }
      for (const { literal, put } of list) {
        put();
        choose(from + 1, [...literals, literal]);
      }
    };
    choose(0, []);
    // What a capacitor holds where nothing else does depends on what went before.
    if (capacitors.length > 0 && ways.some(({ point }) => point.floats.includes(1))) throw new NotSwept();
    this.mostA += Math.max(...ways.map(({ point }) => point.supplyA));
    this.open.delete(i);
    this.ways.set(i, ways);
    return ways;
  }

  /** The ways in which the analogue switches of a unit that are on an island can stand together. */
  private closings(island: IslandModel, unit: string): Choice[] {
    const { outputs } = island.parts;
    const slots = [...outputs.keys()].filter((slot) => outputs[slot]?.joint?.unit === unit);
    const rails = slots.map((slot) => this.driverRails(this.driverOf.get(elementAt(outputs, slot).pin) ?? -1));
    const putAll = (driveOf: (k: number) => number) => (): void => {
      slots.forEach((slot, k) => {
        island.setOutput(slot, driveOf(k));
      });
    };
    if (rails.includes(null)) return [{ literal: '1', put: putAll(() => DEAD) }];
    const ways = jointClosings(slots.map((slot) => elementAt(outputs, slot)));
    return ways
      .map((way) => {
        const may = rails.map((own, k) => (way[k] ? own?.mayHigh : own?.mayLow) ?? '0');
        return { literal: this.gate('and', may), put: putAll((k) => (way[k] ? HIGH : LOW)) };
      })
      .filter(({ literal }) => literal !== '0');
  }

  /** What a driver may do; null for one of a chip without supply. */
  private driverRails(d: number): DriverRails | null {
    const u = this.circuit.units.findIndex(({ driver, outputs }) => d >= driver && d < driver + outputs);
    const unit = elementAt(this.circuit.units, u);
    const { supply, ground } = elementAt(this.volts.chips, unit.chip);
    const { volts } = this.volts;
    const supplyV = supply < 0 || ground < 0 ? 0 : (volts[supply] as number) - (volts[ground] as number);
    if (supplyV < LEAST_SUPPLY_V) return null;
    return elementAt(this.unitRails(u), d - unit.driver);
  }

  private unitRails(u: number): readonly DriverRails[] {
    const before = this.units.get(u);
    if (before) return before;
    const { machine, inputPins } = elementAt(this.circuit.units, u);
    const slots: Rails[] = [low, high, ...inputPins.map((pin) => this.pinRails(pin))];
    while (slots.length < 2 + machine.inputs) slots.push(low);
    const { code } = machine.program;
    for (let p = 0; p < code.length; ) {
      const count = code[p + 1] as number;
      const inputs = Array.from(code.subarray(p + 2, p + 2 + count), (slot) => elementAt(slots, slot));
      slots.push(this.operation(code[p] as number, inputs));
      p += 2 + count;
    }
    const made = machine.outputs.map(({ value, floats, open }): DriverRails => {
      const [level, free] = [elementAt(slots, value), elementAt(slots, floats)];
      if (open) return { mayHigh: '0', mayLow: level.mayLow, mayFloat: level.mayHigh };
      const held = (may: string): string => this.gate('and', [may, free.mayLow]);
      return { mayHigh: held(level.mayHigh), mayLow: held(level.mayLow), mayFloat: free.mayHigh };
    });
    this.units.set(u, made);
    return made;
  }

  private operation(op: number, inputs: readonly Rails[]): Rails {
    const highs = inputs.map((r) => r.mayHigh);
    const lows = inputs.map((r) => r.mayLow);
    const turned = ({ mayHigh, mayLow }: Rails): Rails => ({ mayHigh: mayLow, mayLow: mayHigh });
    switch (op) {
      case opcode.not:
        return turned(elementAt(inputs, 0));
      case opcode.and:
        return { mayHigh: this.gate('and', highs), mayLow: this.gate('or', lows) };
      case opcode.nand:
        return { mayLow: this.gate('and', highs), mayHigh: this.gate('or', lows) };
      case opcode.or:
        return { mayHigh: this.gate('or', highs), mayLow: this.gate('and', lows) };
      case opcode.nor:
        return { mayLow: this.gate('or', highs), mayHigh: this.gate('and', lows) };
      case opcode.xor:
        return inputs.reduce((a, b) => this.parity(a, b));
      case opcode.xnor:
        return turned(inputs.reduce((a, b) => this.parity(a, b)));
      default:
        return this.wire(inputs);
    }
  }

  private parity(a: Rails, b: Rails): Rails {
    const either = (x: readonly string[], y: readonly string[]): string =>
      this.gate('or', [this.gate('and', x), this.gate('and', y)]);
    return {
      mayHigh: either([a.mayHigh, b.mayLow], [a.mayLow, b.mayHigh]),
      mayLow: either([a.mayHigh, b.mayHigh], [a.mayLow, b.mayLow]),
    };
  }

  /** A net that one three-state output drives inside its chip: its value while it does, and unknown otherwise. */
  private wire(inputs: readonly Rails[]): Rails {
    const [value, drives] = [elementAt(inputs, 0), elementAt(inputs, 1)];
    if (inputs.length > 2) throw new NotSwept();
    return {
      mayHigh: this.gate('or', [value.mayHigh, drives.mayLow]),
      mayLow: this.gate('or', [value.mayLow, drives.mayLow]),
    };
  }

  /** What an input pin may read. */
  private pinRails(pin: string): Rails {
    const reader = this.volts.readers.get(pin);
    if (!reader) return unknown;
    const { net, opensHigh } = reader;
    if (net === null) return railsOf(opensHigh ? HIGH : UNKNOWN);
    const { islandOf, rowOf, volts } = this.volts;
    const i = islandOf[net] as number;
    if (i < 0) return railsOf(this.read(reader, [volts[net] as number, volts[net] as number]));
    const row = rowOf[net] as number;
    return this.joined(this.waysOf(i), ({ least, most, floats, lost }) => {
      if (lost[row] === 1) return UNKNOWN;
      if (floats[row] === 1) return opensHigh ? HIGH : UNKNOWN;
      return this.read(reader, [least[row] as number, most[row] as number]);
    });
  }

  private read(reader: PinReader, [least, most]: readonly [number, number]): number {
    const { volts } = this.volts;
    const ground = reader.chip.ground < 0 ? 0 : (volts[reader.chip.ground] as number);
    const thresholds = thresholdsOf(reader, (node) => volts[node] as number);
    const reads = readingOf(thresholds, least - ground, most - ground);
    return reads <= READS.unknown ? reads : UNKNOWN;
  }
}
