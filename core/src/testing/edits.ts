import fc from 'fast-check';
import { rows } from '../board';
import type { Edit, Job } from '../job';
import { emptyTable, numberForms, thingsOn } from '../job';
import type { Packing } from '../packing';

type Kind = Exclude<Edit['kind'], 'all' | 'restore'>;
/** An arbitrary of every kind of edit: the compiler asks for each, so that no kind escapes the laws. */
type Arbitraries = { readonly [K in Kind]: fc.Arbitrary<Omit<Extract<Edit, { kind: K }>, 'kind'>> };

/** Random edits of a laid-out job, of every kind, possible and impossible ones. */
export function arbitraryEdits(job: Job, packing: Packing): Arbitraries {
  const things = thingsOn(job.board);
  const hole = fc
    .tuple(fc.constantFrom(...rows), fc.integer({ min: 0, max: 64 }))
    .map(([row, column]) => `b1.${row}${column}`);
  const thing = fc.constantFrom(...things, 'U9', 'w999', 'constructor');
  const list = fc.subarray([...things, 'w998'], { minLength: 1, maxLength: 4 });
  const text = fc.string({ maxLength: 6 });
  const board = fc.constantFrom('b1', 'b2', 'b3', 'bh1', 'b99', 'nowhere');
  const point = fc.record({ x: fc.integer({ min: 0, max: 66 }), y: fc.integer({ min: 0, max: 17 }) });
  return {
    rename: fc.record({ name: fc.string() }),
    'write-sheet': fc.oneof(
      fc.record({ text: fc.string() }),
      fc.record({ text: fc.string(), typed: fc.constant<true>(true) }),
    ),
    'set-family': fc.record({ family: fc.constantFrom<'HC' | 'LS' | '74'>('HC', 'LS', '74') }),
    'fill-table': fc.constantFrom({ table: null }, { table: emptyTable(['A', 'B'], ['Y']) }),
    'lay-out': fc.constant({ packing, board: job.board }),
    'take-packing': fc.constant({ packing: { ...packing, proved: !packing.proved } }),
    exclude: fc.record({ chips: fc.subarray(['7486', '7402']) }),
    lock: fc.constantFrom(
      { locks: { pins: [], added: [] } },
      { locks: { pins: [], added: [{ ref: 'U9', part: '7400' }] } },
      { locks: { pins: [{ net: 'G', ref: 'U1', unit: 0, part: '7408', inputs: ['K', 'E'] }], added: [] } },
    ),
    'arrange-trace': fc.record({
      trace: fc.record({
        pins: fc.array(text, { maxLength: 3 }),
        order: fc.array(text, { maxLength: 3 }),
        numbers: fc.array(fc.record({ name: text, of: fc.array(text), form: fc.constantFrom(...numberForms) }), {
          maxLength: 2,
        }),
        speed: fc.constantFrom(null, 1),
        marks: fc.constantFrom({ a: null, b: 1.5e9 }, { a: 0, b: null }),
      }),
    }),
    silence: fc.record({ finding: fc.record({ code: text, place: text, reason: text }) }),
    'tell-again': fc.record({ code: text, place: text }),
    'clear-board': fc.constant({}),
    'add-breadboard': fc.record({ id: board }),
    'remove-breadboard': fc.record({ id: board }),
    seat: hole.map((at) => ({ part: { ref: 'U7', part: '74HC04', at, rotation: 0 as const } })),
    move: fc.record({
      ref: thing,
      at: hole,
      rotation: fc.constantFrom<0 | 90 | 180 | 270>(0, 90, 180, 270),
      follow: fc.boolean(),
    }),
    shift: fc.record({
      what: fc.subarray([...things]),
      dx: fc.integer({ min: -9, max: 9 }),
      dy: fc.constantFrom(0, 1, 20),
    }),
    label: fc.oneof(
      fc.record({ ref: thing, signal: fc.string({ maxLength: 5 }) }),
      fc.record({ ref: thing, signal: fc.string({ maxLength: 5 }), of: fc.constantFrom('1', '', 'x') }),
    ),
    'pull-part': fc.record({ ref: thing }),
    'set-value': fc.record({ ref: thing, value: fc.constantFrom(0, 470, 1e6) }),
    'set-span': fc.record({
      ref: fc.oneof(thing, fc.constantFrom('C1', 'R1', 'D1')),
      span: fc.integer({ min: 0, max: 9 }),
    }),
    'set-limit': fc.record({
      ref: fc.oneof(thing, fc.constantFrom('P1')),
      ma: fc.constantFrom(0, 100, 20_000),
    }),
    fix: fc.record({ refs: list, fixed: fc.boolean() }),
    replace: fc.record({
      ref: fc.oneof(thing, fc.constantFrom('U1', 'U2')),
      by: fc.constantFrom({ part: '74LS32' }, { part: '74LS138' }, { part: 'none' }),
    }),
    'lay-jumper': fc.record({ jumper: fc.record({ id: fc.constantFrom('w500', 'w1'), from: hole, to: hole }) }),
    'pull-jumper': fc.record({ id: thing }),
    're-plug': fc.record({ id: thing, end: fc.constantFrom<'from' | 'to'>('from', 'to'), hole }),
    colour: fc.record({ ids: list, colour: fc.constantFrom<'red' | 'green' | null>('red', 'green', null) }),
    straighten: fc.record({ ids: list, straight: fc.boolean() }),
    bend: fc.record({ id: thing, corners: fc.array(point, { maxLength: 3 }) }),
    note: fc.record({
      note: fc.record({ id: fc.constantFrom('n1', 'n2'), at: fc.constantFrom('b1.e9', 'b2.e1'), text }),
    }),
  };
}

/** Any of them, each kind as often as another. */
export function anyEdit(job: Job, packing: Packing): fc.Arbitrary<Edit> {
  const kinds = Object.entries(arbitraryEdits(job, packing)) as [Kind, fc.Arbitrary<object>][];
  return fc.oneof(...kinds.map(([kind, rest]) => rest.map((r) => ({ kind, ...r }) as Edit)));
}
