/** The answer of an integer program: values of its columns by name, integers rounded. */
export interface IntegerSolution {
  /** `optimal`: proved. `feasible`: the best found when time ran out. `none`: no solution. */
  readonly status: 'optimal' | 'feasible' | 'none';
  readonly detail: string;
  readonly values: Readonly<Record<string, number>>;
  /** No solution is below this, as far as was proved; absent when nothing was. */
  readonly bound?: number;
}

/** How far a solver is: the least that is not ruled out, and the best found; null where there is none yet. */
export interface SolverProgress {
  readonly bound: number | null;
  readonly best: number | null;
}

/** Solves a program in CPLEX LP text; `seconds` bounds the time, `tell` hears how far it is. `core/solver` gives one. */
export type SolveInteger = (
  lp: string,
  seconds: number,
  tell?: (progress: SolverProgress) => void,
) => Promise<IntegerSolution>;
