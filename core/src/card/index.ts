export { type BuildCard, boardAfter, buildCard, type PartsLine, type PinList, type Stage } from './card';
export { wireColours } from './lines';
