import { elementAt } from '../element-at';
import { coneOf } from './cone';
import type { Behaviour } from './machine';
import { Explorer, keyOf, type RestState } from './rest-states';

/**
 * All that a clocked design may do when its inputs change one at a time. `after` gives, for each state and each input, the state that follows
 * when that input turns over; -1 where the graph was cut. `toStart` are the inputs to turn over, all being low, until all that is stored is known;
 * null where no way was found, and the start is taken with nothing stored.
 */
export interface TransitionGraph {
  readonly states: readonly RestState[];
  readonly after: readonly Int32Array[];
  /** The names of the inputs. */
  readonly inputs: readonly string[];
  readonly toStart: readonly number[] | null;
  /** Inputs that may change what is stored: clocks, clears, presets, enables of latches. */
  readonly stepping: readonly number[];
  readonly isWhole: boolean;
}

/** States of a graph at the most. */
const MOST_STATES = 4096;

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
  return { states, after, inputs: behaviour.inputs, toStart, stepping: steppingInputs(behaviour), isWhole };
}

/** Inputs behind the clocks, enables, clears and presets of what is stored, through gates. */
function steppingInputs({ inputs, gates, stored }: Behaviour): number[] {
  const found = coneOf(
    gates,
    stored.flatMap(({ control, forces }) => [control, ...forces.map((f) => f.net)]),
  );
  return inputs.flatMap((name, i) => (found.has(name) ? [i] : []));
}
