import { findChip, type PartType } from '../catalogue';
import { elementAt } from '../element-at';
import type { GateKind } from '../logic';
import { blockKind, isEnabledLow, sharedOf } from './block-kinds';
import type { BlockUse, Frame } from './blocks';
import { classOf, type FunctionNet, inverse, type Literal } from './functions';

/** A unit of a block in a net: its kind, its inputs and what it makes, as literals. */
export interface BlockUnit {
  readonly kind: number;
  readonly inputs: readonly Literal[];
  readonly makes: Literal;
}

interface NamedGate {
  readonly output: string;
  readonly kind: GateKind;
  readonly inputs: readonly string[];
}

/** A unit of a block as gates by names. */
export function gatesOfBlock(kind: number, inputs: readonly string[], output: string): readonly NamedGate[] {
  const { address, row, number } = blockKind(kind);
  const select = inputs.slice(0, address);
  const inverted = select.map((name, i) => ({ output: `${output}n${i}`, kind: 'not' as const, inputs: [name] }));
  const enable = isEnabledLow(number) && row !== null ? `${output}e` : (inputs[address] ?? '1');
  const products = Array.from({ length: 2 ** address }, (_, k) => ({
    output: row === null ? `${output}p${k}` : output,
    kind: row === null ? ('and' as const) : ('nand' as const),
    inputs: [
      ...select.map((name, i) => ((k >>> i) & 1 ? name : `${output}n${i}`)),
      row === null ? elementAt(inputs, address + k) : enable,
    ],
  })).filter((_, k) => row === null || k === row);
  if (row === null) return [...inverted, ...products, { output, kind: 'or', inputs: products.map((p) => p.output) }];
  const enables =
    enable === `${output}e` ? [{ output: enable, kind: 'not' as const, inputs: [inputs[address] ?? '0'] }] : [];
  return [...inverted, ...enables, ...products];
}

/** The literal that a unit of a block makes of others. */
export function literalOfBlock(functions: FunctionNet, kind: number, inputs: readonly Literal[]): Literal {
  const literals = new Map(inputs.map((l, i) => [`in${i}`, l]));
  const of = (name: string): Literal => literals.get(name) ?? 0;
  for (const gate of gatesOfBlock(kind, [...literals.keys()], 'out')) {
    const made = gate.inputs.map(of);
    literals.set(gate.output, gate.kind === 'not' ? inverse(elementAt(made, 0)) : functions.gate(gate.kind, made));
  }
  return of('out');
}

/** The pins that take the inputs of a unit of a block; `#` stands for the number of its slot. */
function pinsOf(kind: number, inputs: readonly Literal[]): { shared: [string, Literal][]; own: [string, Literal][] } {
  const { address, number } = blockKind(kind);
  const select = inputs.slice(0, address);
  const rest = inputs.slice(address);
  const letters = (of: readonly Literal[], prefix = ''): [string, Literal][] =>
    of.map((l, i) => [`${prefix}${'ABC'[i]}`, l]);
  switch (number) {
    case '74157':
      return {
        shared: [
          ['S', elementAt(select, 0)],
          ['Gn', 0],
        ],
        own: letters(rest, '#'),
      };
    case '74153':
      return { shared: letters(select), own: [...rest.map((l, k): [string, Literal] => [`#C${k}`, l]), ['#Gn', 0]] };
    case '74151':
      return { shared: letters(select), own: [...rest.map((l, k): [string, Literal] => [`D${k}`, l]), ['Gn', 0]] };
    case '74139':
      return { shared: [], own: [...letters(select, '#'), ['#Gn', elementAt(rest, 0)]] };
    default:
      return { shared: [], own: [...letters(select), ['G1', elementAt(rest, 0)], ['G2An', 0], ['G2Bn', 0]] };
  }
}

/** The pin that gives the output of a unit. */
function outputOf(kind: number): string {
  const { number, row } = blockKind(kind);
  if (row === null) return number === '74151' ? 'Y' : '#Y';
  return number === '74139' ? `#Y${row}n` : `Y${row}n`;
}

/** What units must have alike to share a package: the chip, and of selectors the address. */
const groupOf = (kind: number, inputs: readonly Literal[]): string => {
  const { number, row } = blockKind(kind);
  return row === null ? `${number} ${sharedOf(kind, inputs).join(' ')}` : number;
};

/**
 * The units of blocks in a net as frames, a frame for what may share packages. A package is taken as a whole, so units share one only where none of them waits for
 * another. All outputs of a decoder with one address are one use.
 */
export class BlockFrames {
  private readonly frames = new Map<
    string,
    { readonly frame: Omit<Frame, 'uses'>; readonly uses: Map<string, BlockUse> }
  >();
  /** Of each function how many units of a group are on the longest way to it, by group. */
  private readonly ways = new Map<number, ReadonlyMap<string, number>>();

  /** Notes that a function hangs on others. */
  follow(makes: Literal, inputs: readonly Literal[], group = ''): void {
    const longest = new Map<string, number>(this.ways.get(classOf(makes)));
    for (const l of inputs)
      for (const [key, count] of this.ways.get(classOf(l)) ?? [])
        longest.set(key, Math.max(longest.get(key) ?? 0, count));
    if (group !== '') longest.set(group, (longest.get(group) ?? 0) + 1);
    this.ways.set(classOf(makes), longest);
  }

  /** Takes a unit of a block, which comes after all that it reads. */
  add({ kind, inputs, makes }: BlockUnit): void {
    const { number, slots, row } = blockKind(kind);
    const group = groupOf(kind, inputs);
    const address = inputs.join(' ');
    // Halves of one chip are units of their own, and need not wait for each other.
    const waits = row === null ? Math.max(0, ...inputs.map((l) => this.ways.get(classOf(l))?.get(group) ?? 0)) : 0;
    const key = row !== null && slots === 1 ? `${group} ${address}` : `${group} ${waits}`;
    const { shared, own } = pinsOf(kind, inputs);
    const kept = this.frames.get(key) ?? {
      frame: { part: findChip(number) as PartType, slots, shared: new Map(shared) },
      uses: new Map<string, BlockUse>(),
    };
    const use = row === null ? String(makes) : address;
    const made = [...(kept.uses.get(use)?.makes ?? []), [outputOf(kind), makes] as const];
    kept.uses.set(use, { reads: new Map(own), makes: new Map(made) });
    this.frames.set(key, kept);
    this.follow(makes, inputs, group);
  }

  list(): Frame[] {
    return [...this.frames.values()].map(({ frame, uses }) => ({ ...frame, uses: [...uses.values()] }));
  }
}
