import { HIGH, LOW, type Machine, MachineRun, type OutputSlots, UNKNOWN } from '../logic';
import { onceFor } from '../memo';

/** What an output does that lets its net go, beside LOW, HIGH and UNKNOWN. */
export const RELEASED = 3;
/** What an output of a chip without supply does. */
export const DEAD = 4;

/** In the table of a unit: not worked out yet. */
export const NOT_YET = 255;

/** The state of a unit whose memory is unknown, as at power up. */
export const FRESH = 0;

/** What a unit does with its inputs: the state it goes to, what its outputs do, and whether a stored signal was clocked, and taken up, by its control. */
export interface UnitStep {
  readonly state: number;
  readonly outputs: Uint8Array;
  /** Whether the control of the first stored signal went to its active level while nothing forced the signal low. */
  readonly isTriggered: boolean;
  /** Whether a clear or preset holds what is stored. */
  readonly isForced: boolean;
}

/** Inputs whose levels have room in a key: two bits each. */
const MOST_KEYED = 26;
/** Inputs of a unit up to which its steps are kept in a list instead of a map. */
const MOST_LISTED = 6;
/** Steps that one kind of unit keeps. */
const MOST_KEPT = 100_000;

/**
 * The states of one kind of unit, found as they come up: each is what the unit stores and the levels that its clocks had last. A step, once worked
 * out by the machine, is looked up from then on; all units of a kind share what was found.
 */
export class UnitStates {
  private readonly memories: Uint8Array[] = [];
  private readonly numberOf = new Map<string, number>();
  private steps: (Map<number, UnitStep> | undefined)[] = [];
  /** Of units that store nothing and read few inputs, the steps by the key of the inputs. */
  private readonly listed: (UnitStep | undefined)[] = [];
  private readonly isListed: boolean;
  /**
   * Of units that store nothing, read few inputs and have one output: what it does by the key of the inputs, NOT_YET where that was not worked out.
   * Null of others.
   */
  readonly table: Uint8Array | null;
  private kept = 0;
  private readonly run: MachineRun;

  constructor(readonly machine: Machine) {
    this.run = new MachineRun(machine);
    this.isListed = machine.stored.length === 0 && machine.inputs <= MOST_LISTED;
    const isGate = this.isListed && machine.outputs.length === 1;
    this.table = isGate ? new Uint8Array(4 ** machine.inputs).fill(NOT_YET) : null;
    this.stateOf(this.run.memory());
  }

  private stateOf(memory: Uint8Array): number {
    const text = memory.join('');
    const known = this.numberOf.get(text);
    if (known !== undefined) return known;
    this.numberOf.set(text, this.memories.length);
    return this.memories.push(memory) - 1;
  }

  /** The step from a state under some inputs; `key` is the inputs as a number, two bits each, the first one least. */
  step(state: number, inputs: Uint8Array, key: number): UnitStep {
    if (this.isListed) {
      const listed = this.listed[key];
      if (listed) return listed;
      const worked = this.worked(state, inputs);
      this.listed[key] = worked;
      if (this.table) this.table[key] = worked.outputs[0] as number;
      return worked;
    }
    if (inputs.length > MOST_KEYED) return this.worked(state, inputs);
    let own = this.steps[state];
    if (!own) {
      own = new Map();
      this.steps[state] = own;
    }
    let step = own.get(key);
    if (!step) {
      if (this.kept++ > MOST_KEPT) {
        this.steps = [];
        this.kept = 0;
      }
      step = this.worked(state, inputs);
      own.set(key, step);
    }
    return step;
  }

  private worked(state: number, inputs: Uint8Array): UnitStep {
    const { run, machine } = this;
    this.recall(state, inputs);
    const [first] = machine.stored;
    const before = first ? run.controlLevel(0) : UNKNOWN;
    run.settle();
    const active = first && (first.edge === 1 ? LOW : HIGH);
    const isTriggered =
      first !== undefined &&
      before === 1 - (active ?? 0) &&
      run.controlLevel(0) === active &&
      run.storedLevel(0) === HIGH;
    const outputs = Uint8Array.from(machine.outputs, (output) => driven(output, run.slots));
    return { state: this.stateOf(run.memory()), outputs, isTriggered, isForced: run.isForced };
  }

  private recall(state: number, inputs: Uint8Array): void {
    inputs.forEach((level, i) => {
      this.run.setInput(i, level);
    });
    this.run.recall(this.memories[state] as Uint8Array);
  }

  /** The levels of the stored signals in a state. */
  stored(state: number): Uint8Array {
    return (this.memories[state] as Uint8Array).subarray(0, this.machine.stored.length);
  }

  /** The state with other levels stored, at rest under some inputs: its clocks stand where these put them. */
  withStored(inputs: Uint8Array, levels: readonly number[]): number {
    inputs.forEach((level, i) => {
      this.run.setInput(i, level);
    });
    this.run.restore(levels);
    return this.stateOf(this.run.memory());
  }
}

/** The states of a machine, kept as long as the machine is. */
export const statesOf = onceFor((machine: Machine) => new UnitStates(machine));

/** What an output does to its net: a level, or letting it go. */
function driven({ value, floats, open }: OutputSlots, slots: Uint8Array): number {
  const level = slots[value] as number;
  if (open) return level === HIGH ? RELEASED : level;
  const free = slots[floats] as number;
  return free === HIGH ? RELEASED : free === LOW ? level : UNKNOWN;
}
