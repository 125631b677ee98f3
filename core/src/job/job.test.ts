import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { extractNets, holesOfStrip, parseHole, printHole } from '../board';
import { anyEdit, arbitraryEdits } from '../testing/edits';
import { interlockSheet, laidOut } from '../testing/interlock';
import { readCommand } from './commands';
import { applyEdit, type Edit, saysEdit } from './edit';
import { perform, redo, startHistory, undo } from './history';
import { type Job, newJob } from './job';
import { nudged } from './nudge';

const { job, packing } = await laidOut(interlockSheet);
const edits = anyEdit(job, packing);

describe('edits', () => {
  it('undone give the same job back, and leave the job they were made on as it was', () => {
    const before = JSON.stringify(job);
    fc.assert(
      fc.property(fc.array(edits, { minLength: 1, maxLength: 12 }), (made) => {
        let current: Job = job;
        const inverses: [Edit, Job][] = [];
        for (const edit of made) {
          const applied = applyEdit(current, edit);
          if (!applied.ok) {
            expect(applied.findings.length).toBeGreaterThan(0);
            continue;
          }
          inverses.push([applied.inverse, current]);
          current = applied.job;
        }
        for (const [inverse, was] of inverses.reverse()) {
          const back = applyEdit(current, inverse);
          expect(back.ok && back.job).toEqual(was);
          if (back.ok) current = back.job;
        }
        expect(JSON.stringify(job)).toBe(before);
      }),
      { numRuns: 200 },
    );
  });

  it.each(Object.entries(arbitraryEdits(job, packing)))(
    '%s: undone, the job is as it was; its words are not empty',
    (kind, rest) => {
      const added = applyEdit(job, { kind: 'add-breadboard', id: 'b2' });
      const roomy = added.ok ? added.job : expect.fail('no second board');
      let done = 0;
      fc.assert(
        fc.property(rest, (fields) => {
          const edit = { kind, ...fields } as Edit;
          expect(saysEdit(edit)).not.toBe('');
          const applied = applyEdit(roomy, edit);
          if (!applied.ok) return;
          done++;
          const back = applyEdit(applied.job, applied.inverse);
          expect(back.ok && back.job).toEqual(roomy);
        }),
      );
      expect(done).toBeGreaterThan(0);
    },
  );

  it('are plain objects that survive JSON', () => {
    fc.assert(
      fc.property(edits, (edit) => {
        const [one, two] = [applyEdit(job, edit), applyEdit(job, JSON.parse(JSON.stringify(edit)) as Edit)];
        expect(two.ok ? two.job : two.findings).toEqual(one.ok ? one.job : one.findings);
      }),
    );
  });

  it('that change nothing give the very same job', () => {
    const applied = applyEdit(job, { kind: 'rename', name: job.name });
    expect(applied.ok && applied.job).toBe(job);
  });

  it('made together happen all or not at all', () => {
    const edits: Edit[] = [
      { kind: 'pull-jumper', id: 'w1' },
      { kind: 'pull-jumper', id: 'w1' },
    ];
    expect(applyEdit(job, { kind: 'all', says: 'two', edits }).ok).toBe(false);
  });
});

describe('moving a chip', () => {
  it('along the channel takes its jumpers with it: every net keeps its pins', () => {
    const { parts } = job.board;
    const edit: Edit = {
      kind: 'move',
      ref: 'U2',
      at: (parts.U2?.at ?? '').replace(/\d+$/, (n) => String(Number(n) - 1)),
      rotation: 0,
      follow: true,
    };
    const applied = applyEdit(job, edit);
    const pinsOf = (j: Job) =>
      extractNets(j.board)
        .nets.map((n) => n.pins.join())
        .filter((p) => p !== '')
        .sort();
    expect(applied.ok && pinsOf(applied.job)).toEqual(pinsOf(job));
  });

  it('without them leaves every jumper in its holes', () => {
    const at = (job.board.parts.U2?.at ?? '').replace(/\d+$/, (n) => String(Number(n) + 1));
    const applied = applyEdit(job, { kind: 'move', ref: 'U2', at, rotation: 0, follow: false });
    expect(applied.ok && applied.job.board.jumpers).toEqual(job.board.jumpers);
  });

  it('is refused where a lead finds no hole or a taken one', () => {
    const refused = applyEdit(job, { kind: 'move', ref: 'U2', at: 'b1.e58', rotation: 0, follow: true });
    expect(!refused.ok && refused.findings[0]?.code).toBe('hand/lead-off-board');
    expect(nudged(job.board, 'U2', 1, 0)).toMatchObject({ kind: 'move', ref: 'U2' });
  });
});

