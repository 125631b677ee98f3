import { familyIds } from '../family';
import { analogueSwitches } from './analogue-switches';
import { arithmetic } from './arithmetic';
import { buffers } from './buffers';
import type { ChipData } from './chip-data';
import { counters } from './counters';
import { advancedSchottky } from './delays-of-ttl';
import { flipFlops } from './flip-flops';
import { gates } from './gates';
import { memories } from './memories';
import { selectors } from './selectors';
import { shiftRegisters } from './shift-registers';
import { timers } from './timers';

export type { AnalogueContacts, ChipData, ChipGroup, PulseTimer, TimerDivider, TimerPins } from './chip-data';

const number = ({ base }: ChipData): number => {
  const [, older, digits] = /^(SN)?74(\d+)$/.exec(base) ?? [];
  return digits === undefined ? Number(base) + 1e4 : Number(digits) + (older ? 0.5 : 0);
};

/** Families with AS among them, in the order in which all families stand. */
const withAdvancedSchottky = (made: ChipData['families']): ChipData['families'] =>
  familyIds.filter((id) => id === 'AS' || made.includes(id));

/** The chips of the catalogue, by number: the 74 series first, then the 4000 series in it, then the timers. */
export const chips: readonly ChipData[] = [
  ...gates,
  ...buffers,
  ...selectors,
  ...analogueSwitches,
  ...arithmetic,
  ...flipFlops,
  ...shiftRegisters,
  ...counters,
  ...memories,
  ...timers,
]
  .map((chip) => (advancedSchottky[chip.base] ? { ...chip, families: withAdvancedSchottky(chip.families) } : chip))
  .sort((a, b) => number(a) - number(b));
export { familiesGivenFor, outputDelaysOf } from './output-delays';
