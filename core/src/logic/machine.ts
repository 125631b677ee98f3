import { elementAt } from '../element-at';
import { compile, evaluateLevels, HIGH, LOW, type Network, type Program, slotCount, UNKNOWN } from './program';

/**
 * A stored signal. It takes `data` when `control` rises or falls, or follows it `while` control is
 * high; `forces` set it whatever its clock does, the first that is high winning. All are nets.
 */
export interface StoredSignal {
  readonly name: string;
  readonly data: string;
  readonly edge: 'rise' | 'fall' | 'while';
  readonly control: string;
  readonly forces: readonly { readonly to: 0 | 1; readonly net: string }[];
}

/**
 * An output. `floats` is high while nothing drives it (three-state), `open` says that it is released
 * instead of driven high (open collector), `dontCare` is high where its value does not matter.
 */
export interface MachineOutput {
  readonly name: string;
  readonly net: string;
  readonly floats: string | null;
  readonly open: boolean;
  readonly dontCare: string | null;
}

/** What a design does, by names: gates (topological; inputs and stored signals are sources), stored signals, outputs. */
export interface Behaviour {
  readonly inputs: readonly string[];
  readonly gates: Network['gates'];
  readonly stored: readonly StoredSignal[];
  readonly outputs: readonly MachineOutput[];
}

/** Slots of one stored signal in a machine's program; `edge`: 0 rise, 1 fall, 2 while. */
interface StoredSlots {
  readonly self: number;
  readonly data: number;
  readonly control: number;
  readonly edge: 0 | 1 | 2;
  readonly forces: readonly { readonly to: 0 | 1; readonly slot: number }[];
}

/** Slots of one output; `floats` and `dontCare` are slot 0, constant low, where an output has none. */
export interface OutputSlots {
  readonly value: number;
  readonly floats: number;
  readonly open: boolean;
  readonly dontCare: number;
}

/** A behaviour lowered: its program's inputs are the behaviour's inputs and then its stored signals. */
export interface Machine {
  readonly program: Program;
  readonly inputs: number;
  readonly stored: readonly StoredSlots[];
  readonly outputs: readonly OutputSlots[];
}

const edges = { rise: 0, fall: 1, while: 2 } as const;

/** Lowers a behaviour. Throws, as `compile` does, on nets that nothing makes. */
export function compileMachine(behaviour: Behaviour): Machine {
  const { inputs, gates, stored, outputs } = behaviour;
  const sources = [...inputs, ...stored.map((s) => s.name)];
  const nets: string[] = [];
  const want = (net: string): number => nets.push(net) - 1;
  const storedAt = stored.map((s) => ({
    data: want(s.data),
    control: want(s.control),
    forces: s.forces.map(({ to, net }) => ({ to, slot: want(net) })),
  }));
  const outputsAt = outputs.map((o) => ({
    value: want(o.net),
    floats: want(o.floats ?? '0'),
    dontCare: want(o.dontCare ?? '0'),
  }));
  const program = compile({ inputs: sources, gates, outputs: nets });
  const slot = (i: number): number => elementAt(program.outputs, i);
  return {
    program,
    inputs: inputs.length,
    stored: storedAt.map((s, i) => ({
      self: 2 + inputs.length + i,
      data: slot(s.data),
      control: slot(s.control),
      edge: edges[elementAt(stored, i).edge],
      forces: s.forces.map((f) => ({ to: f.to, slot: slot(f.slot) })),
    })),
    outputs: outputsAt.map((o, i) => ({
      value: slot(o.value),
      floats: slot(o.floats),
      dontCare: slot(o.dontCare),
      open: elementAt(outputs, i).open,
    })),
  };
}

/** A bit beside the levels, which take two; and what holds a stored signal where both clear and preset do. */
const BOTH = 4;
const EITHER = 3;

/**
 * A machine with its memory: levels (LOW, HIGH, UNKNOWN) in `slots` as its program has them, and the
 * level each stored signal's control last had. Fresh memory is unknown, as at power up.
 */
export class MachineRun {
  readonly slots: Uint8Array;
  /** Of each stored signal the level that its control last had, and BOTH while forces of either sort held it. */
  private readonly controls: Uint8Array;
  private readonly next: Uint8Array;
  /** 1 for each stored signal that a force held when the last round of `settle` began. */
  private readonly locks: Uint8Array;

  constructor(readonly machine: Machine) {
    this.slots = new Uint8Array(slotCount(machine.program)).fill(UNKNOWN);
    this.controls = new Uint8Array(machine.stored.length).fill(UNKNOWN);
    this.next = new Uint8Array(machine.stored.length);
    this.locks = new Uint8Array(machine.stored.length);
  }

  /** Puts an input, counted from 0, at a level; `settle` carries it on. */
  setInput(i: number, level: number): void {
    this.slots[2 + i] = level;
  }

  /** The level of stored signal i, counted from 0. */
  storedLevel(i: number): number {
    return elementAt(this.slots, 2 + this.machine.inputs + i);
  }

  /** Puts the whole memory at these levels, with the inputs as they are, as if it had come to rest so. */
  restore(levels: readonly number[]): void {
    const { program, stored, inputs } = this.machine;
    for (let i = 0; i < stored.length; i++) this.slots[2 + inputs + i] = elementAt(levels, i);
    evaluateLevels(program, this.slots);
    stored.forEach((s, i) => {
      this.controls[i] = elementAt(this.slots, s.control) | (this.heldWays(s) === EITHER ? BOTH : 0);
    });
  }

