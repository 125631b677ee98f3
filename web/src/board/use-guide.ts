import { layoutBoardKindOf, type NextStep } from '@saddlebag/core';
import { useQuery } from '@tanstack/react-query';
import { contentKey } from '../base/content-key';
import { useJobView } from '../base/job-context';
import { stages } from '../workers/stages';

/** What comes next when the person is led; null while they are not, or while it is being worked out. */
export function useGuide(led: boolean): NextStep | null {
  const { job, packing, reading } = useJobView();
  const netlist = reading?.design.netlist ?? null;
  const next = useQuery({
    queryKey: ['guide', contentKey(job.board), contentKey(packing)],
    queryFn: () => (packing && netlist ? stages().guide(job.board, packing, netlist, layoutBoardKindOf(job)) : null),
    enabled: led && packing !== null && netlist !== null,
  });
  return led ? (next.data ?? null) : null;
}
