import type { Cell, Gate, Netlist, PartCell, StoredCell, WireCell } from '../design';
import { elementAt } from '../element-at';
import type { GateKind } from '../logic';
import { type Chain, type ChainChip, chainChipFor, chainsOf } from './counter-forms';
import type { Term } from './flip-flop-forms';
import { type JkUse, type LoweredBy, OCTAL_FROM, planFlipFlops, QUAD_FROM } from './flip-flop-plan';

/**
 * A design with everything that is stored or shared in equations put into parts by number: flip-flops of J, K and T form into a 74107, 74112 or 74109 where
 * that saves packages; others into halves of a 7474 or, from three of one clock and clear on, into a 74175 or 74273; latches into a 7475 or
 * 74373; three-state outputs into a 74126, open-collector ones into a 7405. Complements of what is stored come from the parts' Q' pins; gates that other pins
 * need (forces act low, an edge is turned round) are added behind the design's own.
 */
export function lowered(netlist: Netlist, by: LoweredBy): Netlist {
  if (netlist.cells.every((c) => c.kind === 'part')) return netlist;
  return new Lowering(netlist, by).run();
}

/** A design with what is shared put into parts as `lowered` does, and what is stored left as it is. */
export function withDriversLowered(netlist: Netlist): Netlist {
  if (netlist.cells.every((c) => c.kind !== 'wire')) return netlist;
  return new Lowering(netlist, { family: 'HC' }).runDrivers();
}

/** The part of a chain that goes into one counter or register. */
interface ChainPiece {
  readonly kind: Chain['kind'];
  readonly chip: ChainChip;
  readonly cells: readonly StoredCell[];
  readonly feed: string;
}

/** How many cells a part holds, and its pins for the k-th of them (from 1). */
interface Home {
  readonly part: string;
  readonly room: number;
}

/** Parts whose pin beside `1Q` is `1Qn`. */
const WITH_COMPLEMENTS: ReadonlySet<string> = new Set(['7474', '7475', '74107', '74109', '74112', '74175']);

class Lowering {
  private readonly gates: Gate[] = [];
  private readonly parts: PartCell[] = [];
  private readonly taken: Set<string>;
  private readonly kept: ReadonlySet<string>;
  /** Gates that may be left without a reader. */
  private readonly idle: Gate[] = [];

  constructor(
    private readonly netlist: Netlist,
    private readonly by: LoweredBy,
  ) {
    this.kept = by.kept ?? new Set();
    this.taken = new Set([
      ...netlist.inputs,
      ...netlist.gates.map((g) => g.output),
      ...netlist.outputs.map((o) => o.name),
    ]);
  }

  run(): Netlist {
    const { cells } = this.netlist;
    const stored = cells.filter((c): c is StoredCell => c.kind === 'stored');
    const edged = stored.filter((c) => c.edge !== 'while');
    const inChains = this.by.larger ? this.chains(edged) : new Set();
    this.flipFlops(edged.filter((c) => !inChains.has(c)));
    this.latches(stored.filter((c) => c.edge === 'while'));
    this.drivers(cells.filter((c): c is WireCell => c.kind === 'wire'));
    const own = cells.filter((c: Cell): c is PartCell => c.kind === 'part');
    const gates = this.withoutIdle([...own, ...this.parts]);
    const complements = new Map<string, Gate>();
    for (const gate of gates)
      if (gate.kind === 'not' && !this.kept.has(gate.output)) complements.set(elementAt(gate.inputs, 0), gate);
    const given = new Set<Gate>();
    const parts = this.parts.map((part) => withComplements(part, complements, given));
    return { ...this.netlist, gates: gates.filter((gate) => !given.has(gate)), cells: [...own, ...parts] };
  }

  /** Puts shared wires into parts, and nothing else. */
  runDrivers(): Netlist {
    const { cells, gates } = this.netlist;
    this.drivers(cells.filter((c): c is WireCell => c.kind === 'wire'));
    const others = cells.filter((c) => c.kind !== 'wire');
    return { ...this.netlist, gates: [...gates, ...this.gates], cells: [...others, ...this.parts] };
  }

