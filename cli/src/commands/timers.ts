import {
  applyEdit,
  type FoundTimer,
  fastSwitch,
  hertzWords,
  type Job,
  type LooseValues,
  looseValues,
  type Rhythm,
  rhythmOf,
  rhythmSwitched,
  type Suggestion,
  shownValue,
  spreadOf,
  suggested,
  timersOf,
  timeWords,
  type Wanted,
  writeJobFile,
} from '@saddlebag/core';
import { checkTarget, WrongUse, writeWhole } from '../files';
import { JOB_ENDINGS } from '../load';
import { codeFor, json, many, type Output, type OwnCommand, plainFinding, tellFindings } from '../output';
import { readDrawer, stopped, withJob } from './shared';

interface TimerOptions {
  readonly json?: boolean;
  readonly fastSwitch?: string;
  readonly hertz?: string;
  readonly high?: string;
  readonly pulse?: string;
  readonly drawer?: string;
  readonly output?: string;
}

/** Tells what the timers, one-shots and Schmitt oscillators of a board come to. */
export const timers: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('timers')
      .description(
        'work out what timers, one-shots and Schmitt oscillators of a board come to, from the parts at their pins',
      )
      .argument('<FILE>')
      .option(
        '--fast-switch <PIN>',
        'put a second capacitor behind a switch at the timer with this output, such as U1.3',
      )
      .option('--hertz <HZ>', 'parts for timers that run so many times a second')
      .option('--high <PERCENT>', 'and are high for such a share of the time')
      .option('--pulse <MS>', 'parts for timers that give a pulse of so many milliseconds')
      .option('--drawer <FILE>', 'what the lab has, as CSV: its resistors and capacitors come first')
      .option('-o, --output <FILE>', 'write the job to a file')
      .action(async (file: string, options: TimerOptions) => {
        if (options.output !== undefined) checkTarget(options.output, { endings: JOB_ENDINGS, inputs: [file] });
        done(await act(file, options, output));
      }),
};

/** The job with a fast switch at the timer with an output; findings where it cannot be. */
function withSwitch(job: Job, pin: string) {
  const timer = timersOf(job.board).find((t) => t.pin === pin.toUpperCase());
  if (!timer) throw new WrongUse(`there is no timer at ${pin}`);
  const wired = fastSwitch(job.board, timer);
  return 'finding' in wired ? { ok: false as const, findings: [wired.finding] } : applyEdit(job, wired.edit);
}

/** What is wanted of the timers that run, and of those that give pulses. */
function wantedOf({ hertz, high, pulse }: TimerOptions): { readonly runs?: Wanted; readonly pulses?: Wanted } {
  const number = (name: string, text: string, most: number): number => {
    const value = Number(text);
    if (!(value > 0 && value < most)) throw new WrongUse(`--${name} takes a number above 0 and below ${most}`);
    return value;
  };
  if (high !== undefined && hertz === undefined) throw new WrongUse('--high goes with --hertz');
  return {
    ...(hertz !== undefined && {
      runs: {
        hertz: number('hertz', hertz, 1e9),
        highShare: high === undefined ? null : number('high', high, 100) / 100,
      },
    }),
    ...(pulse !== undefined && { pulses: { pulseS: number('pulse', pulse, 1e9) / 1000 } }),
  };
}

function act(file: string, options: TimerOptions, output: Output): Promise<number> {
  const asJson = options.json === true;
  const { runs, pulses } = wantedOf(options);
  const drawer = options.drawer === undefined ? null : readDrawer(options.drawer);
  if (drawer && !drawer.entries) return Promise.resolve(stopped(drawer.findings, { json: asJson }, output));
  const loose = looseValues(drawer?.entries ?? []);
  return withJob(file, { json: asJson }, output, (opened, reading) => {
    const findings = [...(drawer?.findings ?? []), ...reading.findings];
    const switched = options.fastSwitch === undefined ? null : withSwitch(opened, options.fastSwitch);
    if (switched && !switched.ok) return stopped(switched.findings, { json: asJson }, output);
    const job = switched?.job ?? opened;
    if (options.output !== undefined) writeWhole(options.output, writeJobFile(job));
    const list = timersOf(job.board).map((timer) => {
      const { pin, kind, resistors, capacitor, switched: beside, law, values } = timer;
      const spread = spreadOf(timer, job.board);
      const closed = rhythmSwitched(timer);
      const parts = suggestedFor(timer, kind === 'pulse' ? pulses : runs, loose);
      return { pin, kind, resistors, capacitor, ...rhythmOf(law, values), spread, switched: beside, closed, parts };
    });
    if (asJson) output.out(json({ timers: list, findings: findings.map(plainFinding) }));
    else {
      for (const one of list)
        output.out([lineOf(one), ...one.parts.map((s) => `  ${suggestionLine(one, s)}`), ''].join('\n'));
      output.out(`${many(list.length, 'timer')}.\n`);
      tellFindings(findings, output, job.sheet);
    }
    return codeFor(findings);
  });
}

const suggestedFor = (timer: FoundTimer, wanted: Wanted | undefined, loose: LooseValues): readonly Suggestion[] =>
  wanted ? suggested(timer, wanted, loose) : [];

/** Other parts for a timer, and what it comes to with them. */
function suggestionLine({ resistors, capacitor }: Told, { values, rhythm, isInDrawer }: Suggestion): string {
  const farads = shownValue('capacitor', Number((values.farads * 1e9).toPrecision(4)));
  const parts = [
    ...resistors.map((ref, i) => `${ref}${shownValue('resistor', values.ohms[i])}`),
    `${capacitor}${farads}`,
  ];
  const comes =
    rhythm.lowS === null
      ? `a pulse of ${timeWords(rhythm.highS * 1e9)}`
      : `${hertzWords(1 / periodOf(rhythm))}, high ${((100 * rhythm.highS) / periodOf(rhythm)).toFixed(0)} %`;
  return `${parts.join(', ')}: ${comes}${isInDrawer ? ', all in the drawer' : ''}`;
}

type Told = Pick<FoundTimer, 'pin' | 'resistors' | 'capacitor' | 'switched'> &
  Rhythm & { readonly spread: readonly [least: Rhythm, most: Rhythm]; readonly closed: Rhythm | null };

const periodOf = ({ highS, lowS }: Rhythm): number => highS + (lowS ?? 0);

function lineOf({ pin, resistors, capacitor, highS, lowS, spread, switched, closed }: Told): string {
  const [least, most] = [periodOf(spread[0]), periodOf(spread[1])];
  const period = periodOf({ highS, lowS });
  const words =
    lowS === null
      ? `a pulse of ${timeWords(highS * 1e9)} (${timeWords(least * 1e9)} to ${timeWords(most * 1e9)})`
      : `${hertzWords(1 / period)} (${hertzWords(1 / most)} to ${hertzWords(1 / least)}), high ${((100 * highS) / period).toFixed(0)} %`;
  const other = closed && (lowS === null ? timeWords(closed.highS * 1e9) : hertzWords(1 / periodOf(closed)));
  const beside = other ? `; ${other} while ${switched.map((s) => s.by).join(' and ')} is closed` : '';
  return `${pin}: ${words}, by ${[...resistors, capacitor].join(' ')}${beside}`;
}
