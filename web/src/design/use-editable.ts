import { type Behaviour, canSetCells } from '@saddlebag/core';
import { useMemo } from 'react';

/** The outputs whose columns can be set by hand. */
export function useEditable(sheet: string, behaviour: Behaviour): ReadonlySet<string> {
  return useMemo(
    () =>
      new Set(behaviour.outputs.flatMap((o) => (canSetCells(sheet, o.name, behaviour.inputs.length) ? [o.name] : []))),
    [sheet, behaviour],
  );
}
