export { pack } from './pack';
export * from './packing';