  /** All gates but those of equations that went into J and K and that nothing reads any more. */
  private withoutIdle(parts: readonly PartCell[]): Gate[] {
    const { netlist, kept, idle } = this;
    let gates = [...netlist.gates, ...this.gates];
    const ends = [...netlist.outputs, ...parts.flatMap((part) => part.inputs)].map((end) => end.net);
    for (;;) {
      const read = new Set([...ends, ...gates.flatMap((gate) => gate.inputs), ...kept]);
      const left = gates.filter((gate) => read.has(gate.output) || !idle.includes(gate));
      if (left.length === gates.length) return gates;
      gates = left;
    }
  }

  /** Puts counters and shift registers into chips that are such; tells which flip-flops are in them. */
  private chains(cells: readonly StoredCell[]): ReadonlySet<StoredCell> {
    const inChips = new Set<StoredCell>();
    const halves = new Map<string, ChainPiece[]>();
    const { family, without = [] } = this.by;
    const makers = new Map(this.netlist.gates.map((g) => [g.output, g]));
    for (const { kind, cells: all, feed } of chainsOf(cells, (net) => makers.get(net))) {
      for (let left = all, fed = feed; left.length > 0; ) {
        const chip = chainChipFor(kind, left.length, { family, without, isRest: left !== all });
        if (!chip) break;
        const piece = { kind, chip, cells: left.slice(0, chip.room), feed: fed };
        halves.set(chip.part, [...(halves.get(chip.part) ?? []), piece]);
        for (const cell of piece.cells) inChips.add(cell);
        left = left.slice(chip.room);
        // Of a long shift register each chip is fed by the last flip-flop before it.
        fed = elementAt(piece.cells, piece.cells.length - 1).output;
      }
    }
    for (const [part, pieces] of halves) {
      const { perPackage } = elementAt(pieces, 0).chip;
      for (let i = 0; i < pieces.length; i += perPackage) this.chainPackage(part, pieces.slice(i, i + perPackage));
    }
    for (const cell of inChips) this.idle.push(...coneOf(cell.data, makers));
    return inChips;
  }

  private chainPackage(part: string, pieces: readonly ChainPiece[]): void {
    const joined = pieces.map((piece, at) => this.chainPins(piece, at));
    this.add(
      part,
      pieces.flatMap((piece) => piece.cells),
      joined.flatMap((pins) => pins.inputs),
      joined.flatMap((pins) => pins.outputs),
    );
  }

  /** The pins of a counter or shift register, by its number: its clock, its clear, what else it reads, and the flip-flops in order. */
  private chainPins({ chip, cells, feed }: ChainPiece, at: number): Pick<PartCell, 'inputs' | 'outputs'> {
    const first = elementAt(cells, 0);
    const clear = first.forces[0]?.net;
    const falling = (): string => (first.edge === 'fall' ? first.control : this.not(first.control, first));
    const clearLow = (): string => (clear === undefined ? '1' : this.not(clear, first));
    const outputs = (nameOf: (k: number) => string) => cells.map((cell, k) => ({ pin: nameOf(k), net: cell.output }));
    const letter = (k: number): string => `Q${'ABCDEFGH'[k]}`;
    const pins = (nets: Readonly<Record<string, string>>) => Object.entries(nets).map(([pin, net]) => ({ pin, net }));
    switch (chip.part) {
      case '4040':
        return { inputs: pins({ CLK: falling(), CLR: clear ?? '0' }), outputs: outputs((k) => `Q${k + 1}`) };
      case '74393': {
        const own = `${at + 1}`;
        const inputs = pins({ [`${own}CLK`]: falling(), [`${own}CLR`]: clear ?? '0' });
        return { inputs, outputs: outputs((k) => own + letter(k)) };
      }
      case '7493': {
        // Its first flip-flop is by itself: the second counts it.
        const inputs = pins({ CKA: falling(), CKB: first.output, R01: clear ?? '0', R02: clear ?? '0' });
        return { inputs, outputs: outputs(letter) };
      }
      case '74161': {
        const still = pins({ A: '0', B: '0', C: '0', D: '0', LDn: '1', ENP: '1', ENT: feed });
        return { inputs: [...still, ...pins({ CLK: this.clock(first), CLRn: clearLow() })], outputs: outputs(letter) };
      }
      default:
        return {
          inputs: pins({ A: feed, B: '1', CLK: this.clock(first), CLRn: clearLow() }),
          outputs: outputs(letter),
        };
    }
  }

