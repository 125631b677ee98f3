import { countPacking, isBare, type Job } from '@saddlebag/core';
import type { BenchState } from '../base/bench';
import type { JobView } from '../base/job-context';
import type { StepId } from './steps';

/** How far a step is, in a few words, with a mark where something is to be seen to. */
export interface StepStatus {
  readonly words: string;
  readonly mark: 'bad' | 'warn' | 'ok' | null;
}

const many = (n: number, one: string, more = `${one}s`): string => `${n} ${n === 1 ? one : more}`;

/** The status of every step, from what is known of the job. */
export function statusOf(
  view: JobView,
  bench: BenchState,
  stages: number | null,
): Readonly<Record<StepId, StepStatus>> {
  const plain = (words: string, mark: StepStatus['mark'] = null): StepStatus => ({ words, mark });
  const fix = view.findings?.filter((f) => f.severity === 'error').length ?? 0;
  const look = view.findings?.filter((f) => f.severity === 'warning').length ?? 0;
  const bare = isBare(view.job.board);
  return {
    design: designStatus(view),
    pack: packStatus(view),
    board: bare ? plain('not begun') : plain(boardWords(view.job)),
    inspect: bare ? plain('—') : plain(inspectWords(fix, look), fix > 0 ? 'bad' : look > 0 ? 'warn' : 'ok'),
    power: powerStatus(view, bench),
    card: stages === null ? plain('—') : plain(many(stages, 'stage')),
  };
}

function designStatus({ reading }: JobView): StepStatus {
  if (!reading) return { words: 'reading …', mark: null };
  const errors = reading.findings.filter((f) => f.severity === 'error').length;
  if (errors > 0) return { words: `${many(errors, 'mistake')} in the sheet`, mark: 'bad' };
  const { inputs, outputs, netlist } = reading.design;
  if (inputs.length + outputs.length === 0) return { words: 'an empty sheet', mark: null };
  const gates = netlist?.gates.length ?? 0;
  return {
    words: [many(inputs.length, 'input'), many(outputs.length, 'output'), many(gates, 'gate')].join(' · '),
    mark: null,
  };
}

function packStatus({ packing, packingPending, reading }: JobView): StepStatus {
  if (packingPending) return { words: 'packing …', mark: null };
  if (!packing || !reading?.design.outputs.length) return { words: '—', mark: null };
  const { packages, unitsSpare } = countPacking(packing);
  return { words: `${many(packages, 'chip')} · ${unitsSpare} spare`, mark: null };
}

function boardWords(job: Job): string {
  const boards = job.board.breadboards.length;
  return `${many(Object.keys(job.board.jumpers).length, 'jumper')} on ${many(boards, 'board')}`;
}

function inspectWords(fix: number, look: number): string {
  if (fix + look === 0) return 'no problems found';
  return [fix > 0 ? `${fix} to fix` : '', look > 0 ? `${look} to look at` : ''].filter(Boolean).join(' · ');
}

function powerStatus({ subject }: JobView, bench: BenchState): StepStatus {
  const seen = bench.walked.size > 0 ? ` · ${bench.walked.size} of ${2 ** subject.inputs.length} rows seen` : '';
  return { words: `${bench.on ? 'on' : 'off'}${seen}`, mark: bench.on ? 'ok' : null };
}
