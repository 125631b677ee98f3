import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Board, doubledHoles, extractNets, type Hole, holeXY, occupancyOf, parseHole } from '../board';
import { readValue } from '../catalogue';
import { inspect } from '../inspection';
import { interlockSheet, laidOut } from '../testing/interlock';
import { clipOf, pasted } from './clipboard';
import { readCommand } from './commands';
import { applyEdit } from './edit';
import type { Job } from './job';
import { thingsOn } from './nudge';
import { shifted } from './shift';

const { job } = await laidOut(interlockSheet);
const things = thingsOn(job.board);
const parts = Object.keys(job.board.parts);

/** Which pins are joined, whatever the strips are called. */
const joined = (board: Board): string[] =>
  extractNets(board)
    .nets.map((n) => n.pins.join(' '))
    .filter((pins) => pins.includes(' '))
    .sort();

/** The job after typed commands, each of which must work. */
const following = (...commands: string[]): Job =>
  commands.reduce((current: Job, text) => {
    const command = readCommand(current.board, text);
    const applied = command.ok ? applyEdit(current, command.edit) : null;
    return applied?.ok ? applied.job : expect.fail(`${text}: ${JSON.stringify([command, applied])}`);
  }, job);
const refusal = (text: string): string | undefined => {
  const command = readCommand(job.board, text);
  if (!command.ok) return command.finding.code;
  const applied = applyEdit(job, command.edit);
  return applied.ok ? undefined : applied.findings[0]?.code;
};

describe('things shifted together', () => {
  it('all of them, to another board: every pin stays joined to what it was', () => {
    const two = following('board');
    const moved = shifted(two.board, { what: things, dx: 0, dy: 20 });
    if (Array.isArray(moved)) return expect.fail(JSON.stringify(moved));
    expect(joined(moved)).toEqual(joined(job.board));
    expect(Object.values(moved.parts).every((p) => p.at.startsWith('b2.'))).toBe(true);
  });

  it('some of them, along a board: jumpers follow, and the way back gives the same board', () => {
    fc.assert(
      fc.property(fc.subarray(parts), fc.integer({ min: -6, max: 6 }), (what, dx) => {
        const there = shifted(job.board, { what, dx, dy: 0 });
        if (Array.isArray(there)) {
          expect(there[0]?.code).toMatch(/^hand\//);
          return;
        }
        // A rail is one strip from end to end, and a strip that two parts share cannot follow one of them.
        if (what.length === parts.length) expect(joined(there)).toEqual(joined(job.board));
        const back = shifted(there, { what, dx: -dx, dy: 0 });
        if (!Array.isArray(back)) expect(Object.keys(back.jumpers)).toEqual(Object.keys(job.board.jumpers));
      }),
    );
  });

  it('say which thing finds no hole', () => {
    expect(shifted(job.board, { what: ['U1'], dx: 60, dy: 0 })).toMatchObject([
      { code: 'hand/nowhere', facts: { what: 'U1' } },
    ]);
  });
});

describe('a copy', () => {
  it('of everything lies on another board and is joined as the first is, under new names and without labels', () => {
    const two = following('board');
    const made = pasted(two.board, clipOf(two.board, things));
    if ('code' in made) return expect.fail(made.code);
    const applied = applyEdit(two, made.edit);
    if (!applied.ok) return expect.fail(JSON.stringify(applied.findings));
    const { board } = applied.job;
    expect(Object.keys(board.parts)).toHaveLength(2 * parts.length);
    expect(joined(board)).toHaveLength(2 * joined(job.board).length);
    const copies = made.what.flatMap((ref) => board.parts[ref] ?? []);
    expect(copies).toHaveLength(parts.length);
    for (const copy of copies) expect(copy.signal).toBeUndefined();
    const undone = applyEdit(applied.job, applied.inverse);
    expect(undone.ok && undone.job).toEqual(two);
  });

  it('of any few things lands in free holes or says that there is no room', () => {
    fc.assert(
      fc.property(fc.subarray(things, { minLength: 1 }), (what) => {
        const made = pasted(job.board, clipOf(job.board, what));
        if ('code' in made) expect(made.code).toBe('hand/no-seat');
        else expect(applyEdit(job, made.edit).ok).toBe(true);
      }),
      { numRuns: 30 },
    );
    expect(pasted(job.board, { parts: [], jumpers: [] })).toMatchObject({ code: 'hand/nothing-copied' });
  });
});

describe('what is kept from one edit to the next', () => {
  it('is what would be worked out afresh: nets, findings and doubled holes after any edits', () => {
    const lines = [
      'pull w5',
      'pull D1',
      'rotate D2',
      'move U2 b1.e52',
      'b1.a60 > b1.j60',
      'rotate U1',
      'pull w9',
      'seat npn',
    ];
    const fresh = (board: Board): Board => structuredClone(board);
    const told = (board: Board): string =>
      JSON.stringify(inspect(board, extractNets(board), job.packing, 'HC').map((f) => [f.code, f.places, f.facts]));
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...lines), { minLength: 1, maxLength: 6 }), (edits) => {
        let current = job;
        for (const text of edits) {
          const command = readCommand(current.board, text);
          const applied = command.ok ? applyEdit(current, command.edit) : null;
          if (applied?.ok) current = applied.job;
          expect(extractNets(current.board)).toEqual(extractNets(fresh(current.board)));
          expect(told(current.board)).toBe(told(fresh(current.board)));
        }
      }),
      { numRuns: 40 },
    );
  });

  it('doubled holes are those that hold more than one, whoever is in them', () => {
    const jumper = (id: string, from: string, to: string) => ({ [id]: { id, from, to } });
    const pin = job.board.parts.U1?.at ?? '';
    const board: Board = {
      ...job.board,
      jumpers: { ...job.board.jumpers, ...jumper('w90', pin, 'b1.a60'), ...jumper('w91', 'b1.a60', 'b1.a62') },
    };
    const twice = [...occupancyOf(board)].filter(([, by]) => by.length > 1);
    expect(twice.length).toBe(2);
    expect([...doubledHoles(board)].sort()).toEqual(twice.sort());
    expect(doubledHoles(job.board)).toEqual([]);
  });
});

