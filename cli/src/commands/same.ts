import { compareDesigns, type Finding, isError, type Side } from '@saddlebag/core';
import { load } from '../load';
import { json, type Output, type OwnCommand, plainFinding, tellFindings } from '../output';

/** Compares two designs, or one signal of each. */
export const same: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('same')
      .description('tell whether two designs do the same; each is FILE, or FILE:SIGNAL for one signal of it')
      .argument('<A>')
      .argument('<B>')
      .action((a: string, b: string, options: { json?: boolean }) => {
        done(act(a, b, options.json === true, output));
      }),
};

function act(a: string, b: string, asJson: boolean, output: Output): number {
  const [left, right] = [sideOf(a), sideOf(b)];
  const wrong = [left, right].flatMap((s) => ('findings' in s ? s.findings : []));
  if ('findings' in left || 'findings' in right) return tell(wrong, asJson, output);
  const { comparison, findings } = compareDesigns(left, right);
  if (!comparison) return tell(findings, asJson, output);
  const { inputs, pairs, rows, first } = comparison;
  if (asJson) output.out(json({ same: first === null, inputs, pairs, rows, first }));
  else if (!first) output.out(`The same in all ${rows} rows.\n`);
  else {
    const where = inputs.map((name, i) => `${name}=${first.inputs[i]}`).join(' ');
    const what = first.cells.filter((c) => c.a !== c.b).map((c) => `${c.output} is ${c.a} and ${c.b}`);
    output.out(`They differ, first in row ${first.row}: ${where}: ${what.join(', ')}.\n`);
  }
  return first ? 1 : 0;
}

function tell(findings: readonly Finding[], asJson: boolean, output: Output): number {
  if (asJson) output.out(json({ findings: findings.map(plainFinding) }));
  else tellFindings(findings, output);
  return 1;
}

/** `lock.sheet:G` is the signal G of lock.sheet. */
function sideOf(text: string): Side | { findings: readonly Finding[] } {
  const m = /^(.*\.\w+):(\w+)$/.exec(text);
  const loaded = load(m?.[1] ?? text);
  if (!loaded.job) return { findings: loaded.findings };
  const { design, findings } = loaded.reading;
  if (!design.behaviour || findings.some(isError)) return { findings };
  return { behaviour: design.behaviour, output: m?.[2] };
}
