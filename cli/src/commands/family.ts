import { applyEdit, type FamilyId, familyIds, mixtureOf, shownValue, swapFamily, writeJobFile } from '@saddlebag/core';
import { checkTarget, WrongUse, writeWhole } from '../files';
import { JOB_ENDINGS } from '../load';
import { codeFor, json, many, type Output, type OwnCommand, plainFinding, tellFindings } from '../output';
import { readDrawer, stopped, withJob } from './shared';

interface FamilyOptions {
  readonly json?: boolean;
  readonly output?: string;
  readonly drawer?: string;
}

/** Takes a job to another family of chips. */
export const family: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('family')
      .description(`take a job to another family of chips, by packing and board alike: ${familyIds.join(', ')}`)
      .argument('<FILE>')
      .argument('[FAMILY]', 'left out with --drawer: that with most chips in it')
      .option(
        '--drawer <FILE>',
        'take what the lab has, of this family and those that go with it; CSV: part,count,price',
      )
      .option('-o, --output <FILE>', 'write the job to a file')
      .action(async (file: string, name: string | undefined, options: FamilyOptions) => {
        const { drawer: csv, output: target } = options;
        if (name === undefined && csv === undefined)
          throw new WrongUse('name a family, or give a drawer with --drawer');
        const named = familyIds.find((id) => id === name?.toUpperCase());
        if (name !== undefined && !named)
          throw new WrongUse(`there is no family ${name}; there are ${familyIds.join(', ')}`);
        if (target !== undefined) checkTarget(target, { endings: JOB_ENDINGS, inputs: [file, csv ?? file] });
        const read = csv === undefined ? null : readDrawer(csv);
        if (read && read.entries === null) return done(stopped(read.findings, { json: options.json === true }, output));
        const drawer = read?.entries ?? undefined;
        const family = named ?? mixtureOf(drawer ?? [])?.family;
        if (!family) throw new WrongUse('the drawer has no chips');
        done(await act(file, { family, drawer }, options, output));
      }),
};

/** The family to take, and the drawer to take it from, if one is given. */
interface Wanted {
  readonly family: FamilyId;
  readonly drawer: Parameters<typeof swapFamily>[2] | undefined;
}

function act(file: string, wanted: Wanted, options: FamilyOptions, output: Output): Promise<number> {
  return withJob(file, { json: options.json === true }, output, (job) => {
    const { edit, changed, pullDowns, findings } = swapFamily(job, wanted.family, wanted.drawer);
    const applied = applyEdit(job, edit);
    if (!applied.ok) return stopped(applied.findings, { json: options.json === true }, output);
    if (options.output !== undefined) writeWhole(options.output, writeJobFile(applied.job));
    if (options.json)
      output.out(json({ family: wanted.family, changed, pullDowns, findings: findings.map(plainFinding) }));
    else {
      for (const { ref, from, to } of changed) output.out(`${ref}: ${from} becomes ${to}\n`);
      for (const { ref, from, to } of pullDowns)
        output.out(`${ref}: ${shownOhms(from)} becomes ${shownOhms(to)}, the pull-down of an input\n`);
      output.out(`${many(changed.length, 'chip')} changed on the board.\n`);
      tellFindings(findings, output, job.sheet);
    }
    return codeFor(findings);
  });
}

const shownOhms = (ohms: number): string => shownValue('resistor', ohms).trim();
