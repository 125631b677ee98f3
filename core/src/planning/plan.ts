import {
  type Board,
  byNumber,
  columnNumbers,
  cutPin,
  type Hole,
  hasRailHole,
  leadsOf,
  pinOf,
  type Rail,
  stripOf,
} from '../board';
import { elementAt } from '../element-at';
import { type Finding, finding } from '../finding';
import { buildOrder, drivenBy, jumpersOf, type Locks, type Packing } from '../packing';
import { arranged } from './arrange';
import { inBetterHoles } from './better-holes';
import { expectationOf, GROUND, SUPPLY, sourcesOf } from './expectation';
import { wireLength } from './length';
import { MAX_BOARDS, type Seated, type SeatOptions, seatAll } from './placement';
import type { LayoutBoardKind } from './seats';
import { Wirer } from './wirer';

/** What a plan keeps to: kind of board and fittings, what was decided by hand; `tell` is called with the share that is done. */
export interface PlanOptions extends SeatOptions {
  readonly locks?: Locks;
  /** Leaves packages, units and inputs as they are packed: a person has just put them so. */
  readonly asPacked?: boolean;
  readonly tell?: (share: number) => void;
}

/** A board with the packing as it was arranged for it; no board, and why, when boards or holes run out. */
export interface Plan {
  readonly packing: Packing;
  readonly board: Board | null;
  readonly findings: Finding[];
}

type LeadHoles = ReadonlyMap<string, Hole>;

/**
 * Lays a packing out, arranged for short wires: seats every part, then lays jumpers in the order in which a careful person
 * would: rails, supply and ground of each chip, switches, then gate by gate, and unused inputs to
 * ground. Fails with a finding when boards or holes run out.
 */
export function plan(given: Packing, options: PlanOptions = {}): Plan {
  const { tell = () => {} } = options;
  const found = options.asPacked
    ? laid(given, options)
    : shorter(
        laid(
          arranged(given, options.locks, (share) => tell(ARRANGING * share)),
          options,
        ),
        laid(given, options),
      );
  if (!found.board) return found;
  return { ...found, board: inBetterHoles(found.board, (share) => tell(ARRANGING + (1 - ARRANGING) * share)) };
}

/** The share of the work that arranging is; choosing holes is the rest. */
const ARRANGING = 0.5;

const shorter = (better: Plan, plain: Plan): Plan => (lengthOf(better) < WORTH_IT * lengthOf(plain) ? better : plain);

/** Packages and units stay as they were packed unless the wires get this much shorter. */
const WORTH_IT = 0.95;

/** The length of a plan's wires; without a board, longer than any. */
function lengthOf({ board }: Plan): number {
  return board ? wireLength(board).laid : Number.POSITIVE_INFINITY;
}

function laid(packing: Packing, options: SeatOptions): Plan {
  const seated = seatAll(packing, options);
  if (!seated) return noRoom(packing, `${packing.packages.length} chips`);
  const holes = new Map<string, Hole>();
  for (const part of Object.values(seated.board.parts))
    for (const { pin, hole } of leadsOf(part)) {
      if (!hole) return noRoom(packing, part.ref);
      holes.set(pin, hole);
    }
  const layer = new Layer(seated, holes, packing);
  const problem = layer.rails() ?? layer.supplies() ?? layer.signals() ?? layer.unused();
  if (problem) return { packing, board: null, findings: [problem] };
  return { packing, board: { ...seated.board, jumpers: layer.wirer.jumpers }, findings: [] };
}

/**
 * How many jumpers a board of a packing takes: those of its pins, and those that link the rails of as many boards as it needs. What a plan
 * lays in the end (planning.test.ts).
 */
export function jumpersToLay(packing: Packing, kind: LayoutBoardKind = 'full'): number {
  const seated = seatAll(packing, { kind });
  if (!seated) return jumpersOf(packing);
  const layer = new Layer(seated, new Map(), packing);
  layer.rails();
  return Object.keys(layer.wirer.jumpers).length + jumpersOf(packing);
}

function noRoom(packing: Packing, what: string): Plan {
  return { packing, board: null, findings: [finding('plan/no-room', [], { what, boards: MAX_BOARDS })] };
}

