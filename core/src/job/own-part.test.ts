import { describe, expect, it } from 'vitest';
import { extractNets } from '../board';
import { buildCard } from '../card';
import { type ChipData, chips, findChip, ownPartType, readDesign } from '../catalogue';
import { isError } from '../finding';
import { cellAt, tableOf } from '../logic';
import { agrees, walkTable } from '../simulation';
import { laidOut, solve } from '../testing/interlock';
import { inspectJob, isOutdated, packJob } from '../workflow/stages';
import { tryPart } from '../workflow/try-part';
import { readCommand } from './commands';
import { applyEdit } from './edit';
import { readJobFile } from './file';
import { writeJobFile } from './write';

const voter = `part VOTE3 "majority of three, with its opposite"
pins A B C GND NO Y NC VCC
Y = A & B | B & C | A & C
NO = ~Y
end`;

const sheet = `in K E U
out P W
${voter}
# two of three keepers
use VOTE3 as M1 (A = K, B = E, C = U, Y = P)
W = M1.NO & K`;

/** A chip of the catalogue as a person would write it on a sheet. */
const written = ({ base, title, pins, behaviour, rows }: ChipData): string =>
  `part C_${base.replace('74', '')} "${title}"\n${rows === 6 ? 'wide ' : ''}pins ${pins}\n${behaviour}\nend`;

describe('a part of one’s own', () => {
  const plain = chips.filter((c) => !c.timers && !c.analogue && !c.contacts);

  it.each(plain.map((c) => [c.base, c] as const))(
    'written like the %s has its pins and does what it does',
    (base, c) => {
      const own = ownPartType(written(c)) ?? expect.fail('not read');
      const known = findChip(base) ?? expect.fail(base);
      expect(own.pins).toEqual(known.pins);
      expect(own.units.map((u) => [u.like, u.inputs, u.outputs, u.drives])).toEqual(
        known.units.map((u) => [u.like, u.inputs, u.outputs, u.drives]),
      );
      expect(own.body).toEqual(known.body);
    },
  );

  it('is packed, laid out, inspected, carded and walked like any other', async () => {
    const { job, packing, netlist } = await laidOut(sheet);
    expect(packing.packages.map((p) => p.part).sort()).toEqual(['74HC08', 'VOTE3']);
    expect(inspectJob(job, packing).filter(isError)).toEqual([]);
    const table = tableOf(readDesign(sheet).design.behaviour ?? expect.fail());
    const names = ['P', 'W'];
    let rows = 0;
    for (const { row, seen } of walkTable(job.board, extractNets(job.board), {
      inputs: netlist.inputs,
      outputs: names,
    })) {
      expect(
        agrees(
          seen,
          names.map((_, o) => Number(cellAt(table, o, row))),
        ),
        `row ${row}`,
      ).toBe(true);
      rows++;
    }
    expect(rows).toBe(8);
    const { parts, pins } = buildCard(job.board, packing, netlist);
    expect(parts.map((l) => l.what)).toContain('VOTE3, majority of three, with its opposite');
    expect(pins.find((p) => p.part === 'VOTE3')?.pins.map((p) => p.carries)).toEqual([
      'K',
      'E',
      'U',
      '0 V',
      'M1.NO',
      'P',
      '—',
      '+5 V',
    ]);
  });

  it('travels in the job file, on the board and in the packing, whatever becomes of the sheet', async () => {
    const { job } = await laidOut(sheet);
    const read = readJobFile(writeJobFile({ ...job, sheet: '' }));
    expect(read.ok && read.job.board).toEqual(job.board);
    expect(read.ok && read.job.packing).toEqual(job.packing);
  });

  it('that is changed on the sheet leaves the board as it was wired, and says that it is out of date', async () => {
    const { job } = await laidOut(sheet);
    const turned = { ...job, sheet: sheet.replace('pins A B C', 'pins C B A') };
    const { packing } = await packJob(turned, solve);
    expect(isOutdated(turned, packing)).toBe(true);
    expect(isOutdated({ ...job, sheet: sheet.replace('two of three', '2 of 3') }, job.packing)).toBe(false);
  });

  it('is seated by its name where the sheet has it, and only there', async () => {
    const { job } = await laidOut('in A\nout Y\nY = ~A');
    expect(readCommand(job.board, 'seat VOTE3')).toMatchObject({ ok: false, finding: { code: 'hand/no-such-type' } });
    const command = readCommand(job.board, 'seat VOTE3', [voter]);
    const applied = command.ok ? applyEdit(job, command.edit) : expect.fail('not seated');
    expect(applied.ok && Object.values(applied.job.board.parts).filter((p) => p.own !== undefined)).toHaveLength(1);
  });

  it('can be tried: the job has its definition and its switches', () => {
    const job = tryPart(ownPartType(voter) ?? expect.fail()) ?? expect.fail('no job');
    const { design, findings } = readDesign(job.sheet);
    expect(findings).toEqual([]);
    expect([design.inputs, design.outputs].map((l) => l.map((s) => s.name))).toEqual([
      ['A', 'B', 'C'],
      ['NO', 'Y'],
    ]);
  });

  it('that stores, or shares a line, works on the sheet', () => {
    const cell = `in D CK OE\nout Q\npart BIT "a bit on a line"\npins D CK OE GND Q NC NC VCC\nq = D at rise CK\nQ = q when OE\nend\nuse BIT as B (D = D, CK = CK, OE = OE, Q = Q)`;
    expect(readDesign(cell).findings).toEqual([]);
    const { units } = ownPartType(cell.split('\n').slice(2, -1).join('\n')) ?? expect.fail();
    expect(units.map((u) => u.drives)).toEqual([['three-state']]);
  });
});

