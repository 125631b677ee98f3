import { arithmetic } from './arithmetic';
import { buffers } from './buffers';
import type { ChipData } from './chip-data';
import { counters } from './counters';
import { flipFlops } from './flip-flops';
import { gates } from './gates';
import { selectors } from './selectors';
import { shiftRegisters } from './shift-registers';
import { timers } from './timers';

export type { ChipData, ChipGroup, PulseTimer, TimerDivider } from './chip-data';

const number = (c: ChipData): number => Number(c.base.replace(/^74(?=\d)/, '')) + (c.base.startsWith('74') ? 0 : 1e4);

/** The chips of the catalogue, by number: the 74 series first, then the 4000 series in it, then the timers. */
export const chips: readonly ChipData[] = [
  ...gates,
  ...buffers,
  ...selectors,
  ...arithmetic,
  ...flipFlops,
  ...shiftRegisters,
  ...counters,
  ...timers,
].sort((a, b) => number(a) - number(b));
export { familiesGivenFor, outputDelaysOf } from './output-delays';
