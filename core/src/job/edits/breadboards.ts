import type { Draft } from 'immer';
import { type Board, type Breadboard, breadboardOf, emptyBoard, hasPlaceFor, occupancyOf } from '../../board';
import { type Finding, finding } from '../../finding';
import { type EditKinds, never } from './kind';
import { keepNotes } from './notes';

/** The most breadboards a job may have by hand. */
export const MAX_BREADBOARDS = 40;

/** Edits of the breadboards on the mat. */
export type BreadboardEdit =
  | { readonly kind: 'clear-board' }
  | { readonly kind: 'add-breadboard'; readonly id: string }
  | { readonly kind: 'remove-breadboard'; readonly id: string };

/** Edits of the mat as a whole: which breadboards lie on it, and clearing them. */
export const breadboardEdits: EditKinds<BreadboardEdit> = {
  'clear-board': {
    refuses: never,
    apply: (draft) => {
      draft.board = emptyBoard as Draft<Board>;
      draft.packing = null;
    },
    says: () => 'clearing the board',
  },
  'add-breadboard': {
    refuses: ({ board }, { id }) => {
      if (board.breadboards.length >= MAX_BREADBOARDS)
        return [finding('plan/no-room', [], { what: 'another board', boards: MAX_BREADBOARDS })];
      return hasPlaceFor(board, id) ? [] : [finding('hand/no-place-for-board', [], { id })];
    },
    apply: ({ board }, { id }) => {
      board.breadboards.push(breadboardOf(id) as Draft<Breadboard>);
    },
    says: ({ id }) => `board ${id}`,
  },
  'remove-breadboard': {
    refuses: ({ board }, { id }) => cannotRemove(board, id),
    apply: ({ board }, { id }) => {
      board.breadboards = board.breadboards.filter((b) => b.id !== id);
      keepNotes(board, (n) => !n.at.startsWith(`${id}.`));
    },
    says: ({ id }) => `taking ${id} away`,
  },
};

function cannotRemove(board: Board, id: string): Finding[] {
  if (!board.breadboards.some((b) => b.id === id)) return [finding('hand/no-such-board', [], { id })];
  if (board.breadboards.length === 1) return [finding('hand/last-board', [], { id })];
  const [on] = [...occupancyOf(board)].filter(([hole]) => hole.startsWith(`${id}.`));
  return on ? [finding('hand/board-in-use', [{ kind: 'hole', hole: on[0] }], { id, by: on[1].join(' and ') })] : [];
}
