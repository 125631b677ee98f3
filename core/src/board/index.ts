export * from './board';
export * from './corners';
export * from './hole';
export * from './labels';
export * from './nets';
export * from './route';
export * from './seating';