  private flipFlops(cells: readonly StoredCell[]): void {
    const plan = planFlipFlops(cells, this.netlist, this.by);
    this.idle.push(...plan.idle);
    const single: StoredCell[] = [];
    for (const group of plan.d) {
      let left = group;
      while (left.length >= QUAD_FROM) {
        const home: Home = left.length >= OCTAL_FROM ? { part: '74273', room: 8 } : { part: '74175', room: 4 };
        this.registers(home, left.slice(0, home.room));
        left = left.slice(home.room);
      }
      single.push(...left);
    }
    for (let i = 0; i < single.length; i += 2) this.pair(single.slice(i, i + 2));
    for (const part of new Set(plan.jk.map((use) => use.chip.part))) {
      const own = plan.jk.filter((use) => use.chip.part === part);
      for (let i = 0; i < own.length; i += 2) this.jkPair(own.slice(i, i + 2));
    }
  }

  /** One or two flip-flops in the halves of a JK chip. */
  private jkPair(uses: readonly JkUse[]): void {
    const inputs = uses.flatMap(({ cell, form: { j, k }, chip }, at) => {
      const pin = (name: string): string => `${at + 1}${name}`;
      const { clearn, presetn } = this.forces(cell);
      const kNet = this.term(chip.isKLow ? { ...k, isComplement: !k.isComplement } : k, cell);
      return [
        { pin: pin('J'), net: this.term(j, cell) },
        { pin: pin(chip.isKLow ? 'Kn' : 'K'), net: kNet },
        { pin: pin('CLK'), net: chip.edge === cell.edge ? cell.control : this.not(cell.control, cell) },
        { pin: pin('CLRn'), net: clearn },
        ...(chip.hasPreset ? [{ pin: pin('PREn'), net: presetn }] : []),
      ];
    });
    const outputs = uses.map(({ cell }, at) => ({ pin: `${at + 1}Q`, net: cell.output }));
    this.add(
      elementAt(uses, 0).chip.part,
      uses.map((use) => use.cell),
      inputs,
      outputs,
    );
  }

  /** The net of a term: a gate that there is, or one added for it. */
  private term({ nets, isComplement }: Term, c: StoredCell): string {
    const [first, ...others] = nets;
    if (first === undefined) return isComplement ? '0' : '1';
    if (others.length === 0) return isComplement ? this.not(first, c) : first;
    const kind = isComplement ? 'nand' : 'and';
    const isSame = ({ kind: is, inputs }: Gate): boolean =>
      is === kind && inputs.length === nets.length && nets.every((net) => inputs.includes(net));
    const known = [...this.netlist.gates, ...this.gates].find(isSame);
    return known ? known.output : this.gate(kind, nets, c);
  }

  /** Flip-flops of one clock and clear. */
  private registers({ part, room }: Home, cells: readonly StoredCell[]): void {
    const [first] = cells as readonly [StoredCell, ...StoredCell[]];
    const clear = first.forces[0];
    const inputs = [
      { pin: 'CLK', net: this.clock(first) },
      { pin: 'CLRn', net: clear ? this.not(clear.net, first) : '1' },
      ...Array.from({ length: room }, (_, k) => ({ pin: `${k + 1}D`, net: cells[k]?.data ?? '0' })),
    ];
    this.add(
      part,
      cells,
      inputs,
      cells.map((c, k) => ({ pin: `${k + 1}Q`, net: c.output })),
    );
  }

  /** One or two flip-flops in the halves of a 7474. */
  private pair(cells: readonly StoredCell[]): void {
    const inputs = cells.flatMap((c, k) => {
      const { clearn, presetn } = this.forces(c);
      const pin = (name: string): string => `${k + 1}${name}`;
      return [
        { pin: pin('D'), net: c.data },
        { pin: pin('CLK'), net: this.clock(c) },
        { pin: pin('CLRn'), net: clearn },
        { pin: pin('PREn'), net: presetn },
      ];
    });
    this.add(
      '7474',
      cells,
      inputs,
      cells.map((c, k) => ({ pin: `${k + 1}Q`, net: c.output })),
    );
  }

