export { type BuildCard, boardAfter, buildCard, type PartsLine, type PinList, type Stage } from './card';
export { HOW_TO_READ, wireColours } from './lines';
