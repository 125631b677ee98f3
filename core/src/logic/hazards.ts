import { elementAt } from '../element-at';
import type { Behaviour } from './machine';
import { compile, opcode, type Program, slotCount } from './program';
import { sweep } from './table';

/** What may be seen where one input changes: a pulse where the output should stay, or more than one change where it should change once. */
export type HazardKind = 'static-0' | 'static-1' | 'dynamic';

/** What a hazard does harm to: the clock, enable, clear or preset of something stored, by its name. */
export interface HazardTarget {
  readonly stored: string;
  readonly at: 'clock' | 'enable' | 'clear' | 'preset';
}

/**
 * A hazard of an output, or of a net that steers something stored. Rows are of `sources`, the first most significant; `row` is the first in which the
 * change of `input` begins, of `count`, and `rows` are the first of them, up to `MOST_HAZARD_ROWS`. `widthNs` is the greatest that the pulse can be.
 */
export interface Hazard {
  readonly net: string;
  readonly output: string | null;
  readonly target: HazardTarget | null;
  readonly kind: HazardKind;
  readonly input: string;
  readonly row: number;
  readonly rows: readonly number[];
  readonly count: number;
  readonly widthNs: number;
  /** A product that holds the output across the change of `row`, for a pulse where it should stay high; null for others. */
  readonly remedy: string | null;
}

/** The hazards of a design. `sources` are its inputs and then its stored signals, which change one at a time. */
export interface Hazards {
  readonly sources: readonly string[];
  readonly hazards: readonly Hazard[];
  /** False where there are more sources than are looked at: nothing is found then. */
  readonly isWhole: boolean;
}

/** Rows of a hazard that are listed. */
export const MOST_HAZARD_ROWS = 64;
/** Sources up to which every change is looked at. */
export const MOST_HAZARD_SOURCES = 14;

/**
 * Every change of one source from every row, with any delays of gates and of the wires to them: exact for pulses where the output should stay, as ternary
 * simulation is (Eichelberger, IBM J. R&D 9 (1965); Brzozowski and Seger, "Asynchronous Circuits" (1995), 7), and on the safe side for outputs that
 * change (a wave is known by where it begins and ends and whether it may have more than that; Hayes, IEEE Trans. CAD 5 (1986)). 32 rows are looked at
 * together. `mostNs` is the greatest delay of a gate; the least is taken for nothing, which is all that data sheets promise.
 */
export function findHazards(behaviour: Behaviour, mostNs: (gate: string) => number): Hazards {
  const { inputs, gates, stored } = behaviour;
  const sources = [...inputs, ...stored.map((s) => s.name)];
  if (sources.length > MOST_HAZARD_SOURCES) return { sources, hazards: [], isWhole: false };
  const watched = watchedNets(behaviour);
  const all = [...sources, ...gates.map((g) => g.output)];
  const program = compile({ inputs: sources, gates, outputs: [...new Set(watched.map((w) => w.net))] });
  // Every slot's values over all rows, from a program whose outputs are all of them.
  const values = sweep({ ...program, outputs: Int32Array.from({ length: slotCount(program) }, (_, s) => s) }).columns;
  const slotOf = new Map(all.map((net, i) => [net, 2 + i]));
  const nets = watched.flatMap((w) => {
    const slot = slotOf.get(w.net);
    return slot === undefined ? [] : [{ ...w, slot }];
  });
  const hazards: Hazard[] = [];
  sources.forEach((input, i) => {
    const bit = sources.length - 1 - i;
    const after = values.map((column) => turned(column, bit));
    const glitches = hazardPlanes(program, values, after, 2 + i);
    const latest = latestFrom(behaviour, input, mostNs);
    for (const { slot, ...net } of nets) {
      const [before, then, glitch] = [values, after, glitches].map((planes) => elementAt(planes, slot)) as [
        Int32Array,
        Int32Array,
        Int32Array,
      ];
      for (const kind of ['static-0', 'static-1', 'dynamic'] as const) {
        const rows = rowsOf(kind, { before, then, glitch }, 2 ** sources.length);
        if (rows === null) continue;
        const remedy = kind === 'static-1' ? productAcross(before, sources, rows.first, bit) : null;
        hazards.push({
          ...net,
          kind,
          input,
          row: rows.first,
          rows: rows.listed,
          count: rows.count,
          widthNs: latest.get(net.net) ?? 0,
          remedy,
        });
      }
    }
  });
  return { sources, hazards, isWhole: true };
}

type Watched = Pick<Hazard, 'net' | 'output' | 'target'>;

/** The outputs, and the nets that steer what is stored. */
function watchedNets({ outputs, stored }: Behaviour): Watched[] {
  return [
    ...outputs.map((o) => ({ net: o.net, output: o.name, target: null })),
    ...stored.flatMap(({ name, edge, control, forces }): Watched[] => [
      { net: control, output: null, target: { stored: name, at: edge === 'while' ? 'enable' : 'clock' } },
      ...forces.map(({ net, to }) => ({
        net,
        output: null,
        target: { stored: name, at: to === 1 ? ('preset' as const) : ('clear' as const) },
      })),
    ]),
  ];
}

