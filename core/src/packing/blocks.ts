import { findChip, type PartType, type Unit } from '../catalogue';
import type { Netlist } from '../design';
import { elementAt } from '../element-at';
import { compile, evaluateBlock, type Program, rowBit, slotCount } from '../logic';
import { onceFor } from '../memo';
import { classOf, type FunctionNet, inverse, type Literal } from './functions';
import { gatesOfUnit } from './unit-gates';

/** Larger blocks that a packing may choose, by base number: selectors, decoders, a comparator, parity, an adder. */
export const blockNumbers: readonly string[] = '7485 74138 74139 74151 74153 74157 74280 74283'.split(' ');

/**
 * How many gates deep a chip is counted as: data sheets give selectors and decoders some two, comparators,
 * parities and adders some three of their family's NAND (74HC: 7 ns to 9 ns; 13 ns to 18 ns; 19 ns to 24 ns).
 */
export function levelsOf(part: PartType): number {
  if (!blockNumbers.includes(part.id)) return 1;
  return ['7485', '74280', '74283'].includes(part.id) ? 3 : 2;
}

/**
 * One thing that a block can do: what its pins in use read, by pin name, and the literals it makes, by output
 * pin. A `slot` of a block of equal halves or quarters names its pins with `#` for the slot's number.
 */
export interface BlockUse {
  readonly reads: ReadonlyMap<string, Literal>;
  readonly makes: ReadonlyMap<string, Literal>;
}

/** Uses that can share packages: a chip, what all its slots read alike (a common select), and what one slot can do. */
export interface Frame {
  readonly part: PartType;
  readonly slots: number;
  readonly shared: ReadonlyMap<string, Literal>;
  readonly uses: readonly BlockUse[];
}

/** What the unused slots of a chip read. */
const idle: Readonly<Record<string, string>> = {
  '74139': '#A=0 #B=0 #Gn=1',
  '74153': '#C0=0 #C1=0 #C2=0 #C3=0 #Gn=1',
  '74157': '#A=0 #B=0',
};

/** Blocks are looked for where all rows are known and there are no more sources than this. */
const MAX_SOURCES = 12;
/** The most uses that are offered in all, and of one kind of block to one function. */
const MAX_USES = 80;
const MAX_EACH = 3;
/** In designs of more gates only blocks are offered that take the place of several. */
const SMALL = 12;

/**
 * Every use of a larger block, within bounds, that makes functions of a design from others: found by cofactors
 * (selectors), products (decoders), parities, word order (comparators) and chains of sums (adders), and each held
 * to the chip's own function before it is offered. What a use reads comes before what it makes in `rank`.
 */
export function framesOf(
  functions: FunctionNet,
  netlist: Netlist,
  chips: readonly string[],
  rank: readonly number[],
): Frame[] {
  if (!functions.exact || functions.sources.length > MAX_SOURCES || functions.sources.length < 2) return [];
  const finder = new Finder(functions, netlist, rank);
  const found = blockNumbers
    .filter((n) => chips.includes(n))
    .flatMap((n) => finder.framesFor(n))
    .filter((frame) => netlist.gates.length <= SMALL || finder.isWorthIt(frame));
  let left = MAX_USES;
  return found.flatMap((frame) => {
    const uses = frame.uses.slice(0, Math.max(0, left));
    left -= uses.length;
    return uses.length > 0 ? [{ ...frame, uses }] : [];
  });
}

/** The data pin of a selector that row `k` of the address brings out. */
function dataPin(number: string, k: number): string {
  if (number === '74151') return `D${k}`;
  return number === '74153' ? `#C${k}` : `#${'AB'[k]}`;
}

class Finder {
  private readonly sources: readonly Literal[];
  private readonly targets: readonly Literal[];
  private readonly gates: ReadonlySet<Literal>;

  constructor(
    private readonly functions: FunctionNet,
    netlist: Netlist,
    private readonly rank: readonly number[],
  ) {
    this.sources = functions.sources.map((_, i) => 2 * (i + 1));
    const made = netlist.gates.map((g) => functions.ofNet(g.output)).filter((l) => !this.isGiven(l));
    this.gates = new Set(made);
    const deep = made.filter((l) => elementAt(functions.depth, classOf(l)) >= 2);
    this.targets = [...new Set(deep)].sort((a, b) => this.rankOf(b) - this.rankOf(a));
  }

