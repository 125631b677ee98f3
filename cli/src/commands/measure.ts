import { isBare, isError, measure, type Start, type SwitchSettings } from '@saddlebag/core';
import { InvalidArgumentError } from 'commander';
import { WrongUse } from '../files';
import { prepare } from '../load';
import { codeFor, json, type Output, type OwnCommand, plainFinding, tellFindings } from '../output';
import { readStart, readTime, stopped, turnOption, withJob } from './shared';

interface MeasureOptions {
  readonly set?: SwitchSettings;
  readonly at?: number | undefined;
  readonly start?: Start;
  readonly turn?: ReadonlyMap<string, number>;
  readonly json?: boolean;
}

/** Powers the board up, sets switches, and measures volts, levels and currents. */
export const measureBoard: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('measure')
      .description('power the board up, set switches, and measure each lead in volts, each lamp in milliamperes')
      .argument('<FILE>')
      .option(
        '--set <SIGNAL=0|1,...>',
        'switches to set, in the order in which they are moved; all begin at 0',
        readSettings,
      )
      .option('--at <TIME>', 'when to measure, such as 3s, 20ms, 150ns; at rest when it is not given', readTime)
      .option(...turnOption)
      .option('--start <HOW>', 'what is stored when the power comes on: unknown, clear, or chance:7', readStart)
      .action(async (file: string, options: MeasureOptions) => {
        done(await act(file, options, output));
      }),
};

/** Reads `K=1,E=0`. Throws commander's error where it is written otherwise. */
export function readSettings(text: string): SwitchSettings {
  return text.split(',').map((part) => {
    const [, name, value] = /^\s*([^=\s]+)\s*=\s*([01])\s*$/.exec(part) ?? [];
    if (name === undefined) throw new InvalidArgumentError('Write signals with 0 or 1, such as K=1,E=0.');
    return [name, value === '1'];
  });
}

async function act(
  file: string,
  { set = [], at, start = 'unknown', turn = new Map(), json: asJson }: MeasureOptions,
  output: Output,
): Promise<number> {
  const options = { json: asJson === true };
  return withJob(file, options, output, async (given) => {
    const { job, findings } = await prepare(given, { layOut: 'if-bare' });
    if (findings.some(isError) || isBare(job.board)) return stopped(findings, options, output, job.sheet);
    const { measured, unknown, findings: more } = measure(job.board, set, { atNs: at ?? null, start, dials: turn });
    if (!measured) throw new WrongUse(`no switch or potentiometer of the board is called ${unknown.join(', ')}`);
    const all = [...findings, ...more];
    if (options.json) output.out(json({ ...measured, findings: all.map(plainFinding) }));
    else {
      const volts = (v: number | null): string => (v === null ? '?' : v.toFixed(2)).padStart(6);
      for (const [pin, { volts: v, level }] of Object.entries(measured.pins))
        output.out(`${pin.padEnd(9)}${volts(v)} V  ${level}\n`);
      for (const [lamp, { ma, state }] of Object.entries(measured.lamps))
        output.out(`${lamp.padEnd(9)}${ma.toFixed(2).padStart(6)} mA ${state}\n`);
      output.out(`supply ${measured.supplyMa.toFixed(1)} mA\n`);
      tellFindings(all, output, job.sheet);
    }
    return codeFor(all);
  });
}
