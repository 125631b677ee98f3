import type { FamilyId } from '../catalogue';
import type { Cell, Gate, Netlist, StoredCell } from '../design';
import { elementAt } from '../element-at';
import { type JkChip, type JkForm, jkChipsFor, jkFormOf, sharesOf, type Term, widthOf } from './flip-flop-forms';

/** What the parts for stored signals are chosen by. */
export interface LoweredBy {
  readonly family: FamilyId;
  /** Gates that stay whatever else there would be for them, by their nets: those put on units by hand. */
  readonly kept?: ReadonlySet<string>;
  /** JK chips, counters and shift registers that may not be taken, by number: excluded ones, and those that a drawer has not. */
  readonly without?: readonly string[];
  /** Whether flip-flops that are a counter or a shift register together go into such a chip. */
  readonly larger?: boolean;
}

/** A flip-flop that goes into half of a JK chip. */
export interface JkUse {
  readonly cell: StoredCell;
  readonly form: JkForm;
  readonly chip: JkChip;
}

/** Which flip-flops are D ones, by clock and clear, and which go into JK chips; `idle` are gates that then may have no reader left. */
export interface FlipFlopPlan {
  readonly d: readonly (readonly StoredCell[])[];
  readonly jk: readonly JkUse[];
  readonly idle: readonly Gate[];
}

/** Flip-flops of one clock and clear from which on they share a 74175. */
export const QUAD_FROM = 3;
/** Flip-flops of one clock and clear from which on they share a 74273. */
export const OCTAL_FROM = 5;

/** Sums of thirds and sixths that differ by less are equal. */
const EQUAL = 1e-6;

/** How flip-flops are shared out: none of them JK, as many as each clock has gain of, or all that have such a form. */
const policies = ['none', 'some', 'all'] as const;

/**
 * Shares flip-flops out among D and JK chips, so that chips and the gates before them take the fewest packages: counted as shares of packages for the gates,
 * and whole for the chips. Where plans are alike the one with fewer JK chips is taken, except of falling edges, for which D flip-flops need an inverted clock.
 */
export function planFlipFlops(cells: readonly StoredCell[], netlist: Netlist, by: LoweredBy): FlipFlopPlan {
  const planner = new Planner(netlist, by);
  const groups = groupsOf(cells);
  let best: FlipFlopPlan | null = null;
  let least = Number.POSITIVE_INFINITY;
  for (const policy of policies) {
    const shared = groups.map((group) => planner.share(group, policy));
    const packages = chipsOf(shared) + shared.reduce((sum, { gates }) => sum + gates, 0);
    if (packages > least - EQUAL) continue;
    least = packages;
    const jk = shared.flatMap((group) => group.jk);
    best = { d: shared.map((group) => group.d), jk, idle: jk.flatMap((use) => planner.freedBy(use.cell, [], true)) };
  }
  return best ?? { d: groups, jk: [], idle: [] };
}

/** Flip-flops of one clock and, but for a clear that they share, without forces. */
function groupsOf(cells: readonly StoredCell[]): StoredCell[][] {
  const groups = new Map<string, StoredCell[]>();
  for (const c of cells) {
    const isShared = c.forces.length === 0 || (c.forces.length === 1 && c.forces[0]?.to === 0);
    const key = isShared ? `${c.edge} ${c.control} ${c.forces[0]?.net ?? ''}` : `alone ${c.output}`;
    groups.set(key, [...(groups.get(key) ?? []), c]);
  }
  return [...groups.values()];
}

/** One clock's flip-flops, shared out, and the packages that the gates before them take. */
interface Shared {
  readonly d: readonly StoredCell[];
  readonly jk: readonly JkUse[];
  readonly gates: number;
}

/** The packages that flip-flops take: registers whole, halves together whatever their clocks. */
function chipsOf(groups: readonly Shared[]): number {
  let registers = 0;
  const halves = new Map<string, number>();
  const add = (part: string, count: number): void => {
    halves.set(part, (halves.get(part) ?? 0) + count);
  };
  for (const { d, jk } of groups) {
    let left = d.length;
    for (; left >= QUAD_FROM; left = Math.max(0, left - (left >= OCTAL_FROM ? 8 : 4))) registers++;
    add('7474', left);
    for (const { chip } of jk) add(chip.part, 1);
  }
  return [...halves.values()].reduce((sum, count) => sum + Math.ceil(count / 2), registers);
}

class Planner {
  private readonly makers: ReadonlyMap<string, Gate>;
  private readonly stored: ReadonlySet<string>;
  private readonly reads: readonly string[];

