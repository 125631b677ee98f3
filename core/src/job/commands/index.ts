import type { Board } from '../../board';
import { finding } from '../../finding';
import { boardCommands } from './boards';
import { type Command, type CommandKind, no } from './command';
import { jumperCommands } from './jumpers';
import { partCommands } from './parts';
import { wireCommand } from './wire';

export type { Command } from './command';

/** Commands that begin with a word, by it. */
const byWord = { ...boardCommands, ...partCommands, ...jumperCommands } as const satisfies Record<string, CommandKind>;

/** A kind of typed command: by its word, or `wire`, which has none. */
export type CommandWord = keyof typeof byWord | 'wire';

/** Every command that can be typed at the board, in the order in which help lists them. */
export const commandKinds: Readonly<Record<CommandWord, CommandKind>> = { wire: wireCommand, ...byWord };

/** Other words that people have for a command. */
const synonyms: ReadonlyMap<string, CommandWord> = new Map([
  ['turn', 'rotate'],
  ['remove', 'pull'],
  ['delete', 'pull'],
  ['color', 'colour'],
]);

const isWord = (text: string): text is keyof typeof byWord => Object.hasOwn(byWord, text);

/**
 * Reads what a person types at the board; docs/board.md lists it. The outcome is an edit, not yet tried on the board, or
 * the finding that says what was not understood. `own` are the definitions of own parts that may be seated by their names.
 */
export function readCommand(board: Board, text: string, own: readonly string[] = []): Command {
  const line = text.trim();
  const words = line.split(/\s*>\s*|\s+/);
  const [first = '', ...rest] = words;
  const word = synonyms.get(first.toLowerCase()) ?? first.toLowerCase();
  const kind = isWord(word) ? byWord[word] : null;
  if (kind && takes(kind, rest)) return kind.read({ board, words: rest, line, own });
  if (line.includes('>') && takes(wireCommand, words)) return wireCommand.read({ board, words, line, own });
  return no(finding('hand/not-understood', [], { text: line.slice(0, 60) }));
}

/** Whether so many words can follow a command, and none of those it needs is empty. */
function takes({ words: [least, most] }: CommandKind, words: readonly string[]): boolean {
  return words.length >= least && words.length <= most && words.slice(0, least).every((word) => word !== '');
}
