import { elementAt } from '../element-at';
import { HIGH, LOW, type MachineOutput, MachineRun, UNKNOWN } from '../logic';
import { onceFor } from '../memo';
import { findChip, type PartName, typeOf } from './catalogue';

import type { Unit } from './part';

/**
 * A function table as data sheets print it. Inputs: `H`, `L`, `X` either, `↑` and `↓` edges, `no ↑` anything but that edge, `⊓` a whole pulse with
 * the others held. Outputs: `H`, `L`, `Z` off, of analogue switches `closed` and `open`, `as before`, `other way`,
 * the input that is passed on, as it is or inverted (`=D3`, `/D3`), what a stage was before that is shifted on (`was QA`, `was not QA`), `counts up`, `counts down`, or of a one-shot
 * `pulse` and `low pulse`.
 */
export interface FunctionTable {
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  readonly rows: readonly { readonly inputs: readonly string[]; readonly outputs: readonly string[] }[];
}

/** Longer tables are not printed: equations say it better. */
const MOST_ROWS = 34;
/** Units that store more have no table. */
const MOST_STORED = 16;
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
 * three-valued simulation, whatever the others are. Null where it would be too long.
 */
export const printedTableOf: (unit: Unit) => FunctionTable | null = onceFor(workedOut);

/** The same of a unit by its name in a chip, by its base number, or in a part of one's own; null where there is no such unit, too. */
export function printedTableIn(part: PartName, unit: string): FunctionTable | null {
  const found = (part.own === undefined ? findChip(part.part) : typeOf(part))?.units.find((u) => u.name === unit);
  return found ? printedTableOf(found) : null;
}

