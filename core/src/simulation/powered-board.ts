import { type Board, type Nets, partOf, pinOf } from '../board';
import { typeOf } from '../catalogue';
import { BoardVolts, type Drive, OperatingPoint, redLed } from '../electrical';
import { HIGH, LOW, UNKNOWN } from '../logic';
import { type Circuit, compileCircuit } from './circuit';
import { type LedState, type Settled, Simulator } from './simulator';
import { RELEASED } from './wiring';

/** Rounds of volts and levels until the two agree; pins of a board that takes more swing, and are unknown. */
const MOST_ROUNDS = 24;

/** Under this share of the current at which a lamp is dim it is dark. */
const DARK_SHARE = 0.02;

/**
 * Why no level can be told of something: the chip of a pin has no supply, nothing holds it, its volts lie between its thresholds; or a
 * lamp, by its name in `pin`, is past its maximum and burns.
 */
export type Unclear =
  | { readonly pin: string; readonly why: 'no-supply' | 'open' }
  | { readonly pin: string; readonly why: 'between'; readonly volts: number }
  | { readonly pin: string; readonly why: 'lamp-burns'; readonly ma: number };

/** A lamp as it shines, with its current in milliamperes. */
export interface LampReading {
  readonly ma: number;
  readonly state: LedState;
}

const levelOf = { '0': LOW, '1': HIGH, '?': UNKNOWN } as const;
const driveOf: Readonly<Record<number, Drive>> = {
  [LOW]: 'low',
  [HIGH]: 'high',
  [UNKNOWN]: 'unknown',
  [RELEASED]: 'off',
};

/**
 * A board under power, at rest: what its chips compute and the volts of its nets, each held to the other. Chips read their pins
 * from the volts by their own thresholds; the volts follow from what the chips drive.
 */
export class PoweredBoard {
  private readonly simulator: Simulator;
  private readonly volts: BoardVolts;
  private readonly switchOf: ReadonlyMap<string, number>;
  private readonly driverOf: ReadonlyMap<string, number>;
  /** What input pins are told to read, where strengths alone say otherwise. */
  private readings: ReadonlyMap<string, number> = new Map();
  /** The operating point that was found last: after `settle`, that of the board at rest; before, nothing but the supplies. */
  point: OperatingPoint;

  constructor(
    private readonly board: Board,
    nets: Nets,
    readonly circuit: Circuit = compileCircuit(board, nets),
  ) {
    this.simulator = new Simulator(circuit);
    this.volts = new BoardVolts(board, nets);
    this.switchOf = new Map(circuit.switches.map(({ ref }, i) => [ref, i]));
    this.driverOf = new Map(circuit.driverPin.map((pin, d) => [pin, d]));
    this.point = new OperatingPoint(this.volts);
  }

  /** Puts an actuator on or off, by its index in the circuit. Volts and levels follow with the next `settle`. */
  setSwitch(index: number, on: boolean): void {
    this.simulator.setSwitch(index, on);
  }

  isOn(index: number): boolean {
    return this.simulator.isOn(index);
  }

  /**
   * Lets the board come to rest. Where the volts at a pin say another level than strengths alone do, the chips are asked again with
   * that level, until nothing differs any more.
   */
  settle(): Settled {
    let settled = this.simulator.settle();
    for (let round = 0; ; round++) {
      this.point = this.solved();
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
      if (round >= MOST_ROUNDS) {
        this.point = this.solved();
        return { ...settled, settled: false };
      }
    }
  }

  private solved(): OperatingPoint {
    const { simulator } = this;
    return this.volts.solve({
      isOn: (name) => simulator.isOn(this.switchOf.get(name) ?? -1),
      driveOf: (pin) => driveOf[simulator.driveOf(this.driverOf.get(pin) ?? -1)] ?? 'unknown',
    });
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

  /** The level of a net, LOW, HIGH or UNKNOWN, as the inputs on it read it. */
  levelOf(net: number): number {
    return levelOf[this.point.levelOfNet(net)];
  }

  /** Whether supply and ground are joined as the switches stand. */
  get shorted(): boolean {
    return this.point.isShorted;
  }

  /** What a lamp does and its current, by its index in the circuit. */
  lamp(index: number): LampReading {
    const name = this.circuit.leds[index]?.ref ?? '';
    const ma = this.point.lampMa(name);
    if (!this.point.isLampKnown(name)) return { ma, state: 'unknown' };
    const { mostMa, dimMa } = redLed;
    return { ma, state: ma > mostMa ? 'over' : ma >= dimMa ? 'lit' : ma > DARK_SHARE * dimMa ? 'dim' : 'dark' };
  }

  /** What a lamp does, by its index in the circuit. */
  ledState(index: number): LedState {
    return this.lamp(index).state;
  }

  /**
   * The first pin that no level can be told of, and why: a chip without supply before all else, then inputs in the order of the parts. Inputs that hang on
   * such a pin are not told; then lamps that burn. Null where every input reads a level.
   */
  unclear(): Unclear | null {
    const dead = this.volts.unpowered(this.point);
    if (dead !== null) return { pin: dead, why: 'no-supply' };
    for (const { inputPins } of this.circuit.units)
      for (const pin of inputPins) {
        if (this.point.levelAt(pin) !== '?') continue;
        if (this.point.isKnown(pin)) return { pin, why: 'between', volts: this.point.voltsAt(pin) ?? 0 };
        if (this.point.isFloating(pin)) return { pin, why: 'open' };
      }
    for (const [i, { ref }] of this.circuit.leds.entries()) {
      const { state, ma } = this.lamp(i);
      if (state === 'over') return { pin: ref, why: 'lamp-burns', ma };
    }
    return null;
  }

  /** The pins of every lead of every part, in the order of the board's parts. */
  pins(): string[] {
    return Object.values(this.board.parts).flatMap((part) =>
      (typeOf(part)?.pins ?? []).map((p) => pinOf(part.ref, p.id)),
    );
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
