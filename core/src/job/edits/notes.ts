import type { Draft } from 'immer';
import { type Board, type BoardNote, noteOf, parseHole } from '../../board';
import { finding } from '../../finding';
import type { EditKinds } from './kind';

/** The most notes a board may have. */
export const MAX_NOTES = 200;

/** A note put on the mat, changed, or with an empty text taken off. */
export type NoteEdit = { readonly kind: 'note'; readonly note: BoardNote };

/** Edits of notes on the mat. */
export const noteEdits: EditKinds<NoteEdit> = {
  note: {
    refuses: ({ board }, { note }) => {
      if (note.text === '') return [];
      const hole = parseHole(note.at);
      if (!hole || !board.breadboards.some((b) => b.id === hole.board))
        return [finding('hand/no-such-hole', [], { hole: note.at.slice(0, 20) })];
      const isRoom = Object.keys(board.notes ?? {}).length < MAX_NOTES || noteOf(board, note.id);
      return isRoom ? [] : [finding('hand/too-many-notes', [], { most: MAX_NOTES })];
    },
    apply: ({ board }, { note }) => {
      if (note.text !== '') board.notes = { ...board.notes, [note.id]: note };
      keepNotes(board, (n) => n.id !== note.id || note.text !== '');
    },
    says: ({ note }) => `note ${note.id}`,
  },
};

/** Keeps only some of a board's notes. */
export function keepNotes(board: Draft<Board>, keep: (note: BoardNote) => boolean): void {
  const left = Object.values(board.notes ?? {}).filter(keep);
  if (left.length > 0) board.notes = Object.fromEntries(left.map((n) => [n.id, n]));
  else delete board.notes;
}
