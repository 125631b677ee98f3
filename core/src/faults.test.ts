import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Board, extractNets, partOf } from './board';
import { printSheet } from './design';
import { type Finding, isError, says } from './finding';
import { inspect } from './inspection';
import type { Job } from './job';
import { readJobFile } from './job-reader';
import type { Packing } from './packing';
import { compileCircuit, levelShown, PoweredBoard, panelOf } from './simulation';
import { faults } from './testing/faults';
import { laidOut } from './testing/interlock';
import { arbitrarySheet } from './testing/random';

/** What is seen at the lamps of a board while its switches are pressed, the same presses every time; each step one text, worked out as it is asked for. */
function* seen(board: Board, { inputs, outputs }: Packing, presses: number): Generator<string> {
  const nets = extractNets(board);
  const circuit = compileCircuit(board);
  const panel = panelOf(
    board,
    circuit,
    inputs,
    outputs.map((o) => o.name),
  );
  const simulator = new PoweredBoard(board, nets, { circuit });
  const on = inputs.map(() => false);
  let state = 12_345;
  for (let press = 0; press < presses; press++) {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    const i = (state >>> 8) % Math.max(1, inputs.length);
    on[i] = !on[i];
    const at = panel.switches[i] ?? -1;
    if (at >= 0) simulator.setSwitch(at, on[i] === true);
    const { settled } = simulator.settle();
    const lamps = panel.leds.map((l, o) => (l < 0 ? 'gone' : levelShown(simulator.ledState(l), panel.inverted[o])));
    yield settled ? lamps.join(' ') : 'never settles';
  }
}

const findingsOf = (board: Board, packing: Packing): Finding[] => inspect(board, extractNets(board), packing, 'HC');
const keyOf = (f: Finding): string => JSON.stringify([f.code, f.places]);

/** What a good board says and shows, worked out once for all the faults that are put into it. */
const known = new WeakMap<Board, { readonly before: ReadonlySet<string>; readonly was: readonly string[] }>();

function goodOf(board: Board, packing: Packing, presses: number) {
  const found = known.get(board) ?? {
    before: new Set(findingsOf(board, packing).map(keyOf)),
    was: [...seen(board, packing, presses)],
  };
  known.set(board, found);
  return found;
}

/** Looks no further than to the first step that differs. */
function isSeenToDiffer(was: readonly string[], now: Iterable<string>): boolean {
  let i = 0;
  for (const step of now) if (step !== was[i++]) return true;
  return false;
}

/** Puts a fault into a good board; whether it changed what is seen, in which case the inspector must say something that it did not say before. */
function isFound(
  good: Board,
  packing: Packing,
  { faulty, presses, what }: { readonly faulty: Board; readonly presses: number; readonly what: string },
): boolean {
  const { before, was } = goodOf(good, packing, presses);
  const found = findingsOf(faulty, packing);
  for (const f of found)
    for (const place of f.places)
      if (place.kind === 'part' && f.code !== 'part-missing') expect(partOf(faulty, place.ref), what).toBeDefined();
  if (!isSeenToDiffer(was, seen(faulty, packing, presses))) return false;
  const said = found.filter((f) => f.severity !== 'note' && !before.has(keyOf(f)));
  expect(said.map(says), what).not.toEqual([]);
  return true;
}

const folder = join(import.meta.dirname, '../../samples');
const samples: readonly [string, Job][] = readdirSync(folder)
  .filter((file) => file.endsWith('.saddlebag.json') && !file.startsWith('apprentice'))
  .flatMap((file) => {
    const read = readJobFile(readFileSync(join(folder, file), 'utf8'));
    if (!read.ok) throw new Error(file);
    // Boards without chips are not compared with a packing.
    return read.job.packing ? [[file, read.job] as const] : [];
  });

describe('whatever goes wrong on a good board, so that it no longer does what it did, is found', () => {
  it('of random sheets, whichever fault is put in', async () => {
    const changed = new Map(Object.keys(faults).map((name) => [name, 0]));
    await fc.assert(
      fc.asyncProperty(arbitrarySheet, fc.nat({ max: 999 }), async (sheet, n) => {
        const { job, packing } = await laidOut(printSheet(sheet));
        for (const [name, fault] of Object.entries(faults)) {
          const board = fault(job.board, n);
          if (board && isFound(job.board, packing, { faulty: board, presses: 150, what: `${name} ${n}` }))
            changed.set(name, (changed.get(name) ?? 0) + 1);
        }
      }),
      { numRuns: 25 },
    );
    // Every kind of fault mattered in some of the runs.
    expect([...changed].filter(([, count]) => count === 0)).toEqual([]);
  });

  it.each(samples)('%s: nothing to mend as it is; with any fault put in, whatever changes is found', (file, job) => {
    const packing = job.packing ?? expect.fail(file);
    expect(findingsOf(job.board, packing).filter(isError).map(says)).toEqual([]);
    let changed = 0;
    for (const [name, fault] of Object.entries(faults))
      for (let n = 0; n < 9; n++) {
        const board = fault(job.board, 37 * n + 5);
        if (board && isFound(job.board, packing, { faulty: board, presses: 120, what: `${name} ${37 * n + 5}` }))
          changed++;
      }
    expect(changed, 'faults that mattered').toBeGreaterThan(10);
  });
});