  /** Puts stored signal i at a level, as a person does who wants to see what follows. */
  setStored(i: number, level: number): void {
    this.slots[2 + this.machine.inputs + i] = level;
  }

  /** What is remembered: the level of each stored signal, then that which each one's control had last, and whether preset and clear held it. */
  memory(): Uint8Array {
    const { stored, inputs } = this.machine;
    const memory = new Uint8Array(2 * stored.length);
    memory.set(this.slots.subarray(2 + inputs, 2 + inputs + stored.length));
    memory.set(this.controls, stored.length);
    return memory;
  }

  /** Takes up a memory as `memory` gave it; `settle` then goes on from there. */
  recall(memory: Uint8Array): void {
    const { stored, inputs } = this.machine;
    this.slots.set(memory.subarray(0, stored.length), 2 + inputs);
    this.controls.set(memory.subarray(stored.length));
  }

  /** The level that the control of stored signal i had when it was last looked at. */
  controlLevel(i: number): number {
    return elementAt(this.controls, i) & ~BOTH;
  }

  /** The level of output o, counted from 0, whether or not it is driven. */
  outputLevel(o: number): number {
    return elementAt(this.slots, elementAt(this.machine.outputs, o).value);
  }

  /** Whether output o is driven: LOW when it floats, UNKNOWN when that cannot be known. */
  outputDriven(o: number): number {
    const floats = elementAt(this.slots, elementAt(this.machine.outputs, o).floats);
    return floats === UNKNOWN ? UNKNOWN : 1 - floats;
  }

  /**
   * Lets stored signals take up what the inputs make them do, until nothing changes: all those that
   * one edge clocks sample what stood before it; those clocked by others ripple after. A clear or preset acts at once and
   * outlasts the edges that it makes itself: a signal that was held when a round began takes no edge of that round, as
   * a flip-flop that is released takes none within its recovery time. One that a preset and a clear held and let go of at once is unknown. `onPassing` is called while the memory
   * stands as it does just before a force changes it. False when the latches still chase each other after as many rounds
   * as there are stored signals, twice, and two.
   */
  settle(onPassing?: () => void): boolean {
    const { program, stored } = this.machine;
    evaluateLevels(program, this.slots);
    this.locks.fill(0);
    for (let round = 0; round < 2 * stored.length + 2; round++) {
      if (onPassing && this.isForcedElsewhere()) onPassing();
      if (!this.clock()) return true;
      evaluateLevels(program, this.slots);
    }
    return stored.length === 0;
  }

  /** Whether a clear or preset holds any of what is stored. */
  get isForced(): boolean {
    return this.machine.stored.some((s) => s.forces.some(({ slot }) => this.slots[slot] === HIGH));
  }

  /** Whether a clear or preset is about to change what is stored. */
  private isForcedElsewhere(): boolean {
    return this.machine.stored.some((s) => {
      const force = s.forces.find(({ slot }) => this.slots[slot] === HIGH);
      return force !== undefined && this.slots[s.self] !== force.to;
    });
  }

  private clock(): boolean {
    const { stored } = this.machine;
    stored.forEach((s, i) => {
      const control = elementAt(this.slots, s.control);
      const before = this.locks[i] === 1 && s.edge !== edges.while ? control : this.controlLevel(i);
      const held = this.heldWays(s);
      // Let go of by preset and clear at once, it falls to either side, unless an open latch has something to take.
      const isLetGo = held === 0 && (elementAt(this.controls, i) & BOTH) !== 0;
      const isTaking = s.edge === edges.while && control === HIGH;
      this.next[i] = isLetGo && !isTaking ? UNKNOWN : this.forced(s, this.taken(s, before, control));
      this.controls[i] = held === EITHER ? control | BOTH : control;
      this.locks[i] = held === 0 ? 0 : 1;
    });
    let changed = false;
    stored.forEach((s, i) => {
      if (this.slots[s.self] === this.next[i]) return;
      this.slots[s.self] = elementAt(this.next, i);
      changed = true;
    });
    return changed;
  }

  /** By what a stored signal is held: a bit each for clear and preset. */
  private heldWays({ forces }: StoredSlots): number {
    let held = 0;
    for (const { to, slot } of forces) if (this.slots[slot] === HIGH) held |= 1 << to;
    return held;
  }

  /** A value after the forces, the first of them strongest; one that may be active leaves it known only if it agrees. */
  private forced(s: StoredSlots, value: number): number {
    for (let f = s.forces.length - 1; f >= 0; f--) {
      const { to, slot } = elementAt(s.forces, f);
      const level = elementAt(this.slots, slot);
      if (level === HIGH) value = to;
      else if (level === UNKNOWN && value !== to) value = UNKNOWN;
    }
    return value;
  }

  private taken(s: StoredSlots, before: number, control: number): number {
    const self = elementAt(this.slots, s.self);
    const data = elementAt(this.slots, s.data);
    if (s.edge === 2) return control === HIGH ? data : control === LOW || data === self ? self : UNKNOWN;
    const [from, to] = s.edge === 0 ? [LOW, HIGH] : [HIGH, LOW];
    if (before === from && control === to) return data;
    const perhaps =
      before !== control && (before === UNKNOWN ? control === to : control === UNKNOWN && before === from);
    return perhaps && data !== self ? UNKNOWN : self;
  }
}
