import type { Draft } from 'immer';
import type { Board } from '../../board';
import { holdsNothing, type Locks, type Packing } from '../../packing';
import { type EditKinds, never } from './kind';

/** Edits of a job's packing and of what it must keep to. */
export type PackingEdit =
  | { readonly kind: 'lay-out'; readonly packing: Packing; readonly board: Board }
  | { readonly kind: 'take-packing'; readonly packing: Packing }
  | { readonly kind: 'strike'; readonly chips: readonly string[] }
  | { readonly kind: 'hold'; readonly held: Locks };

/** Edits of the packing: made, laid out, locked, excluded. */
export const packingEdits: EditKinds<PackingEdit> = {
  'lay-out': {
    refuses: never,
    apply: (draft, { packing, board }) => {
      draft.packing = packing as Draft<Packing>;
      draft.board = board as Draft<Board>;
    },
    says: () => 'layout',
  },
  'take-packing': {
    refuses: never,
    apply: (draft, { packing }) => {
      draft.packing = packing as Draft<Packing>;
    },
    says: () => 'another packing',
  },
  strike: {
    refuses: never,
    apply: (draft, { chips }) => {
      if (chips.length > 0) draft.struck = [...chips];
      else delete draft.struck;
    },
    says: () => 'choice of chips',
  },
  hold: {
    refuses: never,
    apply: (draft, { held }) => {
      if (holdsNothing(held)) delete draft.held;
      else draft.held = held as Draft<Locks>;
    },
    says: () => 'packing by hand',
  },
};
