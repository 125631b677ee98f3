import {
  hertzWords,
  isBare,
  isError,
  type Move,
  runBoard,
  type Start,
  timeWords,
  traceCsvOf,
  vcdOf,
} from '@saddlebag/core';
import { InvalidArgumentError } from 'commander';
import { checkTarget, WrongUse, writeWhole } from '../files';
import { prepare } from '../load';
import { codeFor, json, type Output, type OwnCommand, plainFinding, tellFindings } from '../output';
import { readStart, readTime, stopped, turnOption, withJob } from './shared';

interface RunOptions {
  readonly for: number;
  readonly set?: readonly Move[];
  readonly start?: Start;
  readonly turn?: ReadonlyMap<string, number>;
  readonly watch?: readonly string[];
  readonly bounce?: number;
  readonly slowest?: boolean;
  readonly strict?: boolean;
  readonly vcd?: string;
  readonly csv?: string;
  readonly svg?: string;
  readonly json?: boolean;
}

/** Powers the board up and lets time run on it. */
export const runTime: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('run')
      .description('power the board up and let time run: clocks, timers, charge; tell what each signal did')
      .argument('<FILE>')
      .requiredOption('--for <TIME>', 'how long, such as 2s, 20ms, 1h', readTime)
      .option('--set <SIGNAL=0|1@TIME,...>', 'switches to move, and when: R=1@0,R=0@10us', readMoves)
      .option(...turnOption)
      .option('--start <HOW>', 'what is stored when the power comes on: unknown, clear, or chance:7', readStart)
      .option('--watch <NAME,...>', 'signals, lamps, switches or pins to watch; all labels when not given', readNames)
      .option('--bounce <SEED>', 'contacts bounce for 1 to 5 ms, by this seed', readSeed)
      .option('--slowest', 'the greatest delays of the data sheets instead of the typical ones')
      .option(
        '--strict',
        'what is stored is unknown after a pulse, set-up or hold time that its data sheet does not allow',
      )
      .option('--vcd <FILE>', 'write all changes as a value change dump (IEEE 1364)')
      .option('--csv <FILE>', 'write all changes as a table')
      .option('--svg <FILE>', 'draw the timing diagram')
      .action(async (file: string, options: RunOptions) => {
        done(await act(file, options, output));
      }),
};

const readNames = (text: string): string[] => text.split(',').map((name) => name.trim());

function readSeed(text: string): number {
  if (!/^\d{1,9}$/.test(text)) throw new InvalidArgumentError('Write a whole number.');
  return Number(text);
}

/** Reads `R=1@0,R=0@10us`. Throws commander's error where it is written otherwise. */
function readMoves(text: string): Move[] {
  return text.split(',').map((part) => {
    const [, name, value, time = '0'] = /^\s*([^=\s]+)\s*=\s*([01])\s*(?:@\s*(\S+))?\s*$/.exec(part) ?? [];
    if (name === undefined)
      throw new InvalidArgumentError('Write switches with 0 or 1 and a time, such as R=1@0,R=0@10us.');
    return { name, on: value === '1', atNs: time === '0' ? 0 : readTime(time) };
  });
}

async function act(file: string, options: RunOptions, output: Output): Promise<number> {
  const asJson = { json: options.json === true };
  if (options.vcd !== undefined) checkTarget(options.vcd, { endings: ['.vcd'], inputs: [file] });
  if (options.csv !== undefined) checkTarget(options.csv, { endings: ['.csv'], inputs: [file] });
  if (options.svg !== undefined) checkTarget(options.svg, { endings: ['.svg'], inputs: [file] });
  return withJob(file, asJson, output, async (given) => {
    const { job, findings } = await prepare(given, { layOut: 'if-bare' });
    if (findings.some(isError) || isBare(job.board)) return stopped(findings, asJson, output, job.sheet);
    const { run, unknown } = runBoard(job.board, {
      untilNs: options.for,
      moves: options.set ?? [],
      start: options.start ?? 'unknown',
      ...(options.turn && { dials: options.turn }),
      bounce: options.bounce ?? null,
      delays: options.slowest ? 'most' : 'typical',
      strict: options.strict === true,
      ...(options.watch && { watch: options.watch }),
    });
    if (!run) throw new WrongUse(`nothing on the board is called ${unknown.join(', ')}`);
    const { trace, signals, untilNs, events } = run;
    if (options.vcd !== undefined) writeWhole(options.vcd, vcdOf(trace, untilNs));
    if (options.csv !== undefined) writeWhole(options.csv, traceCsvOf(trace));
    if (options.svg !== undefined) {
      // Drawing takes React; the other commands start without it.
      const { traceDrawing } = await import('@saddlebag/web/picture');
      writeWhole(options.svg, traceDrawing(job, trace, untilNs));
    }
    const all = [...findings, ...run.findings];
    if (asJson.json) output.out(json({ untilNs, events, signals, findings: all.map(plainFinding) }));
    else {
      for (const [name, { edges, periodNs, highShare, shortestPulseNs }] of Object.entries(signals)) {
        const period =
          periodNs === null ? '' : `  ${hertzWords(1e9 / periodNs)}, high ${(100 * (highShare ?? 0)).toFixed(1)} %`;
        const shortest = shortestPulseNs === null ? '' : `, shortest pulse ${timeWords(shortestPulseNs)}`;
        output.out(`${name.padEnd(9)}${String(edges).padStart(8)} edges${period}${shortest}\n`);
      }
      output.out(`${events} events in ${timeWords(untilNs)}\n`);
      tellFindings(all, output, job.sheet);
    }
    return codeFor(all);
  });
}
