import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Board, emptyBoard, extractNets } from '../board';
import { type Netlist, networkOf, printSheet } from '../design';
import { inspect } from '../inspection';
import { applyEdit, newJob, readCommand, writeJobFile } from '../job';
import { readJobFile } from '../job/file';
import { compile, sweep, valueAt } from '../logic';
import type { Packing } from '../packing';
import { agrees, walkTable } from '../simulation';
import { interlockSheet, solve } from '../testing/interlock';
import { arbitrarySheet } from '../testing/random';
import { packJob } from '../workflow';
import { type NextStep, nextStepOf } from './guide';

const samples = `${import.meta.dirname}/../../../samples`;

async function packed(sheet: string): Promise<{ packing: Packing; netlist: Netlist }> {
  const { reading, packing } = await packJob(newJob('led', sheet), solve);
  return { packing: packing ?? expect.fail('no packing'), netlist: reading.design.netlist ?? expect.fail() };
}

/** Follows the lead to its end, doing something else first whenever `stray` gives an edit. */
function follow(
  packing: Packing,
  netlist: Netlist,
  start: Board = emptyBoard,
  stray: (board: Board, step: number) => string | undefined = () => undefined,
): { board: Board; leads: NextStep[] } {
  let job = { ...newJob('led'), board: start };
  const leads: NextStep[] = [];
  for (let n = 0; n < 900; n++) {
    const other = stray(job.board, n);
    const command = other === undefined ? null : readCommand(job.board, other);
    const tried = command?.ok ? applyEdit(job, command.edit) : null;
    if (tried?.ok) job = tried.job;
    const lead = nextStepOf(job.board, packing, netlist);
    leads.push(lead);
    if (!lead.step) return { board: job.board, leads };
    const applied = applyEdit(job, lead.step.edit);
    if (!applied.ok) return expect.fail(`${lead.step.says} ${JSON.stringify(applied.findings)}`);
    job = applied.job;
  }
  return expect.fail(`it never ends: ${leads.at(-1)?.step?.says}`);
}

const toMend = (board: Board, packing: Packing): string[] =>
  inspect(board, extractNets(board), packing, 'HC')
    .filter((f) => f.severity !== 'note')
    .map((f) => `${f.code} ${JSON.stringify(f.facts)}`);