  private latches(cells: readonly StoredCell[]): void {
    const groups = new Map<string, { cell: StoredCell; data: string; enable: string }[]>();
    for (const cell of cells) {
      const { data, enable } = this.latchInputs(cell);
      groups.set(enable, [...(groups.get(enable) ?? []), { cell, data, enable }]);
    }
    const pairs: { cell: StoredCell; data: string; enable: string }[][] = [];
    for (const group of groups.values()) {
      let left = group;
      while (left.length > 4) {
        const own = left.slice(0, 8);
        left = left.slice(8);
        const data = Array.from({ length: 8 }, (_, k) => ({ pin: `${k + 1}D`, net: own[k]?.data ?? '0' }));
        const enable = own[0]?.enable ?? '0';
        const inputs = [{ pin: 'OEn', net: '0' }, { pin: 'LE', net: enable }, ...data];
        this.add(
          '74373',
          own.map((x) => x.cell),
          inputs,
          own.map((x, k) => ({ pin: `${k + 1}Q`, net: x.cell.output })),
        );
      }
      for (let i = 0; i < left.length; i += 2) pairs.push(left.slice(i, i + 2));
    }
    for (let i = 0; i < pairs.length; i += 2) this.quad(pairs[i] ?? [], pairs[i + 1] ?? []);
  }

  /** Up to two latches on each enable of a 7475. */
  private quad(
    first: readonly { cell: StoredCell; data: string; enable: string }[],
    second: readonly { cell: StoredCell; data: string; enable: string }[],
  ): void {
    const half = (own: typeof first, base: number, enable: string) =>
      own.length === 0
        ? []
        : [
            { pin: enable, net: own[0]?.enable ?? '0' },
            ...[0, 1].map((k) => ({ pin: `${base + k}D`, net: own[k]?.data ?? '0' })),
          ];
    const outputs = (own: typeof first, base: number) =>
      own.map((x, k) => ({ pin: `${base + k}Q`, net: x.cell.output }));
    this.add(
      '7475',
      [...first, ...second].map((x) => x.cell),
      [...half(first, 1, 'C12'), ...half(second, 3, 'C34')],
      [...outputs(first, 1), ...outputs(second, 3)],
    );
  }

  private drivers(wires: readonly WireCell[]): void {
    const all = wires.flatMap((w) => w.drivers.map((d) => ({ ...d, wire: w })));
    const threeState = all.filter((d) => d.enable !== null);
    const open = all.filter((d) => d.enable === null);
    for (let i = 0; i < threeState.length; i += 4) {
      const own = threeState.slice(i, i + 4);
      const inputs = own.flatMap((d, k) => [
        { pin: `${k + 1}A`, net: d.value },
        { pin: `${k + 1}OE`, net: d.enable as string },
      ]);
      this.add(
        '74126',
        own.map((d) => d.wire),
        inputs,
        own.map((d, k) => ({ pin: `${k + 1}Y`, net: d.wire.output })),
      );
    }
    for (let i = 0; i < open.length; i += 6) {
      const own = open.slice(i, i + 6);
      const inputs = own.map((d, k) => ({ pin: `${k + 1}A`, net: this.not(d.value, d.wire) }));
      this.add(
        '7405',
        own.map((d) => d.wire),
        inputs,
        own.map((d, k) => ({ pin: `${k + 1}Y`, net: d.wire.output })),
      );
    }
  }

  private add(
    part: string,
    cells: readonly (StoredCell | WireCell)[],
    inputs: PartCell['inputs'],
    outputs: PartCell['outputs'],
  ): void {
    const names = [...new Set(cells.map((c) => c.output))];
    const shown =
      names.length > 4 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : names.join(' and ');
    let ref = shown;
    for (let n = 2; this.parts.some((p) => p.ref === ref); n++) ref = `${shown} ${n}`;
    this.parts.push({ kind: 'part', ref, part, inputs, outputs, at: elementAt(cells, 0).at });
  }

