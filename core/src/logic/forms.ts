import { elementAt } from '../element-at';
import {
  addRow,
  type Cube,
  chain,
  exprOfCover,
  exprOfCube,
  irredundantCover,
  type Rows,
  rowBit,
  rowMask,
} from './cover';
import { type Connective, complement, type Expr } from './expression';
import { sumOfXorProducts, type XorProduct } from './xor-sum';

/** An expression of one name, or its complement. */
export const literal = (name: string, high: boolean): Expr =>
  high ? { kind: 'name', name } : { kind: 'not', of: { kind: 'name', name } };

/** The complement of an expression: a double complement and a gate with an inverse are simplified. */
export function negated(e: Expr): Expr {
  if (e.kind === 'const') return { kind: 'const', value: e.value === 1 ? 0 : 1 };
  return e.kind === 'not' ? e.of : { kind: 'not', of: e };
}

/**
 * The product of sums whose zeros are the rows of some cubes: each cube of the complement becomes a sum
 * of its literals inverted.
 */
export function productOfSums(zeros: readonly Cube[], names: readonly string[]): Expr {
  const sums = zeros.map((cube) => {
    const product = exprOfCube(cube, names);
    const literals = product.kind === 'gate' ? product.of : [product];
    return chain('or', literals.map(negated));
  });
  return chain('and', sums);
}

/**
 * A factored form of a sum of products: the literal most products share is taken out, again and again,
 * in what it leaves and in the rest. Source: quick factoring, as in Brayton, "Factoring logic functions"
 * (1987), with single literals as divisors.
 */
export function factored(cubes: readonly Cube[], names: readonly string[]): Expr {
  const best = mostShared(cubes, names.length);
  if (best === null) return exprOfCover(cubes, names);
  const { bit, value } = best;
  const inside: Cube[] = [];
  const rest: Cube[] = [];
  for (const cube of cubes) {
    if (cube.care & bit && (cube.value & bit) === value)
      inside.push({ care: cube.care & ~bit, value: cube.value & ~bit });
    else rest.push(cube);
  }
  const name = elementAt(names, names.length - 1 - (31 - Math.clz32(bit)));
  const product = joined('and', [literal(name, value !== 0), factored(inside, names)]);
  return rest.length === 0 ? product : joined('or', [product, factored(rest, names)]);
}

/** A chain in which operands that are chains of the same gate are taken up. */
function joined(gate: 'and' | 'or', of: readonly Expr[]): Expr {
  const flat = of.flatMap((e) => (e.kind === 'gate' && e.infix && e.gate === gate ? e.of : [e]));
  const neutral = gate === 'and' ? 1 : 0;
  const kept = flat.filter((e) => !(e.kind === 'const' && e.value === neutral));
  const decided = kept.find((e) => e.kind === 'const');
  return decided ?? chain(gate, kept);
}

/** The literal that most products have, if two do. */
function mostShared(cubes: readonly Cube[], inputs: number): { bit: number; value: number } | null {
  let best: { bit: number; value: number } | null = null;
  let most = 1;
  for (let k = inputs - 1; k >= 0; k--) {
    const bit = 1 << k;
    for (const value of [bit, 0]) {
      const count = cubes.filter((c) => c.care & bit && (c.value & bit) === value).length;
      if (count > most) [best, most] = [{ bit, value }, count];
    }
  }
  return best;
}

/** Literals of an expression, a measure of its size. */
export function sizeOf(e: Expr): number {
  if (e.kind === 'gate') return e.of.reduce((n, x) => n + sizeOf(x), 0);
  return e.kind === 'not' ? sizeOf(e.of) : e.kind === 'name' ? 1 : 0;
}

/**
 * A form with exclusive ors: an input that only turns the rest round is taken out as `A ^ …`, and two
 * inputs of which only the exclusive or matters become one. What is left is a sum of products of literals
 * and of exclusive ors of two inputs, factored. Null when no exclusive or makes it shorter, or the
 * function has over `MAX_XOR_INPUTS` inputs.
 */
