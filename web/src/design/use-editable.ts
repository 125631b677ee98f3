import { type Behaviour, settable } from '@saddlebag/core';
import { useMemo } from 'react';

/** The outputs whose columns can be set by hand. */
export function useEditable(sheet: string, behaviour: Behaviour): ReadonlySet<string> {
  // What can be set follows from the behaviour: while that stays, so does this, whatever is typed beside.
  // biome-ignore lint/correctness/useExhaustiveDependencies: see above
  return useMemo(
    () =>
      settable(
        sheet,
        behaviour.outputs.map((o) => o.name),
        behaviour.inputs.length,
      ),
    [behaviour],
  );
}
