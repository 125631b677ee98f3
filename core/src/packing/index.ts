export { pack } from './pack';
export * from './packing';
export type { IntegerSolution, SolveInteger } from './program';
