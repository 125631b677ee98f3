import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crossesFace, emptyBoard, extractNets, labelledPlaces, outlinesOf, routeJumpers } from '../board';
import { buildCard } from '../card';
import { familyIds, innerOf, readDesign, typeOf } from '../catalogue';
import { compareDesigns, type FittedSignals, printFitting } from '../design';
import { says } from '../finding';
import { recover } from '../inspection';
import { applyEdit, type Job, newJob } from '../job';
import { cellAt, tableOf } from '../logic';
import type { Packing } from '../packing';
import { agrees, walkTable } from '../simulation';
import { arbitraryFittedSheet } from '../testing/fitted';
import { solve } from '../testing/interlock';
import { nextStepOf } from './guide';
import { layOutJob } from './lay-out';
import { inspectJob, isOutdated, packJob } from './stages';
import { broughtUpTo } from './update';

/** A sheet packed in a family and laid out. */
async function laidOut(sheet: string, family: Job['family'] = 'HC') {
  const job = { ...newJob('test', sheet), family };
  const { reading, packing, findings } = await packJob(job, solve);
  expect([...reading.findings, ...findings].filter((f) => f.severity === 'error').map(says), sheet).toEqual([]);
  const { netlist, behaviour } = reading.design;
  if (!netlist || !behaviour || !packing) return expect.fail(sheet);
  const { edit, findings: more } = layOutJob(job, packing, netlist);
  const applied = applyEdit(job, edit ?? expect.fail(more.map(says).join()));
  if (!applied.ok) return expect.fail(applied.findings.map(says).join());
  const packed: Packing = applied.job.packing ?? expect.fail('no packing');
  return { job: applied.job, packing: packed, netlist, behaviour };
}

/** What is found on a job's board, but for gates of which nothing else can be said. */
const foundOn = (job: Job): string[] =>
  inspectJob(job, job.packing)
    .filter((f) => f.severity !== 'note')
    .map((f) => `${f.code}: ${says(f)}`);

function expectRows(
  board: Job['board'],
  { behaviour, sheet }: { behaviour: Parameters<typeof tableOf>[0]; sheet: string },
) {
  const table = tableOf(behaviour);
  const { inputs } = behaviour;
  const outputs = behaviour.outputs.map((o) => o.name);
  for (const { row, seen } of walkTable(board, extractNets(board), { inputs, outputs })) {
    const wanted = outputs.map((_, o) => Number(cellAt(table, o, row)));
    expect(agrees(seen, wanted), `${sheet}\nrow ${row}: ${seen} for ${wanted}`).toBe(true);
  }
}

/** The part that a signal comes from or is shown on, as `kind` and what else the sheet says of it. */
function partOfSignal({ parts }: Job['board'], board: Job['board'], name: string): string {
  const place = [...labelledPlaces(board, 'give'), ...labelledPlaces(board, 'show')].find((p) => p.signal === name);
  const part = parts[place?.ref ?? ''];
  const type = typeOf(part ?? { part: '' });
  const lamp = innerOf(type).lamps.find((l) => l.name === place?.name);
  if (type?.kind === 'led') return `lamp ${lamp?.colour ?? 'red'}`;
  // Inputs of standard TTL would ask too much of a pull-down: their switches change over.
  if (type?.kind === 'change-over') return 'switch';
  if (type?.kind === 'clock') return `clock ${part?.value}`;
  if (innerOf(type).runs) return 'timer';
  return type?.kind === 'display' ? `display ${place?.name} ${place?.inverted}` : (type?.kind ?? 'nothing');
}

const segments = ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'DP'];

function wantedPart({ fitting, signals }: FittedSignals, name: string): string {
  const { kind } = fitting;
  if (kind === 'lamp') return `lamp ${fitting.colour}`;
  if (kind === 'clock') return `clock ${fitting.hertz}`;
  if (kind === 'display') return `display ${segments[signals.indexOf(name)]} ${fitting.low}`;
  return { bar: 'led-bar', buzzer: 'buzzer', switch: 'switch', button: 'push-button', timer: 'timer' }[kind];
}

