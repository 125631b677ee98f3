import type { IntegerSolution, SolveInteger, SolverProgress } from '../logic';

/** What a solver answered to a program, and what it told on the way. */
interface Answer {
  readonly solution: IntegerSolution;
  readonly told: readonly SolverProgress[];
}

/**
 * A solver that keeps what it answered: tests share their random designs, and the same program with the same effort has the same answer
 * (`solver.test.ts` holds it to that). What is to end at a moment is solved anew.
 */
export function solvedOnce(solve: SolveInteger): SolveInteger {
  const answers = new Map<string, Answer>();
  return async (program, limits, tell) => {
    if (Number.isFinite(limits.until)) return solve(program, limits, tell);
    const key = `${limits.effort} ${program}`;
    const known = answers.get(key);
    for (const progress of known?.told ?? []) tell?.(progress);
    if (known) return known.solution;
    const told: SolverProgress[] = [];
    const solution = await solve(program, limits, (progress) => {
      told.push(progress);
      tell?.(progress);
    });
    answers.set(key, { solution, told });
    return solution;
  };
}
