import { labelPlacesOf } from '../../board';
import { innerName } from '../../catalogue';
import { finding } from '../../finding';
import type { Rule } from '../rule';

/** A label of a contact or lamp that the part does not have, or of a signal that the design does not have. */
export const labelAnswersNothing: Rule = {
  id: 'label-answers-nothing',
  *check(c) {
    // Without a design labels are names that a person gave, and answer to nobody.
    const hasDesign = c.packing && c.packing.inputs.length + c.packing.outputs.length > 0;
    const signals = hasDesign && {
      give: new Set(c.packing.inputs),
      show: new Set([...c.packing.outputs.map((o) => o.name), ...c.packing.inputs]),
    };
    for (const { seated } of c.known) {
      const places = labelPlacesOf(seated);
      const { ref } = seated;
      for (const { of, signal } of seated.labels ?? [])
        if (!places.some((p) => p.name === of))
          yield finding('label-answers-nothing', [{ kind: 'part', ref }], { label: signal, at: innerName(ref, of) });
      for (const { does, signal, called } of places)
        if (signals && signal !== undefined && !signals[does].has(signal))
          yield finding('label-answers-nothing', [{ kind: 'part', ref }], { label: signal, at: called });
    }
  },
};
