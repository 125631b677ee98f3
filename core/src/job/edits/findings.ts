import type { Silenced } from '../job';
import { type EditKinds, never } from './kind';

/** Edits of which findings are told: one at its place left unsaid, with a reason, or told again. */
export type FindingsEdit =
  | { readonly kind: 'silence'; readonly finding: Silenced }
  | { readonly kind: 'tell-again'; readonly code: string; readonly place: string };

/** Edits of which findings are silenced. */
export const findingsEdits: EditKinds<FindingsEdit> = {
  silence: {
    refuses: never,
    apply: (draft, { finding }) => {
      draft.silenced = [...without(draft.silenced ?? [], finding.code, finding.place), finding];
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
