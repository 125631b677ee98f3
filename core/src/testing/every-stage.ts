import { extractNets } from '../board';
import { buildCard } from '../card';
import { isError, remedy, says } from '../finding';
import { matched, recover } from '../inspection';
import { type Job, writeJobFile } from '../job';
import type { SolveInteger } from '../logic';
import { remembered } from '../memo';
import { type Packing, pathOf, rippleOf, whatIsWrong } from '../packing';
import type { LayoutBoardKind } from '../planning';
import { walkTable } from '../simulation';
import { type Extras, inspectJob, layOut, layoutBoardKindOf, nextStepOf, packJob } from '../workflow';

/** Rows that are walked of each job. */
const MOST_ROWS = 64;
/** Lays a packing out, as text with what else its board hangs on; no file that has the same is laid out again, whatever else is changed in it. */
const layOutOnce = remembered((text: string): void => {
  const { packing, extras, kind } = JSON.parse(text) as { packing: Packing; extras: Extras; kind: LayoutBoardKind };
  layOut(packing, extras, { kind, asPacked: true });
});

/**
 * Takes a job through every stage as the faces do: packed, laid out, led, carded, inspected, matched, read back and walked, and written.
 * Nothing of it may throw; every finding has its words. Gives how far it came, in a word.
 */
export async function everyStage(job: Job, solve: SolveInteger): Promise<'written' | 'packed' | 'all'> {
  writeJobFile(job);
  const nets = extractNets(job.board);
  recover(job.board, nets);
  const { reading, packing, findings } = await packJob(job, solve);
  const told = [...reading.findings, ...findings, ...inspectJob(job, packing)];
  for (const f of told) {
    // What a file calls things may look like a gap in a sentence: it is taken out first.
    const own = Object.values(f.facts).map(String).filter(Boolean);
    const words = own.reduce((text, fact) => text.replaceAll(fact, ''), `${says(f)} ${remedy(f)}`);
    if (/[{}]|undefined/.test(words)) throw new Error(`${f.code} is not worded`);
  }
  const { netlist } = reading.design;
  if (!netlist || !packing || reading.findings.some(isError)) return 'written';
  const wrong = whatIsWrong(netlist, packing, 14);
  if (wrong !== null) throw new Error(`the packing is taken though ${wrong}`);
  const { fittings, pulses } = netlist;
  layOutOnce(JSON.stringify({ packing, extras: { fittings, pulses }, kind: layoutBoardKindOf(job) }));
  pathOf(packing);
  rippleOf(packing);
  matched(packing, job.board, nets);
  nextStepOf(job.board, packing, netlist, layoutBoardKindOf(job));
  buildCard(job.board, packing, netlist);
  if (netlist.inputs.length > 16) return 'packed';
  let rows = 0;
  for (const _ of walkTable(job.board, nets, { inputs: netlist.inputs, outputs: netlist.outputs.map((o) => o.name) }))
    if (++rows >= MOST_ROWS) break;
  return 'all';
}
