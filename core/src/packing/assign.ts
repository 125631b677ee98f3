import type { Duty } from './candidate';
import type { UnitVectors } from './unit-vectors';

/** Units of one kind in a set of packages: their duty and how many there are. */
export interface PooledUnits {
  readonly duty: Duty;
  readonly count: number;
}

/** A function that is made, as a word, and the entry of the pool whose unit makes it. */
export interface MadeVector {
  readonly word: number;
  readonly by: number;
}

/** Steps that searches of one question may still take, together. */
export interface Steps {
  left: number;
  /** The moment at which they are spent in any case, in ms since 1970; absent means never. */
  readonly until?: number;
}

const MOST_SIGNALS = 64;

/**
 * Unit assignment: a chain from the sources to the targets whose intermediates are among the functions given and whose steps are the very units of a
 * pool, by backtracking over which kind of unit makes which function. The steps come in topological order; null when the units do not suffice, or
 * the steps of the search are spent.
 */
export function assign(
  words: UnitVectors,
  {
    sources,
    wanted,
    functions,
    pool,
  }: {
    readonly sources: readonly number[];
    readonly wanted: readonly number[];
    readonly functions: Int32Array;
    readonly pool: readonly PooledUnits[];
  },
  steps: Steps,
): MadeVector[] | null {
  const left = pool.map((p) => p.count);
  const list = new Int32Array(MOST_SIGNALS);
  list.set(sources);
  const marks = new Uint8Array(words.all + 1);
  for (const s of sources) marks[s] = 1;
  const others = [...new Set(functions)].filter((f) => marks[f] === 0);
  const refused = new Set<string>();
  const made: MadeVector[] = [];
  let missing = wanted.filter((w) => marks[w] === 0).length;
  let units = left.reduce((a, b) => a + b, 0);

  const take = (word: number, by: number, sign: 1 | -1): void => {
    if (sign > 0) list[sources.length + made.length] = word;
    if (sign > 0) made.push({ word, by });
    else made.pop();
    marks[word] = sign > 0 ? 1 : 0;
    left[by] = (left[by] ?? 0) - sign;
    units -= sign;
    if (wanted.includes(word)) missing -= sign;
  };
  const visit = (): boolean => {
    if (missing === 0) return true;
    if (units < missing || --steps.left < 0) return false;
    const undo: string[] = [];
    const isFound = others.some(
      (word) =>
        marks[word] === 0 &&
        pool.some(({ duty }, by) => {
          const key = `${word} ${by}`;
          const n = sources.length + made.length;
          if (left[by] === 0 || refused.has(key) || !words.makes(duty, word, list, n, marks)) return false;
          take(word, by, 1);
          if (visit()) return true;
          take(word, by, -1);
          refused.add(key);
          undo.push(key);
          return false;
        }),
    );
    for (const key of undo) refused.delete(key);
    return isFound;
  };
  return visit() ? made : null;
}