  framesFor(number: string): Frame[] {
    switch (number) {
      case '74151':
        return this.selectors('74151', 3, 1);
      case '74153':
        return this.selectors('74153', 2, 2);
      case '74157':
        return this.selectors('74157', 1, 4);
      case '74138':
        return this.decoders('74138', 3);
      case '74139':
        return this.decoders('74139', 2);
      case '74280':
        return this.parities();
      case '7485':
        return this.comparators();
      case '74283':
        return this.adders();
      default:
        return [];
    }
  }

  /** Whether a block may save more than a package of gates: its slots are filled, or one function is of four sources. */
  isWorthIt({ part, slots, uses }: Frame): boolean {
    if (slots > 1) return uses.length >= slots;
    if (part.id !== '74151') return Math.max(...uses.map((u) => u.makes.size)) >= 2;
    return uses.some((u) =>
      [...u.makes.values()].some((l) => this.sources.filter((s) => this.dependsOn(l, s)).length > 3),
    );
  }

  private isGiven(l: Literal): boolean {
    return classOf(l) === 0 || this.functions.isSource(classOf(l));
  }

  private rankOf(l: Literal): number {
    return elementAt(this.rank, classOf(l));
  }

  /** What the chip makes of some readings, as far as the design has a use for it and it comes later than what is read; null when nothing. */
  private used(part: PartType, reads: ReadonlyMap<string, Literal>, slot = ''): BlockUse | null {
    const latest = Math.max(...[...reads.values()].map((l) => this.rankOf(l)));
    const makes = new Map<string, Literal>();
    for (const [pin, bits] of evaluated(part, this.functions, reads)) {
      const l = this.functions.find(bits);
      if (l === null || this.isGiven(l) || this.rankOf(l) <= latest) continue;
      if (slot === '') makes.set(pin, l);
      else if (pin.startsWith(slot)) makes.set(`#${pin.slice(slot.length)}`, l);
    }
    return makes.size > 0 ? { reads, makes } : null;
  }

  /** Selectors: some sources address, and in each of the rows that they tell apart the function is a literal that is there. */
  private selectors(number: string, width: number, slots: number): Frame[] {
    const part = findChip(number) as PartType;
    const names = ['A', 'B', 'C'];
    const frames: Frame[] = [];
    const count = new Map<Literal, number>();
    for (const select of subsets(this.sources, width)) {
      const uses: BlockUse[] = [];
      for (const target of this.targets) {
        // A selector has its output one way round; the 74151 both.
        for (const l of number === '74151' ? [target] : [target, inverse(target)]) {
          if ((count.get(l) ?? 0) >= MAX_EACH && slots === 1) continue;
          const data = this.cofactors(l, select, slots);
          if (!data) continue;
          const reads = new Map<string, Literal>(data.map((d, k) => [dataPin(number, k), d]));
          if (number === '74153') reads.set('#Gn', 0);
          if (number === '74151') reads.set('Gn', 0);
          const full = this.filled(part, { select, names, reads, slots });
          const use = this.used(part, full, slots === 1 ? '' : '1');
          if (!use || ![...use.makes.values()].includes(l)) continue;
          count.set(l, (count.get(l) ?? 0) + 1);
          uses.push(slots === 1 ? { ...use, reads } : { reads, makes: new Map([['#Y', l]]) });
        }
      }
      const address =
        width === 1 ? [['S', elementAt(select, 0)] as const] : select.map((l, k) => [elementAt(names, k), l] as const);
      const shared = new Map<string, Literal>([...address, ...(number === '74157' ? [['Gn', 0] as const] : [])]);
      if (uses.length > 0) frames.push({ part, slots, shared, uses });
    }
    // Where several functions share an address a package does most.
    return frames
      .sort((a, b) => Math.min(b.uses.length, slots) - Math.min(a.uses.length, slots))
      .slice(0, slots === 1 ? 40 : 8);
  }

  /** All pins of a selector with one slot in use, for trying it out. */
  private filled(
    part: PartType,
    {
      select,
      names,
      reads,
      slots,
    }: {
      readonly select: readonly Literal[];
      readonly names: readonly string[];
      readonly reads: ReadonlyMap<string, Literal>;
      readonly slots: number;
    },
  ): Map<string, Literal> {
    const all = new Map<string, Literal>(part.pins.filter((p) => p.role === 'input').map((p) => [p.name, 0]));
    for (const [k, l] of select.entries()) all.set(select.length === 1 ? 'S' : elementAt(names, k), l);
    for (const [pin, l] of reads) all.set(slots === 1 ? pin : pin.replace('#', '1'), l);
    return all;
  }