/** Swaps, within words, bits that lie 1, 2, 4, 8 and 16 apart. */
const lows = [0x55555555, 0x33333333, 0x0f0f0f0f, 0x00ff00ff, 0x0000ffff] as const;

/** A column with the rows exchanged that differ in one bit of their number. */
function turned(column: Int32Array, bit: number): Int32Array {
  if (bit >= 5) return column.map((_, w) => column[w ^ (1 << (bit - 5))] as number);
  const [low, by] = [lows[bit] as number, 1 << bit];
  return column.map((w) => ((w & low) << by) | ((w >>> by) & low));
}

/** For each slot the rows in which it may change more often than it must, when one source changes. */
function hazardPlanes(
  { code, inputs }: Program,
  before: readonly Int32Array[],
  after: readonly Int32Array[],
  changing: number,
): Int32Array[] {
  const words = elementAt(before, changing).length;
  const planes = before.map(() => new Int32Array(words));
  let out = 2 + inputs;
  for (let p = 0; p < code.length; out++) {
    const kind = code[p] as number;
    const end = p + 2 + (code[p + 1] as number);
    const plane = elementAt(planes, out);
    const isAnd = kind === opcode.and || kind === opcode.nand || kind === opcode.not;
    const isOr = kind === opcode.or || kind === opcode.nor;
    for (let w = 0; w < words; w++) {
      let [glitches, rises, falls, changes, several, held] = [0, 0, 0, 0, 0, 0];
      for (let q = p + 2; q < end; q++) {
        const slot = code[q] as number;
        const [a, b, g] = [before[slot]?.[w] as number, after[slot]?.[w] as number, planes[slot]?.[w] as number];
        glitches |= g;
        rises |= ~a & b;
        falls |= a & ~b;
        several |= changes & (a ^ b);
        changes |= a ^ b;
        // A steady 0 holds an AND, a steady 1 an OR, whatever the other inputs do.
        if (isAnd) held |= ~a & ~b & ~g;
        else if (isOr) held |= a & b & ~g;
      }
      plane[w] = isAnd || isOr ? ~held & (glitches | (rises & falls)) : glitches | several;
    }
    p = end;
  }
  return planes;
}

function rowsOf(
  kind: HazardKind,
  { before, then, glitch }: Readonly<Record<'before' | 'then' | 'glitch', Int32Array>>,
  rows: number,
): { readonly first: number; readonly listed: readonly number[]; readonly count: number } | null {
  const listed: number[] = [];
  let count = 0;
  const mask = rows < 32 ? 2 ** rows - 1 : -1;
  before.forEach((a, w) => {
    const b = then[w] as number;
    const which = kind === 'static-0' ? ~a & ~b : kind === 'static-1' ? a & b : a ^ b;
    const found = which & (glitch[w] as number) & mask;
    for (let rest = found; rest !== 0; rest &= rest - 1) {
      count++;
      if (listed.length < MOST_HAZARD_ROWS) listed.push(32 * w + 31 - Math.clz32(rest & -rest));
    }
  });
  const [first] = listed;
  return first === undefined ? null : { first, listed, count };
}

/** For each net the greatest time from the change of a source until it has come through; nets that it does not reach are left out. */
function latestFrom({ gates }: Behaviour, source: string, mostNs: (gate: string) => number): Map<string, number> {
  const latest = new Map([[source, 0]]);
  for (const { output, inputs } of gates) {
    const times = inputs.flatMap((net) => latest.get(net) ?? []);
    if (times.length > 0) latest.set(output, Math.max(...times) + mostNs(output));
  }
  return latest;
}

/** The largest product that holds a column high in a row and in the one beside it, found by leaving out literals from the first on. */
function productAcross(column: Int32Array, sources: readonly string[], row: number, bit: number): string {
  const isHigh = (r: number): boolean => (((column[r >>> 5] as number) >>> (r & 31)) & 1) === 1;
  let free = 1 << bit;
  const holds = (mask: number): boolean => {
    // Every row that differs from `row` in free bits alone.
    for (let some = mask; ; some = (some - 1) & mask) {
      if (!isHigh((row & ~mask) | some)) return false;
      if (some === 0) return true;
    }
  };
  for (let b = sources.length - 1; b >= 0; b--) if ((free & (1 << b)) === 0 && holds(free | (1 << b))) free |= 1 << b;
  const literals = sources.flatMap((name, i) => {
    const b = sources.length - 1 - i;
    return (free & (1 << b)) !== 0 ? [] : [(row & (1 << b)) !== 0 ? name : `~${name}`];
  });
  return literals.length > 0 ? literals.join(' & ') : '1';
}
