import { type FamilyId, findChip } from '../catalogue';
import type { Gate, StoredCell } from '../design';

/** The AND of some nets, or its complement: of no net it is high. */
export interface Term {
  readonly nets: readonly string[];
  readonly isComplement: boolean;
}

/** What a JK flip-flop would read to store the same: it sets by J, clears by K, toggles by both. */
export interface JkForm {
  readonly j: Term;
  readonly k: Term;
}

/** The gate that makes a net, if one does. */
export type MakerOf = (net: string) => Gate | undefined;

const and = (nets: readonly string[], isComplement = false): Term => ({ nets, isComplement });
const HIGH_TERM = and([]);
const LOW_TERM = and([], true);

/**
 * The J and K of a flip-flop whose equation is written in such a form: `~Q`, `Q ^ T` and `xnor(Q, T)`, which toggle; `J & ~Q | ~K & Q`; and either half of
 * that alone. Null for other equations. Source: the characteristic equation of the JK flip-flop, Q+ = J Q' + K' Q.
 */
export function jkFormOf({ data, output: q }: Pick<StoredCell, 'data' | 'output'>, makerOf: MakerOf): JkForm | null {
  const isComplementOfQ = (net: string): boolean => {
    const gate = makerOf(net);
    return gate?.kind === 'not' && gate.inputs[0] === q;
  };
  if (isComplementOfQ(data)) return { j: HIGH_TERM, k: HIGH_TERM };
  const gate = makerOf(data);
  if (!gate) return null;
  const { kind, inputs } = gate;
  if ((kind === 'xor' || kind === 'xnor') && inputs.length === 2 && inputs.includes(q)) {
    const toggle = and(
      inputs.filter((net) => net !== q),
      kind === 'xnor',
    );
    return { j: toggle, k: toggle };
  }
  /** The other inputs of an AND that has `is` among its own; null where it is none. */
  const besides = (net: string, is: (input: string) => boolean): readonly string[] | null => {
    if (is(net)) return [];
    const product = makerOf(net);
    if (product?.kind !== 'and' || !product.inputs.some(is)) return null;
    return product.inputs.filter((input) => !is(input));
  };
  const sets = (net: string) => besides(net, isComplementOfQ);
  const keeps = (net: string) => besides(net, (input) => input === q);
  if (kind === 'or' && inputs.length === 2) {
    for (const [a = '', b = ''] of [inputs, [...inputs].reverse()]) {
      const [j, kept] = [sets(a), keeps(b)];
      if (j && kept) return { j: and(j), k: and(kept, true) };
    }
  }
  const [j, kept] = [sets(data), keeps(data)];
  if (j) return { j: and(j), k: HIGH_TERM };
  return kept ? { j: LOW_TERM, k: and(kept, true) } : null;
}

/** A JK chip that equations are put into: two flip-flops, its edge, whether K acts low, and the families in which it is the edge-triggered one. */
export interface JkChip {
  readonly part: string;
  readonly edge: 'rise' | 'fall';
  readonly isKLow: boolean;
  readonly hasPreset: boolean;
  readonly families: readonly FamilyId[];
}

/** In the order in which they are preferred. Those of standard TTL that count on the falling edge are pulse-triggered, and left out. */
const chips: readonly JkChip[] = [
  { part: '74107', edge: 'fall', isKLow: false, hasPreset: false, families: ['LS', 'HC', 'HCT'] },
  { part: '74112', edge: 'fall', isKLow: false, hasPreset: true, families: findChip('74112')?.chip?.families ?? [] },
  { part: '74109', edge: 'rise', isKLow: true, hasPreset: true, families: findChip('74109')?.chip?.families ?? [] },
];

/** The numbers of the JK chips that equations are put into. */
export const jkChipNumbers: readonly string[] = chips.map((chip) => chip.part);

/**
 * The JK chips that can take a flip-flop of an equation in a family, the best first: those of its own edge, then those whose clock is inverted. Where K acts
 * low only equations that give its complement, or a constant, save gates.
 */
export function jkChipsFor(cell: StoredCell, { k }: JkForm, family: FamilyId): JkChip[] {
  const isPreset = cell.forces.some((force) => force.to === 1);
  const fits = chips.filter(
    (chip) =>
      chip.families.includes(family) &&
      (chip.hasPreset || !isPreset) &&
      (!chip.isKLow || k.isComplement || k.nets.length === 0),
  );
  return [...fits.filter((chip) => chip.edge === cell.edge), ...fits.filter((chip) => chip.edge !== cell.edge)];
}

/** The share of a package that a gate of so many inputs takes; those of more take a whole one. */
const SHARES: Readonly<Record<number, number>> = { 1: 1 / 6, 2: 1 / 4, 3: 1 / 3, 4: 1 / 2 };

/** The share of a package that gates of so many inputs each take together. */
export const sharesOf = (widths: readonly number[]): number =>
  widths.reduce((sum, width) => sum + (SHARES[width] ?? 1), 0);

/** How wide a gate a term needs; 0 where it is a net or a constant. */
export const widthOf = ({ nets, isComplement }: Term): number =>
  nets.length > 1 || (nets.length === 1 && isComplement) ? nets.length : 0;
