import { type Board, byNumber, columnNumbers, type Hole, hasRailHole, leadsOf, type Rail } from '../board';
import { type Finding, finding } from '../finding';
import { buildOrder, drivenBy, type Packing } from '../packing';
import { expectationOf, GROUND, SUPPLY, sourcesOf } from './expectation';
import { type FloorKind, MAX_BOARDS, seatAll } from './floor';
import { Wirer } from './wirer';

type LeadHoles = ReadonlyMap<string, Hole>;

/**
 * Lays a packing out: seats every part, then lays jumpers in the order in which a careful person
 * would: rails, supply and ground of each chip, switches, then gate by gate, and unused inputs to
 * ground. Fails with a finding when boards or holes run out.
 */
export function plan(packing: Packing, kind: FloorKind = 'full'): { board: Board | null; findings: Finding[] } {
  const seated = seatAll(packing, kind);
  if (!seated) return noRoom(`${packing.packages.length} chips`);
  const holes = new Map<string, Hole>();
  for (const part of Object.values(seated.parts))
    for (const { pin, hole } of leadsOf(part)) {
      if (!hole) return noRoom(part.ref);
      holes.set(pin, hole);
    }
  const layer = new Layer(seated, holes, packing);
  const problem = layer.rails() ?? layer.supplies() ?? layer.signals() ?? layer.unused();
  if (problem) return { board: null, findings: [problem] };
  return { board: { ...seated, jumpers: layer.wirer.jumpers }, findings: [] };
}

function noRoom(what: string): { board: null; findings: Finding[] } {
  return { board: null, findings: [finding('plan/no-room', [], { what, boards: MAX_BOARDS })] };
}

const railFull = (pin: string): Finding =>
  finding('plan/strip-full', [{ kind: 'pin', pin }], { signal: 'ground or supply' });

class Layer {
  readonly wirer: Wirer;
  private readonly expected: ReadonlyMap<string, string>;
  private readonly sources: ReadonlyMap<string, string>;

  constructor(
    private readonly board: Board,
    private readonly holes: LeadHoles,
    private readonly packing: Packing,
  ) {
    this.wirer = new Wirer(board);
    this.expected = expectationOf(packing, board);
    this.sources = sourcesOf(packing, board);
  }

  /** Links both halves of broken rails, both ground rails of each board, and the rails of each board to those of the next. */
  rails(): Finding | null {
    const boards = this.board.breadboards.map((b) => b.id);
    boards.forEach((id, i) => {
      const last = columnNumbers(id).findLast((column) => hasRailHole(column, id)) as number;
      const at = (board: string, row: Rail, back: number): Hole => ({ board, column: last - back, row });
      for (const row of ['top+', 'top-', 'bottom-'] as const) this.wirer.bridge(id, row);
      this.wirer.lay(at(id, 'top-', 0), at(id, 'bottom-', 0));
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
      if (type.role === 'supply' && !this.wirer.toRail(hole, ['top+'])) return railFull(pin);
      if (type.role === 'ground' && !this.wirer.toRail(hole, ['bottom-', 'top-'])) return railFull(pin);
    }
    for (const { pin, type, hole } of parts.flatMap((part) => leadsOf(part)))
      if (hole && type.name === 'feed' && !this.wirer.toRail(hole, ['top+'])) return railFull(pin);
    return null;
  }

  /** Gate by gate in build order, each output's LED right behind it: every pin joined to its signal's nearest strip. */
  signals(): Finding | null {
    const reached = new Map<string, Hole[]>();
    for (const [signal, pin] of this.sources) reached.set(signal, [this.holes.get(pin) as Hole]);
    for (const pin of this.pinsInOrder()) {
      const signal = this.expected.get(pin) as string;
      const hole = this.holes.get(pin) as Hole;
      if (signal === SUPPLY || signal === GROUND) {
        const rails = signal === SUPPLY ? (['top+'] as const) : this.groundsNear(hole);
        if (!this.wirer.toRail(hole, rails)) return railFull(pin);
        continue;
      }
      const strips = reached.get(signal) as Hole[];
      const near = this.wirer.nearestWithRoom(strips, hole);
      if (!near) return finding('plan/strip-full', [{ kind: 'pin', pin }], { signal });
      this.wirer.join(near, hole);
      strips.push(hole);
    }
    return null;
  }

  private pinsInOrder(): string[] {
    const ledsOf = (net: string): string[] =>
      [...this.expected].flatMap(([pin, signal]) => (signal === net && pin.endsWith('.A') ? [pin] : []));
    const given = [SUPPLY, GROUND, ...this.packing.inputs].flatMap(ledsOf);
    const shown = new Set<string>();
    // A pin that gives its signal itself needs no wire to it; other outputs on its net do.
    const isSource = (pin: string): boolean => this.sources.get(this.expected.get(pin) ?? '') === pin;
    const gates = buildOrder(this.packing).flatMap(({ ref, unit, use }) => [
      ...[...unit.inputs, ...unit.outputs].map((id) => `${ref}.${id}`).filter((pin) => !isSource(pin)),
      ...drivenBy(use).flatMap((net) => {
        if (shown.has(net)) return [];
        shown.add(net);
        return [...ledsOf(net), ...this.pullUpsOf(net)];
      }),
    ]);
    return [...new Set([...given, ...gates])];
  }

  private pullUpsOf(net: string): string[] {
    return Object.values(this.board.parts).flatMap((p) =>
      p.part === 'resistor' && p.signal === net ? [`${p.ref}.2`] : [],
    );
  }

  /** Inputs of spare units go to ground, as CMOS inputs must not be left open. */
  unused(): Finding | null {
    for (const { ref } of this.packing.packages) {
      const part = this.board.parts[ref];
      for (const { pin, type, hole } of part ? leadsOf(part) : []) {
        if (!hole || type.role !== 'input' || this.expected.has(pin)) continue;
        if (!this.wirer.toRail(hole, this.groundsNear(hole))) return railFull(pin);
      }
    }
    return null;
  }

  private groundsNear(hole: Hole): readonly ('top-' | 'bottom-')[] {
    return 'fghij'.includes(hole.row) ? ['top-', 'bottom-'] : ['bottom-', 'top-'];
  }
}
