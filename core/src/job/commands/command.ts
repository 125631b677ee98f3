import { type Board, type Hole, type Jumper, jumperOf, parseHole, partOf, type SeatedPart } from '../../board';
import { type Finding, finding } from '../../finding';
import type { Edit } from '../edit';

/** What a typed line asks for: an edit, or why it cannot be. */
export type Command = { readonly ok: true; readonly edit: Edit } | { readonly ok: false; readonly finding: Finding };

/** A line that a person typed, as a command reads it. */
export interface Typed {
  readonly board: Board;
  /** The words after the command's own, as typed; `>` stands between words and is none. */
  readonly words: readonly string[];
  /** The whole line without blanks at its ends. */
  readonly line: string;
  /** Definitions of own parts that may be seated by their names. */
  readonly own: readonly string[];
}

/**
 * A command that can be typed at the board. `usage` has one example for each form, as docs/board.md lists them;
 * `words` is how few and how many words may follow its own; `read` gives the edit, or the finding that says what is
 * wrong. Whether the board takes the edit is for the edit to say.
 */
export interface CommandKind {
  readonly usage: readonly string[];
  readonly words: readonly [least: number, most: number];
  readonly read: (typed: Typed) => Command;
}

/** A command that comes to an edit. */
export const does = (edit: Edit): Command => ({ ok: true, edit });

/** A command that comes to nothing, and why. */
export const no = (f: Finding): Command => ({ ok: false, finding: f });

/** There is no part of such a reference. */
export const noPart = (ref: string): Finding => finding('hand/no-such-part', [], { ref: ref.slice(0, 20) });

/** What a part that is named in whatever case comes to; a finding when it is not on the board. */
export function withPart({ board }: Typed, named: string, then: (part: SeatedPart) => Command): Command {
  const part = partOf(board, named.toUpperCase());
  return part ? then(part) : no(noPart(named));
}

/** What a jumper that is named in whatever case comes to; a finding when it is not on the board. */
export function withJumper({ board }: Pick<Typed, 'board'>, named: string, then: (jumper: Jumper) => Command): Command {
  const jumper = jumperOf(board, named.toLowerCase());
  return jumper ? then(jumper) : no(finding('hand/no-such-jumper', [], { id: named.slice(0, 20) }));
}

/** A hole of one of the boards on the mat, by its name in whatever case. */
export function holeNamed(board: Board, named: string): Hole | Finding {
  const hole = parseHole(named.toLowerCase());
  const isThere = hole && board.breadboards.some((b) => b.id === hole.board);
  return isThere ? hole : finding('hand/no-such-hole', [], { hole: named.slice(0, 20) });
}