export async function withXor(on: Rows, free: Rows, names: readonly string[]): Promise<Expr | null> {
  if (names.length > MAX_XOR_INPUTS) return null;
  const found = await xorForm(
    { on, free, inputs: names.length },
    names.map((name): Expr => ({ kind: 'name', name })),
  );
  return found.used ? found.expr : null;
}

/** Most inputs of a function that is looked at for an exclusive or of products: its table is gone over once for each input. */
export const MAX_XOR_INPUTS = 12;

interface Piece {
  readonly on: Rows;
  readonly free: Rows;
  readonly inputs: number;
}

async function xorForm(piece: Piece, terms: readonly Expr[]): Promise<{ expr: Expr; used: boolean }> {
  for (let i = 0; i < piece.inputs; i++) {
    const rest = turnedRound(piece, i);
    if (!rest) continue;
    const inner = (await xorForm(rest, without(terms, i))).expr;
    return { expr: xorOf(elementAt(terms, i), inner), used: true };
  }
  for (let i = 0; i < piece.inputs; i++)
    for (let j = i + 1; j < piece.inputs; j++) {
      const merged = onlyXorMatters(piece, i, j);
      if (!merged) continue;
      const pair = xorOf(elementAt(terms, i), elementAt(terms, j));
      const left = [...terms];
      left[i] = pair;
      return { expr: (await xorForm(merged, without(left, j))).expr, used: true };
    }
  const names = terms.map((_, i) => `#${i}`);
  const upper = piece.on.map((w, k) => w | elementAt(piece.free, k));
  const cubes = irredundantCover(piece.on, upper, piece.inputs);
  const form = factored(cubes, names);
  const mixed = factoredWithPairs(await sumOfXorProducts(piece.on, piece.free, piece.inputs), names);
  const used = mixed !== null && sizeOf(mixed) < sizeOf(form);
  const by = new Map(names.map((n, i) => [n, elementAt(terms, i)]));
  return { expr: substituted(used ? mixed : form, by), used };
}

/** A sum of products with exclusive ors, factored as if each exclusive or were an input of its own. */
function factoredWithPairs(products: readonly XorProduct[] | null, names: readonly string[]): Expr | null {
  const pairs = [...new Map((products ?? []).flatMap((p) => p.pairs.map((x) => [`${x.a} ${x.b}`, x]))).values()];
  if (!products || pairs.length === 0 || names.length + pairs.length > 31) return null;
  const nameAt = (k: number): string => elementAt(names, names.length - 1 - k);
  const cubes = products.map(({ care, value, pairs: own }): Cube => {
    let [wideCare, wideValue] = [care << pairs.length, value << pairs.length];
    for (const { a, b, same } of own) {
      const bit = 1 << (pairs.length - 1 - pairs.findIndex((p) => p.a === a && p.b === b));
      wideCare |= bit;
      if (!same) wideValue |= bit;
    }
    return { care: wideCare, value: wideValue };
  });
  const pairNames = pairs.map((_, i) => `^${i}`);
  const exprs = pairs.map(({ a, b }) => xorOf(literal(nameAt(a), true), literal(nameAt(b), true)));
  const form = factored(cubes, [...names, ...pairNames]);
  return substituted(form, new Map(pairNames.map((n, i) => [n, elementAt(exprs, i)])));
}

const without = <T>(list: readonly T[], i: number): T[] => list.filter((_, k) => k !== i);

/** `a ^ b`, constants and complements drawn out. */
function xorOf(a: Expr, b: Expr): Expr {
  if (b.kind === 'const') return b.value === 1 ? negated(a) : a;
  if (b.kind === 'not') return negated(xorOf(a, b.of));
  const of = [a, b].flatMap((e) => (e.kind === 'gate' && e.gate === 'xor' && e.infix ? e.of : [e]));
  return { kind: 'gate', gate: 'xor', of, infix: true };
}

function substituted(e: Expr, by: ReadonlyMap<string, Expr>): Expr {
  if (e.kind === 'name') return by.get(e.name) ?? e;
  if (e.kind === 'not') return negated(substituted(e.of, by));
  if (e.kind === 'gate') return { ...e, of: e.of.map((x) => substituted(x, by)) };
  return e;
}

