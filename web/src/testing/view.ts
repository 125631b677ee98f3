import { currentPacking, inspectJob, type Job, readDesign, startHistory } from '@saddlebag/core';
import type { PowerBench } from '../base/bench';
import { coloursOf, type JobView, readBoard, signalsOf } from '../base/job-context';
import { tableSubject } from '../base/subject';
import { JobSession, type SessionEnvironment } from '../store/session';
import { localBench } from './local-bench';

/** A world in which everything is saved at once and nothing is kept. */
export const nowhere: SessionEnvironment = {
  save: async (_id, _job, base) => ({ ok: true, rev: base + 1 }),
  keepHistory: async () => {},
  saveCopy: async () => 'copy',
  now: () => 0,
  later: () => () => {},
  rescue: () => {},
};

/** What was read last: as in the application, what a sheet states stays the same object while it states the same. */
let last = { sheet: '', reading: readDesign('') };
function readingOf(sheet: string): ReturnType<typeof readDesign> {
  if (last.sheet !== sheet) last = { sheet, reading: readDesign(sheet) };
  return last.reading;
}

/** What a screen sees of a job, computed here and now instead of in the worker. */
export function viewOf(session: JobSession, bench: PowerBench, change: Partial<JobView> = {}): JobView {
  const { job } = session;
  const reading = readingOf(job.sheet);
  const packing = currentPacking(job, reading.design.netlist, null);
  const board = readBoard(job.board, packing);
  const { netlist, behaviour } = reading.design;
  const subject = tableSubject(netlist, behaviour, board);
  bench.lay(job.board, board.nets, subject);
  return {
    id: 'job-1',
    job,
    session,
    reading,
    netlist,
    behaviour,
    packing,
    packingPending: false,
    packingFindings: [],
    stopPacking: () => {},
    startPacking: () => {},
    board,
    findings: inspectJob(job, packing),
    colours: coloursOf(signalsOf(reading, packing), packing, board),
    bench,
    subject,
    ...change,
  };
}

/** What a screen sees of a job that has just been opened. */
export function viewFor(job: Job, bench = localBench()): JobView {
  return viewOf(new JobSession({ id: 'job-1', history: startHistory(job), rev: 1 }, nowhere), bench);
}
