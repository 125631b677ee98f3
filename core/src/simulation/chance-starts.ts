import { type Behaviour, PossibleStates } from '../logic';
import { randomFrom } from './actuators';
import type { Hand } from './hand';
import type { TourDifference } from './tour-step';

/** Starts by chance that a verdict about a design without a reset stands on. */
export const STARTS = 32;
/** Presses after each of them. */
const PRESSES = 100;
/** Bits that may be stored, so that every state that a board may start in is looked at. */
const MOST_BITS = 10;

/** What the starts by chance came to; `tried` is 0 where the design stores too much to tell its states apart. */
export interface ChanceStarts {
  readonly tried: number;
  readonly differing: number;
  readonly first: TourDifference | null;
}

/**
 * Starts a board by chance, each time otherwise, and presses its switches at random. The sheet does not say in which state a board starts, so
 * all of them are possible, and each look at the lamps leaves those that show the same; where none is left the board does what no state of the
 * sheet does.
 */
export function fromChance(
  behaviour: Behaviour,
  powered: (seed: number) => Hand,
  isWanted: () => boolean,
): ChanceStarts {
  if (behaviour.stored.length > MOST_BITS) return { tried: 0, differing: 0, first: null };
  let [tried, differing, first] = [0, 0, null as TourDifference | null];
  while (tried < STARTS && isWanted()) {
    const seed = tried++;
    const found = oneStart(behaviour, powered(seed), seed);
    if (!found) continue;
    differing++;
    first ??= found;
  }
  return { tried, differing, first };
}

function oneStart(behaviour: Behaviour, hand: Hand, seed: number): TourDifference | null {
  const possible = new PossibleStates(behaviour);
  const random = randomFrom(seed + 1);
  const presses: string[] = [];
  let before = possible.where();
  for (;;) {
    const seen = hand.lamps();
    const wanted = possible.wanted();
    if (!possible.see(seen))
      return { press: presses.at(-1) ?? '', ...before, wanted, presses, seen, start: { chance: seed } };
    if (presses.length === PRESSES || behaviour.inputs.length === 0) return null;
    before = possible.where();
    const input = Math.floor(random() * behaviour.inputs.length);
    presses.push(behaviour.inputs[input] ?? '');
    hand.press(input);
    possible.press(input);
  }
}
