import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Board, extractNets, pinOf } from '../board';
import { readDesign, typeOf } from '../catalogue';
import { printSheet, readSheet } from '../design';
import { isError } from '../finding';
import {
  areEqual,
  equalUnits,
  moveGate,
  noLocks,
  type Packing,
  pack,
  placeOf,
  placesFor,
  swapInputs,
  withUnitsExchanged,
} from '../packing';
import { plan } from '../planning';
import { solve } from '../testing/interlock';
import { arbitrarySheet } from '../testing/random';
import { inspect } from './inspect';
import { matched } from './matched';

const netlistOf = (text: string) => readSheet(text).design.netlist ?? expect.fail(`not read: ${text}`);
const packed = async (text: string): Promise<Packing> =>
  (await pack(netlistOf(text), 'HC', solve)).packing ?? expect.fail('not packed');
const planned = (packing: Packing): Board => plan(packing).board ?? expect.fail('no board');
const wrong = (board: Board, packing: Packing) =>
  inspect(board, extractNets(board), packing, 'HC').filter((f) => isError(f) || f.code.startsWith('wiring'));

/** The same gates on other units, and with equal inputs exchanged, as far as that goes. */
function shuffled(packing: Packing, text: string, draw: readonly number[]): Packing {
  const netlist = netlistOf(text);
  let now = packing;
  for (const n of draw) {
    const used = now.packages.flatMap(({ ref, units }) => units.flatMap((u, unit) => (u ? [{ ref, unit }] : [])));
    const from = used[n % used.length];
    if (!from) continue;
    const places = placesFor(now, noLocks, netlist, from);
    const to = places[(n >> 4) % Math.max(1, places.length)];
    const moved = to && moveGate(now, noLocks, netlist, { from, to });
    if (moved?.ok) now = moved.packing;
    const type = typeOf(now.packages.find((p) => p.ref === from.ref) ?? { part: '' });
    const unit = type?.units[from.unit];
    if (!unit || !areEqual(unit, 0, 1)) continue;
    const swapped = swapInputs(now, noLocks, from, { i: 0, j: 1 });
    if (swapped.ok) now = swapped.packing;
  }
  return now;
}

