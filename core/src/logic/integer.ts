/** The answer of an integer program: values of its columns by name, integers rounded. */
export interface IntegerSolution {
  /** `optimal`: proved. `feasible`: the best found when time ran out. `none`: no solution. */
  readonly status: 'optimal' | 'feasible' | 'none';
  readonly detail: string;
  readonly values: Readonly<Record<string, number>>;
}

/** Solves a program in CPLEX LP text; `seconds` bounds the time. `core/solver` gives one. */
export type SolveInteger = (lp: string, seconds: number) => Promise<IntegerSolution>;