describe('what a sheet wants signals to come from and to be shown on', () => {
  it('is on the planned board in every family, which has nothing to mend, walks as the sheet wants, and counts as built', async () => {
    await fc.assert(
      fc.asyncProperty(arbitraryFittedSheet, fc.constantFrom(...familyIds), async (sheet, family) => {
        const { job, packing, netlist, behaviour } = await laidOut(sheet, family);
        const { board } = job;
        expect(foundOn(job), `${family}\n${sheet}`).toEqual([]);
        expectRows(board, { behaviour, sheet });
        for (const fitted of netlist.fittings)
          for (const name of fitted.signals)
            expect(partOfSignal(board, board, name), `${name} of\n${sheet}`).toBe(wantedPart(fitted, name));
        const next = nextStepOf(board, packing, netlist);
        expect([next.stage, next.step?.says, next.stopped && says(next.stopped)], sheet).toEqual([
          'all is built',
          undefined,
          null,
        ]);
        const { stages } = buildCard(board, packing, netlist);
        const named = stages.flatMap((s) => [...s.parts, ...s.jumpers]).sort();
        expect(named).toEqual([...Object.keys(board.parts), ...Object.keys(board.jumpers)].sort());
        expect(
          stages.filter((s) => s.title === 'What remains'),
          sheet,
        ).toEqual([]);
        const shown = outlinesOf(board).filter((o) => o.kind !== 'chip');
        for (const path of routeJumpers(board).values()) expect(crossesFace(path, shown), sheet).toBe(false);
      }),
      { numRuns: 25 },
    );
  });

  it('is brought up to date when the sheet asks for something else: only that is exchanged', async () => {
    const sheet = (from: string, on: string): string => `in A${from}\nin B\nout Y${on}\nout Z\nY = A & B\nZ = A | B`;
    const plain = await laidOut(sheet('', ''));
    for (const [from, on, kinds] of [
      [' from button', '', ['push-button', 'led']],
      ['', ' on lamp green', ['switch', 'led-green']],
      [' from clock 2 Hz', ' on buzzer', ['clock', 'buzzer']],
      [' from timer 2 Hz', '', ['NE555', 'led']],
      ['', ' on bar', ['switch', 'led-bar']],
    ] as const) {
      const job = { ...plain.job, sheet: sheet(from, on) };
      const { reading, packing } = await packJob(job, solve);
      const { netlist } = reading.design;
      if (!netlist || !packing) return expect.fail(job.sheet);
      expect(isOutdated(job, packing), job.sheet).toBe(true);
      const { board, stopped } = broughtUpTo(job.board, packing, netlist);
      expect(stopped).toBeNull();
      const partNamed = (name: string) =>
        Object.values(board.parts).find((p) => p.signal === name || p.labels?.some((l) => l.signal === name));
      expect([partNamed('A')?.part, partNamed('Y')?.part]).toEqual(kinds);
      for (const ref of ['U1', 'S2', 'D2']) expect(board.parts[ref]).toEqual(plain.job.board.parts[ref]);
      expect(foundOn({ ...job, board, packing }), job.sheet).toEqual([]);
    }
  });

  it('is read back from the wiring, with what it computes', async () => {
    await fc.assert(
      fc.asyncProperty(arbitraryFittedSheet, async (sheet) => {
        const { job, netlist, behaviour } = await laidOut(sheet);
        const { sheet: back, findings } = recover(job.board, extractNets(job.board));
        expect(findings.map(says), `${sheet}\n\n${back}`).toEqual([]);
        const { design } = readDesign(back);
        const again = new Map(design.fittings.flatMap((f) => f.signals.map((name) => [name, printFitting(f.fitting)])));
        // Switches and red lamps need not be asked for.
        const plain = ['from switch', 'on lamp red'];
        for (const { fitting, signals } of netlist.fittings)
          for (const name of signals)
            expect(again.get(name) ?? plain.find((text) => text === printFitting(fitting)), back).toBe(
              printFitting(fitting),
            );
        const compared = compareDesigns({ behaviour }, { behaviour: design.behaviour ?? expect.fail(back) });
        expect(compared.comparison, `${sheet}\n\n${back}`).toMatchObject({ first: null });
      }),
      { numRuns: 25 },
    );
  });

  it('is reached wire by wire too, from a bare board and from one of another sheet', async () => {
    await fc.assert(
      fc.asyncProperty(arbitraryFittedSheet, arbitraryFittedSheet, fc.boolean(), async (before, sheet, isBare) => {
        const { packing, netlist, behaviour, job } = await laidOut(sheet);
        const from = isBare ? emptyBoard : (await laidOut(before)).job.board;
        const update = broughtUpTo(from, packing, netlist);
        expect(update.stopped && says(update.stopped), `${before}\n\n${sheet}`).toBeNull();
        expect(foundOn({ ...job, board: update.board, packing: update.packing }), `${before}\n\n${sheet}`).toEqual([]);
        expectRows(update.board, { behaviour, sheet });
      }),
      { numRuns: 12 },
    );
  });
});
