import { liveFindings } from '@saddlebag/core';
import { useSyncExternalStore } from 'react';
import { useJobView } from '../base/job-context';
import { FindingLine } from '../kit/FindingLine';

/** What the powered board does to itself: lamps that are destroyed, each with a press that puts in a new one, and outputs past their maximum. */
export function LiveLines() {
  const { bench } = useJobView();
  const { on, seen } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  if (!on || !seen) return null;
  return liveFindings(seen).map((finding) => {
    const [place] = finding.places;
    const lamp = finding.fix?.replace(/^new /, '');
    return (
      <FindingLine
        key={`${finding.code} ${place?.kind === 'pin' ? place.pin : lamp}`}
        finding={finding}
        {...(lamp !== undefined && { onFix: () => bench.replaceLamp(lamp) })}
      />
    );
  });
}
