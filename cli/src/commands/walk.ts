import {
  checkWalk,
  extractNets,
  finding,
  hasDesign,
  inputAt,
  isBare,
  isError,
  restless,
  says,
  storingChips,
  subjectOf,
  tableOf,
  UNKNOWN,
  unclearFinding,
  verdictOf,
  type WalkedRow,
  walkTable,
  wantedAt,
} from '@saddlebag/core';
import { prepare } from '../load';
import { json, many, type Output, type OwnCommand, plainFinding, tellFindings } from '../output';
import { forEachFile } from '../several';
import { stopped, withJob } from './shared';

interface WalkOptions {
  readonly json?: boolean;
  readonly events?: boolean;
}

/** Powers the board up, sets every row on the switches and reads the LEDs. */
export const walk: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('walk')
      .description('power the board up and walk the table: every row, as the LEDs show it')
      .argument('<FILES...>')
      .option('--events', 'by the event simulator alone, row after row, where boards are else swept many rows at once')
      .action(async (files: string[], options: WalkOptions) => {
        const asked = { json: options.json === true, events: options.events === true };
        done(await forEachFile(files, asked, output, (file, own) => act(file, asked, own)));
      }),
};

const act = (file: string, options: Required<WalkOptions>, output: Output): Promise<number> =>
  withJob(file, options, output, async (given) => {
    const { job, reading, findings } = await prepare(given, { layOut: 'if-bare' });
    const { netlist, behaviour } = reading.design;
    if (findings.some(isError) || isBare(job.board)) return stopped(findings, options, output, job.sheet);
    const nets = extractNets(job.board);
    const design = hasDesign(netlist) && behaviour ? { netlist, behaviour } : null;
    const { inputs, outputs } = design
      ? { inputs: design.netlist.inputs, outputs: design.netlist.outputs.map((o) => o.name) }
      : subjectOf(job.board, nets);
    const stored = design ? design.behaviour.stored.map((s) => s.name) : storingChips(job.board);
    const cannot = [
      ...(stored.length > 0 ? [finding('walk-stores', [], { names: stored.join(', ') })] : []),
      ...checkWalk(inputs.length),
    ];
    if (cannot.length > 0) return stopped([...findings, ...cannot], options, output, job.sheet);
    const wanted = design && tableOf(design.behaviour);
    const wantedOf = wanted && ((row: number) => outputs.map((_, o) => wantedAt(wanted, o, row)));
    const walked = [...walkTable(job.board, nets, { inputs, outputs }, options.events)];
    const { differing: different } = verdictOf(walked, wantedOf);
    const differing = different?.length ?? null;
    const differs = new Set(different);
    const rows = walked.map((row) => ({
      ...row,
      wanted: wantedOf?.(row.row) ?? null,
      agrees: wantedOf ? !differs.has(row.row) : null,
    }));
    const all = rows.every((r) => r.settled) ? findings : [...findings, restless()];
    const show = ({ seen }: WalkedRow): (number | string)[] => seen.map((s) => (s === UNKNOWN ? '?' : s));
    const switches = (r: WalkedRow): number[] => inputs.map((_, i) => inputAt(inputs.length, i, r.row));
    if (options.json) {
      const list = rows.map(({ row, wanted: want, agrees: same, ...r }) => ({
        row,
        switches: switches({ row, ...r }),
        seen: show({ row, ...r }),
        wanted: want,
        agrees: same,
        ...(r.unclear && { unclear: r.unclear }),
      }));
      output.out(json({ inputs, outputs, rows: list, differing, findings: all.map(plainFinding) }));
    } else {
      output.out(`${inputs.join(' ')} | ${outputs.map((o) => (wanted ? `${o} seen/wanted` : o)).join(' ')}\n`);
      for (const r of rows) {
        const why = r.unclear ? `  ${says(unclearFinding(r.unclear))}` : '';
        const cells = show(r).map((s, o) => (r.wanted ? `${s}/${r.wanted[o] ?? '-'}` : String(s)));
        const verdict = r.agrees === null ? '' : r.agrees ? '  agrees' : '  differs';
        output.out(`${switches(r).join(' ')} | ${cells.join(' ')}${verdict}${why}\n`);
      }
      output.out(verdictOn(rows.length, differing));
      tellFindings(all, output, job.sheet);
    }
    return (differing ?? 0) === 0 ? 0 : 1;
  });

function verdictOn(rows: number, differing: number | null): string {
  if (differing === null)
    return `${many(rows, 'row')} seen. There is no design to compare with; saddlebag recover reads one from the board.\n`;
  return differing === 0 ? `All ${many(rows, 'row')} agree.\n` : `${differing} of ${rows} rows differ.\n`;
}
