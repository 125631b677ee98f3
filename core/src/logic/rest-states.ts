import { elementAt } from '../element-at';
import { type Behaviour, compileMachine, MachineRun } from './machine';
import { HIGH, LOW, UNKNOWN } from './program';

/** A design at rest: its inputs and what it stores, as bits in the order of the behaviour, and what each output should show; null where nothing is wanted of one. */
export interface RestState {
  readonly inputs: string;
  readonly stored: string;
  readonly wanted: readonly (0 | 1 | null)[];
}

/** States looked at on the way to a start, at the most. */
const MOST_LOOKED_AT = 20_000;

/** A machine at rest: the levels of its inputs, and its memory. */
export interface Rest {
  readonly inputs: Uint8Array;
  readonly memory: Uint8Array;
}

/** Tells rests apart. */
export const keyOf = ({ inputs, memory }: Rest): string => `${inputs.join('')} ${memory.join('')}`;

/** Runs a design's machine from rest to rest. */
export class Explorer {
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

  /** Every rest that a board may be in as the power comes on, its inputs low and each bit as chance has it. */
  everyStart(): Rest[] {
    return Array.from({ length: 2 ** this.bits }, (_, start) => {
      const inputs = new Uint8Array(this.width);
      this.put(inputs);
      this.run.restore(Array.from({ length: this.bits }, (_, bit) => ((start >>> bit) & 1 ? HIGH : LOW)));
      this.run.settle();
      return this.rest(inputs);
    });
  }

  /** What is stored and shown at a rest. */
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

/**
 * The states of its sheet in which a board may be, as far as its outputs have told: at power up every one, and after each press those alone that
 * show what was seen.
 */
export class PossibleStates {
  private readonly explorer: Explorer;
  private readonly next = new Map<string, Rest>();
  private readonly shown = new Map<string, RestState>();
  private rests: readonly Rest[];

  /** Of a design whose bits are few enough that all their states can be told apart: 2 to their power are gone through. */
  constructor(behaviour: Behaviour) {
    this.explorer = new Explorer(behaviour);
    this.rests = different(this.explorer.everyStart());
  }

  /** One input turns over. */
  press(input: number): void {
    this.rests = different(
      this.rests.map((rest) => kept(this.next, `${input} ${keyOf(rest)}`, () => this.explorer.turn(rest, input))),
    );
  }

  /** What each state that is left shows. */
  private states(): RestState[] {
    return this.rests.map((rest) => kept(this.shown, keyOf(rest), () => this.explorer.describe(rest)));
  }

  /** What all that are left want of each output; null where they want different things, or nothing. */
  wanted(): (0 | 1 | null)[] {
    const [first, ...others] = this.states().map((s) => s.wanted);
    return (first ?? []).map((level, o) => (others.every((w) => w[o] === level) ? level : null));
  }

  /** Levels of the outputs are seen: states that want others are out. Whether any is left. */
  see(levels: readonly number[]): boolean {
    const states = this.states();
    const left = this.rests.filter((_, i) =>
      elementAt(states, i).wanted.every((w, o) => w === null || levels[o] === w),
    );
    if (left.length > 0) this.rests = left;
    return left.length > 0;
  }

  /** The inputs, and what is stored as far as all that are left agree: `?` where they do not. */
  where(): { readonly inputs: string; readonly stored: string } {
    const [first, ...others] = this.states();
    if (!first) return { inputs: '', stored: '' };
    const stored = [...first.stored].map((bit, i) => (others.every((s) => s.stored[i] === bit) ? bit : '?')).join('');
    return { inputs: first.inputs, stored };
  }
}

const different = (rests: readonly Rest[]): Rest[] => [...new Map(rests.map((rest) => [keyOf(rest), rest])).values()];

function kept<T>(known: Map<string, T>, key: string, make: () => T): T {
  const before = known.get(key);
  if (before !== undefined) return before;
  const made = make();
  known.set(key, made);
  return made;
}
