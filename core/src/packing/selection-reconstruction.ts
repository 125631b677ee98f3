import { elementAt } from '../element-at';
import type { MadeVector } from './assign';
import { type Candidate, type Duty, dutyKey } from './candidate';
import type { Choice } from './choice-program';
import type { Literal } from './functions';
import type { UnitKind } from './units';

/**
 * Reconstructs the wiring that a chain of truth vectors stands for (bit r is the value in row r, `all` has a bit for every row): each step becomes a
 * candidate over literals, with the fewest inputs that make it of the sources and the steps before. `literal` gives the literal of a word; `kinds` are
 * the units by the pool's numbers. Throws when a step cannot be done.
 */
export function choiceOf(
  made: readonly MadeVector[],
  {
    sources,
    all,
    kinds,
  }: { readonly sources: readonly number[]; readonly all: number; readonly kinds: readonly UnitKind[] },
  literal: (word: number) => Literal,
): Choice {
  const ways: Candidate[] = [];
  const service = new Map<string, UnitKind[]>();
  const signals = [...sources];
  for (const { word, by } of made) {
    const kind = elementAt(kinds, by);
    const { duty, inputs } = wayTo(word, kind.duty, signals, all);
    ways.push({ makes: literal(word), duty, inputs: inputs.map(literal) });
    service.set(dutyKey(duty), [...(service.get(dutyKey(duty)) ?? []), kind]);
    signals.push(word);
  }
  return { ways, inverters: [], service };
}

interface WordWay {
  readonly duty: Duty;
  readonly inputs: readonly number[];
}

/** The duty and inputs, fewest first, by which a unit makes a word of signals. */
function wayTo(word: number, unit: Duty, signals: readonly number[], all: number): WordWay {
  const complement = signals.find((s) => (all & ~s) === word);
  if (complement !== undefined && unit.kind !== 'and' && unit.kind !== 'or')
    return { duty: { kind: 'not', width: 1 }, inputs: [complement] };
  const strategy = unit.kind === 'aoi' ? aoiTo(word, unit.width, signals, all) : gateTo(word, unit, signals, all);
  if (!strategy) throw new Error('a step cannot be done again');
  return strategy;
}

function gateTo(word: number, { kind, width: most }: Duty, signals: readonly number[], all: number): WordWay | null {
  const join = (a: number, b: number): number => {
    if (kind === 'xor' || kind === 'xnor') return a ^ b;
    return kind === 'and' || kind === 'nand' ? a & b : a | b;
  };
  const wanted = kind === 'nand' || kind === 'nor' || kind === 'xnor' ? all & ~word : word;
  const inputs = subsets(signals, most).find((of) => of.length > 1 && of.reduce(join) === wanted);
  return inputs ? { duty: { kind, width: inputs.length } as Duty, inputs } : null;
}

function aoiTo(word: number, width: number, signals: readonly number[], all: number): WordWay | null {
  const sets = subsets(signals, width).map((of) => ({ of, product: of.reduce((a, b) => a & b, all) }));
  for (const a of sets)
    for (const b of sets) {
      if ((all & ~(a.product | b.product)) !== word) continue;
      const wide = (Math.max(a.of.length, b.of.length) > 2 ? 3 : 2) as 2 | 3;
      const filled = (of: readonly number[]): number[] =>
        Array.from({ length: wide }, (_, i) => of[i] ?? elementAt(of, 0));
      return { duty: { kind: 'aoi', width: wide }, inputs: [...filled(a.of), ...filled(b.of)] };
    }
  return null;
}

/** Sets of one to `most` of some signals, the smaller ones first. */
function subsets(signals: readonly number[], most: number): number[][] {
  const found: number[][] = [];
  const visit = (from: number, taken: number[]): void => {
    if (taken.length > 0) found.push(taken);
    if (taken.length === most) return;
    for (let i = from; i < signals.length; i++) visit(i + 1, [...taken, elementAt(signals, i)]);
  };
  visit(0, []);
  return found.sort((a, b) => a.length - b.length);
}