/** Calls for each row with input i (and j, if given) low: its number, and the numbers with them high. */
function eachRow(inputs: number, visit: (row: number) => void): void {
  for (let row = 0; row < 2 ** inputs; row++) visit(row);
}
/** A row's number without the bit at place k. */
const squeezed = (row: number, k: number): number => ((row >>> (k + 1)) << k) | (row & ((1 << k) - 1));

/** A smaller function that takes the rows `rowsFor` says together; null where they want different values. */
function folded(piece: Piece, target: (row: number) => number, wanted: (row: number) => number): Piece | null {
  const inputs = piece.inputs - 1;
  const words = Math.max(1, (2 ** inputs) >>> 5);
  const [on, off] = [new Int32Array(words), new Int32Array(words)];
  eachRow(piece.inputs, (row) => {
    if (rowBit(piece.free, row)) return;
    addRow(wanted(row) === 1 ? on : off, target(row));
  });
  if (on.some((w, k) => (w & elementAt(off, k)) !== 0)) return null;
  const free = on.map((w, k) => ~(w | elementAt(off, k)) & rowMask(inputs));
  return { on, free, inputs };
}

/** The rest of a function in which input i only turns the value round; null when it does more. */
function turnedRound(piece: Piece, i: number): Piece | null {
  const k = piece.inputs - 1 - i;
  return folded(
    piece,
    (row) => squeezed(row, k),
    (row) => rowBit(piece.on, row) ^ ((row >>> k) & 1),
  );
}

/** The function with inputs i and j replaced by their exclusive or, in place of i; null when that loses something. */
function onlyXorMatters(piece: Piece, i: number, j: number): Piece | null {
  const [a, b] = [piece.inputs - 1 - i, piece.inputs - 1 - j];
  return folded(
    piece,
    (row) => {
      const odd = ((row >>> a) ^ (row >>> b)) & 1;
      return squeezed((row & ~(1 << a)) | (odd << a), b);
    },
    (row) => rowBit(piece.on, row),
  );
}

/**
 * The same expression from NANDs alone, or NORs alone. A complement is a gate with its inputs joined, or
 * with one tied where joining would write a long operand twice. Exclusive ors are written out as sums of products first.
 */
export function fromOneKind(e: Expr, kind: 'nand' | 'nor'): Expr {
  return made(plain(e), false, kind);
}

/** Without exclusive ors and inverting connectives. */
function plain(e: Expr): Expr {
  if (e.kind === 'not') return negated(plain(e.of));
  if (e.kind !== 'gate') return e;
  const of = e.of.map(plain);
  if (e.gate === 'and' || e.gate === 'or') return { kind: 'gate', gate: e.gate, of, infix: true };
  if (e.gate !== 'xor' && e.gate !== 'xnor')
    return negated({ kind: 'gate', gate: complement[e.gate], of, infix: true });
  const odd = of.reduce((a, b) => chain('or', [chain('and', [a, negated(b)]), chain('and', [negated(a), b])]));
  return e.gate === 'xor' ? odd : negated(odd);
}

/** The expression, or with `inverted` its complement, from one kind of gate. */
function made(e: Expr, inverted: boolean, kind: 'nand' | 'nor'): Expr {
  if (e.kind === 'const') return inverted ? negated(e) : e;
  if (e.kind === 'name') return inverted ? call(kind, [e, e]) : e;
  if (e.kind === 'not') return made(e.of, !inverted, kind);
  // A NAND of its inputs is the complement of an AND, or the OR of their complements; a NOR the other way.
  const direct = (e.gate === 'and') === (kind === 'nand');
  const inner = call(
    kind,
    e.of.map((x) => made(x, !direct, kind)),
  );
  return inverted === direct ? inner : call(kind, [inner, { kind: 'const', value: kind === 'nand' ? 1 : 0 }]);
}

const call = (gate: Connective, of: readonly Expr[]): Expr => ({ kind: 'gate', gate, of, infix: false });
