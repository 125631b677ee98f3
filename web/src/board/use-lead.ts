import { floorKindOf, type NextStep } from '@saddlebag/core';
import { useQuery } from '@tanstack/react-query';
import { contentKey } from '../app/content-key';
import { useJobView } from '../app/job-context';
import { stages } from '../workers/stages';

/** What comes next when the person is led; null while they are not, or while it is being worked out. */
export function useLead(led: boolean): NextStep | null {
  const { job, packing, reading } = useJobView();
  const netlist = reading?.design.netlist ?? null;
  const next = useQuery({
    queryKey: ['lead', contentKey(job.board), contentKey(packing)],
    queryFn: () => (packing && netlist ? stages().lead(job.board, packing, netlist, floorKindOf(job)) : null),
    enabled: led && packing !== null && netlist !== null,
  });
  return led ? (next.data ?? null) : null;
}
