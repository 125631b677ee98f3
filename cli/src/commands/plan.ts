import {
  againstShortest,
  broughtUpTo,
  crossingsOf,
  isBare,
  isError,
  type Job,
  type LayoutBoardKind,
  layoutBoardKindOf,
  routeJumpers,
  wireLength,
  writeJobFile,
} from '@saddlebag/core';
import { InvalidArgumentError } from 'commander';
import { checkTarget, writeWhole } from '../files';
import { JOB_ENDINGS, type Prepared, prepare } from '../load';
import { codeFor, json, many, type Output, type OwnCommand, plainFinding, tellFindings } from '../output';
import { stopped, withJob } from './shared';

interface PlanOptions {
  readonly boards?: LayoutBoardKind;
  readonly keep?: boolean;
  readonly output?: string;
  readonly json?: boolean;
}

const kinds: readonly LayoutBoardKind[] = ['full', 'split', 'half'];

/** Lays the job out on boards, afresh or keeping what it can. */
export const plan: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('plan')
      .description('lay the chips, parts and jumpers out on breadboards')
      .argument('<FILE>')
      .option('--boards <KIND>', `kind of breadboard: ${kinds.join(', ')}`, (text: string): LayoutBoardKind => {
        const kind = kinds.find((k) => k === text);
        if (!kind) throw new InvalidArgumentError(`It is one of ${kinds.join(', ')}.`);
        return kind;
      })
      .option('--keep', 'bring the board of the job up to its sheet and keep what still serves')
      .option('-o, --output <FILE>', 'write the job, laid out, to a file')
      .action(async (file: string, options: PlanOptions) => {
        done(await act(file, options, output));
      }),
};

async function act(file: string, options: PlanOptions, output: Output): Promise<number> {
  if (options.output !== undefined) checkTarget(options.output, { endings: JOB_ENDINGS, inputs: [file] });
  const plain = { json: options.json === true };
  return withJob(file, plain, output, async (given) => {
    const keep = options.keep === true && !isBare(given.board);
    const made = await prepare(given, {
      layOut: keep ? 'never' : 'afresh',
      ...(options.boards && { boards: options.boards }),
    });
    const update = keep ? brought(made) : null;
    const job = update?.job ?? made.job;
    const findings = [...made.findings, ...(update?.findings ?? [])];
    if (findings.some(isError) || isBare(job.board)) return stopped(findings, plain, output, job.sheet);
    if (options.output !== undefined) writeWhole(options.output, writeJobFile(job));
    const { breadboards, parts, jumpers } = job.board;
    const length = wireLength(job.board);
    const crossings = crossingsOf(routeJumpers(job.board));
    if (plain.json)
      output.out(
        json({
          breadboards,
          parts: Object.values(parts),
          jumpers: Object.values(jumpers),
          length,
          crossings,
          ...(update && { taken: update.taken, added: update.added }),
          findings: findings.map(plainFinding),
        }),
      );
    else {
      tell(job, output);
      if (update) {
        output.out(`removed: ${update.taken.join(' ') || 'nothing'}\n`);
        output.out(`new or moved: ${update.added.join(' ') || 'nothing'}\n`);
      }
      tellFindings(findings, output, job.sheet);
    }
    return codeFor(findings);
  });
}

function brought({ job, reading, packing }: Prepared) {
  const { netlist } = reading.design;
  if (!packing || !netlist) return null;
  const {
    board,
    taken,
    added,
    stopped: why,
    ...made
  } = broughtUpTo(job.board, packing, netlist, { kind: layoutBoardKindOf(job) });
  return { job: { ...job, packing: made.packing, board }, taken, added, findings: why ? [why] : [] };
}

function tell({ board }: Job, output: Output): void {
  const { breadboards, parts, jumpers } = board;
  for (const { ref, part, at, rotation, signal } of Object.values(parts))
    output.out(
      `${ref.padEnd(4)} ${part.padEnd(10)} ${at}${rotation === 0 ? '' : `, turned ${rotation}°`}${signal ? `  ${signal}` : ''}\n`,
    );
  for (const { id, from, to } of Object.values(jumpers)) output.out(`${id.padEnd(4)} ${from} > ${to}\n`);
  const { laid, bound } = wireLength(board);
  output.out(
    `${many(Object.keys(parts).length, 'part')} and ${many(Object.keys(jumpers).length, 'jumper')} on ${many(breadboards.length, 'board')}; ` +
      `wires ${(laid * 2.54).toFixed(0)} mm long, ${againstShortest({ laid, bound })}, ` +
      `crossing ${many(crossingsOf(routeJumpers(board)), 'time')}.\n`,
  );
}
