export * from './cover';
export * from './expression';
export * from './machine';
export * from './program';
export * from './table';
