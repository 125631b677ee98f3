export * from './expression';
export * from './program';
export * from './table';
