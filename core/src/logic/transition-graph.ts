import { elementAt } from '../element-at';
import { type Behaviour, compileMachine, MachineRun } from './machine';
import { HIGH, LOW, UNKNOWN } from './program';

/** A design at rest: its inputs and what it stores, as bits in the order of the behaviour, and what each output should show; null where nothing is wanted of one. */
export interface RestState {
  readonly inputs: string;
  readonly stored: string;
  readonly wanted: readonly (0 | 1 | null)[];
}

/**
 * All that a clocked design may do when its inputs change one at a time. `after` gives, for each state and each input, the state that follows
 * when that input turns over; -1 where the graph was cut. `toStart` are the inputs to turn over, all being low, until all that is stored is known;
 * null where no way was found, and the start is taken with nothing stored.
 */
export interface TransitionGraph {
  readonly states: readonly RestState[];
  readonly after: readonly Int32Array[];
  readonly toStart: readonly number[] | null;
  /** Inputs that may change what is stored: clocks, clears, presets, enables of latches. */
  readonly stepping: readonly number[];
  readonly isWhole: boolean;
}

/** States of a graph, and states looked at on the way to a start, at the most. */
const MOST_STATES = 4096;
const MOST_LOOKED_AT = 20_000;

/** The graph of a design's transitions, found breadth first by running its machine. */
export function transitionGraph(behaviour: Behaviour, mostStates = MOST_STATES): TransitionGraph {
  const explorer = new Explorer(behaviour);
  const toStart = explorer.wayToStart();
  const first = explorer.begin(toStart);
  const [states, after] = [[] as RestState[], [] as Int32Array[]];
  const indexOf = new Map([[keyOf(first), 0]]);
  const found = [first];
  let isWhole = true;
  for (let s = 0; s < found.length; s++) {
    const memory = elementAt(found, s);
    states.push(explorer.describe(memory));
    const row = new Int32Array(behaviour.inputs.length).fill(-1);
    behaviour.inputs.forEach((_, i) => {
      const next = explorer.turn(memory, i);
      const key = keyOf(next);
      let index = indexOf.get(key);
      if (index === undefined && found.length < mostStates) {
        index = found.push(next) - 1;
        indexOf.set(key, index);
      }
      if (index === undefined) isWhole = false;
      else row[i] = index;
    });
    after.push(row);
  }
  return { states, after, toStart, stepping: steppingInputs(behaviour), isWhole };
}

/** A machine at rest: the levels of its inputs, and its memory. */
interface Rest {
  readonly inputs: Uint8Array;
  readonly memory: Uint8Array;
}

const keyOf = ({ inputs, memory }: Rest): string => `${inputs.join('')} ${memory.join('')}`;

class Explorer {
  private readonly run: MachineRun;
  private readonly width: number;
  private readonly bits: number;

  constructor(behaviour: Behaviour) {
    this.run = new MachineRun(compileMachine(behaviour));
    this.width = behaviour.inputs.length;
    this.bits = behaviour.stored.length;
  }

  private rest(inputs: Uint8Array): Rest {
    return { inputs, memory: this.run.memory() };
  }

  private put(inputs: Uint8Array): void {
    inputs.forEach((level, i) => {
      this.run.setInput(i, level);
    });
  }

  /** As the power comes on: inputs low, nothing known of what is stored. */
  private fresh(): Rest {
    const inputs = new Uint8Array(this.width);
    this.put(inputs);
    this.run.recall(new Uint8Array(2 * this.bits).fill(UNKNOWN));
    this.run.settle();
    return this.rest(inputs);
  }

  /** What follows when an input turns over. */
  turn({ inputs, memory }: Rest, i: number): Rest {
    const next = inputs.slice();
    next[i] = HIGH + LOW - elementAt(inputs, i);
    this.put(next);
    this.run.recall(memory);
    this.run.settle();
    return this.rest(next);
  }

  /** The fewest inputs to turn over until all that is stored is known; null where none was found. */
  wayToStart(): number[] | null {
    const isKnown = ({ memory }: Rest): boolean => !memory.subarray(0, this.bits).includes(UNKNOWN);
    const begin = this.fresh();
    const from = new Map<string, { readonly before: string; readonly input: number } | null>([[keyOf(begin), null]]);
    const queue = [begin];
    for (let n = 0; n < queue.length && n < MOST_LOOKED_AT; n++) {
      const at = elementAt(queue, n);
      if (isKnown(at)) {
        const way: number[] = [];
        for (let step = from.get(keyOf(at)); step; step = from.get(step.before)) way.unshift(step.input);
        return way;
      }
      for (let i = 0; i < this.width; i++) {
        const next = this.turn(at, i);
        const key = keyOf(next);
        if (from.has(key)) continue;
        from.set(key, { before: keyOf(at), input: i });
        queue.push(next);
      }
    }
    return null;
  }

  /** The first state of the graph: after the way to it, or with nothing stored. */
  begin(toStart: readonly number[] | null): Rest {
    if (toStart) return toStart.reduce((at, i) => this.turn(at, i), this.fresh());
    const inputs = new Uint8Array(this.width);
    this.put(inputs);
    this.run.restore(new Array<number>(this.bits).fill(LOW));
    this.run.settle();
    return this.rest(inputs);
  }

  describe({ inputs, memory }: Rest): RestState {
    this.put(inputs);
    this.run.recall(memory);
    this.run.settle();
    const { machine, slots } = this.run;
    const wanted = machine.outputs.map(({ value, floats, dontCare }) => {
      const level = slots[value];
      const isFree = slots[dontCare] !== LOW || slots[floats] !== LOW || level === UNKNOWN;
      return isFree ? null : level === HIGH ? 1 : 0;
    });
    return { inputs: inputs.join(''), stored: memory.subarray(0, this.bits).join(''), wanted };
  }
}

/** Inputs behind the clocks, enables, clears and presets of what is stored, through gates. */
function steppingInputs({ inputs, gates, stored }: Behaviour): number[] {
  const reads = new Map(gates.map((g) => [g.output, g.inputs]));
  const found = new Set<string>();
  const seek = (net: string): void => {
    if (found.has(net)) return;
    found.add(net);
    for (const more of reads.get(net) ?? []) seek(more);
  };
  for (const { control, forces } of stored) for (const net of [control, ...forces.map((f) => f.net)]) seek(net);
  return inputs.flatMap((name, i) => (found.has(name) ? [i] : []));
}
