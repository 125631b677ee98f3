import { type Board, type Nets, pinOf, spokenPin } from '../board';
import { type LampColour, typeOf } from '../catalogue';
import {
  BoardVolts,
  DIAL_END,
  type IslandPoint,
  leds,
  OperatingPoint,
  pinLimitsOf,
  type ReadLevel,
} from '../electrical';
import { elementAt } from '../element-at';
import { type Finding, finding } from '../finding';
import { HIGH, LOW, UNKNOWN } from '../logic';
import { randomFrom } from './actuators';
import { type Circuit, compileCircuit } from './circuit';
import { EventSimulator, type RunOptions } from './event-simulator';
import { TICKS_PER_NS } from './ticks';
import type { TimingFault } from './timing-watch';

/** Events after which a board that still moves counts as running. */
export const MAX_EVENTS = 20_000;
/** Events of a run at the most where nothing else is said: some minutes of work. */
export const MOST_RUN_EVENTS = 50_000_000;
/** So many events more are watched, to see what does not rest. */
const WATCHED_EVENTS = 4000;
/** A board rests when nothing happens for so many seconds. */
const HORIZON_S = 100;
const TICKS_PER_S = 1e9 * TICKS_PER_NS;

/** Under this share of the current at which a lamp is dim it is dark. */
const DARK_SHARE = 0.02;

/**
 * What an LED does. `dim`: too little current to be seen well. `over`: past the most that it bears. `destroyed`: it was, and is dark for good.
 * `unknown`: its level is.
 */
export type LedState = 'dark' | 'lit' | 'dim' | 'over' | 'destroyed' | 'unknown';

/** How a settling ended: whether the board rests, when (ns since power up), and after how many events. */
export interface Settled {
  readonly settled: boolean;
  readonly timeNs: number;
  readonly events: number;
}

/**
 * What stored signals and loops are when the power comes on: unknown until something sets them; by chance, as silicon is, with a seed;
 * or all low.
 */
export type Start = 'unknown' | 'clear' | { readonly chance: number };

/** How a board is powered up. */
export interface PowerOptions extends RunOptions {
  readonly circuit?: Circuit;
  readonly start?: Start;
}

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
const letters: Readonly<Record<number, ReadLevel>> = { [LOW]: '0', [HIGH]: '1', [UNKNOWN]: '?' };

/**
 * A board under power: what its chips compute, the volts of its nets, and time. `settle` lets it come to rest, `runUntil` lets time pass;
 * what is read is always that of the moment, but after a `settle` in which it did not rest: then what still moves is unknown.
 */
export class PoweredBoard {
  private readonly volts: BoardVolts;
  private readonly simulator: EventSimulator;
  readonly circuit: Circuit;
  private known: OperatingPoint | null = null;
  /** Islands that did not come to rest in the last `settle`. */
  private restless: ReadonlySet<number> = new Set();
  private readonly lampsAt: Int32Array;

  constructor(
    private readonly board: Board,
    readonly nets: Nets,
    { circuit = compileCircuit(board), start = 'unknown', ...options }: PowerOptions = {},
  ) {
    this.circuit = circuit;
    this.volts = new BoardVolts(board, nets);
    this.simulator = new EventSimulator(this.volts, circuit, options);
    this.lampsAt = Int32Array.from(circuit.leds, ({ ref }) => {
      const island = this.volts.lamps.get(ref)?.nodes.map((node) => elementAt(this.volts.islandOf, node));
      return island?.find((i) => i >= 0) ?? -1;
    });
    if (start === 'clear') this.simulator.decide(() => LOW);
    else if (start !== 'unknown') {
      const random = randomFrom(start.chance + 1);
      this.simulator.decide(() => (random() < 0.5 ? LOW : HIGH));
    }
  }

  /** Puts an actuator on or off now, by its index in the circuit. */
  setSwitch(index: number, on: boolean): void {
    this.known = null;
    this.simulator.setSwitch(index, on);
  }

  /** The potentiometers that can be turned, by reference. */
  get dials(): readonly string[] {
    return this.simulator.dials;
  }

  /** Turns a potentiometer, by its reference, to a position from 0, its wiper at the first end, to DIAL_END. */
  setDial(ref: string, position: number): void {
    this.known = null;
    this.simulator.setDial(ref, Math.max(0, Math.min(DIAL_END, Math.round(position))));
  }

