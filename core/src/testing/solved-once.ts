import type { IntegerSolution, SolveInteger } from '../logic';

/**
 * A solver that keeps what it answered: tests share their random designs, and the same program with the same effort has the same answer
 * (`solver.test.ts` holds it to that). What is to end at a moment, or tells how far it is, is solved anew.
 */
export function solvedOnce(solve: SolveInteger): SolveInteger {
  const answers = new Map<string, IntegerSolution>();
  return async (program, limits, tell) => {
    if (limits.until !== undefined || tell) return solve(program, limits, tell);
    const key = `${limits.effort} ${program}`;
    const answer = answers.get(key) ?? (await solve(program, limits));
    answers.set(key, answer);
    return answer;
  };
}
