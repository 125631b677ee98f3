import { type Board, type Nets, partOf, pinOf } from '../board';
import { typeOf } from '../catalogue';
import { BoardVolts, type Drive, OperatingPoint, redLed } from '../electrical';
import { HIGH, LOW, UNKNOWN } from '../logic';
import { type Circuit, compileCircuit } from './circuit';
import { type Settled, Simulator } from './simulator';
import { RELEASED } from './wiring';

/** Rounds of volts and levels until the two agree; a board that takes more has pins that swing, which are unknown then. */
const MOST_ROUNDS = 24;

/** What a lamp does: `over` its maximum it is destroyed on the bench. */
export type LampState = 'lit' | 'dim' | 'dark' | 'over' | 'unknown';

/** A lamp as it shines, with its current in milliamperes. */
export interface LampReading {
  readonly ma: number;
  readonly state: LampState;
}

const levelOf = { '0': LOW, '1': HIGH, '?': UNKNOWN } as const;
const driveOf: Readonly<Record<number, Drive>> = {
  [LOW]: 'low',
  [HIGH]: 'high',
  [UNKNOWN]: 'unknown',
  [RELEASED]: 'off',
};

/**
 * A board under power, at rest: what its chips compute and the volts of its nets, each held to the other. Chips read their pins from the volts by
 * their own thresholds; the volts follow from what the chips drive. Switches are named as on the board (`S1`, `S2.3`).
 */
export class PoweredBoard {
  private readonly circuit: Circuit;
  private readonly simulator: Simulator;
  private readonly volts: BoardVolts;
  private readonly switches: ReadonlyMap<string, number>;
  private readonly driverOf: ReadonlyMap<string, number>;
  /** What input pins are told to read, where strengths alone say otherwise. */
  private readings: ReadonlyMap<string, number> = new Map();
  /** The operating point that was found last; empty before the first `settle`. */
  point: OperatingPoint;

  constructor(
    private readonly board: Board,
    nets: Nets,
  ) {
    this.circuit = compileCircuit(board, nets);
    this.simulator = new Simulator(this.circuit);
    this.volts = new BoardVolts(board, nets);
    this.switches = new Map(this.circuit.switches.map(({ ref }, i) => [ref, i]));
    this.driverOf = new Map(this.circuit.driverPin.map((pin, d) => [pin, d]));
    this.point = new OperatingPoint(nets, [], new Map(), new Map());
  }

  /** The actuators that can be set. */
  get actuators(): readonly string[] {
    return [...this.switches.keys()];
  }

  /** Puts an actuator on or off; false when there is none of that name. Volts and levels follow with the next `settle`. */
  setSwitch(name: string, on: boolean): boolean {
    const index = this.switches.get(name);
    if (index === undefined) return false;
    this.simulator.setSwitch(index, on);
    return true;
  }

  /**
   * Lets the board come to rest. Where the volts at a pin say another level than strengths alone do, the chips are asked again with
   * that level, until nothing differs any more.
   */
  settle(): Settled {
    let settled = this.simulator.settle();
    for (let round = 0; ; round++) {
      this.point = this.volts.solve({
        isOn: (name) => this.simulator.isOn(this.switches.get(name) ?? -1),
        driveOf: (pin) => driveOf[this.simulator.driveOf(this.driverOf.get(pin) ?? -1)] ?? 'unknown',
      });
      const next = this.otherwise();
      const swings = [...new Set([...next.keys(), ...this.readings.keys()])].filter(
        (pin) => next.get(pin) !== this.readings.get(pin),
      );
      if (swings.length === 0) return settled;
      if (round >= MOST_ROUNDS) for (const pin of swings) next.set(pin, UNKNOWN);
      this.readings = next;
      this.simulator.readAs(next);
      const again = this.simulator.settle();
      settled = { ...again, events: settled.events + again.events };
      if (round >= MOST_ROUNDS) return { ...settled, settled: false };
    }
  }

  /** Input pins that read another level by their volts than by strengths alone, with that level. */
  private otherwise(): Map<string, number> {
    const found = new Map<string, number>();
    this.circuit.units.forEach(({ inputPins }, u) => {
      inputPins.forEach((pin, i) => {
        const level = levelOf[this.point.levelAt(pin)];
        if (level !== this.simulator.readingByNet(u, i)) found.set(pin, level);
      });
    });
    return found;
  }

  /** The lamps of the board by name (`D1`, `H1.a`), in the order of the circuit. */
  get lamps(): readonly string[] {
    return this.circuit.leds.map(({ ref }) => ref);
  }

  /** What a lamp does, by its name. */
  lamp(name: string): LampReading {
    const ma = this.point.lampMa(name);
    if (!this.point.isLampKnown(name)) return { ma, state: 'unknown' };
    const { mostMa, dimMa } = redLed;
    const state = ma > mostMa ? 'over' : ma >= dimMa ? 'lit' : ma > dimMa / 10 ? 'dim' : 'dark';
    return { ma, state };
  }

  /** The pins of every lead of every part, in the order of the board's parts. */
  pins(): string[] {
    return Object.keys(this.board.parts).flatMap((ref) => {
      const part = partOf(this.board, ref);
      return part ? (typeOf(part)?.pins ?? []).map((p) => pinOf(ref, p.id)) : [];
    });
  }

  /** Parts whose doing goes on in time by itself, which is not worked out yet: clock modules, timers, one-shots. */
  timedParts(): string[] {
    return Object.keys(this.board.parts).filter((ref) => {
      const part = partOf(this.board, ref);
      const type = part && typeOf(part);
      return type?.kind === 'clock' || type?.chip?.group === 'timers';
    });
  }
}
