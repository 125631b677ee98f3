import { finding } from '../../finding';
import { SILENCED_LETTERS, type Silenced } from '../job';
import { type EditKinds, never } from './kind';

/** Edits of which findings are told: one at its place left unsaid, with a reason, or told again. */
export type FindingsEdit =
  | { readonly kind: 'silence'; readonly finding: Silenced }
  | { readonly kind: 'tell-again'; readonly code: string; readonly place: string };

/** Edits of which findings are silenced. */
export const findingsEdits: EditKinds<FindingsEdit> = {
  silence: {
    refuses: (_, { finding: { code, place, reason } }) => {
      const { code: most, place: mostPlaces, reason: mostWords } = SILENCED_LETTERS;
      const fits = code !== '' && code.length <= most && place.length <= mostPlaces;
      return fits && reason.trim() !== '' && reason.length <= mostWords
        ? []
        : [finding('hand/no-reason', [], { most: mostWords })];
    },
    apply: (draft, { finding: one }) => {
      draft.silenced = [...without(draft.silenced ?? [], one.code, one.place), one];
    },
    says: () => 'silencing a finding',
  },
  'tell-again': {
    refuses: never,
    apply: (draft, { code, place }) => {
      const left = without(draft.silenced ?? [], code, place);
      if (left.length > 0) draft.silenced = left;
      else delete draft.silenced;
    },
    says: () => 'telling a finding again',
  },
};

/** What is silenced, without one finding. */
function without<S extends Silenced>(all: readonly S[], code: string, place: string): S[] {
  return all.filter((s) => s.code !== code || s.place !== place);
}