describe('bad definitions', () => {
  const part = (...lines: string[]) => `in A\nout Y\n${['part P "x"', ...lines, 'end'].join('\n')}\nY = ~A`;
  it.each([
    [part('pins A GND VCC', 'Y = A'), 'sheet/part-pins'],
    [part('Y = A'), 'sheet/part-pins'],
    [part('pins A Y NC VCC', 'Y = ~A'), 'sheet/part-rail'],
    [part('pins A A Y NC GND VCC', 'Y = ~A'), 'sheet/pin-again'],
    [part('pins A[1:0] Y NC NC NC NC GND VCC', 'Y = ~A[0]'), 'sheet/pin-range'],
    [part('pins A Y GND VCC', 'in A', 'Y = ~A'), 'sheet/part-declares'],
    [part('pins A Y GND VCC'), 'sheet/part-makes-nothing'],
    [part('pins A Y GND VCC', 'Y = ~B'), 'sheet/unknown-signal'],
    [part('pins A Y GND VCC', 'Y = = A'), 'sheet/expected'],
    ['in A\nout Y\npins A Y GND VCC\nY = ~A', 'sheet/stray-pins'],
    ['in A\nout Y\npart P\npins A Y GND VCC\nY = ~A', 'sheet/block-open'],
    [`in A\nout Y\nY = ~A\n${voter}\n${voter}`, 'sheet/part-twice'],
    [part('pins A Y GND VCC', 'Y = ~A').replace('part P', 'part ABCDEFGHIJKLMNOPQRSTUVWXYZ'), 'sheet/part-name'],
    [part('pins A Y GND VCC', 'Y = ~A').replace('part P', 'part 74LS00'), 'sheet/part-known'],
    [
      part('pins A Y GND VCC', ...Array.from({ length: 900 }, (_, i) => `t${i} = A & t${i + 1}`), 'Y = t0'),
      'sheet/part-too-long',
    ],
  ])('%j: %s, at its place', (text, code) => {
    const found = readDesign(text).findings.filter((f) => f.code === code);
    expect(found.length).toBeGreaterThan(0);
    const [place] = found[0]?.places ?? [];
    expect(place?.kind === 'text' && place.span.to > place.span.from).toBe(true);
  });

  it('in a file never become a part', async () => {
    const { job } = await laidOut(sheet);
    const text = writeJobFile(job).replaceAll('pins A B C', 'pins A A C');
    expect(readJobFile(text)).toMatchObject({ ok: false, findings: [{ code: 'file/bad-field' }] });
  });
});
