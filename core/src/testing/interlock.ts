import type { Netlist } from '../design';
import type { Job } from '../job';
import { applyEdit, newJob } from '../job';
import { remembered } from '../memo';
import type { Packing } from '../packing';
import { highsSolver } from '../solver';
import { layOut, packJob } from '../workflow';
import { solvedOnce } from './solved-once';

/** Effort for what ends by itself as soon as it is proved: never reached. */
export const AMPLE = 120;

/** One solver for all tests: loading HiGHS takes a second, and what it answered once need not be asked again. */
export const solve = solvedOnce(highsSolver());

/** The lock interlock of Barrowmere, as in samples/. */
export const interlockSheet = `in  K "key turned"       E "levels equal"
in  U "upper gate shut"  L "lower gate shut"
out G "gate permit"      P "paddle permit"
out W "warning bell"
G = K & E
P = K & ~E & U & L
W = ~(U | L)`;

/** A sheet that was packed and laid out. */
interface LaidOut {
  readonly job: Job;
  readonly packing: Packing;
  readonly netlist: Netlist;
}

/** A sheet packed and laid out, once for all tests. Throws if any step has a finding: test sheets are sound. */
export const laidOut: (sheet: string) => Promise<LaidOut> = remembered(async (sheet: string): Promise<LaidOut> => {
  const job = newJob('test', sheet);
  const { reading, packing, findings } = await packJob(job, solve);
  const { netlist } = reading.design;
  if (!packing || !netlist) throw new Error(`not packed: ${JSON.stringify([reading.findings, findings])}`);
  const { edit, findings: more } = layOut(packing, netlist);
  if (!edit) throw new Error(`not laid out: ${JSON.stringify(more)}`);
  const applied = applyEdit(job, edit);
  if (!applied.ok) throw new Error(`refused: ${JSON.stringify(applied.findings)}`);
  return { job: applied.job, packing: applied.job.packing ?? packing, netlist };
});