  isOn(index: number): boolean {
    return this.simulator.isOn(index);
  }

  /** Nanoseconds since the power came on. */
  get timeNs(): number {
    return this.simulator.now / TICKS_PER_NS;
  }

  /** Events since the power came on. */
  get events(): number {
    return this.simulator.events;
  }

  /** When something happens next, in nanoseconds; Infinity where nothing will. */
  get nextNs(): number {
    return this.simulator.nextTime / TICKS_PER_NS;
  }

  /** Whether the board moves: something is going to happen, or a capacitor is still being charged. */
  get isMoving(): boolean {
    return this.simulator.nextTime < Infinity || this.simulator.standing.secondsToRest > 0;
  }

  /** Lets time run up to so many nanoseconds since power up; ends early after `mostEvents`. */
  runUntil(timeNs: number, mostEvents = Infinity): void {
    this.known = null;
    if (this.restless.size > 0) this.restless = new Set();
    this.simulator.runUntil(Math.round(timeNs * TICKS_PER_NS), mostEvents);
  }

  /** Called after each moment of a run in which something changed, with the islands that did; null ends that. */
  observe(observer: ((islands: readonly number[]) => void) | null): void {
    this.simulator.observer = observer;
  }

  /** The island of a net, -1 where a supply holds it. */
  islandOf(net: number): number {
    return this.volts.islandOf[net] ?? -1;
  }

  /** Has the volts of a net told to the observer whenever they have moved by so much. */
  follow(net: number, stepV?: number): void {
    this.simulator.follow(net, stepV);
  }

  /** An output that nobody knows since it hangs on itself, such as that of a latch that nothing has set, or of a ring; null where there is none. */
  get unknownLoop(): string | null {
    return this.simulator.unknownLoop();
  }

  /** How often a second a net has gone high of late; 0 where it rests. */
  hertzOf(net: number): number {
    return this.simulator.nets.hertzOf(net);
  }

  /** The volts of a net now, the middle of what they can be; null where nobody knows. */
  voltsOf(net: number): number | null {
    if (this.simulator.isShorted) return this.simulator.nets.heldV(net);
    if (!this.simulator.nets.isKnown(net)) return null;
    const [least, most] = this.simulator.standing.rangeOf(net);
    return most - least > WIDE_V ? null : (least + most) / 2;
  }

  /**
   * Lets the board come to rest: until nothing happens any more, and no capacitor is still being charged. What a board that does not rest
   * goes on changing is unknown from then on, until the next time.
   */
  settle(): Settled {
    const { simulator } = this;
    const first = simulator.events;
    const begun = simulator.now;
    this.known = null;
    if (this.restless.size > 0) this.restless = new Set();
    const settled = this.rests(begun + HORIZON_S * TICKS_PER_S);
    const { events } = simulator;
    if (!settled) this.findRestless();
    return { settled, timeNs: this.timeNs, events: events - first };
  }

  private rests(horizon: number): boolean {
    const { simulator } = this;
    const last = simulator.events + MAX_EVENTS;
    for (;;) {
      if (simulator.events >= last) return false;
      if (simulator.nextTime <= horizon) {
        simulator.runEvents(horizon, last - simulator.events);
        continue;
      }
      const seconds = simulator.standing.secondsToRest;
      if (seconds === 0 || simulator.now >= horizon) return true;
      simulator.runUntil(Math.min(horizon, simulator.now + Math.ceil(seconds * TICKS_PER_S)));
    }
  }

  private findRestless(): void {
    const { simulator } = this;
    const moved = new Set<number>();
    const observer = simulator.observer;
    simulator.observer = (islands) => {
      for (const i of islands) moved.add(i);
    };
    simulator.runUntil(Infinity, WATCHED_EVENTS);
    simulator.observer = observer;
    this.restless = moved;
  }

  /** The volts of the whole board as they are now. */
  get point(): OperatingPoint {
    if (this.known) return this.known;
    const { simulator, volts } = this;
    const point = new OperatingPoint(volts, {
      isShorted: simulator.isShorted,
      held: (node) => simulator.nets.heldV(node) ?? 0,
      told: (reader) =>
        this.restless.has(reader.net === null ? -1 : this.islandOf(reader.net))
          ? '?'
          : (letters[simulator.nets.levelRead(reader)] ?? '?'),
    });
    volts.islands.forEach(({ free }, i) => {
      const found = simulator.standing.standing(i);
      if (found) point.take(free, this.restless.has(i) ? { ...found, lost: found.lost.slice().fill(1) } : found);
    });
    point.supplyMa = this.supplyMa;
    this.known = point;
    return point;
  }

