import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { typeOf } from '../catalogue';
import { printSheet, readSheet } from '../design';
import { isError } from '../finding';
import { areEqual, moveGate, nothingHeld, type Packing, pack, placeOf, placesFor, swapInputs } from '../packing';
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
    const places = placesFor(now, nothingHeld, netlist, from);
    const to = places[(n >> 4) % Math.max(1, places.length)];
    const moved = to && moveGate(now, nothingHeld, netlist, from, to);
    if (moved?.ok) now = moved.packing;
    const type = typeOf(now.packages.find((p) => p.ref === from.ref) ?? { part: '' });
    const unit = type?.units[from.unit];
    if (!unit || !areEqual(unit, 0, 1)) continue;
    const swapped = swapInputs(now, nothingHeld, from, 0, 1);
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
    const other = moveGate(packing, nothingHeld, netlist, y, z);
    const board = planned(other.ok ? other.packing : expect.fail());
    expect(wrong(board, packing)).toEqual([]);
    const nets = extractNets(board);
    const match = matched(packing, board, nets);
    expect(placeOf(match, 'Y')).toEqual(z);
    const pin = typeOf({ part: '74HC00' })?.units[z.unit]?.inputs[0] ?? '';
    const net = nets.ofPin.get(`${z.ref}.${pin}`) ?? -1;
    const jumper = nets.nets[net]?.jumpers.find((id) => {
      const { [id]: _, ...jumpers } = board.jumpers;
      const without = extractNets({ ...board, jumpers });
      return (without.nets[without.ofPin.get(`${z.ref}.${pin}`) ?? -1]?.pins.length ?? 0) <= 1;
    });
    const { [jumper ?? '']: gone, ...jumpers } = board.jumpers;
    expect(gone).toBeDefined();
    const found = wrong({ ...board, jumpers }, packing);
    expect(found).toHaveLength(1);
    expect(JSON.stringify(found)).toContain(`${z.ref}.${pin}`);
  });

  it('takes a spare chip of another kind that does the same', async () => {
    const design = 'in A B C\nout Y Z\nY = nand(A, B)\nZ = ~C';
    const packing = await packed(design);
    const inverter = { ref: 'U2', part: '74HC04', units: [null, null, null, null, null, null] };
    const wider = { ...packing, packages: [...packing.packages, inverter] };
    const z = placeOf(packing, 'Z') ?? expect.fail();
    const other = moveGate(wider, nothingHeld, netlistOf(design), z, { ref: 'U2', unit: 3 });
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
