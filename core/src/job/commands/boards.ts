import { breadboardKinds, jumperOf, nextBreadboard, nextFree, noteOf, partOf, readBreadboard } from '../../board';
import { finding } from '../../finding';
import { type Command, type CommandKind, does, holeNamed, no, noPart, type Typed } from './command';

/** Commands of the mat as a whole: breadboards, notes, and taking anything away. */
export const boardCommands = {
  board: { usage: ['board half', 'board full right', 'board bs2'], words: [0, 2], read: addBoard },
  note: { usage: ['note b1.e17 check this'], words: [1, Number.POSITIVE_INFINITY], read: note },
  pull: { usage: ['pull w3', 'pull U1', 'pull b2', 'pull n1'], words: [1, 1], read: pull },
} as const satisfies Record<string, CommandKind>;

/** Boards as they are typed: by kind, at the first free place, or by id. */
function addBoard({ board, words }: Typed): Command {
  const [what = '', where] = words.map((word) => word.toLowerCase());
  const kind = breadboardKinds.find((k) => k === (what || 'full'));
  const id = kind ? nextBreadboard(board, kind, where === 'right') : what;
  if (!id || !readBreadboard(id) || (where !== undefined && where !== 'right'))
    return no(finding('hand/no-place-for-board', [], { id: [what, where].filter(Boolean).join(' ').slice(0, 20) }));
  return does({ kind: 'add-breadboard', id });
}

/** Sticks a note beside a hole, or writes the one there anew; without text it is taken away. */
function note({ board, words: [where = ''], line }: Typed): Command {
  const hole = holeNamed(board, where);
  if ('code' in hole) return no(hole);
  const at = where.toLowerCase();
  const there = Object.values(board.notes ?? {}).find((n) => n.at === at);
  const text = line.replace(/^\S+\s+\S+\s*/, '');
  return does({ kind: 'note', note: { id: there?.id ?? nextFree('n', board.notes ?? {}), at, text } });
}

/** Takes a jumper, a part, a breadboard or a note away. */
function pull({ board, words: [what = ''] }: Typed): Command {
  const [id, ref] = [what.toLowerCase(), what.toUpperCase()];
  if (readBreadboard(id)) return does({ kind: 'remove-breadboard', id });
  if (jumperOf(board, id)) return does({ kind: 'pull-jumper', id });
  if (partOf(board, ref)) return does({ kind: 'pull-part', ref });
  const slip = noteOf(board, id);
  if (slip) return does({ kind: 'note', note: { ...slip, text: '' } });
  return no(/^w\d/i.test(what) ? finding('hand/no-such-jumper', [], { id: what.slice(0, 20) }) : noPart(what));
}
