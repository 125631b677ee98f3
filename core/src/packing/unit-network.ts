import type { Netlist } from '../design';
import { elementAt, entryOf } from '../element-at';
import type { GateKind, Network } from '../logic';
import { FIRST_BLOCK } from './block-kinds';
import { BlockFrames, gatesOfBlock, literalOfBlock } from './block-network';
import type { Frame } from './blocks';
import type { Candidate } from './candidate';
import { classOf, type FunctionNet, inverse, type Literal } from './functions';
import type { PackageCount } from './package-count';
import { AND, AOI, dutyOfNode, FIRST_SOURCE, NAND, type NetState, NOR, NOT, OR, XNOR, XOR } from './unit-net';

/**
 * A design's gates as units: gates that are too wide, or whose kind no chip has, are put together of others. Null where the chips do not suffice for that.
 */
export function netOfDesign(
  { gates }: Pick<Netlist, 'gates'>,
  { sources, roots }: { readonly sources: readonly string[]; readonly roots: readonly string[] },
  packages: PackageCount,
): NetState | null {
  const builder = new Builder(FIRST_SOURCE + sources.length, packages);
  const signals = new Map<string, number>([
    ['0', 0],
    ['1', 1],
    ...sources.map((name, i) => [name, FIRST_SOURCE + i] as const),
  ]);
  // Gates come after what they read.
  for (const { kind, inputs, output } of gates) {
    const made = builder.gate(
      kind,
      inputs.map((name) => signals.get(name) ?? 0),
    );
    if (made === null) return null;
    signals.set(output, made);
  }
  return { nodes: builder.nodes, outputs: roots.map((name) => signals.get(name) ?? 0) };
}

/** The most inputs that a unit is given at first. */
const MOST_WIDTH = 4;

class Builder {
  readonly nodes: { readonly signal: number; readonly kind: number; readonly ins: readonly number[] }[] = [];

  constructor(
    private readonly first: number,
    private readonly packages: PackageCount,
  ) {}

  gate(kind: GateKind, ins: readonly number[]): number | null {
    const [a] = ins;
    if (kind === 'not') return this.inverted(a ?? 0);
    if (kind === 'xor' || kind === 'xnor') return this.odd(kind, ins);
    const different = [...new Set(ins)];
    if (different.length === 1)
      return kind === 'and' || kind === 'or' ? elementAt(ins, 0) : this.inverted(elementAt(ins, 0));
    const isAnd = kind === 'and' || kind === 'nand';
    return this.joined(isAnd, kind === 'nand' || kind === 'nor', different);
  }

  private most(kind: number): number {
    return Math.min(MOST_WIDTH, this.packages.mostInputs(kind));
  }

  private put(kind: number, ins: readonly number[]): number {
    const signal = this.first + this.nodes.length;
    this.nodes.push({ signal, kind, ins });
    return signal;
  }

  private inverted(a: number | null): number | null {
    if (a === null || this.packages.mostInputs(NOT) === 0) return null;
    return this.put(NOT, [a]);
  }

  /** A product or sum of signals, or its complement, by what there is: the kind itself, its complement inverted, or the other kind of inverted signals. */
  private joined(isAnd: boolean, inverts: boolean, ins: readonly number[]): number | null {
    const [plain, complement] = isAnd ? [AND, NAND] : [OR, NOR];
    const [own, other] = inverts ? [complement, plain] : [plain, complement];
    if (this.most(own) >= 2 && (ins.length <= this.most(own) || this.most(plain) >= 2 || this.most(complement) >= 2)) {
      const parts = this.gathered(isAnd, ins, this.most(own));
      return parts && this.put(own, parts);
    }
    if (this.most(other) >= 2) return this.inverted(this.joined(isAnd, !inverts, ins));
    const [dual, dualComplement] = isAnd ? [OR, NOR] : [AND, NAND];
    if (this.most(dual) < 2 && this.most(dualComplement) < 2) return null;
    const inverted: number[] = [];
    for (const x of ins) {
      const made = this.inverted(x);
      if (made === null) return null;
      inverted.push(made);
    }
    return this.joined(!isAnd, !inverts, inverted);
  }

  /** Signals put together until so few are left. */
  private gathered(isAnd: boolean, ins: readonly number[], width: number): readonly number[] | null {
    let list = [...ins];
    while (list.length > width) {
      const part = this.joined(isAnd, false, list.slice(0, Math.min(width, list.length - width + 1)));
      if (part === null) return null;
      list = [...list.slice(Math.min(width, list.length - width + 1)), part];
    }
    return list;
  }