describe('wiring matched to a design', () => {
  it('is right on whichever equal units, inputs and ties it was laid, and the match says on which', async () => {
    let moved = 0;
    await fc.assert(
      fc.asyncProperty(arbitrarySheet, fc.array(fc.nat(4095), { maxLength: 6 }), async (sheet, draw) => {
        const text = printSheet(sheet);
        const { netlist } = readSheet(text).design;
        if (!netlist || netlist.gates.length === 0 || netlist.gates.length > 14) return;
        const packing = await packed(text);
        const other = shuffled(packing, text, draw);
        const board = planned(other);
        expect(wrong(board, packing)).toEqual([]);
        const match = matched(packing, board, extractNets(board));
        expect(matched(match, board, extractNets(board))).toBe(match);
        if (match !== packing) moved++;
      }),
      { numRuns: 120 },
    );
    expect(moved).toBeGreaterThan(10);
  }, 120_000);

  it.each([
    [
      'four flip-flops of two chips',
      'in D CK R S\nout A B C E\nA = D at rise CK clear R\nB = A ^ D at rise CK preset S\nC = B at rise R\nE = ~(A & C) at rise CK clear S',
    ],
    [
      'a register of one clock',
      'in D CK R\nout A B C\nA = D at rise CK clear R\nB = A at rise CK clear R\nC = B ^ A at rise CK clear R',
    ],
    ['latches', 'in D EN F\nout Q P O\nQ = D while EN\nP = ~D while F\nO = Q ^ P while F'],
  ])('is right on whichever equal units what is stored was laid: %s', async (_, text) => {
    const netlist = readDesign(text).design.netlist ?? expect.fail();
    const packing = (await pack(netlist, 'HC', solve)).packing ?? expect.fail();
    const lists = equalUnits(packing.packages).filter((slots) => slots.length > 1);
    await fc.assert(
      fc.property(fc.array(fc.nat(9999), { minLength: 1, maxLength: 5 }), (draw) => {
        let other = packing;
        for (const n of draw) {
          const slots = lists[n % lists.length] ?? expect.fail();
          const [a, b] = [slots[(n >> 3) % slots.length], slots[(n >> 7) % slots.length]];
          if (a && b) other = withUnitsExchanged(other, a, b);
        }
        const board = plan(other, { asPacked: true }).board ?? expect.fail();
        expect(wrong(board, packing)).toEqual([]);
      }),
      { numRuns: 40 },
    );
  });

  it('tells a wire that is missing at a flip-flop on another half as that alone', async () => {
    const text = 'in D E CK R\nout A B\nA = D at rise CK clear R\nB = E at rise CK clear R';
    const packing =
      (await pack(readDesign(text).design.netlist ?? expect.fail(), 'HC', solve)).packing ?? expect.fail();
    const halves = equalUnits(packing.packages).find((s) => packing.packages[s[0]?.pack ?? 0]?.part === '74HC74');
    const [first, second] = halves ?? expect.fail();
    const other = withUnitsExchanged(packing, first ?? expect.fail(), second ?? expect.fail());
    const board = plan(other, { asPacked: true }).board ?? expect.fail();
    // The pin of its own D, on the half that it was laid on.
    const pin = `${packing.packages[second?.pack ?? 0]?.ref}.${second?.unit === 0 ? '2' : '12'}`;
    const { nets, ofPin } = extractNets(board);
    const codes = (nets[ofPin.get(pin) ?? -1]?.jumpers ?? []).map((id) => {
      const { [id]: _, ...jumpers } = board.jumpers;
      return wrong({ ...board, jumpers }, packing).map((f) => [f.code, JSON.stringify(f.places)]);
    });
    expect(codes).toContainEqual([['floating-input', JSON.stringify([{ kind: 'pin', pin }])]]);
  });

  it('is the packing itself when everything is in its place', async () => {
    const packing = await packed('in A B C\nout Y Z\nY = nand(A, B)\nZ = ~C');
    const board = planned(packing);
    expect(matched(packing, board, extractNets(board))).toBe(packing);
  });

  const text = 'in A B C\nout Y Z\nY = nand(A, B)\nZ = nand(B, C)';

  it('finds two gates that were exchanged, and tells a jumper pulled from one by its own pin', async () => {
    const packing = await packed(text);
    const netlist = netlistOf(text);
    const [y, z] = [placeOf(packing, 'Y'), placeOf(packing, 'Z')];
    if (!y || !z) expect.fail('not placed');
    const other = moveGate(packing, noLocks, netlist, { from: y, to: z });
    const board = planned(other.ok ? other.packing : expect.fail());
    expect(wrong(board, packing)).toEqual([]);
    const nets = extractNets(board);
    const match = matched(packing, board, nets);
    expect(placeOf(match, 'Y')).toEqual(z);
    const pin = typeOf({ part: '74HC00' })?.units[z.unit]?.inputs[0] ?? '';
    const net = nets.ofPin.get(pinOf(z.ref, pin)) ?? -1;
    const jumper = nets.nets[net]?.jumpers.find((id) => {
      const { [id]: _, ...jumpers } = board.jumpers;
      const without = extractNets({ ...board, jumpers });
      return (without.nets[without.ofPin.get(pinOf(z.ref, pin)) ?? -1]?.pins.length ?? 0) <= 1;
    });
    const { [jumper ?? '']: gone, ...jumpers } = board.jumpers;
    expect(gone).toBeDefined();
    const found = wrong({ ...board, jumpers }, packing);
    expect(found).toHaveLength(1);
    expect(JSON.stringify(found)).toContain(pinOf(z.ref, pin));
  });

  it('takes a spare chip of another kind that does the same', async () => {
    const design = 'in A B C\nout Y Z\nY = nand(A, B)\nZ = ~C';
    const packing = await packed(design);
    const inverter = { ref: 'U2', part: '74HC04', units: [null, null, null, null, null, null] };
    const wider = { ...packing, packages: [...packing.packages, inverter] };
    const z = placeOf(packing, 'Z') ?? expect.fail();
    const other = moveGate(wider, noLocks, netlistOf(design), { from: z, to: { ref: 'U2', unit: 3 } });
    const board = planned(other.ok ? other.packing : expect.fail());
    expect(wrong(board, packing)).toEqual([]);
    expect(placeOf(matched(packing, board, extractNets(board)), 'Z')).toEqual({ ref: 'U2', unit: 3 });
  });

  it('leaves gates whose chip is not seated where they are', async () => {
    const packing = await packed(text);
    const board = planned(packing);
    const { U1: _, ...parts } = board.parts;
    const bare = { ...board, parts };
    expect(matched(packing, bare, extractNets(bare)).packages).toEqual(packing.packages);
  });
});