const railFull = (pin: string): Finding =>
  finding('plan/strip-full', [{ kind: 'pin', pin }], { signal: 'ground or supply' });

class Layer {
  readonly wirer: Wirer;
  private readonly expected: ReadonlyMap<string, string>;
  private readonly sources: ReadonlyMap<string, string>;

  private readonly board: Board;

  constructor(
    { board, joins }: Seated,
    private readonly holes: LeadHoles,
    private readonly packing: Packing,
  ) {
    this.board = board;
    this.wirer = new Wirer(board);
    this.expected = new Map([...expectationOf(packing, board), ...joins]);
    // A net between parts begins at the first of them.
    const between = [...joins].reverse().filter(([, net]) => net.startsWith('~'));
    this.sources = new Map([...sourcesOf(packing, board), ...between.map(([pin, net]) => [net, pin] as const)]);
    this.fedBelow = this.boardsFedBelow();
  }

  /** Links both halves of broken rails, both ground rails of each board, and the rails of each board to those of the next. */
  rails(): Finding | null {
    const boards = this.board.breadboards.map((b) => b.id);
    boards.forEach((id, i) => {
      const last = columnNumbers(id).findLast((column) => hasRailHole(column, id)) as number;
      const at = (board: string, row: Rail, back: number): Hole => ({ board, column: last - back, row });
      for (const row of ['top+', 'top-', 'bottom-'] as const) this.wirer.bridge(id, row);
      this.wirer.lay(at(id, 'top-', 0), at(id, 'bottom-', 0));
      if (this.fedBelow.has(id)) {
        this.wirer.bridge(id, 'bottom+');
        this.wirer.lay(at(id, 'top+', 1), at(id, 'bottom+', 1));
      }
      const next = boards[i + 1];
      if (next === undefined) return;
      this.wirer.lay(at(id, 'top+', 2), at(next, 'top+', 3));
      this.wirer.lay(at(id, 'bottom-', 1), at(next, 'top-', 1));
    });
    return null;
  }

  /** Supply and ground of every chip, then the feed of every switch. */
  supplies(): Finding | null {
    const parts = Object.values(this.board.parts).sort((a, b) => byNumber(a.ref, b.ref));
    for (const { pin, type, hole } of parts.flatMap((part) => leadsOf(part))) {
      if (!hole) continue;
      if (type.role === 'supply' && !this.wirer.toRail(hole, this.suppliesNear(hole))) return railFull(pin);
      if (type.role === 'ground' && !this.wirer.toRail(hole, ['bottom-', 'top-'])) return railFull(pin);
    }
    for (const { pin, type, hole } of parts.flatMap((part) => leadsOf(part)))
      if (hole && type.name === 'feed' && !this.wirer.toRail(hole, ['top+'])) return railFull(pin);
    return null;
  }

  /**
   * Signal by signal in build order, each output's LED right behind it: the strips of a signal are joined nearest first
   * (Prim 1957), as long as they have a hole left, so that a full strip hands its signal on from the next.
   */
  signals(): Finding | null {
    const order = this.pinsInOrder();
    for (const signal of new Set(order.map((pin) => this.expected.get(pin) as string))) {
      const pins = order.filter((pin) => this.expected.get(pin) === signal);
      const problem = signal === SUPPLY || signal === GROUND ? this.tie(pins, signal) : this.tree(pins, signal);
      if (problem) return problem;
    }
    return null;
  }

  private tie(pins: readonly string[], signal: typeof SUPPLY | typeof GROUND): Finding | null {
    for (const pin of pins) {
      const hole = this.holes.get(pin) as Hole;
      if (!this.toLevel(hole, signal)) return railFull(pin);
    }
    return null;
  }

  /** Strips that are joined to a rail already, by what they carry: an input beside one is tied to that. */
  private readonly tied = new Map<string, Hole[]>();