  private odd(kind: 'xor' | 'xnor', ins: readonly number[]): number | null {
    let before = elementAt(ins, 0);
    for (const [i, next] of ins.slice(1).entries()) {
      const made = this.pair(i === ins.length - 2 && kind === 'xnor', before, next);
      if (made === null) return null;
      before = made;
    }
    return ins.length === 1 && kind === 'xnor' ? this.inverted(before) : before;
  }

  private pair(inverts: boolean, a: number, b: number): number | null {
    const [own, other] = inverts ? [XNOR, XOR] : [XOR, XNOR];
    if (this.packages.mostInputs(own) > 0) return this.put(own, [a, b]);
    if (this.packages.mostInputs(other) > 0) return this.inverted(this.put(other, [a, b]));
    const [notA, notB] = [this.inverted(a), this.inverted(b)];
    if (notA === null || notB === null) return null;
    const [one, two] = [this.joined(true, false, [a, notB]), this.joined(true, false, [notA, b])];
    return one === null || two === null ? null : this.joined(false, inverts, [one, two]);
  }
}

const kindOf: Readonly<Record<string, GateKind>> = {
  [NOT]: 'not',
  [AND]: 'and',
  [NAND]: 'nand',
  [OR]: 'or',
  [NOR]: 'nor',
  [XOR]: 'xor',
  [XNOR]: 'xnor',
};

/** A net as a network by names, to be swept over all rows. */
export function networkOfNet({ nodes, outputs }: NetState, sources: readonly string[]): Network {
  const nameOf = (s: number): string => (s < FIRST_SOURCE ? String(s) : (sources[s - FIRST_SOURCE] ?? `#${s}`));
  const gates = nodes.flatMap(({ signal, kind, ins }) => {
    const [own, inputs] = [nameOf(signal), ins.map(nameOf)];
    if (kind >= FIRST_BLOCK) return gatesOfBlock(kind, inputs, own);
    if (kind !== AOI) return [{ output: own, kind: entryOf(kindOf, String(kind)), inputs }];
    const half = inputs.length / 2;
    return [
      { output: `${own}a`, kind: 'and' as const, inputs: inputs.slice(0, half) },
      { output: `${own}b`, kind: 'and' as const, inputs: inputs.slice(half) },
      { output: own, kind: 'nor' as const, inputs: [`${own}a`, `${own}b`] },
    ];
  });
  return { inputs: sources, gates, outputs: outputs.map(nameOf) };
}

/** The units of a net as ways to make the functions of a design, those of blocks as frames; what has the same function is made in one way. */
export function candidatesOfNet(
  { nodes }: NetState,
  functions: FunctionNet,
): { readonly candidates: readonly Candidate[]; readonly frames: readonly Frame[] } {
  const literals = new Map<number, Literal>([
    [0, 0],
    [1, 1],
    ...functions.sources.map((_, i) => [FIRST_SOURCE + i, 2 * (i + 1)] as const),
  ]);
  const found: Candidate[] = [];
  const frames = new BlockFrames();
  const made = new Set<number>();
  for (const { signal, kind, ins } of nodes) {
    const inputs = ins.map((s) => literals.get(s) ?? 0);
    const makes = literalOf(functions, kind, inputs);
    literals.set(signal, makes);
    if (classOf(makes) === 0 || kind === NOT || made.has(makes)) continue;
    made.add(makes);
    if (kind >= FIRST_BLOCK) frames.add({ kind, inputs, makes });
    else {
      found.push({ makes, duty: dutyOfNode(kind, ins.length), inputs });
      frames.follow(makes, inputs);
    }
  }
  return { candidates: found, frames: frames.list() };
}

function literalOf(functions: FunctionNet, kind: number, inputs: readonly Literal[]): Literal {
  if (kind >= FIRST_BLOCK) return literalOfBlock(functions, kind, inputs);
  if (kind === NOT) return inverse(elementAt(inputs, 0));
  if (kind !== AOI) return functions.gate(entryOf(kindOf, String(kind)), inputs);
  const half = inputs.length / 2;
  const sides = [inputs.slice(0, half), inputs.slice(half)].map((side) => functions.gate('and', side));
  return functions.gate('nor', sides);
}