  /** What the supplies give now, in milliamperes: their limit where supply and ground are joined. */
  get supplyMa(): number {
    if (this.simulator.isShorted) return this.volts.limitMa;
    return 1000 * this.simulator.standing.supplyA + this.volts.quietMa((ref) => this.simulator.isPowered(ref));
  }

  /** The level of a net, LOW, HIGH or UNKNOWN, as the inputs on it read it. */
  levelOf(net: number): number {
    if (this.restless.has(this.islandOf(net))) return UNKNOWN;
    return this.simulator.nets.levelOf(net);
  }

  /** The volts of the supply now, of several that of the highest: fewer than it is set to where its limit holds it. */
  get supplyV(): number {
    return Math.max(0, ...[...this.volts.fixed.keys()].map((node) => this.simulator.nets.heldV(node) ?? 0));
  }

  /** Whether supply and ground are joined as the switches stand. */
  get shorted(): boolean {
    return this.simulator.isShorted;
  }

  /** Destroys a lamp, by its name: it is dark for good, and no current passes it. */
  burn(lamp: string): void {
    this.known = null;
    this.burnt.add(lamp);
    this.simulator.burn(lamp);
  }

  private readonly burnt = new Set<string>();

  /** Outputs of chips past the absolute maximum of their family, with their current and that maximum in milliamperes. */
  overloadedOutputs(): { readonly pin: string; readonly ma: number; readonly mostMa: number }[] {
    if (this.shorted) return [];
    return this.volts.islands.flatMap(({ parts }, i) =>
      this.simulator.standing.pointAt(i)
        ? parts.outputs.flatMap((output, slot) => {
            const drive = this.volts.islands[i]?.driveAt(slot);
            const mostMa = pinLimitsOf(this.board.parts[output.ref]?.part ?? '', 'HC').absoluteOutputMa;
            if (mostMa === null || (drive !== 'low' && drive !== 'high')) return [];
            for (const node of output[drive].nodes) {
              const [least, most] = this.simulator.standing.rangeOf(node);
              this.scratch[node] = (least + most) / 2;
            }
            const ma = Math.abs(1000 * output[drive].amps(this.scratch));
            return ma > mostMa ? [{ pin: output.pin, ma, mostMa }] : [];
          })
        : [],
    );
  }

  /** Inputs of chips that did not keep the pulses, set-up and hold times of their data sheets so far, each once. */
  get timingFaults(): readonly TimingFault[] {
    return this.simulator.timingFaults;
  }

  /** What a lamp does and its current, by its index in the circuit. */
  lamp(index: number): LampReading {
    const island = this.lampsAt[index] ?? -1;
    const point = this.shorted ? null : this.simulator.standing.pointAt(island);
    const isPlain = point !== null && this.restless.size === 0 && this.burnt.size === 0;
    // The same point, the same light: most lamps are asked again and again at few of them.
    if (isPlain && this.lampPoint[index] === point) return this.lampReading[index] ?? this.lampNow(index);
    if (this.burnt.has(this.circuit.leds[index]?.ref ?? '')) return { ma: 0, state: 'destroyed' };
    if (!point || this.restless.has(island)) return this.lampNow(index);
    const reading = this.knownReading(index, point);
    this.lampPoint[index] = point;
    this.lampReading[index] = reading;
    return reading;
  }

  /** For each lamp the point that its island stood at when it was read last, and what was read. */
  private readonly lampPoint: IslandPoint[] = [];
  private readonly lampReading: LampReading[] = [];
  /** For each lamp what was read of it, with the points that its island stood at. */
  private readonly lampsKnown: { readonly point: IslandPoint; readonly reading: LampReading }[][] = [];

  private knownReading(index: number, point: IslandPoint): LampReading {
    this.lampsKnown[index] ??= [];
    const known = this.lampsKnown[index];
    for (const one of known) if (one.point === point) return one.reading;
    const reading = this.lampNow(index);
    if (known.length >= MOST_LAMP_POINTS) known.length = 0;
    known.push({ point, reading });
    return reading;
  }

