import {
  chipLibrary,
  countChips,
  type Form,
  forms,
  isError,
  type Restated,
  restatable,
  restate,
} from '@saddlebag/core';
import { highsSolver } from '@saddlebag/core/solver';
import { InvalidArgumentError } from 'commander';
import { checkTarget, WrongUse, writeWhole } from '../files';
import { json, many, type Output, type OwnCommand, plainFinding, tellFindings } from '../output';
import { stopped, withJob } from './shared';

interface RestateOptions {
  readonly signal?: string[];
  readonly form?: Form;
  readonly output?: string;
  readonly json?: boolean;
}

const names = forms.map((f) => f.form);

/** Puts signals into other forms: all forms side by side, or one of them onto the sheet. */
export const restateCommand: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('restate')
      .description('put signals into other forms and show what each takes')
      .argument('<FILE>')
      .option('--signal <NAMES...>', 'the signals; all of them when none is named')
      .option(
        `--form <FORM>`,
        `one form: ${names.join(', ')}; all of them when none is named`,
        (text: string): Form => {
          const form = names.find((n) => n === text);
          if (!form) throw new InvalidArgumentError(`It is one of ${names.join(', ')}.`);
          return form;
        },
      )
      .option('-o, --output <FILE>', 'write the sheet in the one form to a file')
      .action(async (file: string, options: RestateOptions) => {
        done(await act(file, options, output));
      }),
};

async function act(file: string, options: RestateOptions, output: Output): Promise<number> {
  if (options.output !== undefined) {
    if (options.form === undefined) throw new WrongUse('-o writes one form: name it with --form');
    checkTarget(options.output, { endings: ['.sheet'], inputs: [file] });
  }
  const plain = { json: options.json === true };
  return withJob(file, plain, output, async ({ sheet, family }, reading) => {
    if (!reading.design.netlist || reading.findings.some(isError))
      return stopped(reading.findings, plain, output, sheet);
    const signals = options.signal ?? restatable(reading);
    const solve = highsSolver();
    const made: (Restated & { chips: number | null })[] = [];
    const findings = [];
    for (const { form } of forms.filter((f) => options.form === undefined || f.form === options.form)) {
      const one = await restate(sheet, { signals, form }, chipLibrary, solve);
      if (one.restated) made.push({ ...one.restated, chips: await countChips(one.restated.text, family, solve) });
      findings.push(...one.findings);
    }
    const [only] = made;
    if (options.output !== undefined && options.form !== undefined && only) writeWhole(options.output, only.text);
    if (plain.json) output.out(json({ signals, forms: made, findings: findings.map(plainFinding) }));
    else {
      for (const m of made) tell(m, output);
      tellFindings(findings, output, sheet);
    }
    return made.length > 0 && !findings.some(isError) ? 0 : 1;
  });
}

function tell({ form, lines, size, proved, chips }: Restated & { chips: number | null }, output: Output): void {
  const title = forms.find((f) => f.form === form)?.title;
  const sure = proved ? ', proved smallest' : ', not proved smallest';
  output.out(
    `${title}: ${many(size.gates, 'gate')}, ${many(size.levels, 'level')}${chips === null ? '' : `, ${many(chips, 'chip')} in all`}${sure}\n`,
  );
  for (const line of lines) output.out(`  ${line}\n`);
}
