import {
  addPackage,
  applyEdit,
  asInDrawer,
  type ByHand,
  countPacking,
  type DrawerEntry,
  drivenBy,
  type Edit,
  type Finding,
  finding,
  freedom,
  isError,
  type Job,
  jumpersToLay,
  layOut,
  lockGate,
  missingFrom,
  moveGate,
  type Netlist,
  noLocks,
  type Packing,
  packByStrategy,
  parsePlace,
  partsOfPacking,
  pathOf,
  placeOf,
  printPlace,
  proofText,
  type Reading,
  rippleOf,
  rippleText,
  rulesOf,
  type Strategy,
  stockOf,
  strategies,
  typeOf,
  writeJobFile,
} from '@saddlebag/core';
import { highsSolver } from '@saddlebag/core/solver';
import { InvalidArgumentError, Option } from 'commander';
import { checkTarget, writeWhole } from '../files';
import { JOB_ENDINGS, prepare } from '../load';
import { codeFor, json, many, type Output, type OwnCommand, plainFinding, tellFindings } from '../output';
import { readDrawer, stopped, withJob } from './shared';

interface PackOptions {
  readonly strategy?: Strategy;
  readonly drawer?: string;
  readonly without?: string[];
  readonly pin?: string[];
  readonly add?: string[];
  readonly seconds?: number;
  readonly output?: string;
  readonly json?: boolean;
}

const names: readonly string[] = strategies.map((w) => w.strategy);
function readStrategy(text: string): Strategy {
  if (!names.includes(text)) throw new InvalidArgumentError(`It is one of ${names.join(', ')}.`);
  return text as Strategy;
}

/** Assigns the gates to packages: as the sheet has them, or in another way to build. */
export const pack: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('pack')
      .description('assign the gates to units of real chips')
      .argument('<FILE>')
      .option('--strategy <NAME>', `${names.join(', ')}; as written when none is named`, readStrategy)
      .addOption(new Option('--way <NAME>', 'the same').argParser(readStrategy).hideHelp())
      .option('--drawer <FILE>', 'what the lab has, as CSV: part,count,price')
      .option('--without <NUMBERS...>', 'chips that must not be chosen, such as 7486')
      .option('--pin <GATE=PLACE...>', 'gates to put on units and keep there, such as W=U2.3')
      .option('--add <NUMBERS...>', 'packages to add, such as 7400')
      .option(
        '--seconds <N>',
        'the time it may take at most; without it, what is found does not depend on the machine',
        (text: string): number => {
          const n = Number(text);
          if (!(n > 0 && n <= 3600)) throw new InvalidArgumentError('It is a number of seconds from 1 to 3600.');
          return n;
        },
      )
      .option('-o, --output <FILE>', 'write the job, packed so and laid out, to a file')
      .action(async (file: string, { way, ...options }: PackOptions & { readonly way?: Strategy }) => {
        done(await act(file, { ...options, ...(way && { strategy: way }) }, output));
      }),
};

async function act(file: string, options: PackOptions, output: Output): Promise<number> {
  if (options.output !== undefined)
    checkTarget(options.output, { endings: JOB_ENDINGS, inputs: [file, options.drawer ?? file] });
  const plain = { json: options.json === true };
  return withJob(file, plain, output, async (job, reading) => {
    const drawer = options.drawer === undefined ? null : readDrawer(options.drawer);
    if (drawer && drawer.entries === null) return stopped(drawer.findings, plain, output);
    const made = await packed(job, reading, options, drawer?.entries ?? null);
    const all = [...(drawer?.findings ?? []), ...made.findings];
    if (!made.packing || !reading.design.netlist) return stopped(all, plain, output, job.sheet);
    const arranged = byHand(job, reading.design.netlist, made.packing, options);
    if (!arranged.ok) return stopped([...all, arranged.finding], plain, output, job.sheet);
    const { packing } = arranged;
    const told = all.some((f) => f.code === 'pack/drawer-lacks');
    const missing = drawer?.entries && !told ? missingFrom(packing, stockOf(drawer.entries, job.family)) : [];
    for (const m of missing) all.push(finding('pack/missing', [], { ...m, short: m.need - m.have }));
    if (options.output !== undefined)
      writeWhole(options.output, writeJobFile(laidOut(job, reading.design.netlist, arranged)));
    const count = countPacking(packing);
    const [path, ripple] = [pathOf(packing), rippleOf(packing)];
    if (plain.json)
      output.out(
        json({
          strategy: packing.strategy ?? 'written',
          ...count,
          jumpers: jumpersToLay(packing),
          path,
          ripple,
          proved: packing.proved,
          proof: packing.proof ?? (packing.proved ? 'tried' : 'best'),
          bound: packing.bound ?? null,
          parts: partsOfPacking(packing),
          missing,
          packing,
          findings: all.map(plainFinding),
        }),
      );
    else {
      tell(packing, output);
      const used = `${many(count.packages, 'package')}, ${many(count.unitsUsed, 'unit')} used, ${count.unitsSpare} spare`;
      const deep = `${many(path.gates, 'gate')} deep, ${path.typicalNs.toFixed(0)} ns`;
      const free = freedom(reading.design.netlist, packing);
      const late = ripple && rippleText(ripple);
      output.out(`${used}; ${deep}. ${[proofText(withProof(packing)), late, free].filter(Boolean).join(' ')}\n`);
      tellFindings(all, output, job.sheet);
    }
    return codeFor(all);
  });
}

