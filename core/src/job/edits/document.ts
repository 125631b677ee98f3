import type { Draft } from 'immer';
import type { FamilyId } from '../../catalogue';
import { finding } from '../../finding';
import { MAX_JOB_NAME } from '../job';
import type { OwnTable } from '../own-table';
import { type EditKinds, never } from './kind';
import { isName } from './names';

/**
 * Edits of what a job says: its name, the family of its chips, its sheet, the person's own table. `typed` is set for each key in the sheet: keys that
 * follow each other are undone as one, and nothing else with them.
 */
export type DocumentEdit =
  | { readonly kind: 'rename'; readonly name: string }
  | { readonly kind: 'set-family'; readonly family: FamilyId }
  | { readonly kind: 'write-sheet'; readonly text: string; readonly typed?: true }
  | { readonly kind: 'fill-table'; readonly table: OwnTable | null };

/** Edits of the job's name, family, sheet and table. */
export const documentEdits: EditKinds<DocumentEdit> = {
  rename: {
    refuses: (_, { name }) => (isName(name, MAX_JOB_NAME) ? [] : [finding('hand/no-name', [], { most: MAX_JOB_NAME })]),
    apply: (draft, { name }) => {
      draft.name = name;
    },
    says: () => 'rename',
  },
  'set-family': {
    refuses: never,
    apply: (draft, { family }) => {
      draft.family = family;
    },
    says: () => 'family of the job',
  },
  'write-sheet': {
    refuses: never,
    apply: (draft, { text }) => {
      draft.sheet = text;
    },
    says: ({ typed }) => (typed ? 'writing' : 'change of the sheet'),
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
