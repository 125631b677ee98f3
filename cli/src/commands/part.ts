import {
  edgesOf,
  type FamilyId,
  families,
  findChip,
  finding,
  kindsOfUnit,
  limitsOf,
  ownLimits,
  ownPartType,
  type PartType,
  partNumber,
  partType,
  printedTableOf,
  readPartNumber,
  remedy,
  says,
  searchParts,
  type Unit,
} from '@saddlebag/core';
import { load } from '../load';
import { json, type Output, type OwnCommand, plainFinding, tellFindings } from '../output';

/** Tells a part's pins, function and limits, or finds parts by what they do. */
export const part: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('part')
      .description('show a part by its number, or find parts by what they do: part 7493, part decade counter')
      .argument('<WORDS...>')
      .option('--in <FILE>', 'look among the parts that a sheet or job defines itself first')
      .action((words: string[], options: { json?: boolean; in?: string }) => {
        const loaded = options.in === undefined ? null : load(options.in);
        if (loaded && loaded.job === null) {
          tellFindings(loaded.findings, output);
          return done(1);
        }
        const own = loaded?.reading.ownParts.flatMap((p) => ownPartType(p.text) ?? []) ?? [];
        done(act(words.join(' '), own, options.json === true, output));
      }),
};

function act(text: string, own: readonly PartType[], asJson: boolean, output: Output): number {
  const type = own.find((p) => p.ownName === text) ?? findChip(text) ?? partType(text);
  if (type) {
    const family = familyFor(type, text);
    output.out(asJson ? json(plainPart(type, family)) : spoken(type, family));
    return 0;
  }
  const found = searchParts(text);
  if (found.length === 0) {
    const none = finding('hand/no-such-type', [], { part: text.slice(0, 40) });
    if (asJson) output.out(json({ parts: [], findings: [plainFinding(none)] }));
    else output.err(`${says(none)} ${remedy(none)}\n`);
    return 1;
  }
  if (asJson) output.out(json({ parts: found }));
  else for (const e of found) output.out(`${e.number.padEnd(12)} ${e.title}\n`);
  return 0;
}

/** The family a number names, if the part is made in it; otherwise the one of it most in use. */
function familyFor({ chip }: PartType, text: string): FamilyId | null {
  const named = /[A-Z]/i.test(text) ? readPartNumber(text)?.family : null;
  const made = chip?.families ?? [];
  if (named && made.includes(named)) return named;
  return made.includes('HC') ? 'HC' : (made[0] ?? null);
}

const limits = ({ chip }: PartType, family: FamilyId | null) =>
  !chip ? [] : family ? limitsOf(chip, family) : ownLimits(chip);

function plainPart(type: PartType, family: FamilyId | null): object {
  return {
    id: type.id,
    number: family ? partNumber(type.id, family) : type.id,
    title: type.title,
    caveat: type.caveat,
    families: type.chip?.families ?? [],
    rows: type.chip?.rows ?? 3,
    pins: type.pins.map(({ id, name, role }) => ({ pin: id, name, role })),
    units: kindsOfUnit(type).map(({ unit, names }) => ({
      count: names.length,
      inputs: unit.behaviour.inputs,
      outputs: unit.behaviour.outputs.map((o, i) => ({ name: o.name, drive: unit.drives[i] })),
      edges: edgesOf(unit),
      table: printedTableOf(unit),
    })),
    behaviour: type.behaviour,
    limits: limits(type, family),
  };
}

/** The function table of a unit in columns; nothing where equations say it better. */
function tableLines(unit: Unit): string[] {
  const table = printedTableOf(unit);
  if (!table) return [];
  const { inputs, outputs, rows } = table;
  const cells = [[...inputs, '|', ...outputs], ...rows.map((row) => [...row.inputs, '|', ...row.outputs])];
  const widths = cells.reduce<number[]>((most, row) => row.map((cell, i) => Math.max(most[i] ?? 0, cell.length)), []);
  return [
    '',
    ...cells.map((row) =>
      row
        .map((cell, i) => cell.padEnd(widths[i] ?? 0))
        .join(' ')
        .trimEnd(),
    ),
  ];
}

function spoken(type: PartType, family: FamilyId | null): string {
  const number = family ? partNumber(type.id, family) : type.id;
  const half = type.pins.length / 2;
  const lines = [`${number}: ${type.title}`, '', `Mind: ${type.caveat}`, ''];
  if (type.chip) {
    const width = Math.max(...type.pins.map((p) => p.name.length));
    for (let i = 0; i < half; i++) {
      const [left, right] = [type.pins[i], type.pins[type.pins.length - 1 - i]];
      const row = `${left?.name.padStart(width)} ${left?.id.padStart(2)} |    | ${right?.id.padEnd(2)} ${right?.name}`;
      lines.push(i === 0 ? row.replace('|    |', '| ◡  |') : row);
    }
    lines.push('', type.behaviour);
    for (const { unit } of kindsOfUnit(type))
      lines.push(...edgesOf(unit).map((edge) => `# ${edge}`), ...tableLines(unit));
    if (family) lines.push('', `${families[family].title}:`);
    for (const l of limits(type, family)) lines.push(`  ${l.name}: ${l.value}${l.at ? ` (at ${l.at})` : ''}`);
  } else for (const p of type.pins) lines.push(`  ${p.id} ${p.name}`);
  return `${lines.join('\n')}\n`;
}