const withProof = (p: Packing): Packing => ({ ...p, proof: p.proof ?? (p.proved ? 'tried' : 'best') });

/** The job's own packing or the plain one when no way is named; otherwise that way. */
async function packed(
  job: Job,
  { design, findings }: Reading,
  { strategy, without, seconds }: PackOptions,
  drawer: readonly DrawerEntry[] | null,
): Promise<{ packing: Packing | null; findings: readonly Finding[] }> {
  if (strategy === undefined) return prepare(job, { layOut: 'never' });
  if (!design.netlist || findings.some(isError)) return { packing: null, findings };
  const supplies = {
    ...rulesOf(job),
    excluded: [...(job.excluded ?? []), ...(without ?? [])],
    drawer: drawer && stockOf(drawer, job.family),
  };
  const limits = seconds === undefined ? undefined : { effort: seconds, until: Date.now() + 1000 * seconds };
  const made = await packByStrategy(design.netlist, { family: job.family, strategy, supplies }, highsSolver(), {
    limits,
  });
  const named =
    strategy === 'drawer' && made.packing && drawer ? asInDrawer(made.packing, drawer, job.family) : made.packing;
  return { packing: named, findings: [...findings, ...made.findings] };
}

/** What is asked for by hand, one after the other: packages added, then gates put on units. */
function byHand(job: Job, netlist: Netlist, packing: Packing, { pin = [], add = [] }: PackOptions): ByHand {
  let now: ByHand = { ok: true, packing, locks: job.locks ?? noLocks };
  for (const part of add) if (now.ok) now = addPackage(now.packing, now.locks, job.family, part);
  for (const text of pin) {
    if (!now.ok) break;
    const [net = '', where = ''] = text.split('=');
    const [from, to] = [placeOf(now.packing, net), parsePlace(where)];
    if (!from || !to) return { ok: false, finding: finding('hand/no-unit', [], { place: from ? where : net }) };
    now =
      printPlace(from) === printPlace(to)
        ? lockGate(now.packing, now.locks, netlist, { net, on: true })
        : moveGate(now.packing, now.locks, netlist, { from, to });
  }
  return now;
}

function laidOut(job: Job, netlist: Netlist, { packing, locks }: Extract<ByHand, { ok: true }>): Job {
  const { edit } = layOut(packing, netlist, { locks });
  const edits: Edit[] = [{ kind: 'lock', locks }, edit ?? { kind: 'take-packing', packing }];
  const applied = applyEdit(job, { kind: 'all', says: 'packing', edits });
  return applied.ok ? applied.job : job;
}

function tell({ packages }: Packing, output: Output): void {
  for (const { units, ...named } of packages) {
    const { ref, part } = named;
    const type = typeOf(named);
    output.out(`${ref} ${part}, ${type?.title}\n`);
    units.forEach((use, i) => {
      const unit = type?.units[i];
      const pins = unit ? `pins ${unit.inputs.join(' ')} > ${unit.outputs.join(' ')}` : '';
      output.out(use ? `  ${pins}: ${use.inputs.join(' ')} > ${drivenBy(use).join(' ')}\n` : `  ${pins}: spare\n`);
    });
  }
}
