import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { coveredEnds, crossesFace, extractNets, occupancyOf, outlinesOf, routeJumpers } from './board';
import { readDesign } from './catalogue';
import { networkOf, parseSheet, printSheet, readSheet, type Sheet } from './design';
import { isError } from './finding';
import { inspect } from './inspection';
import { compile, firstDifference, stateTable, sweep, valueAt } from './logic';
import { networkOfPacking, pack } from './packing';
import { expectationOf, sourcesOf } from './planning';
import { agrees, compileCircuit, levelShown, PoweredBoard, panelOf, walkTable } from './simulation';
import { interlockSheet, laidOut, solve } from './testing/interlock';
import { arbitrarySheet, outputsOf } from './testing/random';

/** Drops spans, which a printed sheet cannot share with the one it was printed from. */
const plain = (sheet: Sheet): unknown =>
  JSON.parse(JSON.stringify(sheet, (key, value) => (key === 'at' ? undefined : value)));

describe('laws of the stages, on random designs', () => {
  it('a printed sheet parses to the same sheet, in both notations', () => {
    fc.assert(
      fc.property(arbitrarySheet, fc.constantFrom('ascii' as const, 'textbook' as const), (sheet, notation) => {
        const { sheet: again, findings } = parseSheet(printSheet(sheet, notation));
        expect(findings).toEqual([]);
        expect(plain(again)).toEqual(plain(sheet));
      }),
    );
  });

  it('the gates of a sheet compute what its expressions say', () => {
    fc.assert(
      fc.property(arbitrarySheet, (sheet) => {
        const { design } = readSheet(printSheet(sheet));
        const table = sweep(compile(networkOf(design.netlist ?? expect.fail('no gates'))));
        for (let row = 0; row < table.rows; row++) {
          const shown = design.outputs.map((_, o) => valueAt(table, o, row) === 1);
          expect(shown).toEqual(outputsOf(design, row));
        }
      }),
    );
  });

  it('a packing computes the table of its sheet, and no unit is used twice', async () => {
    await fc.assert(
      fc.asyncProperty(arbitrarySheet, async (sheet) => {
        const netlist = readSheet(printSheet(sheet)).design.netlist ?? expect.fail('no gates');
        const { packing } = await pack(netlist, 'HC', solve);
        if (!packing) return expect.fail('no packing');
        const [wanted, made] = [networkOf(netlist), networkOfPacking(packing)].map((n) => sweep(compile(n)));
        if (!wanted || !made) return expect.fail('no table');
        expect(firstDifference(wanted, made)).toBeNull();
        const outputs = packing.packages.flatMap((p) => p.units.flatMap((u) => u?.output ?? []));
        expect(new Set(outputs).size).toBe(outputs.length);
      }),
      { numRuns: 60 },
    );
  });

  it('a planned board is lawful, extracts to the packing, has nothing to mend, and walks as the sheet wants', async () => {
    await fc.assert(
      fc.asyncProperty(arbitrarySheet, async (sheet) => {
        const { job, packing, netlist } = await laidOut(printSheet(sheet));
        const nets = extractNets(job.board);
        for (const [hole, by] of occupancyOf(job.board)) expect(by, hole).toHaveLength(1);
        expect(coveredEnds(job.board)).toEqual([]);
        const outlines = outlinesOf(job.board);
        for (const [id, path] of routeJumpers(job.board)) expect(crossesFace(path, outlines), id).toBe(false);
        const sources = sourcesOf(packing, job.board);
        for (const [pin, signal] of expectationOf(packing, job.board)) {
          const source = signal === '1' ? 'P1.+' : signal === '0' ? 'P1.-' : sources.get(signal);
          expect(nets.ofPin.get(pin), pin).toBe(nets.ofPin.get(source ?? ''));
        }
        const homes = [...sources.values(), 'P1.+', 'P1.-'].map((pin) => nets.ofPin.get(pin));
        expect(new Set(homes).size).toBe(homes.length);
        // That spare gates would do is no fault of the plan: it keeps to the packing.
        const found = inspect(job.board, nets, packing, 'HC');
        expect(found.filter((f) => f.code !== 'spare-gates-suffice')).toEqual([]);
        const table = sweep(compile(networkOf(netlist)));
        const outputs = netlist.outputs.map((o) => o.name);
        for (const { row, seen } of walkTable(job.board, nets, { inputs: netlist.inputs, outputs: outputs })) {
          const wanted = outputs.map((_, o) => valueAt(table, o, row));
          expect(seen, `row ${row}`).toEqual(wanted);
        }
      }),
      { numRuns: 40 },
    );
  });

  it('extraction does not depend on the order of parts and jumpers', async () => {
    const { job } = await laidOut(interlockSheet);
    const reversed = {
      ...job.board,
      parts: Object.fromEntries(Object.entries(job.board.parts).reverse()),
      jumpers: Object.fromEntries(Object.entries(job.board.jumpers).reverse()),
    };
    expect(extractNets(reversed).nets).toEqual(extractNets(job.board).nets);
  });
});