  /** Joins a strip to supply or ground: to a neighbour that is tied, where that is nearer than a rail. */
  private toLevel(hole: Hole, signal: typeof SUPPLY | typeof GROUND): boolean {
    const tied = this.tied.get(signal) ?? [];
    this.tied.set(signal, [...tied, hole]);
    const beside = tied.find(
      (h) => h.board === hole.board && h.row === hole.row && Math.abs(h.column - hole.column) === 1,
    );
    if (beside && this.wirer.freeCount(beside) > 1) {
      this.wirer.join(beside, hole);
      return true;
    }
    const rails = signal === SUPPLY ? this.suppliesNear(hole) : this.groundsNear(hole);
    return this.wirer.toRail(hole, rails);
  }

  /** The lower + rail serves lower pins where it is fed. */
  private suppliesNear(hole: Hole): readonly Rail[] {
    return this.fedBelow.has(hole.board) && 'abcde'.includes(hole.row) ? ['bottom+', 'top+'] : ['top+'];
  }

  /** Boards with several pins in the lower half that go to supply. */
  private readonly fedBelow: ReadonlySet<string>;

  private boardsFedBelow(): Set<string> {
    const counts = new Map<string, number>();
    for (const part of Object.values(this.board.parts))
      for (const { pin, type, hole } of leadsOf(part)) {
        const up = type.role === 'supply' || this.expected.get(pin) === SUPPLY;
        if (up && hole && 'abcde'.includes(hole.row)) counts.set(hole.board, (counts.get(hole.board) ?? 0) + 1);
      }
    return new Set([...counts].flatMap(([board, n]) => (n > 1 ? [board] : [])));
  }

  private tree(pins: readonly string[], signal: string): Finding | null {
    const reached = [this.holes.get(this.sources.get(signal) as string) as Hole];
    const waiting = new Map(pins.map((pin) => [pin, this.holes.get(pin) as Hole]));
    while (waiting.size > 0) {
      const next = this.wirer.nearestPair(reached, waiting);
      if (!next)
        return finding('plan/strip-full', [{ kind: 'pin', pin: elementAt([...waiting.keys()], 0) }], { signal });
      const { pin, from } = next;
      const hole = waiting.get(pin) as Hole;
      if (stripOf(from) !== stripOf(hole)) this.wirer.join(from, hole);
      reached.push(hole);
      waiting.delete(pin);
    }
    return null;
  }

  private pinsInOrder(): string[] {
    // Pins of what shows a net; then whatever else is joined to these parts.
    const beside = [...this.expected].filter(([pin]) => !this.isPacked(pin));
    const ledsOf = (net: string): string[] => beside.flatMap(([pin, signal]) => (signal === net ? [pin] : []));
    const given = this.packing.inputs.flatMap(ledsOf).filter((pin) => !this.isSource(pin));
    const shown = new Set<string>();
    const gates = buildOrder(this.packing).flatMap(({ ref, unit, use }) => [
      ...[...unit.inputs, ...unit.outputs].map((id) => pinOf(ref, id)).filter((pin) => !this.isSource(pin)),
      ...drivenBy(use).flatMap((net) => {
        if (shown.has(net)) return [];
        shown.add(net);
        return ledsOf(net);
      }),
    ]);
    const rest = beside.flatMap(([pin]) => (this.isSource(pin) ? [] : [pin]));
    return [...new Set([...given, ...gates, ...rest])];
  }

  private isPacked(pin: string): boolean {
    const { ref } = cutPin(pin);
    return this.packing.packages.some((p) => p.ref === ref);
  }

  /** Whether a pin gives its signal itself, and needs no wire to it; other outputs on its net do. */
  private isSource(pin: string): boolean {
    return this.sources.get(this.expected.get(pin) ?? '') === pin;
  }

  /** Inputs of spare units go to ground, as CMOS inputs must not be left open. */
  unused(): Finding | null {
    for (const { ref } of this.packing.packages) {
      const part = this.board.parts[ref];
      for (const { pin, type, hole } of part ? leadsOf(part) : []) {
        if (!hole || type.role !== 'input' || this.expected.has(pin)) continue;
        if (!this.toLevel(hole, GROUND)) return railFull(pin);
      }
    }
    return null;
  }

  private groundsNear(hole: Hole): readonly ('top-' | 'bottom-')[] {
    return 'fghij'.includes(hole.row) ? ['top-', 'bottom-'] : ['bottom-', 'top-'];
  }
}
