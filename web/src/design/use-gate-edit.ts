import { chipLibrary, editDraftGate, editGate, type GateEdit } from '@saddlebag/core';
import { useJobView } from '../base/job-context';
import { remedy, says } from '../base/words';
import { lookAt } from '../kit/design-focus';

/** Edits a gate of the diagram on the sheet; a refusal is told under the diagram. True when the sheet was changed. */
export function useGateEdit(): (edit: GateEdit) => boolean {
  const { session, reading } = useJobView();
  return (edit) => {
    if (!reading) return false;
    const { draft } = reading;
    const { sheet } = session.job;
    if (draft && draft.source !== sheet) return false;
    const result = draft ? editDraftGate(draft, edit, chipLibrary) : editGate(sheet, reading, edit, chipLibrary);
    lookAt({ refused: result.ok ? null : `${says(result.finding)} ${remedy(result.finding)}` });
    if (!result.ok) return false;
    session.dispatch({ kind: 'write-sheet', text: result.text });
    if (edit.act === 'remove' || edit.act === 'name') lookAt({ gate: null });
    return true;
  };
}