  private lampNow(index: number): LampReading {
    const name = this.circuit.leds[index]?.ref ?? '';
    const element = this.volts.lamps.get(name);
    if (!element || this.shorted) return { ma: 0, state: element ? 'unknown' : 'dark' };
    const { simulator } = this;
    let isKnown = !this.restless.has(this.lampsAt[index] ?? -1);
    for (const node of element.nodes) {
      const [least, most] = simulator.standing.rangeOf(node);
      this.scratch[node] = (least + most) / 2;
      if (most - least > WIDE_V || !(simulator.nets.isKnown(node) || simulator.standing.isFloating(node)))
        isKnown = false;
    }
    const ma = 1000 * element.amps(this.scratch);
    return { ma, state: isKnown ? lampStateAt(ma, this.volts.lampColours.get(name)) : 'unknown' };
  }

  private get scratch(): Float64Array {
    this.nodes ??= new Float64Array(this.nets.nets.length);
    return this.nodes;
  }

  private nodes: Float64Array | null = null;

  /** What a lamp does, by its index in the circuit. */
  ledState(index: number): LedState {
    return this.lamp(index).state;
  }

  /**
   * The first pin that no level can be told of, and why: a chip without supply before all else, then inputs in the order of the parts. Inputs that hang on
   * such a pin are not told; then lamps that burn. Null where every input reads a level.
   */
  unclear(): Unclear | null {
    const { point } = this;
    const dead = this.volts.unpowered(point);
    if (dead !== null) return { pin: dead, why: 'no-supply' };
    for (const { inputPins } of this.circuit.units)
      for (const pin of inputPins) {
        if (point.levelAt(pin) !== '?') continue;
        if (point.isKnown(pin)) return { pin, why: 'between', volts: point.voltsAt(pin) ?? 0 };
        if (point.isFloating(pin)) return { pin, why: 'open' };
      }
    for (const [i, { ref }] of this.circuit.leds.entries()) {
      const { state, ma } = this.lamp(i);
      if (state === 'over') return { pin: ref, why: 'lamp-burns', ma };
    }
    return null;
  }

  /** What an input pin of a chip reads, or what a net shows at any other pin: LOW, HIGH or UNKNOWN. */
  levelAt(pin: string): number {
    return levelOf[this.point.levelAt(pin)];
  }

  /** The pins of every lead of every part, in the order of the board's parts. */
  pins(): string[] {
    return Object.values(this.board.parts).flatMap((part) =>
      (typeOf(part)?.pins ?? []).map((p) => pinOf(part.ref, p.id)),
    );
  }
}

/** The finding of a run that ends early, since so much happens on the board. */
export const cutFinding = ({ events, timeNs }: PoweredBoard): Finding =>
  finding('run-cut', [], { events, ms: (timeNs / 1e6).toFixed(3) });

/** Points of its island at which a lamp is remembered. */
const MOST_LAMP_POINTS = 8;
/** Volts that can be so far apart are not known. */
const WIDE_V = 0.1;

/** What a lamp of a colour does at so many milliamperes. */
export function lampStateAt(ma: number, colour: LampColour = 'red'): LedState {
  const { mostMa, dimMa } = leds[colour];
  return ma > mostMa ? 'over' : ma >= dimMa ? 'lit' : ma > DARK_SHARE * dimMa ? 'dim' : 'dark';
}

/** The finding of an input that did not keep what its data sheet asks. */
export function timingFinding({ pin, requirement, level, ns, leastNs, count }: TimingFault): Finding {
  const facts = {
    pin: spokenPin(pin),
    ns: ns.toFixed(1),
    least: leastNs,
    times: count === 1 ? 'once' : `${count} times`,
  };
  const places = [{ kind: 'pin', pin }] as const;
  if (requirement === 'pulse')
    return finding('timing-pulse', places, { ...facts, level: level === HIGH ? 'high' : 'low' });
  if (requirement === 'period')
    return finding('timing-period', places, {
      ...facts,
      mhz: (1000 / ns).toFixed(1),
      most: (1000 / leastNs).toFixed(0),
    });
  return finding(requirement === 'hold' ? 'timing-hold' : 'timing-set-up', places, facts);
}