function workedOut(unit: Unit): FunctionTable | null {
  const { outputs, stored } = unit.behaviour;
  const timed = new Set(unit.timers.map((t) => t.input));
  const inputs = unit.behaviour.inputs.filter((_, i) => !timed.has(i));
  const told = toldOutputs(unit);
  if (stored.length > MOST_STORED || inputs.length > MOST_INPUTS) return null;
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
const PATTERNS = [0, 0xffff, 0x5555, 0xaaaa, 0x3333, 0xcccc, 0x0f0f, 0xf0f0, 0x00ff, 0xff00] as const;
/** How data sheets call inputs that are passed on as they are: `D3`, `1A`, `E15`, `1C0`, `SER`. */
const DATA = /^(D\d*|\d?[AB]\d|\d[ABD]|E\d+|\dC\d|[A-H]|SER|S[RL])$/;
/** So often a unit is run for its table, one that stores something and another; longer ones are not looked for. */
const MOST_RUNS = { storing: 20_000, other: 14_000 } as const;

/** What outputs show, and the levels of what is stored, before a row's edge and after it. */
interface Run {
  readonly before: readonly string[];
  readonly kept: readonly number[];
  readonly after: readonly string[];
  readonly now: readonly number[];
}

/** What an output does in a row; null where that is not settled yet. */
type Outcome = string | null;

class TableFinder {
  private readonly run: MachineRun;
  private readonly names: readonly string[];
  private readonly clocks: ReadonlySet<string>;
  /** Clocks of pulse-triggered flip-flops: nothing but a whole pulse takes anything to the outputs. */
  private readonly pulseClocks: ReadonlySet<string>;
  private readonly states: readonly (readonly number[])[];
  /** Inputs whose level may be passed on: those that are called so, where others are there to choose by, and no decoder's. */
  private readonly data: readonly string[];
  /** How stored bits are called: by the output that shows them, else by their own names. */
  private readonly stages: readonly string[];
  /** Stages that may count together, the most significant first. */
  private readonly words: readonly (readonly number[])[];
  private runs = 0;

  constructor(
    private readonly unit: Unit,
    private readonly told: readonly number[],
  ) {
    const { inputs, gates, stored } = unit.behaviour;
    this.run = new MachineRun(unit.machine);
    const timed = new Set(unit.timers.map((t) => t.input));
    this.names = inputs.filter((_, i) => !timed.has(i));
    const made = new Map(gates.map((gate) => [gate.output, gate.inputs]));
    const inputsOf = (net: string): string[] => made.get(net)?.flatMap(inputsOf) ?? [net];
    const controls = stored.filter((s) => s.edge !== 'while').flatMap((s) => inputsOf(s.control));
    this.clocks = new Set(this.names.filter((name) => controls.includes(name)));
    const { outputs } = unit.behaviour;
    this.stages = stored.map((s) => outputs.find((o) => o.net === s.name)?.name ?? hiddenStage(s.name, outputs));
    const counting = wordsOf(this.stages);
    this.words = counting.flatMap((word) => [word, word.slice(0, -1)]).filter((word) => word.length > 2);
    // All states of a few bits; of more, some in which neighbours are alike and some in which they are not.
    const isMany = stored.length > MOST_COUNTED;
    const bit = (n: number, i: number): number => ((isMany ? elementAt(PATTERNS, n) : n) >> i) & 1;
    const pairs = mastersOf(unit);
    this.pulseClocks = new Set(pairs.map(([, slave]) => elementAt(stored, slave).control));
    // Between pulses a master holds what its flip-flop shows.
    this.states = Array.from({ length: isMany ? PATTERNS.length : 2 ** stored.length }, (_, n) =>
      stored.map((_s, i) => (bit(n, i) ? HIGH : LOW)),
    ).filter((state) => pairs.every(([master, slave]) => state[master] === state[slave]));
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
    const { storing, other } = MOST_RUNS;
    if (this.runs > (this.stages.length > 0 ? storing : other)) return null;
    if (does.every((one) => one !== null)) return [{ asked, outputs: does as string[] }];
    const open = this.names.filter((name) => asked[name] === undefined);
    const controls = open.filter((name) => !this.data.includes(name));
    const left = controls.length > 0 ? controls : open;
    // One edge at a time, as data sheets have them.
    const isMoving = Object.values(asked).some(isEdge);
    let best: { readonly branches: readonly (readonly [string, readonly Outcome[]])[]; readonly name: string } | null =
      null;
    let least = Number.POSITIVE_INFINITY;
    for (const name of left) {
      const moving = this.pulseClocks.has(name) ? ['⊓'] : ['↑', '↓'];
      const symbols = this.clocks.has(name) && !isMoving ? [...moving, 'H', 'L'] : ['H', 'L'];
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
    if (!this.clocks.has(name)) return rows;
    return clocked(name, parts as readonly (readonly [string, readonly Found[]])[], this.pulseClocks.has(name));
  }

  /** What each output does where some inputs are fixed and the others may be anything. */
  private outcomes(asked: Symbols): Outcome[] {
    const hasMoved = Object.values(asked).some(isEdge);
    const isStoring = this.states.length > 1;
    const isOpen = isStoring && [...this.clocks].some((name) => asked[name] === undefined);
    const runs: Run[] = [];
    for (const state of this.states) {
      runs.push(this.after(asked, state));
      // As long as a clock may do anything, only what is the same from every state is settled.
      const [a, b] = runs;
      if (isOpen && a && b && runs.length === 2 && a.after.every((one, o) => one === 'X' || one !== b.after[o])) break;
    }
    let passes: readonly Outcome[] | null = null;
    return this.told.map((_, o) => {
      const seen = runs.map((run) => elementAt(run.after, o));
      const first = elementAt(seen, 0);
      if (first !== 'X' && seen.every((one) => one === first)) return (hasMoved && this.pulsed(runs, first)) || first;
      if (isStoring && !isOpen) {
        const before = runs.map((run) => elementAt(run.before, o));
        if (seen.every((one, i) => one !== 'X' && one === before[i])) return 'as before';
        const counts = hasMoved ? this.counted(runs, o) : null;
        if (counts) return counts;
        if (seen.every((one, i) => one !== 'X' && one !== 'Z' && before[i] !== 'X' && one !== before[i]))
          return 'other way';
        const shifts = hasMoved ? this.shifted(runs, seen) : null;
        if (shifts) return shifts;
      }
      passes ??= this.passed(asked);
      return passes[o] ?? null;
    });
  }

  /** The input that each output passes on; null where it is none. */
  private passed(asked: Symbols): Outcome[] {
    const found: Outcome[] = this.told.map(() => null);
    for (const name of this.data) {
      if (asked[name] !== undefined) continue;
      let [same, inverse] = [[...found.keys()], [...found.keys()]];
      for (const state of this.states) {
        if (same.length + inverse.length === 0) break;
        const [low = [], high = []] = ['L', 'H'].map((symbol) => this.after({ ...asked, [name]: symbol }, state).after);
        same = same.filter((o) => low[o] === 'L' && high[o] === 'H');
        inverse = inverse.filter((o) => low[o] === 'H' && high[o] === 'L');
      }
      for (const o of same) found[o] = `=${name}`;
      for (const o of inverse) found[o] = `/${name}`;
    }
    return found;
  }

  /** The pulse that an output gives, whose end no edge brings; null where its one-shot was not triggered. */
  private pulsed(runs: readonly Run[], level: string): Outcome {
    const isRunning = this.unit.timers.length > 0 && runs.every(({ now }) => now.every((bit) => bit === HIGH));
    return isRunning ? (level === 'H' ? 'pulse' : 'low pulse') : null;
  }

  /** The stage whose bit an output has taken over; null where there is none. */
  private shifted(runs: readonly Run[], seen: readonly string[]): Outcome {
    const inverse: Readonly<Record<string, string>> = { H: 'L', L: 'H' };
    for (const [i, stage] of this.stages.entries()) {
      const was = runs.map(({ kept }) => (kept[i] === UNKNOWN ? 'X' : kept[i] === HIGH ? 'H' : 'L'));
      if (stage === '' || was.includes('X')) continue;
      if (seen.every((level, n) => level === was[n])) return `was ${stage}`;
      if (seen.every((level, n) => level === inverse[was[n] ?? ''])) return `was not ${stage}`;
    }
    return null;
  }

  /** Whether the stage that an output shows counts with others at an edge; null where it does not, or not all is known. */
  private counted(runs: readonly Run[], o: number): Outcome {
    const shown = elementAt(this.unit.behaviour.outputs, elementAt(this.told, o)).name;
    if (runs.length < 4) return null;
    for (const word of this.words) {
      if (!word.some((i) => this.stages[i] === shown)) continue;
      const number = (levels: readonly number[]): number =>
        word.reduce((sum, i) => 2 * sum + (levels[i] === UNKNOWN ? Number.NaN : Number(levels[i] === HIGH)), 0);
      const steps = runs.map(({ kept, now }) => [number(kept), number(now)] as const);
      if (steps.flat().some(Number.isNaN)) continue;
      // A decade counts up to nine, its section to four; from there on each goes its own way.
      const most = 2 ** word.length - 1;
      for (const top of [most, ...(word.length === 4 ? [9] : word.length === 3 ? [4] : [])]) {
        const within = steps.filter(([from]) => from <= top);
        if (within.every(([from, to]) => to === (from === top ? 0 : from + 1))) return 'counts up';
        if (within.every(([from, to]) => to === (from === 0 ? top : from - 1))) return 'counts down';
      }
    }
    return null;
  }

  /** What outputs show before and after an edge that is asked for, from a state; without one the same twice. */
  private after(asked: Symbols, state: readonly number[]): Run {
    this.runs++;
    // Pulses do not end while a row is looked at.
    for (const { input } of this.unit.timers) this.run.setInput(input, LOW);
    // Inputs first, so that what is stored is put in without an edge behind it.
    this.put(asked, 0);
    if (state.length > 0) this.run.restore(state);
    this.run.settle();
    const [before, kept] = [this.shownNow(), this.keptNow()];
    if (!Object.values(asked).some(isEdge)) return { before, kept, after: before, now: kept };
    for (const moment of [1, 2] as const) {
      this.put(asked, moment);
      this.run.settle();
    }
    return { before, kept, after: this.shownNow(), now: this.keptNow() };
  }

  /** Puts inputs at what is asked of them: before an edge, at it, or after it. */
  private put(asked: Symbols, moment: 0 | 1 | 2): void {
    this.names.forEach((name, i) => {
      this.run.setInput(i, levelsOf[asked[name] ?? 'X']?.[moment] ?? UNKNOWN);
    });
  }

  private keptNow(): number[] {
    return this.stages.map((_, i) => this.run.storedLevel(i));
  }

  private shownNow(): string[] {
    const { drives, machine } = this.unit;
    return this.told.map((o) => {
      const output = elementAt(machine.outputs, o);
      const level = this.run.outputLevel(o);
      if (output.open) return level === HIGH ? 'Z' : level === LOW ? 'L' : 'X';
      if (drives[o] === 'analogue-switch') return level === UNKNOWN ? 'X' : level === HIGH ? 'closed' : 'open';
      const driven = this.run.outputDriven(o);
      if (drives[o] === 'three-state' && driven === LOW) return 'Z';
      return driven === UNKNOWN || level === UNKNOWN ? 'X' : level === HIGH ? 'H' : 'L';
    });
  }
}

/** The outputs that a table speaks of: of units that store, those of single bits, if most are such; a carry follows from all of them. */
function toldOutputs({ behaviour: { gates, stored, outputs } }: Unit): number[] {
  const made = new Map(gates.map((gate) => [gate.output, gate.inputs]));
  const names = new Set(stored.map((s) => s.name));
  const bitsOf = (net: string): string[] => (names.has(net) ? [net] : (made.get(net)?.flatMap(bitsOf) ?? []));
  const single = [...outputs.keys()].filter((o) => new Set(bitsOf(elementAt(outputs, o).net)).size <= 1);
  return 2 * single.length >= outputs.length ? single : [...outputs.keys()];
}

/**
 * What a stage that does not come out is called: in capitals, as data sheets call it, unless an output of that name shows another one. Empty for what has
 * no letter or number of a stage, such as the master of a pulse-triggered flip-flop.
 */
function hiddenStage(name: string, outputs: readonly MachineOutput[]): string {
  if (!/[a-h\d]s?$/i.test(name)) return '';
  const capital = name.toUpperCase();
  return outputs.some((o) => o.name === capital) ? name : capital;
}

/** Stages by their names in the order of a count, for each part of a chip: `QD QC QB QA`, `2QD …`, `Q12 Q11 …`; all places in `stages`. */
function wordsOf(stages: readonly string[]): number[][] {
  const parts = new Map<string, number[]>();
  for (const [i, stage] of stages.entries()) {
    const part = /^\dQ/.test(stage) ? stage.slice(0, 1) : '';
    parts.set(part, [...(parts.get(part) ?? []), i]);
  }
  const place = (i: number): number => {
    const [, letter = '', digits] = /Q([A-H]?)(\d*)$/.exec(elementAt(stages, i)) ?? [];
    return letter === '' ? Number(digits) : letter.charCodeAt(0);
  };
  return [...parts.values()].map((part) => part.sort((a, b) => place(b) - place(a)));
}

/** The levels of an input of which something is asked: before an edge, at it, and after it. */
const levelsOf: Readonly<Record<string, readonly [number, number, number]>> = {
  H: [HIGH, HIGH, HIGH],
  L: [LOW, LOW, LOW],
  '↑': [LOW, HIGH, HIGH],
  '↓': [HIGH, LOW, LOW],
  '⊓': [LOW, HIGH, LOW],
};
const isEdge = (symbol: string): boolean => levelsOf[symbol]?.[0] !== levelsOf[symbol]?.[1];

/** Stored signals that only pass what they hold on to another, when the clock falls: master and slave, by their places. */
export function mastersOf({ behaviour: { stored } }: Unit): readonly (readonly [master: number, slave: number])[] {
  return stored.flatMap(({ edge, data }, slave) => {
    const master = stored.findIndex((s) => s.edge === 'while' && s.name === data);
    return edge === 'fall' && master >= 0 ? [[master, slave] as const] : [];
  });
}

/** Rows under a clock: what its levels and edges have in common is one row. */
function clocked(name: string, parts: readonly (readonly [string, readonly Found[]])[], isPulsed: boolean): Found[] {
  const key = ({ asked, outputs }: Found): string => JSON.stringify([{ ...asked, [name]: '' }, outputs]);
  const groups = new Map<string, { readonly found: Found; readonly symbols: string[] }>();
  for (const [symbol, part] of parts)
    for (const found of part) {
      const group = groups.get(key(found)) ?? { found, symbols: [] };
      group.symbols.push(symbol);
      groups.set(key(found), group);
    }
  const others: Readonly<Record<string, string>> = {
    '↓ H L': 'no ↑',
    '↑ H L': 'no ↓',
    '↑ ↓ H L': 'X',
    '⊓ H L': 'X',
    'H L': isPulsed ? 'no ⊓' : 'X',
  };
  return [...groups.values()].flatMap(({ found, symbols }) => {
    const joined = others[symbols.join(' ')];
    const each = joined ? [joined] : symbols;
    return each.map((symbol) => ({ ...found, asked: { ...found.asked, [name]: symbol } }));
  });
}