describe('being led', () => {
  it.each(readdirSync(samples).filter((f) => f.endsWith('.sheet')))(
    'builds %s from a bare board, one thing at a time, with nothing left to mend',
    async (file) => {
      const { packing, netlist } = await packed(readFileSync(`${samples}/${file}`, 'utf8'));
      const { board, leads } = follow(packing, netlist);
      expect(leads.at(-1)).toMatchObject({ step: null, stopped: null });
      expect(toMend(board, packing)).toEqual([]);
      for (const [i, lead] of leads.entries())
        expect(lead.done, lead.step?.says).toBeGreaterThanOrEqual(leads[i - 1]?.done ?? 0);
    },
  );

  it('builds random sheets so that every row of the board is that of the sheet', async () => {
    await fc.assert(
      fc.asyncProperty(arbitrarySheet, async (sheet) => {
        const { reading, packing } = await packJob(newJob('x', printSheet(sheet)), solve);
        const { netlist } = reading.design;
        if (!netlist || !packing || packing.packages.length > 6) return;
        const { board } = follow(packing, netlist);
        const outputs = netlist.outputs.map((o) => o.name);
        expect(toMend(board, packing)).toEqual([]);
        const rows = [...walkTable(board, extractNets(board), { inputs: netlist.inputs, outputs: outputs })];
        expect(rows.every((r) => r.settled)).toBe(true);
      }),
      { numRuns: 8 },
    );
  });

  it('goes on from wherever the person laid a thing instead', async () => {
    const { packing, netlist } = await packed(interlockSheet);
    const own = [
      'seat supply b1.top+9',
      'seat 74HC21 b1.e40',
      'seat push-button b1.e5',
      'label S1 K',
      'seat change-over b1.b10',
    ];
    const more = ['label S2 E', 'S2.1 > b1.top+', 'S2.3 > b1.bottom-', 'S2.2 > U1.4', 'S1.2 > U1.13'];
    const { board } = follow(packing, netlist, emptyBoard, (_, n) => [...own, ...more][n]);
    expect(board.parts.U1?.at).toBe('b1.e40');
    expect(board.parts.S1?.part).toBe('push-button');
    expect(toMend(board, packing).filter((f) => !f.startsWith('no-capacitor'))).toEqual([]);
  });

  it('stops at a pin that carries another signal, and goes on when the jumper is out', async () => {
    const { packing, netlist } = await packed(interlockSheet);
    const { board } = follow(packing, netlist);
    const column = extractNets(board).leads.get('D3.A')?.hole?.column;
    const near = new RegExp(`^b1\\.[a-e]${column}$`);
    const at = Object.values(board.jumpers).find((j) => near.test(j.from) || near.test(j.to)) ?? expect.fail();
    const pulled = readCommand(board, `pull ${at.id}`);
    const without = pulled.ok ? applyEdit({ ...newJob('x'), board }, pulled.edit) : null;
    if (!without?.ok) return expect.fail();
    const crossed = readCommand(without.job.board, 'D3.A > S1.2');
    const wrong = crossed.ok ? applyEdit(without.job, crossed.edit) : null;
    if (!wrong?.ok) return expect.fail();
    const lead = nextStepOf(wrong.job.board, packing, netlist);
    expect(lead).toMatchObject({
      step: null,
      stopped: { code: 'guide/wrong-signal', facts: { at: 'D3 pin A', carried: 'K' } },
    });
    expect(nextStepOf(without.job.board, packing, netlist).step?.says).toContain('D3 pin A');
  });

  it('tells what to try after each gate, with settings that make its output high and low', async () => {
    const { packing, netlist } = await packed(interlockSheet);
    const { leads } = follow(packing, netlist);
    const tested = leads.flatMap((l) => l.tested?.title ?? []);
    expect(new Set(tested).size).toBeGreaterThanOrEqual(4);
    for (const lead of leads)
      if (lead.tested?.trial) expect(lead.tested.trial.high ?? lead.tested.trial.low).toMatch(/K=[01]/);
  });

  it.each([
    ['led-bar', 'D1', '1 2 3'],
    ['display-cathode', 'H1', 'a b g'],
    ['display-anode', 'H1', 'a f DP'],
  ])('goes on from contacts of a DIP switch and lamps of a %s that are labelled', async (lamps, ref, names) => {
    const { packing, netlist } = await packed(interlockSheet);
    const typed = [
      'seat supply b1.top+3',
      'seat dip-switch',
      `seat ${lamps}`,
      ...['K', 'E', 'U', 'L'].map((name, i) => `label S1.${2 * i + 1} ${name}`),
      ...['G', 'P', 'W'].map((name, i) => `label ${ref}.${names.split(' ')[i]?.toUpperCase()} ${name}`),
    ];
    const start = typed.reduce((job, text) => {
      const command = readCommand(job.board, text);
      const tried = command.ok ? applyEdit(job, command.edit) : command;
      return tried.ok && 'job' in tried ? tried.job : expect.fail(`${text}: ${JSON.stringify(tried)}`);
    }, newJob('labels'));
    const { board, leads } = follow(packing, netlist, start.board);
    expect(leads.at(-1)).toMatchObject({ step: null, stopped: null });
    expect(toMend(board, packing)).toEqual([]);
    expect(Object.values(board.parts).filter((p) => p.part === 'switch' || p.part === 'led')).toEqual([]);
    const outputs = netlist.outputs.map((o) => o.name);
    const rows = compile(networkOf(netlist));
    const wanted = sweep(rows);
    for (const { row, seen } of walkTable(board, extractNets(board), { inputs: netlist.inputs, outputs: outputs }))
      expect(
        agrees(
          seen,
          outputs.map((_, o) => valueAt(wanted, o, row)),
        ),
        `row ${row}`,
      ).toBe(true);
    const reread = readJobFile(writeJobFile({ ...start, board }));
    expect(reread.ok && reread.job.board).toEqual(board);
  });

  it('a label names one contact of several, and goes away again', () => {
    const start = newJob('labels');
    const seated = applyEdit(start, {
      kind: 'seat',
      part: { ref: 'S1', part: 'dip-switch', at: 'b1.e10', rotation: 0 },
    });
    if (!seated.ok) return expect.fail();
    const { job } = seated;
    for (const wrong of ['label S1 K', 'label S1.9 K']) {
      const command = readCommand(job.board, wrong);
      const tried = command.ok ? applyEdit(job, command.edit) : command;
      expect(JSON.stringify(tried)).toContain('hand/no-such-place');
    }
    const labelled = applyEdit(job, { kind: 'label', ref: 'S1', of: '3', signal: 'K' });
    expect(labelled.ok && labelled.job.board.parts.S1?.labels).toEqual([{ of: '3', signal: 'K' }]);
    const bare = labelled.ok ? applyEdit(labelled.job, { kind: 'label', ref: 'S1', of: '3', signal: '' }) : labelled;
    expect(bare.ok && bare.job.board).toEqual(job.board);
  });
});
