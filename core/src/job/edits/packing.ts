import type { Draft } from 'immer';
import type { Board } from '../../board';
import { holdsNothing, type Locks, type Packing } from '../../packing';
import { type EditKinds, never } from './kind';

/** Edits of a job's packing and of what it must keep to. */
export type PackingEdit =
  | { readonly kind: 'lay-out'; readonly packing: Packing; readonly board: Board }
  | { readonly kind: 'take-packing'; readonly packing: Packing }
  | { readonly kind: 'exclude'; readonly chips: readonly string[] }
  | { readonly kind: 'lock'; readonly locks: Locks };

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
  exclude: {
    refuses: never,
    apply: (draft, { chips }) => {
      if (chips.length > 0) draft.excluded = [...chips];
      else delete draft.excluded;
    },
    says: () => 'choice of chips',
  },
  lock: {
    refuses: never,
    apply: (draft, { locks }) => {
      if (holdsNothing(locks)) delete draft.locks;
      else draft.locks = locks as Draft<Locks>;
    },
    says: () => 'packing by hand',
  },
};
