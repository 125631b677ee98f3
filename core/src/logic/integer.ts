/** The answer of an integer program: values of its columns by name, integers rounded. */
export interface IntegerSolution {
  /** `optimal`: proved. `feasible`: the best found when the effort was spent. `none`: no solution. */
  readonly status: 'optimal' | 'feasible' | 'none';
  readonly detail: string;
  readonly values: Readonly<Record<string, number>>;
  /** No solution is below this, as far as was proved; absent when nothing was. */
  readonly bound?: number;
  /** The effort that it took. */
  readonly effort: number;
}

/** How long a solver may look. */
export interface SolveLimits {
  /**
   * Work, counted by the solver: one is about a second of a quiet machine. The same program with the same effort has the
   * same answer on every machine, however busy.
   */
  readonly effort: number;
  /** The moment at which it ends in any case, in ms since 1970; absent means never. What is broken off so is not the same everywhere. */
  readonly until?: number;
}

/** A share of the effort, with the same end. */
export function shareOf(limits: SolveLimits, share: number): SolveLimits {
  return { ...limits, effort: share * limits.effort };
}

/** How far a solver is: the least that is not ruled out, and the best found; null where there is none yet. */
export interface SolverProgress {
  readonly bound: number | null;
  readonly best: number | null;
}

/** Solves a program in CPLEX LP text within limits; `tell` hears how far it is. `core/solver` gives one. */
export type SolveInteger = (
  lp: string,
  limits: SolveLimits,
  tell?: (progress: SolverProgress) => void,
) => Promise<IntegerSolution>;
