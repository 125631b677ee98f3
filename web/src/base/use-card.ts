import { type BuildCard, fingerprint, isBare, type Netlist, type Packing } from '@saddlebag/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { stages } from '../workers/stages';
import { contentKey } from './content-key';
import type { JobView } from './job-context';

/** The build card of a job, from the worker; null where there is none, undefined while the first one is being written. */
export function useCard({
  job,
  packing,
  netlist,
  behaviour,
}: Pick<JobView, 'job' | 'packing' | 'netlist' | 'behaviour'>): BuildCard | null | undefined {
  const enabled = packing !== null && netlist !== null && !isBare(job.board);
  const { data } = useQuery({
    queryKey: [
      'card',
      contentKey(job.board),
      contentKey(packing),
      netlist && fingerprint(netlist),
      contentKey(behaviour),
    ],
    queryFn: () => stages().card(job.board, packing as Packing, netlist as Netlist, behaviour),
    enabled,
    placeholderData: keepPreviousData,
  });
  return enabled ? data : null;
}
