import { pinOf } from '../board';
import { typeOf } from '../catalogue';
import { elementAt } from '../element-at';
import { HIGH, LOW } from '../logic';
import type { Circuit } from './circuit';

/** The inputs of a timer's unit by which it is held: the one that clears it, and the one that begins a pulse, both when low. */
interface TimerInputs {
  readonly unit: number;
  readonly clears: number;
  readonly begins: number;
}

/** An input of a unit that counts as at a level, whatever is read there. */
interface ForcedInput {
  readonly unit: number;
  readonly input: number;
  readonly level: number;
}

/**
 * Timers that give a signal of the design, while clocks do not run: each stands still, as on a bench with a wire from its reset to ground (low) or from its trigger to
 * ground (high), and turns over as a switch does.
 */
export class StilledTimers {
  /** By actuator; undefined for what is no timer. */
  private readonly timers: readonly (TimerInputs | undefined)[];
  private readonly forced = new Map<number, readonly ForcedInput[]>();

  constructor(circuit: Circuit) {
    this.timers = circuit.switches.map((one) =>
      one.timer === null ? undefined : inputsOf(circuit, one.ref, one.timer),
    );
  }

  /** Has a timer stand high or low: what its inputs count as from now on; none for what is no timer. */
  hold(actuator: number, isHigh: boolean): readonly ForcedInput[] {
    const timer = this.timers[actuator];
    if (!timer) return [];
    const { unit, clears, begins } = timer;
    const inputs = [
      { unit, input: clears, level: isHigh ? HIGH : LOW },
      { unit, input: begins, level: isHigh ? LOW : HIGH },
    ];
    this.forced.set(unit, inputs);
    return inputs;
  }

  /** What an input counts as at which a level is read. */
  levelOf(unit: number, input: number, read: number): number {
    return this.forced.get(unit)?.find((one) => one.input === input)?.level ?? read;
  }
}

function inputsOf({ units, parts }: Circuit, ref: string, unit: number): TimerInputs | undefined {
  const type = typeOf(parts.find((p) => p.ref === ref) ?? { part: '' });
  const [pins] = type?.chip?.dividers?.flatMap(({ pulse }) => pulse ?? []) ?? [];
  const { inputPins } = elementAt(units, unit);
  const inputOf = (name: string): number =>
    inputPins.indexOf(pinOf(ref, type?.pins.find((p) => p.name === name)?.id ?? ''));
  return pins && { unit, clears: inputOf(pins.clears), begins: inputOf(pins.begins) };
}
