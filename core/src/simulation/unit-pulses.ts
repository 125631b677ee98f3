import type { BoardVolts } from '../electrical';
import { elementAt } from '../element-at';
import type { Circuit } from './circuit';
import { pulseSeconds } from './pulses';
import { TICK_S } from './ticks';

/** A pulse that a one-shot gives when it is triggered. */
interface UnitPulse {
  readonly unit: number;
  /** The input of its machine that ends it. */
  readonly input: number;
  /** Whether a trigger during the pulse makes it last anew. */
  readonly retriggers: boolean;
  readonly ticks: number;
}

/** The pulses of all one-shots of a board, with how long the parts at their pins make them last. */
export class UnitPulses {
  private readonly pulses: readonly UnitPulse[];
  private readonly ofUnit: Int32Array;

  constructor(board: BoardVolts, { units, chips, parts }: Circuit) {
    this.pulses = units.flatMap((unit, u) =>
      unit.timers.map(({ input, law }) => {
        const chip = chips[unit.chip];
        const seconds = chip ? pulseSeconds(board, parts, chip, law) : Infinity;
        return { unit: u, input, retriggers: law.retriggers === true, ticks: Math.round(seconds / TICK_S) };
      }),
    );
    this.ofUnit = new Int32Array(units.length).fill(-1);
    this.pulses.forEach(({ unit }, p) => {
      this.ofUnit[unit] = p;
    });
  }

  get count(): number {
    return this.pulses.length;
  }

  /** The index of a unit's pulse; -1 of a unit that gives none. */
  of(unit: number): number {
    return elementAt(this.ofUnit, unit);
  }

  at(p: number): UnitPulse {
    return elementAt(this.pulses, p);
  }
}
