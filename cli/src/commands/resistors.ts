import { type FoundResistor, looseValues, resistorsOf, shownValue } from '@saddlebag/core';
import { codeFor, json, many, type Output, type OwnCommand, plainFinding, tellFindings } from '../output';
import { readDrawer, stopped, withJob } from './shared';

interface ResistorOptions {
  readonly json?: boolean;
  readonly ma?: string;
  readonly drawer?: string;
}

/** Tells what resistors before LEDs, and those that pull inputs, may be. */
export const resistors: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('resistors')
      .description(
        'work out what the resistors before LEDs and at inputs may be, from the data sheets of what they meet',
      )
      .argument('<FILE>')
      .option('--ma <MA>', 'what an LED is wanted to get, in milliamperes')
      .option('--drawer <FILE>', 'what the lab has, as CSV: its resistors come first')
      .action(async (file: string, options: ResistorOptions) => {
        done(await act(file, options, output));
      }),
};

function act(file: string, options: ResistorOptions, output: Output): Promise<number> {
  const asJson = options.json === true;
  const ledMa = options.ma === undefined ? undefined : Number(options.ma);
  if (ledMa !== undefined && !(ledMa > 0 && ledMa < 1000)) {
    output.err('--ma takes milliamperes, such as 5.\n');
    return Promise.resolve(2);
  }
  const drawer = options.drawer === undefined ? null : readDrawer(options.drawer);
  if (drawer && !drawer.entries) return Promise.resolve(stopped(drawer.findings, { json: asJson }, output));
  const drawerOhms = looseValues(drawer?.entries ?? []).ohms;
  return withJob(file, { json: asJson }, output, (job, reading) => {
    const findings = [...(drawer?.findings ?? []), ...reading.findings];
    const found = resistorsOf(job.board, { family: job.family, drawerOhms, ...(ledMa !== undefined && { ledMa }) });
    if (asJson) output.out(json({ resistors: found, findings: findings.map(plainFinding) }));
    else {
      for (const one of found) output.out(`${lineOf(one)}\n`);
      output.out(`${many(found.length, 'resistor')}.\n`);
      tellFindings(findings, output, job.sheet);
    }
    return codeFor(findings);
  });
}

const ohms = (value: number): string => shownValue('resistor', value).trim();

function lineOf({ ref, use, of, ma, leastOhms, mostOhms, suggestedOhms, ohms: own }: FoundResistor): string {
  const what = use === 'led' ? `before ${of}, up to ${ma?.toFixed(1)} mA` : `${use} at ${of}`;
  return `${ref}: ${ohms(own)}, ${what}; ${ohms(leastOhms)} to ${ohms(mostOhms)} will do, ${ohms(suggestedOhms)} suits best`;
}
