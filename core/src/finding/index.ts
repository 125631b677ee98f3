export * from './finding';
export { type FactsOf, type FindingCode, sentences } from './sentences';
