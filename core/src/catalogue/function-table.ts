import { elementAt } from '../element-at';
import { HIGH, LOW, MachineRun, UNKNOWN } from '../logic';
import { onceFor } from '../memo';
import type { Unit } from './part';

/**
 * A function table as data sheets print it. Inputs: `H`, `L`, `X` either, `↑` and `↓` edges, `no ↑` anything but that edge. Outputs: `H`, `L`, `Z` off, `as before`, `other way`,
 * the input that is passed on, as it is or inverted (`=D3`, `/D3`), or `counts up`, `counts down`.
 */
export interface FunctionTable {
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  readonly rows: readonly { readonly inputs: readonly string[]; readonly outputs: readonly string[] }[];
}

/** Longer tables are not printed: equations say it better. */
const MOST_ROWS = 26;
/** Units that store more have no table. */
const MOST_STORED = 8;
/** As many outputs as fit side by side. */
const MOST_OUTPUTS = 16;
/** Inputs beyond these would take too long to look through, one after the other. */
const MOST_INPUTS = 22;

type Symbols = Readonly<Record<string, string>>;
/** One row as it is found: what is asked of inputs, and what outputs do. */
interface Found {
  readonly asked: Symbols;
  readonly outputs: readonly string[];
}

/**
 * The function table of a unit, worked out of its behaviour: inputs are fixed one after the other, first the one that settles most, and each row holds in
 * three-valued simulation, whatever the others are. Null where it would be too long, or the unit has pulses that end by themselves.
 */
export const printedTableOf: (unit: Unit) => FunctionTable | null = onceFor(workedOut);

function workedOut(unit: Unit): FunctionTable | null {
  const { inputs, outputs, stored } = unit.behaviour;
  const told = toldOutputs(unit);
  if (unit.timers.length > 0 || stored.length > MOST_STORED || inputs.length > MOST_INPUTS) return null;
  if (told.length === 0 || told.length > MOST_OUTPUTS) return null;
  const rows = new TableFinder(unit, told).rows();
  if (!rows || rows.length > MOST_ROWS) return null;
  return {
    inputs,
    outputs: told.map((o) => elementAt(outputs, o).name),
    rows: rows.map(({ asked, outputs: does }) => ({ inputs: inputs.map((name) => asked[name] ?? 'X'), outputs: does })),
  };
}

/** So many stored bits are looked at in all of their states, for counts; of more, these are taken. */
const MOST_COUNTED = 4;
const PATTERNS = [0x00, 0xff, 0x55, 0xaa, 0x33, 0xcc, 0x0f, 0xf0] as const;
/** How data sheets call inputs that are passed on as they are: `D3`, `1A`, `E15`, `1C0`, `SER`. */
const DATA = /^(D\d*|\d?[AB]\d|\d[ABD]|E\d+|\dC\d|[A-H]|SER|S[RL])$/;
/** So often a unit is run for its table; longer ones are not looked for. */
const MOST_RUNS = 3500;

/** What an output does in a row; null where that is not settled yet. */
type Outcome = string | null;

class TableFinder {
  private readonly run: MachineRun;
  private readonly names: readonly string[];
  private readonly clocks: ReadonlySet<string>;
  private readonly states: readonly (readonly number[])[];
  /** Inputs whose level may be passed on: those that are called so, where others are there to choose by, and no decoder's. */
  private readonly data: readonly string[];
  private runs = 0;

  constructor(
    private readonly unit: Unit,
    private readonly told: readonly number[],
  ) {
    const { inputs, gates, stored } = unit.behaviour;
    this.run = new MachineRun(unit.machine);
    this.names = inputs;
    const made = new Map(gates.map((gate) => [gate.output, gate.inputs]));
    const inputsOf = (net: string): string[] => made.get(net)?.flatMap(inputsOf) ?? [net];
    const controls = stored.filter((s) => s.edge !== 'while').flatMap((s) => inputsOf(s.control));
    this.clocks = new Set(inputs.filter((name) => controls.includes(name)));
    // All states of a few bits; of more, some in which neighbours are alike and some in which they are not.
    const isMany = stored.length > MOST_COUNTED;
    const bit = (n: number, i: number): number => ((isMany ? elementAt(PATTERNS, n) : n) >> i) & 1;
    this.states = Array.from({ length: isMany ? PATTERNS.length : 2 ** stored.length }, (_, n) =>
      stored.map((_s, i) => (bit(n, i) ? HIGH : LOW)),
    );
    const names = new Set(unit.behaviour.outputs.map((o) => o.name));
    // A letter alone is an address, but where a stored bit of that letter is loaded from it.
    const isData = (name: string): boolean =>
      DATA.test(name) && (name.length > 1 || name === 'D' || names.has(`Q${name}`));
    const data = inputs.filter((name) => isData(name) && !this.clocks.has(name));
    // A decoder has more outputs than address lines, which look like data.
    const isChosen = data.length < inputs.length && told.length <= 2 * data.length;
    this.data = isChosen && !unit.gate ? data : [];
  }

