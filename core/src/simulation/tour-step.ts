import type { Start } from './powered-board';

/** One press of a tour: the input that turns over, where the design was, and what its outputs should show after it. */
export interface TourStep {
  readonly press: string;
  readonly inputs: string;
  readonly stored: string;
  readonly wanted: readonly (0 | 1 | null)[];
}

/** Where a board first did otherwise: the presses that lead there from power up, and what was wanted and seen of the outputs after the last of them. */
export interface TourDifference extends TourStep {
  readonly presses: readonly string[];
  /** LOW, HIGH or UNKNOWN of each output. */
  readonly seen: readonly number[];
  /** How what is stored begins at that power up. */
  readonly start: Start;
}
