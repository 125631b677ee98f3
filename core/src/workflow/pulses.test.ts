import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { emptyBoard, extractNets } from '../board';
import { buildCard } from '../card';
import { readDesign } from '../catalogue';
import { rhythmOf, timersOf } from '../electrical';
import { isError, says } from '../finding';
import { recover } from '../inspection';
import { applyEdit, type Job, newJob } from '../job';
import { solve } from '../testing/interlock';
import { nextStepOf } from './guide';
import { layOutJob } from './lay-out';
import { inspectJob, packJob } from './stages';
import { broughtUpTo } from './update';

const uses: Readonly<Record<string, (times: string) => string>> = {
  '74121': (times) => `use 74121 as P1 (A1 = 0, A2 = 0, B = S, Q = Y)${times}`,
  '74123': (times) => `use 74123 as P1 (1A = 0, 1B = S, 1CLRn = 1, 1Q = Y, 2A = 0, 2B = Y, 2CLRn = 1, 2Q = Z)${times}`,
  '74221': (times) => `use 74221 as P1 (1A = 0, 1B = S, 1CLRn = 1, 1Q = Y, 2A = 0, 2B = Y, 2CLRn = 1, 2Q = Z)${times}`,
  '555': (times) => `B = ~S\nuse 555 as P1 (TRIG = B, RESETn = 1, THRES = X, DISCH = X, OUT = Y)${times}`,
  '556': (times) =>
    `B = ~S\nC = ~Y\nuse 556 as P1 (1TRIG = B, 1RESETn = 1, 1THRES = X, 1DISCH = X, 1OUT = Y, 2TRIG = C, 2RESETn = 1, 2THRES = V, 2DISCH = V, 2OUT = Z)${times}`,
};
const isSingle = (part: string): boolean => part === '74121' || part === '555';
const sheetOf = (part: string, times: string): string =>
  `in S from button\nout Y${isSingle(part) ? '' : ' Z'}\n${uses[part]?.(times)}`;

const time = fc.oneof(
  fc.integer({ min: 1, max: 999 }).map((n) => [n * 1e-6, `${n} us`] as const),
  fc.integer({ min: 1, max: 999 }).map((n) => [n * 1e-3, `${n}ms`] as const),
  fc.integer({ min: 1, max: 10 }).map((n) => [n, `${n} s`] as const),
);

async function packed(sheet: string, family: Job['family']) {
  const job = { ...newJob('test', sheet), family };
  const { reading, packing, findings } = await packJob(job, solve);
  expect([...reading.findings, ...findings].filter(isError).map(says), sheet).toEqual([]);
  const { netlist } = reading.design;
  return netlist && packing ? { job, netlist, packing } : expect.fail(sheet);
}

const foundOn = (job: Job): string[] =>
  inspectJob(job, job.packing)
    .filter((f) => f.severity !== 'note')
    .map((f) => `${f.code}: ${says(f)}`);

describe('pulses that a sheet wants of its one-shots', () => {
  it('come from a resistor and a capacitor that the plan seats, within 5 % by the law of the data sheet, and so does a build by hand', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom('74121', '74123', '74221', '555', '556'),
        fc.constantFrom('LS', 'HC', '74') as fc.Arbitrary<Job['family']>,
        time,
        time,
        async (part, family, a, b) => {
          const times = isSingle(part) ? [a] : [a, b];
          const sheet = sheetOf(part, ` for ${times.map(([, text]) => text).join(', ')}`);
          const { job, netlist, packing } = await packed(sheet, family);
          const { edit } = layOutJob(job, packing, netlist);
          const applied = applyEdit(job, edit ?? expect.fail(sheet));
          const laid = applied.ok ? applied.job : expect.fail(sheet);
          const led = broughtUpTo(emptyBoard, packing, netlist);
          expect(led.stopped && says(led.stopped), sheet).toBeNull();
          for (const { board, packing: made } of [laid, led]) {
            expect(foundOn({ ...laid, board, packing: made }), sheet).toEqual([]);
            const lengths = timersOf(board).map((t) => rhythmOf(t.law, t.values).highS);
            expect(lengths, sheet).toHaveLength(times.length);
            for (const [i, [seconds]] of times.entries())
              expect(Math.abs((lengths[i] ?? 0) / seconds - 1), sheet).toBeLessThan(0.05);
            const back = recover(board, extractNets(board));
            const readBack = readDesign(back.sheet).design.netlist?.pulses ?? [];
            expect(readBack, back.sheet).toHaveLength(1);
            for (const [i, [seconds]] of times.entries())
              expect(Math.abs((readBack[0]?.seconds[i] ?? 0) / seconds - 1), back.sheet).toBeLessThan(0.1);
            expect(nextStepOf(board, made ?? packing, netlist).stage, sheet).toBe('all is built');
          }
          const { stages } = buildCard(laid.board, laid.packing ?? packing, netlist);
          expect(
            stages.filter((s) => s.title === 'What remains'),
            sheet,
          ).toEqual([]);
        },
      ),
      { numRuns: 25 },
    );
  });

  it.each(['74123', '556'])('are asked for where the sheet says nothing: %s', async (part) => {
    const { job, netlist, packing } = await packed(sheetOf(part, ''), 'HC');
    const { edit } = layOutJob(job, packing, netlist);
    const applied = applyEdit(job, edit ?? expect.fail());
    const laid = applied.ok ? applied.job : expect.fail();
    const codes = inspectJob(laid, laid.packing).flatMap((f) => (f.severity === 'note' ? [] : [f.code]));
    expect(codes).toEqual(['one-shot-no-time', 'one-shot-no-time']);
  });

  it.each([
    [sheetOf('74123', ' for 20 ms, 30 ms, 40 ms'), 'sheet/pulses'],
    [
      'in A B\nout Y\nuse 7400 as U (1A = A, 1B = B, 1Y = Y, 2A = 0, 2B = 0, 3A = 0, 3B = 0, 4A = 0, 4B = 0) for 1 s',
      'sheet/pulses',
    ],
    [sheetOf('555', ' for 1 ms').replace('THRES = X', 'THRES = S'), 'sheet/pulse-pins'],
    [sheetOf('556', ' for 1 ms').replace('2DISCH = V', '2DISCH = W'), 'sheet/pulse-pins'],
    [sheetOf('74121', ' for 0 ms'), 'sheet/bad-pulse'],
    [sheetOf('74121', ' for 11 s'), 'sheet/bad-pulse'],
    [sheetOf('74121', ' for ever'), 'sheet/bad-pulse'],
    [sheetOf('74121', ' for'), 'sheet/bad-pulse'],
  ])('are refused with what to write: %j', async (sheet, code) => {
    const { reading } = await packJob(newJob('test', sheet), solve);
    expect(reading.findings.map((f) => f.code)).toContain(code);
  });
});