  constructor(
    netlist: Netlist,
    private readonly by: LoweredBy,
  ) {
    const { gates, cells, outputs } = netlist;
    this.makers = new Map(gates.map((g) => [g.output, g]));
    this.stored = new Set(cells.flatMap((c) => (c.kind === 'stored' ? [c.output] : [])));
    this.reads = [...outputs.map((o) => o.net), ...cells.flatMap(readBy), ...gates.flatMap((g) => g.inputs)];
  }

  share(group: readonly StoredCell[], policy: (typeof policies)[number]): Shared {
    const uses = group.flatMap((cell) => this.jkUse(cell) ?? []);
    const gain = (use: JkUse): number => this.gatesAsD(use, false) - this.gatesAsJk(use);
    const candidates = [...uses].sort((a, b) => gain(b) - gain(a));
    const sharedAt = (count: number): Shared => {
      const jk = candidates.slice(0, count);
      const d = group.filter((cell) => !jk.some((use) => use.cell === cell));
      return { d, jk, gates: this.gatesOf(d, jk, candidates.slice(count)) };
    };
    if (policy !== 'some') return sharedAt(policy === 'all' ? candidates.length : 0);
    const costOf = (shared: Shared): number => chipsOf([shared]) + shared.gates;
    let best = sharedAt(0);
    for (let count = 1; count <= candidates.length; count++) {
      const next = sharedAt(count);
      if (costOf(next) < costOf(best) - EQUAL) best = next;
    }
    return best;
  }

  /** The packages of the gates before the flip-flops of one clock, so far as they depend on how these are shared out, and of its inverter. */
  private gatesOf(d: readonly StoredCell[], jk: readonly JkUse[], others: readonly JkUse[]): number {
    const { edge, control } = elementAt([...d, ...jk.map((use) => use.cell)], 0);
    const isInverted = (d.length > 0 && edge === 'fall') || jk.some((use) => use.chip.edge !== edge);
    const shares = [
      ...jk.map((use) => this.gatesAsJk(use)),
      ...others.map((use) => this.gatesAsD(use, d.length >= OCTAL_FROM)),
      isInverted && !this.stored.has(control) ? sharesOf([1]) : 0,
    ];
    return shares.reduce((a, b) => a + b, 0);
  }

  private jkUse(cell: StoredCell): JkUse | null {
    const form = jkFormOf(cell, (net) => this.makers.get(net));
    const { family, without = [] } = this.by;
    const chip = form && jkChipsFor(cell, form, family).find(({ part }) => !without.includes(part));
    return form && chip ? { cell, form, chip } : null;
  }

  /** The share of a package that the gates before J and K take. */
  private gatesAsJk({ form: { j, k }, chip }: JkUse): number {
    const read = [j, chip.isKLow ? { ...k, isComplement: !k.isComplement } : k];
    const widths = read.map((term) => (this.isOfInverter(term) ? 0 : widthOf(term)));
    return sharesOf(widths.filter((width) => width > 0));
  }

  /** The share that the gates before D take and J and K do without. */
  private gatesAsD({ cell, form: { j, k } }: JkUse, isOctal: boolean): number {
    const stillRead = [j, k].flatMap((term) => (this.isOfInverter(term) ? [] : term.nets));
    return sharesOf(this.freedBy(cell, stillRead, isOctal).map((gate) => gate.inputs.length));
  }

  /** Whether a term is the complement of what an inverter makes: the net before that. */
  private isOfInverter({ nets, isComplement }: Term): boolean {
    return isComplement && nets.length === 1 && this.makers.get(elementAt(nets, 0))?.kind === 'not';
  }

  /** The gates that nothing but the data of a flip-flop reads, nor J and K will; the complement of its own output among them where no pin gives that. */
  freedBy({ data, output }: StoredCell, stillRead: readonly string[], withOwnComplement: boolean): Gate[] {
    const left = new Map<string, number>();
    for (const net of [...this.reads, ...stillRead]) left.set(net, (left.get(net) ?? 0) + 1);
    const freed: Gate[] = [];
    const drop = (net: string): void => {
      const count = (left.get(net) ?? 0) - 1;
      left.set(net, count);
      const gate = this.makers.get(net);
      if (!gate || count > 0 || this.by.kept?.has(net)) return;
      if (gate.kind === 'not' && gate.inputs[0] === output && !withOwnComplement) return;
      freed.push(gate);
      for (const input of gate.inputs) drop(input);
    };
    drop(data);
    return freed;
  }
}

/** The nets that a cell reads. */
function readBy(cell: Cell): readonly string[] {
  if (cell.kind === 'part') return cell.inputs.map((input) => input.net);
  if (cell.kind === 'stored') return [cell.data, cell.control, ...cell.forces.map((force) => force.net)];
  return cell.drivers.flatMap(({ value, enable }) => (enable === null ? [value] : [value, enable]));
}