  rows(): readonly Found[] | null {
    return this.below({}, this.outcomes({}));
  }

  /** The rows under what is asked so far; null where they are too many. */
  private below(asked: Symbols, does: readonly Outcome[]): readonly Found[] | null {
    if (this.runs > MOST_RUNS) return null;
    if (does.every((one) => one !== null)) return [{ asked, outputs: does as string[] }];
    const open = this.names.filter((name) => asked[name] === undefined);
    const controls = open.filter((name) => !this.data.includes(name));
    const left = controls.length > 0 ? controls : open;
    let best: { readonly branches: readonly (readonly [string, readonly Outcome[]])[]; readonly name: string } | null =
      null;
    let least = Number.POSITIVE_INFINITY;
    for (const name of left) {
      const symbols = this.clocks.has(name) ? ['↑', '↓', 'H', 'L'] : ['H', 'L'];
      const branches = symbols.map((symbol) => [symbol, this.outcomes({ ...asked, [name]: symbol })] as const);
      const unsettled =
        branches.reduce((sum, [, b]) => sum + b.filter((one) => one === null).length, 0) / symbols.length;
      // A row by itself is worth more than many half settled ones.
      const settled = branches.filter(([, b]) => b.every((one) => one !== null)).length / symbols.length;
      const worth = unsettled - does.length * settled;
      if (worth < least) [least, best] = [worth, { branches, name }];
    }
    if (!best) return null;
    const rows: Found[] = [];
    const { name, branches } = best;
    const parts = branches.map(([symbol, b]) => [symbol, this.below({ ...asked, [name]: symbol }, b)] as const);
    for (const [, part] of parts) {
      if (part === null) return null;
      rows.push(...(this.clocks.has(name) ? [] : part));
      if (rows.length > MOST_ROWS) return null;
    }
    return this.clocks.has(name) ? clocked(name, parts as readonly (readonly [string, readonly Found[]])[]) : rows;
  }

  /** What each output does where some inputs are fixed and the others may be anything. */
  private outcomes(asked: Symbols): Outcome[] {
    const hasMoved = Object.values(asked).some((symbol) => symbol === '↑' || symbol === '↓');
    const isStoring = this.states.length > 1;
    const still = isStoring && !hasMoved && [...this.clocks].some((name) => asked[name] === undefined);
    const runs = this.states.map((state) => this.after(asked, state));
    const mayPass = !isStoring || hasMoved || this.clocks.size === 0;
    let passes: readonly Outcome[] | null = null;
    return this.told.map((_, o) => {
      const seen = runs.map((run) => elementAt(run.after, o));
      const first = elementAt(seen, 0);
      if (first !== 'X' && seen.every((one) => one === first)) return first;
      if (still) return null;
      const moved = isStoring && hasMoved ? this.moved(runs, o) : null;
      if (moved) return moved;
      if (isStoring) {
        const before = runs.map((run) => elementAt(run.before, o));
        if (seen.every((one, i) => one !== 'X' && one === before[i])) return 'as before';
        if (seen.every((one, i) => one !== 'X' && one !== 'Z' && before[i] !== 'X' && one !== before[i]))
          return 'other way';
      }
      passes ??= mayPass ? this.passed(asked) : [];
      return passes[o] ?? null;
    });
  }

  /** The input that each output passes on; null where it is none. */
  private passed(asked: Symbols): Outcome[] {
    const found: Outcome[] = this.told.map(() => null);
    for (const name of this.data) {
      if (asked[name] !== undefined) continue;
      const [low, high] = ['L', 'H'].map((symbol) =>
        this.states.map((state) => this.after({ ...asked, [name]: symbol }, state).after),
      ) as [string[][], string[][]];
      found.forEach((_, o) => {
        const are = (runs: readonly string[][], level: string): boolean => runs.every((run) => run[o] === level);
        if (are(low, 'L') && are(high, 'H')) found[o] = `=${name}`;
        if (are(low, 'H') && are(high, 'L')) found[o] = `/${name}`;
      });
    }
    return found;
  }