  /** For each row of the address, last pin most significant, a literal that agrees with the function there; null when one is missing. */
  private cofactors(l: Literal, select: readonly Literal[], slots: number): Literal[] | null {
    const f = this.functions.bits(l);
    const address = select.map((s) => this.functions.bits(s));
    const pool = this.pool(l, select, slots);
    const data: Literal[] = [];
    for (let k = 0; k < 2 ** select.length; k++) {
      const agrees = (g: Int32Array): boolean => {
        for (let w = 0; w < f.length; w++) {
          let mask = -1;
          for (const [i, bits] of address.entries()) mask &= (k >>> i) & 1 ? elementAt(bits, w) : ~elementAt(bits, w);
          if (((elementAt(f, w) ^ elementAt(g, w)) & mask & this.functions.mask) !== 0) return false;
        }
        return true;
      };
      const found = pool.find(({ bits }) => agrees(bits));
      if (!found) return null;
      data.push(found.literal);
    }
    return data;
  }

  /**
   * What a data pin may read: constants, sources, and where the chip has one slot their complements and gates of the
   * design that come earlier; slots of one chip then never wait for each other.
   */
  private pool(l: Literal, select: readonly Literal[], slots: number): { literal: Literal; bits: Int32Array }[] {
    const free = this.sources.filter((s) => !select.includes(s));
    const gates = [...this.gates].filter((g) => this.rankOf(g) < this.rankOf(l));
    const literals = slots > 1 ? [0, 1, ...free] : [0, 1, ...free, ...free.map(inverse), ...gates];
    return literals.map((literal) => ({ literal, bits: this.functions.bits(literal) }));
  }

  /** Decoders: products of two or three sources, and of one that enables them, of which the design has several. */
  private decoders(number: string, width: number): Frame[] {
    const part = findChip(number) as PartType;
    const frames: Frame[] = [];
    for (const address of subsets(this.sources, width))
      for (const enable of [null, ...this.sources.filter((s) => !address.includes(s))]) {
        const full = new Map<string, Literal>(part.pins.filter((p) => p.role === 'input').map((p) => [p.name, 0]));
        const reads = new Map<string, Literal>();
        for (const [k, l] of address.entries()) reads.set(width === 3 ? elementAt('ABC', k) : `#${'AB'[k]}`, l);
        if (width === 3)
          for (const [pin, l] of [
            ['G1', enable ?? 1],
            ['G2An', 0],
            ['G2Bn', 0],
          ] as const)
            reads.set(pin, l);
        else reads.set('#Gn', enable ?? 0);
        for (const [pin, l] of reads) full.set(pin.replace('#', '1'), l);
        const use = this.used(part, full, width === 3 ? '' : '1');
        if (use && use.makes.size >= width)
          frames.push({ part, slots: width === 3 ? 1 : 2, shared: new Map(), uses: [{ reads, makes: use.makes }] });
      }
    const rich = frames.sort((a, b) => (b.uses[0]?.makes.size ?? 0) - (a.uses[0]?.makes.size ?? 0)).slice(0, 6);
    // Halves of one chip need nothing in common: they are one frame.
    if (width === 2 && rich.length > 0)
      return [{ part, slots: 2, shared: new Map(), uses: rich.flatMap((f) => f.uses) }];
    return rich;
  }

  /** Parities of three sources and more. */
  private parities(): Frame[] {
    const part = findChip('74280') as PartType;
    const uses = this.targets.flatMap((l): BlockUse[] => {
      const support = this.sources.filter((s) => this.dependsOn(l, s));
      if (support.length < 3 || support.length > 9) return [];
      const pins = 'A B C D E F G H I'.split(' ');
      const reads = new Map<string, Literal>(pins.map((pin, k) => [pin, support[k] ?? 0]));
      const use = this.used(part, reads);
      return use && [...use.makes.values()].some((m) => classOf(m) === classOf(l)) ? [use] : [];
    });
    return unlike(uses)
      .slice(0, 6)
      .map((use) => ({ part, slots: 1, shared: new Map(), uses: [use] }));
  }

