import { HIGH, LOW, UNKNOWN } from '../logic';
import type { LedState } from './powered-board';

/** Where the inputs and outputs of a design are found on a board: indices into the circuit, -1 for none. */
export interface Panel {
  readonly switches: readonly number[];
  readonly leds: readonly number[];
  /** Lamps that are lit when what they show is low. */
  readonly inverted: readonly boolean[];
}

/** What an LED's state says about the level it shows; one of a common anode is lit by a low level. */
export function levelShown(state: LedState, inverted = false): number {
  if (state === 'lit') return inverted ? LOW : HIGH;
  return state === 'unknown' || state === 'over' ? UNKNOWN : inverted ? HIGH : LOW;
}