describe('the interlock with one jumper pulled', async () => {
  const { job, packing, netlist } = await laidOut(interlockSheet);
  const outputs = netlist.outputs.map((o) => o.name);
  const table = sweep(compile(networkOf(netlist)));

  it.each(Object.keys(job.board.jumpers))('%s: a finding appears, and any row that changed differs', (id) => {
    const jumpers = { ...job.board.jumpers };
    delete jumpers[id];
    const board = { ...job.board, jumpers };
    const nets = extractNets(board);
    const found = inspect(board, nets, packing, 'HC');
    expect(found.length).toBeGreaterThan(0);
    const rows = [...walkTable(board, nets, { inputs: netlist.inputs, outputs: outputs })];
    const differing = rows.filter(
      (r) =>
        !agrees(
          r.seen,
          outputs.map((_, o) => valueAt(table, o, r.row)),
        ),
    );
    const onlyTiesUnused = found.every((f) => f.code === 'unused-input-open');
    expect(differing.length > 0).toBe(!onlyTiesUnused);
    expect(found.some(isError)).toBe(!onlyTiesUnused);
  });
});

describe('a counter cut short by its own outputs', () => {
  const q = ['q3', 'q2', 'q1', 'q0'];
  const ripple = q.map((name, i) => `${name} = ~${name} at fall ${q[i + 1] ?? 'CK'} clear R`).join('\n');
  const designs: readonly (readonly [string, string])[] = [
    [
      'a 7493',
      `in CK RST\nout ${q.join(' ')}\nuse 7493 as U1 (CKA = CK, CKB = q0, R01 = a, R02 = b, QA = q0, QB = q1, QC = q2, QD = q3)\na = q1 | RST\nb = q3 | RST`,
    ],
    ['flip-flops with clear', `in CK RST\nout ${q.join(' ')}\n${ripple}\nR = (q1 & q3) | RST`],
  ];

  it.each(designs)('of %s: the list of states says what the powered board does', async (_, sheet) => {
    const { job, netlist } = await laidOut(sheet);
    const behaviour = readDesign(sheet).design.behaviour ?? expect.fail('no behaviour');
    const { transitions } = stateTable(behaviour, 'CK');
    const listed = transitions.filter((t) => t.inputs === '0').map((t) => t.outputs);
    const nets = extractNets(job.board);
    const circuit = compileCircuit(job.board);
    const panel = panelOf(job.board, circuit, netlist.inputs, q);
    const simulator = new PoweredBoard(job.board, nets, { circuit });
    const set = (input: number, on: boolean): void => {
      simulator.setSwitch(panel.switches[input] ?? -1, on);
      simulator.settle();
    };
    const shown = (): string => panel.leds.map((led) => levelShown(simulator.ledState(led))).join('');
    for (const on of [false, true, false]) set(netlist.inputs.indexOf('RST'), on);
    const seen = Array.from({ length: 10 }, () => {
      const before = shown();
      for (const on of [true, false]) set(netlist.inputs.indexOf('CK'), on);
      return before;
    });
    expect(seen).toEqual(listed);
    expect(shown()).toBe('0000');
  });
});