  private dependsOn(l: Literal, source: Literal): boolean {
    const n = this.functions.sources.length;
    const f = this.functions.bits(l);
    const k = n - classOf(source);
    for (let row = 0; row < 2 ** n; row++) {
      if ((row >>> k) & 1) continue;
      const other = row | (1 << k);
      if (rowBit(f, row) !== rowBit(f, other)) return true;
    }
    return false;
  }

  /** Comparators of words of two to four bits: pairs are found from the top, each deciding the rows that it tells apart. */
  private comparators(): Frame[] {
    const part = findChip('7485') as PartType;
    const { functions } = this;
    const uses: BlockUse[] = [];
    const search = (
      l: Literal,
      pairs: readonly (readonly [Literal, Literal])[],
      open: Int32Array,
      left: readonly Literal[],
    ): void => {
      const f = functions.bits(l);
      if (left.length === 0) {
        const ends = [
          open.every((m, w) => ((m & elementAt(f, w)) | 0) === 0),
          open.every((m, w) => (m & ~elementAt(f, w)) === 0),
        ];
        for (const equal of [0, 1] as const) if (ends[equal]) uses.push(...this.compared(part, pairs, equal, l));
        return;
      }
      for (const a of left)
        for (const b of left) {
          if (a === b || uses.length > 30) continue;
          const [x, y] = [functions.bits(a), functions.bits(b)];
          const over = open.every((m, w) => (m & elementAt(x, w) & ~elementAt(y, w) & ~elementAt(f, w)) === 0);
          const under = open.every((m, w) => (m & ~elementAt(x, w) & elementAt(y, w) & elementAt(f, w)) === 0);
          if (!over || !under) continue;
          const still = open.map((m, w) => m & ~(elementAt(x, w) ^ elementAt(y, w)));
          search(
            l,
            [...pairs, [a, b]],
            still,
            left.filter((s) => s !== a && s !== b),
          );
        }
    };
    for (const l of this.targets.flatMap((t) => [t, inverse(t)])) {
      const support = this.sources.filter((s) => this.dependsOn(l, s));
      if (support.length < 4 || support.length > 8 || support.length % 2 === 1) continue;
      search(l, [], new Int32Array(functions.words).fill(functions.mask), support);
    }
    return unlike(uses)
      .slice(0, 6)
      .map((use) => ({ part, slots: 1, shared: new Map(), uses: [use] }));
  }

  /** Pairs from the top on the pins of a 7485, equal words told as neither (or as greater). */
  private compared(
    part: PartType,
    pairs: readonly (readonly [Literal, Literal])[],
    equal: 0 | 1,
    l: Literal,
  ): BlockUse[] {
    const reads = new Map<string, Literal>();
    for (let k = 0; k < 4; k++) {
      const [a, b] = pairs[pairs.length - 1 - k] ?? [0, 0];
      reads.set(`A${k}`, a).set(`B${k}`, b);
    }
    reads
      .set('IEQ', equal ? 0 : 1)
      .set('IGT', equal)
      .set('ILT', 0);
    const use = this.used(part, reads);
    return use && [...use.makes.values()].some((m) => classOf(m) === classOf(l)) ? [use] : [];
  }

  /** Adders: a chain of sums of two sources and a carry, every sum one that the design has. */
  private adders(): Frame[] {
    const part = findChip('74283') as PartType;
    const { functions } = this;
    const uses: BlockUse[] = [];
    const extend = (
      cells: readonly (readonly [Literal, Literal])[],
      carry: Int32Array,
      start: Literal,
      left: readonly Literal[],
    ): void => {
      let grown = false;
      if (cells.length < 4)
        for (const [a, b] of subsets(left, 2) as Iterable<readonly [Literal, Literal]>) {
          if (uses.length > 30) return;
          const [x, y] = [functions.bits(a), functions.bits(b)];
          const sum = functions.find(x.map((w, k) => w ^ elementAt(y, k) ^ elementAt(carry, k)));
          if (sum === null || this.isGiven(sum)) continue;
          grown = true;
          const next = x.map((w, k) => (w & elementAt(y, k)) | (elementAt(carry, k) & (w | elementAt(y, k))));
          extend(
            [...cells, [a, b]],
            next,
            start,
            left.filter((s) => s !== a && s !== b),
          );
        }
      if (grown || cells.length === 0) return;
      const reads = new Map<string, Literal>([['C0', start]]);
      for (let k = 0; k < 4; k++) {
        const [a, b] = cells[k] ?? [0, 0];
        reads.set(`A${k + 1}`, a).set(`B${k + 1}`, b);
      }
      const use = this.used(part, reads);
      if (use && use.makes.size >= 2) uses.push(use);
    };
    for (const start of [0, 1, ...this.sources])
      extend(
        [],
        functions.bits(start),
        start,
        this.sources.filter((s) => s !== start),
      );
    const rich = unlike(uses).sort((a, b) => b.makes.size - a.makes.size);
    return rich.slice(0, 8).map((use) => ({ part, slots: 1, shared: new Map(), uses: [use] }));
  }
}