  private clock(c: StoredCell): string {
    return c.edge === 'fall' ? this.not(c.control, c) : c.control;
  }

  /** The nets for the pins that clear and preset while low: the first force that is high wins. */
  private forces(c: StoredCell): { clearn: string; presetn: string } {
    const { clears, presets } = this.terms(c);
    const low = (terms: readonly string[]): string => {
      if (terms.length === 0) return '1';
      return terms.length === 1 ? this.not(elementAt(terms, 0), c) : this.gate('nor', terms, c);
    };
    return { clearn: low(clears), presetn: low(presets) };
  }

  /** What clears and what presets, each where no earlier force of the other sort is high. */
  private terms({ forces, ...c }: StoredCell): { clears: string[]; presets: string[] } {
    const terms: { 0: string[]; 1: string[] } = { 0: [], 1: [] };
    forces.forEach(({ to, net }, i) => {
      const before = forces.slice(0, i).filter((f) => f.to !== to);
      const others = before.map((f) => this.not(f.net, c));
      terms[to].push(others.length === 0 ? net : this.gate('and', [net, ...others], c));
    });
    return { clears: terms[0], presets: terms[1] };
  }

  /** A latch with forces is one that is open while any of them is high, and then is given what they force. */
  private latchInputs(c: StoredCell): { data: string; enable: string } {
    if (c.forces.length === 0) return { data: c.data, enable: c.control };
    const { clears, presets } = this.terms(c);
    const enable = this.gate('or', [c.control, ...c.forces.map((f) => f.net)], c);
    const locks = clears.length === 0 ? c.data : this.gate('and', [c.data, ...clears.map((n) => this.not(n, c))], c);
    return { data: presets.length === 0 ? locks : this.gate('or', [locks, ...presets], c), enable };
  }

  /** The complement of a net: of a constant the other, of an inverted net the net itself, otherwise an inverter. */
  private not(net: string, c: { readonly output: string; readonly at: Gate['at'] }): string {
    if (net === '0' || net === '1') return net === '0' ? '1' : '0';
    const all = [...this.netlist.gates, ...this.gates];
    const own = all.find((g) => g.kind === 'not' && g.output === net);
    if (own) return elementAt(own.inputs, 0);
    const known = all.find((g) => g.kind === 'not' && g.inputs[0] === net);
    if (known) return known.output;
    // Named as the sheet names a bare complement, where that name is free.
    const plain = `${net}'`;
    return this.gate('not', [net], c, net.endsWith("'") || this.taken.has(plain) ? undefined : plain);
  }

  private gate(
    kind: GateKind,
    inputs: readonly string[],
    { output: cell, at }: { readonly output: string; readonly at: Gate['at'] },
    named?: string,
  ): string {
    let n = 1;
    while (this.taken.has(`${cell}.${kind}${n}`)) n++;
    const output = named ?? `${cell}.${kind}${n}`;
    this.taken.add(output);
    this.gates.push({ output, kind, inputs, says: `${kind}(${inputs.join(', ')})`, at, places: [at] });
    return output;
  }
}

/** A part whose Q' pins give the complements that inverters would make of what it stores; these are noted as given. */
function withComplements(part: PartCell, complements: ReadonlyMap<string, Gate>, given: Set<Gate>): PartCell {
  if (!WITH_COMPLEMENTS.has(part.part)) return part;
  const more = part.outputs.flatMap(({ pin, net }) => {
    const gate = complements.get(net);
    if (!gate) return [];
    given.add(gate);
    return [{ pin: `${pin}n`, net: gate.output }];
  });
  return { ...part, outputs: [...part.outputs, ...more] };
}

/** The gates that a net follows from. */
function coneOf(net: string, makers: ReadonlyMap<string, Gate>): Gate[] {
  const cone = new Set<Gate>();
  const add = (one: string): void => {
    const gate = makers.get(one);
    if (!gate || cone.has(gate)) return;
    cone.add(gate);
    for (const input of gate.inputs) add(input);
  };
  add(net);
  return [...cone];
}
