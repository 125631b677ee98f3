import type { Netlist } from '../design';
import type { Job } from '../job';
import { noLocks, type Packing } from '../packing';
import type { PlanOptions } from '../planning';
import { type Layout, layOut, layoutBoardKindOf, noExtras } from './stages';
import { hasFixed, laidAround } from './update';

/**
 * Lays a job's packing out: around the parts that the person has fixed, which stay where they are, or on fresh boards
 * where none is fixed. `kind` is that of the job's first board unless another is asked for.
 */
export function layOutJob(
  job: Job,
  packing: Packing,
  netlist: Netlist | null,
  { kind = layoutBoardKindOf(job), tell }: Pick<PlanOptions, 'kind' | 'tell'> = {},
): Layout {
  const locks = job.locks ?? noLocks;
  if (!hasFixed(job.board) || !netlist)
    return layOut(packing, netlist ?? noExtras, { kind, locks, ...(tell && { tell }) });
  const { board, stopped, packing: wired } = laidAround(job.board, packing, netlist, { locks, kind, tell });
  if (stopped) return { edit: null, findings: [stopped] };
  return { edit: { kind: 'lay-out', packing: wired, board }, findings: [] };
}