describe('what is typed', () => {
  it('sets a value, replaces a chip by one with the same pins, colours and straightens a jumper', () => {
    const { board } = following(
      'value R1 4k7',
      'replace U1 74LS00',
      'colour w3 violet',
      'fix U1',
      'straight w3',
      'note b1.a1 try this',
    );
    expect(board.parts.R1?.value).toBe(4700);
    expect(board.parts.U1).toMatchObject({ part: '74LS00', fixed: true });
    expect(board.jumpers.w3).toMatchObject({ colour: 'violet', route: 'straight' });
    expect(board.notes).toEqual({ n1: { id: 'n1', at: 'b1.a1', text: 'try this' } });
  });

  it('takes back what it gave: plain, bend, unfix, an empty note', () => {
    const { board } = following(
      'fix R1',
      'unfix R1',
      'colour w3 red',
      'straight w3',
      'note b1.a1 x',
      'colour w3 plain',
      'bend w3',
      'note b1.a1',
    );
    expect(board).toEqual(job.board);
  });

  it('leads a jumper over holes; straight and bend take the corners back', () => {
    const { board } = following('straight w3', 'bend w3 b1.c17 b1.C24');
    expect(board.jumpers.w3).toEqual({
      ...job.board.jumpers.w3,
      corners: [holeXY(parseHole('b1.c17') as Hole), holeXY(parseHole('b1.c24') as Hole)],
    });
    expect(following('bend w3 b1.c17', 'bend w3').board).toEqual(job.board);
    expect(following('bend w3 b1.c17', 'straight w3').board).toEqual(following('straight w3').board);
  });

  it('puts one end of a jumper elsewhere', () => {
    const { board } = following('w1.2 > b1.a60');
    expect(board.jumpers.w1).toEqual({ ...job.board.jumpers.w1, to: 'b1.a60' });
  });

  it('adds and takes away boards, but none that is in use', () => {
    expect(following('board half', 'board half right', 'pull bh2').board.breadboards.map((b) => b.id)).toEqual([
      'b1',
      'bh2r',
    ]);
    expect(refusal('pull b1')).toBe('hand/last-board');
    const two = following('board', 'seat 74HC00 b2.e5');
    expect(applyEdit(two, { kind: 'remove-breadboard', id: 'b2' })).toMatchObject({
      findings: [{ code: 'hand/board-in-use', facts: { by: 'U3.1' } }],
    });
  });

  it.each([
    ['value R1 none', 'hand/no-value'],
    ['value R99 4k7', 'hand/no-such-part'],
    ['fix U99', 'hand/no-such-part'],
    ['value U1 4k7', 'hand/no-value'],
    ['replace U1 74HC138', 'hand/other-pins'],
    ['replace U1 nothing', 'hand/no-such-type'],
    ['colour w3 pink', 'hand/no-such-colour'],
    ['colour w999 red', 'hand/no-such-jumper'],
    ['straight U1', 'hand/no-such-jumper'],
    ['bend w999 b1.c17', 'hand/no-such-jumper'],
    ['bend w3 b1.c17 b7.c17', 'hand/no-such-hole'],
    ['bend w3 here there', 'hand/no-such-hole'],
    [`bend w3 ${'b1.c17 '.repeat(13)}`, 'hand/no-such-route'],
    ['note x99 text', 'hand/no-such-hole'],
    ['board half right', 'hand/no-place-for-board'],
    ['board huge', 'hand/no-place-for-board'],
    ['pull b9', 'hand/no-such-board'],
    ['w1.3 > U1.1', 'hand/no-such-part'],
    ['w1.1 > b1.zz', 'hand/no-such-hole'],
  ])('%s is refused', (text, code) => {
    expect(refusal(text)).toBe(code);
  });
});

describe('values', () => {
  it.each([
    ['resistor', '470', 470],
    ['resistor', '4k7', 4700],
    ['resistor', '4.7K', 4700],
    ['resistor', '1M', 1e6],
    ['resistor', '2R2', 2.2],
    ['resistor', '0,5 Ω', 0.5],
    ['capacitor', '100', 100],
    ['capacitor', '100nF', 100],
    ['capacitor', '1u', 1000],
    ['capacitor', '22p', 0.022],
    ['supply', '3.3 V', 3.3],
  ] as const)('%s %s', (kind, text, value) => {
    expect(readValue(kind, text)).toBe(value);
  });

  it.each(['', 'k', '0', '-5', '4k7k', '1.2.3', 'x', '4.7k5', '9'.repeat(30)])('%j is none', (text) => {
    expect(readValue('resistor', text)).toBeNull();
  });
});
