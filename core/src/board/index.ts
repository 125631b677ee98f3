export * from './across';
export * from './board';
export * from './corners';
export * from './hole';
export * from './labels';
export * from './nets';
export { type CutPin, cutPin, pinOf, spokenPin } from './pin';
export * from './route';
export * from './seating';
