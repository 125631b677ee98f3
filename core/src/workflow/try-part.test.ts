import { describe, expect, it } from 'vitest';
import { extractNets } from '../board';
import { buildCard } from '../card';
import { benchParts, chips, findChip, readDesign } from '../catalogue';
import { elementAt } from '../element-at';
import { isError } from '../finding';
import { applyEdit } from '../job/edit';
import { readJobFile } from '../job/file';
import type { Job } from '../job/job';
import { writeJobFile } from '../job/write';
import { cellAt, HIGH, LOW, tableOf } from '../logic';
import { countPacking, pathOf, rippleOf } from '../packing';
import { agrees, compileCircuit, PoweredBoard, panelOf, walkTable } from '../simulation';
import { solve } from '../testing/interlock';
import { hazardsOf } from './hazards';
import { inspectJob, layOut, packJob } from './stages';
import { canTry, tryPart } from './try-part';

/** A job for trying a chip, packed and laid out. */
async function laidOut(id: string, units: readonly number[] = []): Promise<Job> {
  const job = tryPart(findChip(id) ?? expect.fail(id), units) ?? expect.fail(`no job for ${id}`);
  const { packing, findings, reading } = await packJob(job, solve);
  expect([...reading.findings, ...findings].filter(isError), id).toEqual([]);
  const { edit } = layOut(packing ?? expect.fail(id), reading.design.netlist ?? expect.fail(id));
  const applied = edit && applyEdit(job, edit);
  return applied?.ok ? applied.job : expect.fail(`${id}: not laid out`);
}

describe('trying a chip', () => {
  it('is offered for every chip but transceivers and analogue switches', () => {
    expect(
      chips
        .map((c) => findChip(c.base) ?? expect.fail())
        .filter((t) => !canTry(t))
        .map((t) => t.id),
    ).toEqual(['74245', '74299', '74640', '74646', '4051', '4052', '4053', '4066']);
    expect(benchParts.map((p) => tryPart(p)).filter((job) => job !== null)).toEqual([]);
  });

  it('comes to a packing of which everything can be told that Pack tells, and which a job file keeps, whatever the chip', async () => {
    for (const { base } of chips) {
      const job = tryPart(findChip(base) ?? expect.fail(base));
      if (!job) continue;
      const { reading, packing } = await packJob(job, solve);
      const made = packing ?? expect.fail(base);
      expect(() => [rippleOf(made), pathOf(made), hazardsOf(reading.design, job.family, made)], base).not.toThrow();
      expect(countPacking(made).packages, base).toBe(made.packages.length);
      const kept = readJobFile(writeJobFile({ ...job, packing: made }));
      expect(kept.ok && kept.job.packing, base).toEqual(made);
    }
  });

  it.each(['7400', '7402', '7403', '7451', '74125', '74138', '7442', '74151', '74283', '74181'])(
    '%s: seated, powered and wired, its board has nothing to mend and walks as its datasheet says',
    async (id) => {
      const job = await laidOut(id, id.startsWith('740') ? [1] : []);
      expect(
        inspectJob(job, job.packing)
          .filter(isError)
          .map((f) => f.code),
      ).toEqual([]);
      const { behaviour } = readDesign(job.sheet).design;
      if (!behaviour || behaviour.inputs.length > 10) return;
      const table = tableOf(behaviour);
      const outputs = behaviour.outputs.map((o) => o.name);
      for (const { row, seen } of walkTable(job.board, extractNets(job.board), {
        inputs: behaviour.inputs,
        outputs: outputs,
      })) {
        const wanted = outputs.map((_, o) => {
          const cell = cellAt(table, o, row);
          return cell === 'Z' || cell === '-' ? null : Number(cell);
        });
        expect(agrees(seen, wanted), `${id} row ${row}: ${seen} for ${wanted}`).toBe(true);
      }
    },
  );

  it.each(['7474', '7493', '74161', '74595', '4017', '7447', '74121', '555'])(
    '%s can be laid out, and its board has nothing to mend',
    async (id) => {
      const job = await laidOut(id);
      expect(
        inspectJob(job, job.packing)
          .filter(isError)
          .map((f) => f.code),
      ).toEqual([]);
      const { netlist } = readDesign(job.sheet).design;
      const { stages } = buildCard(job.board, job.packing ?? expect.fail(), netlist ?? expect.fail());
      const named = stages.flatMap((s) => [...s.parts, ...s.jumpers]);
      expect(new Set(named).size).toBe(named.length);
      expect(named.length).toBe(Object.keys(job.board.parts).length + Object.keys(job.board.jumpers).length);
    },
  );

  it('a counter on the board counts, switch by switch', async () => {
    const job = await laidOut('7493');
    const { inputs, outputs } = readDesign(job.sheet).design.behaviour ?? expect.fail();
    const nets = extractNets(job.board);
    const circuit = compileCircuit(job.board);
    const simulator = new PoweredBoard(job.board, nets, { circuit });
    const names = outputs.map((o) => o.name);
    const panel = panelOf(job.board, circuit, inputs, names);
    const set = (name: string, on: boolean): void => {
      simulator.setSwitch(elementAt(panel.switches, inputs.indexOf(name)), on);
      expect(simulator.settle().settled).toBe(true);
    };
    const lit = (): number[] => panel.leds.map((l) => (simulator.ledState(l) === 'lit' ? HIGH : LOW));
    const shown = (name: string): number => elementAt(lit(), names.indexOf(name));
    set('R01', true);
    set('R02', true);
    set('R01', false);
    const counts: number[] = [];
    for (let k = 0; k < 4; k++) {
      set('CKA', true);
      set('CKA', false);
      counts.push(shown('QA'));
    }
    expect(counts).toEqual([1, 0, 1, 0]);
    for (let k = 0; k < 5; k++) {
      set('CKB', true);
      set('CKB', false);
    }
    expect([shown('QD'), shown('QC'), shown('QB')]).toEqual([1, 0, 1]);
  });

  it('an open-collector output lights its LED by a pull-up, seated with it', async () => {
    const job = await laidOut('7403', [1]);
    const pullUp = Object.values(job.board.parts).find((p) => p.signal === '1Y' && p.part === 'resistor');
    expect(pullUp?.value).toBe(1000);
  });
});
