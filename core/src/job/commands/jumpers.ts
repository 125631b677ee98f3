import { holeXY, jumperColours } from '../../board';
import { finding } from '../../finding';
import { type Command, type CommandKind, does, holeNamed, no, type Typed, withJumper } from './command';

/** Commands of jumpers that are there: their colour and their run. */
export const jumperCommands = {
  colour: { usage: ['colour w3 red', 'colour w3 plain'], words: [2, 2], read: colour },
  straight: { usage: ['straight w3'], words: [1, 1], read: (typed) => straighten(typed, true) },
  bend: {
    usage: ['bend w3', 'bend w3 b1.c17 b1.c24'],
    words: [1, Number.POSITIVE_INFINITY],
    read: (typed) => (typed.words.length === 1 ? straighten(typed, false) : bend(typed)),
  },
} as const satisfies Record<string, CommandKind>;

function colour(typed: Typed): Command {
  const [id = '', said = ''] = typed.words;
  const wanted = said.toLowerCase();
  const known = jumperColours.find((c) => c === wanted);
  if (!known && wanted !== 'plain')
    return no(finding('hand/no-such-colour', [], { colour: wanted.slice(0, 20), colours: jumperColours.join(', ') }));
  return withJumper(typed, id, (jumper) => does({ kind: 'colour', ids: [jumper.id], colour: known ?? null }));
}

function straighten(typed: Typed, straight: boolean): Command {
  const [id = ''] = typed.words;
  return withJumper(typed, id, (jumper) => does({ kind: 'straighten', ids: [jumper.id], straight }));
}

/** Leads a jumper over the holes named, one after the other. */
function bend(typed: Typed): Command {
  const [id = '', ...places] = typed.words;
  return withJumper(typed, id, (jumper) => {
    const corners = [];
    for (const place of places) {
      const hole = holeNamed(typed.board, place);
      if ('code' in hole) return no(hole);
      corners.push(holeXY(hole));
    }
    return does({ kind: 'bend', id: jumper.id, corners });
  });
}