/** Uses that make something else than those before them. */
function unlike(uses: readonly BlockUse[]): BlockUse[] {
  return [...new Map(uses.map((u) => [[...u.makes.values()].sort((a, b) => a - b).join(), u])).values()];
}

function* subsets(of: readonly Literal[], size: number, from = 0): Generator<Literal[]> {
  if (size === 0) {
    yield [];
    return;
  }
  for (let i = from; i <= of.length - size; i++)
    for (const rest of subsets(of, size - 1, i + 1)) yield [elementAt(of, i), ...rest];
}

/** The outputs of a unit as a program over its inputs, in the order of both. */
const programOf: (unit: Unit) => Program = onceFor((unit) => {
  const { inputs, outputs } = unit.behaviour;
  const outs = outputs.map((o) => `${o.name}*`);
  return compile({ inputs, gates: gatesOfUnit(unit, inputs, outs, 'u/'), outputs: outs });
});

/** What the outputs of a chip of one unit, or of the first of two, are when its pins read some literals. */
function evaluated(
  part: PartType,
  functions: FunctionNet,
  reads: ReadonlyMap<string, Literal>,
): [string, Int32Array][] {
  const unit = part.units[0];
  if (!unit) return [];
  const names = unit.behaviour.inputs;
  const outs = unit.behaviour.outputs.map((o) => o.name);
  const program = programOf(unit);
  const slots = Array.from({ length: slotCount(program) }, () => new Int32Array(functions.words));
  elementAt(slots, 1).fill(functions.mask);
  for (const [i, name] of names.entries()) elementAt(slots, 2 + i).set(functions.bits(reads.get(name) ?? 0));
  evaluateBlock(program, slots);
  return [...program.outputs].map((slot, k) => [
    elementAt(outs, k),
    elementAt(slots, slot).map((w) => w & functions.mask),
  ]);
}

/** A package of a frame with some of its uses: for each unit in use its pins' literals and what it makes, by pin name. */
export interface BlockPackage {
  readonly part: PartType;
  readonly units: readonly {
    readonly unit: number;
    readonly reads: ReadonlyMap<string, Literal>;
    readonly makes: ReadonlyMap<string, Literal>;
  }[];
}

/** Puts uses of one frame onto a package, at most as many as it has slots; slots left over are quiet. */
export function packageOf({ part, slots, shared }: Frame, uses: readonly BlockUse[]): BlockPackage {
  if (slots === 1)
    return {
      part,
      units: uses.slice(0, 1).map((u) => ({ unit: 0, reads: new Map([...shared, ...u.reads]), makes: u.makes })),
    };
  const at = (text: string, k: number): string => text.replace('#', String(k + 1));
  const placed = uses.map((u, k) => ({
    reads: [...u.reads].map(([pin, l]): [string, Literal] => [at(pin, k), l]),
    makes: [...u.makes].map(([pin, l]): [string, Literal] => [at(pin, k), l]),
  }));
  // Halves that are units of their own stay so; otherwise all slots are one unit.
  if (part.units.length > 1)
    return { part, units: placed.map((p, k) => ({ unit: k, reads: new Map(p.reads), makes: new Map(p.makes) })) };
  const quiet = Array.from({ length: slots - uses.length }, (_, k) =>
    (idle[part.id] ?? '').split(' ').map((one): [string, Literal] => {
      const [pin = '', value] = one.split('=');
      return [at(pin, uses.length + k), Number(value)];
    }),
  ).flat();
  const reads = new Map([...shared, ...placed.flatMap((p) => p.reads), ...quiet]);
  return { part, units: [{ unit: 0, reads, makes: new Map(placed.flatMap((p) => p.makes)) }] };
}