  /** Whether the outputs together count at an edge; null where they do not, or not all is known. */
  private moved(
    runs: readonly { readonly before: readonly string[]; readonly after: readonly string[] }[],
    o: number,
  ): Outcome {
    if (runs.some(({ after }) => after[o] === 'X') || runs.length < 4) return null;
    const bits = this.told.map((out) => elementAt(this.unit.behaviour.outputs, out).name);
    const words = ['QD QC QB QA', 'Q4 Q3 Q2 Q1']
      .map((text) => text.split(' '))
      .find((word) => word.every((n) => bits.includes(n)));
    if (!words?.includes(elementAt(bits, o))) return null;
    const number = (levels: readonly string[]): number =>
      words.reduce((sum, name) => 2 * sum + (levels[bits.indexOf(name)] === 'H' ? 1 : 0), 0);
    const steps = runs.map(({ before, after }) => [number(before), number(after)] as const);
    // A decade counts up to nine; from ten on each goes its own way.
    const tops = [9, 15];
    for (const top of tops) {
      const within = steps.filter(([from]) => from <= top);
      if (within.every(([from, to]) => to === (from === top ? 0 : from + 1))) return 'counts up';
      if (within.every(([from, to]) => to === (from === 0 ? top : from - 1))) return 'counts down';
    }
    return null;
  }

  /** What outputs show before and after an edge that is asked for, from a state; without one the same twice. */
  private after(
    asked: Symbols,
    state: readonly number[],
  ): { readonly before: readonly string[]; readonly after: readonly string[] } {
    const put = (edge: 0 | 1): void => {
      this.names.forEach((name, i) => {
        const symbol = asked[name];
        const moving = symbol === '↑' ? [LOW, HIGH] : symbol === '↓' ? [HIGH, LOW] : null;
        const level = moving ? moving[edge] : symbol === 'H' ? HIGH : symbol === 'L' ? LOW : UNKNOWN;
        this.run.setInput(i, level as number);
      });
    };
    // Inputs first, so that what is stored is put in without an edge behind it.
    this.runs++;
    put(0);
    this.run.settle();
    state.forEach((level, i) => {
      this.run.setStored(i, level);
    });
    this.run.settle();
    const before = this.shownNow();
    put(1);
    this.run.settle();
    return { before, after: this.shownNow() };
  }

  private shownNow(): string[] {
    const { drives, machine } = this.unit;
    return this.told.map((o) => {
      const output = elementAt(machine.outputs, o);
      const level = this.run.outputLevel(o);
      if (output.open) return level === HIGH ? 'Z' : level === LOW ? 'L' : 'X';
      const driven = this.run.outputDriven(o);
      if (drives[o] === 'three-state' && driven === LOW) return 'Z';
      return driven === UNKNOWN || level === UNKNOWN ? 'X' : level === HIGH ? 'H' : 'L';
    });
  }
}

/** The outputs that a table speaks of: of units that store, those of single bits; a carry follows from all of them. */
function toldOutputs({ behaviour: { gates, stored, outputs } }: Unit): number[] {
  const made = new Map(gates.map((gate) => [gate.output, gate.inputs]));
  const names = new Set(stored.map((s) => s.name));
  const bitsOf = (net: string): string[] => (names.has(net) ? [net] : (made.get(net)?.flatMap(bitsOf) ?? []));
  return [...outputs.keys()].filter((o) => new Set(bitsOf(elementAt(outputs, o).net)).size <= 1);
}

/** Rows under a clock: what its levels and edges have in common is one row. */
function clocked(name: string, parts: readonly (readonly [string, readonly Found[]])[]): Found[] {
  const key = ({ asked, outputs }: Found): string => JSON.stringify([{ ...asked, [name]: '' }, outputs]);
  const groups = new Map<string, { readonly found: Found; readonly symbols: string[] }>();
  for (const [symbol, part] of parts)
    for (const found of part) {
      const group = groups.get(key(found)) ?? { found, symbols: [] };
      group.symbols.push(symbol);
      groups.set(key(found), group);
    }
  const others: Readonly<Record<string, string>> = { '↓ H L': 'no ↑', '↑ H L': 'no ↓', '↑ ↓ H L': 'X' };
  return [...groups.values()].flatMap(({ found, symbols }) => {
    const joined = others[symbols.join(' ')];
    const each = joined ? [joined] : symbols;
    return each.map((symbol) => ({ ...found, asked: { ...found.asked, [name]: symbol } }));
  });
}
