import type { Draft } from 'immer';
import { finding } from '../../finding';
import { MAX_JOB_NAME } from '../job';
import type { OwnTable } from '../own-table';
import { type EditKinds, never } from './kind';
import { isName } from './names';

/** Edits of what a job says: its name, its sheet, the person's own table. */
export type DocumentEdit =
  | { readonly kind: 'rename'; readonly name: string }
  | { readonly kind: 'write-sheet'; readonly text: string }
  | { readonly kind: 'fill-table'; readonly table: OwnTable | null };

export const documentEdits: EditKinds<DocumentEdit> = {
  rename: {
    refuses: (_, { name }) => (isName(name, MAX_JOB_NAME) ? [] : [finding('hand/no-name', [], { most: MAX_JOB_NAME })]),
    apply: (draft, { name }) => {
      draft.name = name;
    },
    says: () => 'rename',
  },
  'write-sheet': {
    refuses: never,
    apply: (draft, { text }) => {
      draft.sheet = text;
    },
    says: () => 'writing',
  },
  'fill-table': {
    refuses: never,
    apply: (draft, { table }) => {
      if (table) draft.ownTable = table as Draft<OwnTable>;
      else delete draft.ownTable;
    },
    says: ({ table }) => (table ? 'table cell' : 'clearing your table'),
  },
};
