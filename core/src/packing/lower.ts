import type { Cell, Gate, Netlist, PartCell, StoredCell, WireCell } from '../design';
import { elementAt } from '../element-at';
import type { GateKind } from '../logic';

/**
 * A design with everything that is stored or shared in equations put into parts by number: flip-flops into
 * halves of a 7474 or, from three of one clock and clear on, into a 74175 or 74273; latches into a 7475 or
 * 74373; three-state outputs into a 74126, open-collector ones into a 7405. Gates that their pins need
 * (forces act low, a falling edge is turned round) are added behind the design's own.
 */
export function lowered(netlist: Netlist): Netlist {
  if (netlist.cells.every((c) => c.kind === 'part')) return netlist;
  return new Lowering(netlist).run();
}

/** How many cells a part holds, and its pins for the k-th of them (from 1). */
interface Home {
  readonly part: string;
  readonly room: number;
}

class Lowering {
  private readonly gates: Gate[] = [];
  private readonly parts: PartCell[] = [];
  private readonly taken: Set<string>;

  constructor(private readonly netlist: Netlist) {
    this.taken = new Set([
      ...netlist.inputs,
      ...netlist.gates.map((g) => g.output),
      ...netlist.outputs.map((o) => o.name),
    ]);
  }

  run(): Netlist {
    const { cells } = this.netlist;
    const stored = cells.filter((c): c is StoredCell => c.kind === 'stored');
    const wires = cells.filter((c): c is WireCell => c.kind === 'wire');
    this.flipFlops(stored.filter((c) => c.edge !== 'while'));
    this.latches(stored.filter((c) => c.edge === 'while'));
    this.drivers(wires);
    const parts = cells.filter((c: Cell): c is PartCell => c.kind === 'part');
    return { ...this.netlist, gates: [...this.netlist.gates, ...this.gates], cells: [...parts, ...this.parts] };
  }

  private flipFlops(cells: readonly StoredCell[]): void {
    const groups = new Map<string, StoredCell[]>();
    for (const c of cells) {
      const shared = c.forces.length === 0 || (c.forces.length === 1 && c.forces[0]?.to === 0);
      const key = shared ? `${c.edge} ${c.control} ${c.forces[0]?.net ?? ''}` : `alone ${c.output}`;
      groups.set(key, [...(groups.get(key) ?? []), c]);
    }
    const single: StoredCell[] = [];
    for (const group of groups.values()) {
      let left = group;
      while (left.length >= 3) {
        const home: Home = left.length > 4 ? { part: '74273', room: 8 } : { part: '74175', room: 4 };
        this.registers(home, left.slice(0, home.room));
        left = left.slice(home.room);
      }
      single.push(...left);
    }
    for (let i = 0; i < single.length; i += 2) this.pair(single.slice(i, i + 2));
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
    return known ? known.output : this.gate('not', [net], c);
  }

  private gate(
    kind: GateKind,
    inputs: readonly string[],
    { output: cell, at }: { readonly output: string; readonly at: Gate['at'] },
  ): string {
    let n = 1;
    while (this.taken.has(`${cell}.${kind}${n}`)) n++;
    const output = `${cell}.${kind}${n}`;
    this.taken.add(output);
    this.gates.push({ output, kind, inputs, says: `${kind}(${inputs.join(', ')})`, at, places: [at] });
    return output;
  }
}
