import type { JumperColour } from '../../board';
import { finding } from '../../finding';
import { shownSignal } from '../../planning';
import type { Rule } from '../rule';

/** A wire in a colour that every bench reads as something else: red that is not supply, black that is not ground. */
export const colourLies: Rule = {
  id: 'colour-lies',
  *check(c) {
    for (const net of c.nets.nets) {
      const { supply, ground } = c.feedsOf(net.index);
      for (const id of net.jumpers) {
        const { colour } = c.board.jumpers[id] ?? {};
        const lies =
          colour !== undefined && says(colour) !== null && says(colour) !== (supply ? '1' : ground ? '0' : '');
        if (!lies) continue;
        const facts = {
          id,
          colour: colour ?? '',
          means: shownSignal(says(colour as JumperColour) ?? ''),
          carries: c.shown(net.index),
        };
        yield finding('colour-lies', [{ kind: 'jumper', id }], facts, `colour ${id} plain`);
      }
    }
  },
};

/** What a colour says on every bench; null for colours that say nothing. */
function says(colour: JumperColour): '1' | '0' | null {
  return colour === 'red' ? '1' : colour === 'black' ? '0' : null;
}
