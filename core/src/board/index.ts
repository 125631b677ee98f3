export * from './board';
export * from './hole';
export * from './nets';
export * from './route';
export * from './seating';