describe('what is typed', () => {
  const run = (text: string) => {
    const command = readCommand(job.board, text);
    return command.ok ? command.edit : command.finding.code;
  };

  it('U1.8 > U2.9 lays a jumper between free holes of the two strips', () => {
    const edit = run('u1.8 > U2.9');
    if (typeof edit === 'string' || edit.kind !== 'lay-jumper') return expect.fail(JSON.stringify(edit));
    const applied = applyEdit(job, edit);
    const { ofPin } = extractNets(applied.ok ? applied.job.board : job.board);
    expect(ofPin.get('U1.8')).toBe(ofPin.get('U2.9'));
  });

  it.each([
    ['U1.8>U2.9', 'lay-jumper'],
    ['U1.1Y > b1.bottom-', 'lay-jumper'],
    ['b1.a60 > b1.top+60', 'lay-jumper'],
    ['pull w3', 'pull-jumper'],
    ['pull U1', 'pull-part'],
    ['rotate d1', 'move'],
    ['turn D1', 'move'],
    ['move U1 b1.e52', 'move'],
    ['label S1 K2', 'label'],
    ['seat 74hc00', 'seat'],
    ['seat led b1.c60', 'seat'],
  ])('%j is understood', (text, kind) => {
    const edit = run(text);
    expect(typeof edit === 'string' ? edit : edit.kind).toBe(kind);
  });

  it.each([
    ['', 'hand/not-understood'],
    ['hello there', 'hand/not-understood'],
    ['U1.8 >', 'hand/not-understood'],
    ['U1.8 > U3.2', 'hand/no-such-part'],
    ['U1.15 > U2.1', 'hand/no-such-pin'],
    ['b1.e64 > U2.1', 'hand/no-such-hole'],
    ['b2.a1 > U2.1', 'hand/no-such-hole'],
    ['pull w999', 'hand/no-such-jumper'],
    ['pull constructor', 'hand/no-such-part'],
    ['rotate U9', 'hand/no-such-part'],
    ['move U1 b1.z9', 'hand/no-such-hole'],
    ['seat 74HC999', 'hand/no-such-type'],
  ])('%j is answered with what is wrong', (text, code) => {
    expect(run(text)).toBe(code);
  });

  it('says when a strip has no free hole left', () => {
    let current: Job = { ...job, board: { ...job.board } };
    const strip = holesOfStrip(parseHole('b1.a60') ?? expect.fail()).map(printHole);
    for (const [i, hole] of strip.entries()) {
      const applied = applyEdit(current, {
        kind: 'lay-jumper',
        jumper: { id: `w${600 + i}`, from: hole, to: `b1.${'jihgf'[i]}60` },
      });
      current = applied.ok ? applied.job : expect.fail(JSON.stringify(applied));
    }
    expect(run('b1.top+ > b1.top-')).toMatchObject({ kind: 'lay-jumper' });
    const command = readCommand(
      {
        ...current.board,
        parts: { ...current.board.parts, R99: { ref: 'R99', part: 'led', at: 'b1.a60', rotation: 0 } },
      },
      'R99.A > b1.bottom-',
    );
    expect(!command.ok && command.finding.code).toBe('hand/strip-full');
  });
});

describe('history', () => {
  const write = (text: string): Edit => ({ kind: 'write-sheet', text, typed: true });

  it('takes writing back in one go when it came in one go, other edits one by one', () => {
    let h = startHistory(newJob('n', 'a'));
    for (const [i, text] of ['ab', 'abc', 'abcd'].entries()) h = perform(h, write(text), 100 * i).history;
    h = perform(h, { kind: 'rename', name: 'm' }, 400).history;
    h = perform(h, { kind: 'rename', name: 'o' }, 450).history;
    h = perform(h, write('later'), 90_000).history;
    const names: string[] = [];
    while (h.past.length > 0) {
      h = undo(h);
      names.push(`${h.job.name} ${h.job.sheet}`);
    }
    expect(names).toEqual(['o abcd', 'm abcd', 'n abcd', 'n a']);
    for (let i = 0; i < 4; i++) h = redo(h);
    expect(h.job).toMatchObject({ name: 'o', sheet: 'later' });
    expect(redo(h)).toBe(h);
  });

  it('takes back one press at a time, however soon it came after what was typed: tidying, a cell, a gate', () => {
    const step = fc.record({
      text: fc.string({ minLength: 1, maxLength: 3 }),
      typed: fc.boolean(),
      afterMs: fc.constantFrom(0, 90, 5000),
    });
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 12 }), (steps) => {
        let h = startHistory(newJob('n', ''));
        let atMs = 0;
        for (const { text, typed, afterMs } of steps) {
          const { job: before } = h;
          atMs += afterMs;
          const edit: Edit = { kind: 'write-sheet', text: before.sheet + text, ...(typed && { typed: true as const }) };
          h = perform(h, edit, atMs).history;
          if (!typed) expect(undo(h).job).toEqual(before);
        }
        while (h.past.length > 0) h = undo(h);
        expect(h.job.sheet).toBe('');
      }),
    );
  });

  it('forgets what was undone once something new is done', () => {
    const one = perform(startHistory(newJob('n')), { kind: 'rename', name: 'm' }, 0).history;
    const other = perform(undo(one), { kind: 'rename', name: 'o' }, 1).history;
    expect(other.future).toEqual([]);
    expect(redo(other).job.name).toBe('o');
  });
});
