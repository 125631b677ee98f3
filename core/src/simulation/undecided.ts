import { UNKNOWN } from '../logic';
import type { Circuit } from './circuit';
import { feedbackOf } from './feedback';
import type { InputPins } from './input-pins';
import type { LiveUnits } from './live-units';
import type { OutputPins } from './output-pins';

/** The pins and units of a board under power. */
interface Pins {
  readonly outputs: OutputPins;
  readonly inputs: InputPins;
  readonly units: LiveUnits;
  readonly hasPower: (chip: number) => boolean;
}

/** What nobody knows of a board under power though silicon would settle it: stored signals, and outputs that hang on themselves. */
export class Undecided {
  private feedback: Uint8Array | null = null;

  constructor(
    private readonly circuit: Circuit,
    private readonly pins: Pins,
  ) {}

  /** Gives stored signals that nobody knows a level, by unit; returns the units in which one became another. */
  storeBy(choose: (unit: number) => number): number[] {
    const { units, hasPower } = this.pins;
    return [...this.circuit.units.keys()].filter((u) => {
      const stored = units.storedOf(u);
      if (!hasPower(this.circuit.units[u]?.chip ?? -1) || !stored.includes(UNKNOWN)) return false;
      const levels = stored.map((level) => (level === UNKNOWN ? choose(u) : level));
      if (levels.every((level, i) => level === stored[i])) return false;
      units.setStored(u, levels);
      return true;
    });
  }

  /** The driver, from `from` on, that nobody knows since what it does comes back to its own unit; -1 where there is none. */
  nextLoop(from: number): number {
    const { level } = this.pins.outputs;
    for (let d = from; d < level.length; d++) if (this.isLoose(d) && this.hangsOnItself(d)) return d;
    return -1;
  }

  /** Whether a driver that has power does what nobody knows. */
  private isLoose(d: number): boolean {
    const { outputs, hasPower } = this.pins;
    return outputs.level[d] === UNKNOWN && hasPower(this.circuit.driverChip[d] as number);
  }

  private hangsOnItself(d: number): boolean {
    const { outputs, inputs } = this.pins;
    this.feedback ??= feedbackOf(this.circuit, (driver) => {
      const i = outputs.island[driver] as number;
      return i < 0 ? [] : (inputs.on[i] as readonly number[]).flatMap((r) => inputs.unitsOf(r));
    });
    return this.feedback[d] === 1;
  }
}
