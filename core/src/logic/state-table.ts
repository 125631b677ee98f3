import { elementAt } from '../element-at';
import { type Behaviour, compileMachine, MachineRun } from './machine';
import { HIGH, LOW, UNKNOWN } from './program';

/**
 * What one clock pulse makes of a state, for one setting of the other inputs; states and outputs as words of 0, 1 and X. `passing` are the states
 * that last only until a clear or preset, which the design gives itself, has acted: on the bench some nanoseconds.
 */
export interface Transition {
  readonly from: string;
  readonly inputs: string;
  readonly outputs: string;
  readonly to: string;
  readonly passing: readonly string[];
}

/**
 * The states a clocked design reaches from `start`, and what follows each at the edge of `clock`. Words
 * list `stored`, `inputs` (all but the clock) and `outputs` in order. `whole` is false when there were
 * more states or settings than are listed.
 */
export interface StateTable {
  readonly clock: string;
  readonly edge: 'rise' | 'fall';
  readonly stored: readonly string[];
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  readonly start: string;
  readonly transitions: readonly Transition[];
  readonly whole: boolean;
}

/** Most states and settings of the inputs that are listed. */
export const MAX_STATES = 64;
const MAX_SETTINGS = 16;

const word = (levels: readonly number[]): string => levels.map((l) => (l === UNKNOWN ? 'X' : String(l))).join('');
const bits = (text: string): number[] => [...text].map((c) => (c === 'X' ? UNKNOWN : Number(c)));

/** The inputs that clock something, directly or through gates; the likeliest clock first. */
export function clocksOf({ inputs, gates, stored }: Behaviour): string[] {
  const reads = new Map(gates.map((g) => [g.output, g.inputs]));
  const direct = stored.map((s) => s.control).filter((n) => inputs.includes(n));
  const through = stored.flatMap((s) => (reads.get(s.control) ?? []).filter((n) => inputs.includes(n)));
  return [...new Set([...direct, ...through])];
}

/** The edge that most of what a clock drives directly waits for. */
export function edgeOf({ stored }: Behaviour, clock: string): 'rise' | 'fall' {
  const own = stored.filter((s) => s.control === clock);
  return own.filter((s) => s.edge === 'fall').length > own.length / 2 ? 'fall' : 'rise';
}

/** Lists states and transitions by running the design: each state with each setting, one pulse of the clock. */
export function stateTable(behaviour: Behaviour, clock: string, start?: string): StateTable {
  const edge = edgeOf(behaviour, clock);
  const inputs = behaviour.inputs.filter((n) => n !== clock);
  const stored = behaviour.stored.map((s) => s.name);
  const begin = start ?? '0'.repeat(stored.length);
  const settings = Array.from({ length: Math.min(2 ** inputs.length, MAX_SETTINGS) }, (_, k) =>
    inputs.map((_n, i) => (k >>> (inputs.length - 1 - i)) & 1),
  );
  const machine = compileMachine(behaviour);
  const transitions: Transition[] = [];
  const seen = new Set([begin]);
  const todo = [begin];
  let whole = 2 ** inputs.length <= MAX_SETTINGS;
  for (let state = todo.shift(); state !== undefined; state = todo.shift()) {
    for (const setting of settings) {
      const run = new MachineRun(machine);
      const step = pulsed(run, behaviour, { clock, edge }, { state: bits(state), inputs, setting });
      transitions.push({ from: state, inputs: word(setting), ...step });
      if (seen.has(step.to)) continue;
      if (seen.size >= MAX_STATES) whole = false;
      else {
        seen.add(step.to);
        todo.push(step.to);
      }
    }
  }
  const outputs = behaviour.outputs.map((o) => o.name);
  return { clock, edge, stored, inputs, outputs, start: begin, transitions, whole };
}

/** One pulse: the outputs as they stand before the edge, and the state after it. */
function pulsed(
  run: MachineRun,
  behaviour: Behaviour,
  { clock, edge }: { readonly clock: string; readonly edge: 'rise' | 'fall' },
  {
    state,
    inputs,
    setting,
  }: { readonly state: readonly number[]; readonly inputs: readonly string[]; readonly setting: readonly number[] },
): { outputs: string; to: string; passing: string[] } {
  const at = (name: string): number => behaviour.inputs.indexOf(name);
  const rest = edge === 'rise' ? LOW : HIGH;
  inputs.forEach((name, i) => {
    run.setInput(at(name), elementAt(setting, i));
  });
  run.setInput(at(clock), rest);
  run.restore(state);
  const outputs = word(behaviour.outputs.map((_, o) => run.outputLevel(o)));
  const now = (): string => word(behaviour.stored.map((_, i) => run.storedLevel(i)));
  const seen = new Set<string>();
  const passing = (): void => void seen.add(now());
  run.setInput(at(clock), HIGH + LOW - rest);
  run.settle(passing);
  run.setInput(at(clock), rest);
  run.settle(passing);
  const to = now();
  seen.delete(word(state));
  seen.delete(to);
  return { outputs, to, passing: [...seen] };
}
