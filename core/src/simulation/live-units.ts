import { UNKNOWN } from '../logic';
import type { Circuit } from './circuit';
import type { Corner } from './output-pins';
import { TICKS_PER_NS } from './ticks';
import { FRESH, NOT_YET, statesOf, type UnitStates } from './unit-states';

/** What an input counts in the key of its unit: two bits each. */
const POWERS = Float64Array.from({ length: 64 }, (_, i) => 4 ** i);

/** The units of all chips by unit index: what each stores and what its inputs read. */
export class LiveUnits {
  /** For each unit how long a clear or preset takes to its outputs, in ticks; 0 where that is as long as the clock takes. */
  readonly clearTicks: Float64Array;
  private readonly states: readonly UnitStates[];
  private readonly tables: readonly (Uint8Array | null)[];
  private readonly state: Int32Array;
  /** What all inputs read: those of unit u from `first[u]` up to `first[u + 1]`. */
  private readonly levels: Uint8Array;
  private readonly first: Int32Array;
  private readonly inputs: readonly Uint8Array[];
  /** The levels of all inputs of a unit as one number, by which what it does is found. */
  private readonly key: Float64Array;

  constructor({ units }: Circuit, corner: Corner) {
    this.clearTicks = Float64Array.from(units, ({ clearDelay }) =>
      Math.round((clearDelay?.[corner] ?? 0) * TICKS_PER_NS),
    );
    this.states = units.map(({ machine }) => statesOf(machine));
    this.tables = this.states.map(({ table }) => table);
    this.state = new Int32Array(units.length).fill(FRESH);
    this.first = new Int32Array(units.length + 1);
    units.forEach(({ machine }, u) => {
      this.first[u + 1] = (this.first[u] as number) + machine.inputs;
    });
    this.levels = new Uint8Array(this.first[units.length] as number);
    units.forEach(({ inputPins }, u) => {
      const first = this.first[u] as number;
      this.levels.fill(UNKNOWN, first, first + inputPins.length);
    });
    this.inputs = units.map((_, u) => this.levels.subarray(this.first[u], this.first[u + 1]));
    this.key = Float64Array.from(this.inputs, (inputs) => inputs.reduce((key, level, i) => key + level * 4 ** i, 0));
  }

  stateOf(u: number): number {
    return this.state[u] as number;
  }

  setInput(u: number, input: number, level: number): void {
    const at = (this.first[u] as number) + input;
    this.key[u] = (this.key[u] as number) + (level - (this.levels[at] as number)) * (POWERS[input] as number);
    this.levels[at] = level;
  }

  /** What the output of a gate does with what its inputs read, where that has been worked out; NOT_YET otherwise, and of units that are no gates. */
  known(u: number): number {
    const table = this.tables[u];
    return table ? (table[this.key[u] as number] as number) : NOT_YET;
  }

  /** Works a unit out on what its inputs read; it has the new state afterwards. */
  step(u: number): ReturnType<UnitStates['step']> {
    const states = this.states[u] as UnitStates;
    const step = states.step(this.state[u] as number, this.inputs[u] as Uint8Array, this.key[u] as number);
    this.state[u] = step.state;
    return step;
  }

  /** What a unit stores. */
  storedOf(u: number): number[] {
    return [...(this.states[u] as UnitStates).stored(this.state[u] as number)];
  }

  setStored(u: number, levels: readonly number[]): void {
    this.state[u] = (this.states[u] as UnitStates).withStored(this.inputs[u] as Uint8Array, levels);
  }

  /** Has what a unit stores be unknown. */
  unsettle(u: number): void {
    this.setStored(
      u,
      (this.states[u] as UnitStates).machine.stored.map(() => UNKNOWN),
    );
  }

  /** Has a unit be as before the power came on. */
  forget(u: number): void {
    this.state[u] = FRESH;
  }
}
