import { elementAt } from '../element-at';
import { atText, type Finding, finding, type Span } from '../finding';
import { type Connective, complement, type Expr, eachName, type GateKind, type Network, printExpr } from '../logic';
import type { FittedSignals, WantedPulses } from './fitting';
import type { Declarations, Equation, UsedPart } from './sheet';

/** The most gates that are made from one sheet. */
export const MAX_GATES = 20_000;

/**
 * One gate of the design. `output` names the net it drives; `inputs` are nets, `0` and `1` among
 * them for constants. `says` is its expression in textbook notation, `at` its span in the sheet, and
 * `places` the spans of all expressions that come to this gate.
 */
export interface Gate {
  readonly output: string;
  readonly kind: GateKind;
  readonly inputs: readonly string[];
  readonly says: string;
  readonly at: Span;
  readonly places: readonly Span[];
}

/**
 * A flip-flop (`rise`, `fall`) or latch (`while`): `data`, `control` and the nets of its forces, the
 * first of them strongest. It makes the net `output`.
 */
export interface StoredCell {
  readonly kind: 'stored';
  readonly output: string;
  readonly edge: 'rise' | 'fall' | 'while';
  readonly data: string;
  readonly control: string;
  readonly forces: readonly { readonly to: 0 | 1; readonly net: string }[];
  readonly at: Span;
}

/** Outputs that share the net `output`: three-state ones with the net that enables each, or open-collector ones. */
export interface WireCell {
  readonly kind: 'wire';
  readonly output: string;
  readonly drivers: readonly { readonly value: string; readonly enable: string | null }[];
  readonly at: Span;
}

/** A part used by its number: the net at each of its input and output pins. */
export interface PartCell {
  readonly kind: 'part';
  readonly ref: string;
  readonly part: string;
  /** The definition of a part that the sheet defines itself. */
  readonly own?: string;
  readonly inputs: readonly { readonly pin: string; readonly net: string }[];
  readonly outputs: readonly { readonly pin: string; readonly net: string }[];
  readonly at: Span;
}

/** What a design is made of besides gates. */
export type Cell = StoredCell | WireCell | PartCell;

/**
 * The gates of a design in topological order, inputs and the outputs of cells being sources. Nets are
 * named by the sheet where it names them, a bare complement is named `E'`, and the rest are numbered
 * `t1`, `t2` …. Equal gates are made once. `outputs` says which net carries each output: an output
 * may share a net, or be an input or constant. A design of gates alone has no cells.
 */
export interface Netlist {
  readonly inputs: readonly string[];
  readonly outputs: readonly { readonly name: string; readonly net: string }[];
  readonly gates: readonly Gate[];
  readonly cells: readonly Cell[];
  /** What inputs come from and outputs are shown on; it changes nothing of what the design computes. */
  readonly fittings: readonly FittedSignals[];
  /** How long the pulses of used one-shots are to last, by the name of the part on the sheet. */
  readonly pulses: readonly WantedPulses[];
  /** Absent when every row matters to every output, or when there are too many inputs to tell. */
  readonly unused?: Unused;
}

/** Whether a netlist states anything: an empty sheet reads well, and says nothing that a board could agree with. */
export function hasDesign(netlist: Netlist | null): netlist is Netlist {
  return netlist !== null && netlist.outputs.length > 0;
}

/** Rows, by number, in which no output matters; `more` when single outputs have others beside. */
export interface Unused {
  readonly rows: readonly number[];
  readonly more: boolean;
}

/** Makes the gates and cells of checked declarations: every name known, no loops but through storage. */
export function netlistOf(declared: Declarations): { netlist: Netlist; findings: Finding[] } {
  const maker = new NetMaker(declared);
  const outputs = declared.outputs.map(({ name, drivenBy }) => ({ name, net: maker.netOf(drivenBy ?? name) }));
  maker.finish();
  const inputs = declared.inputs.map((s) => s.name);
  const netlist = {
    inputs,
    outputs,
    gates: maker.gates,
    cells: maker.cells,
    fittings: declared.fittings,
    pulses: declared.pulses,
  };
  const findings = maker.overflow ? [finding('sheet/too-large', [atText(maker.overflow)], { limit: MAX_GATES })] : [];
  return { netlist: findings.length > 0 ? { ...netlist, gates: [], outputs: [] } : netlist, findings };
}

/** The netlist as a network that `compile` takes; the outputs of cells count as inputs, after its own. */
export function networkOf(netlist: Netlist): Network {
  const made = netlist.cells.flatMap((c) => (c.kind === 'part' ? c.outputs.map((o) => o.net) : [c.output]));
  // Parts may share a net.
  return {
    inputs: [...new Set([...netlist.inputs, ...made])],
    gates: netlist.gates,
    outputs: netlist.outputs.map((o) => o.net),
  };
}

/** Makes the gates that outputs need, then the cells those read and what they need in turn. */
class NetMaker {
  readonly cells: Cell[] = [];
  private readonly maker: GateMaker;
  private readonly cellsOf = new Map<string, (() => Cell)[]>();

  constructor(declared: Declarations) {
    const plain: Equation[] = [];
    const wires = new Map<string, Equation[]>();
    for (const e of declared.equations) {
      if (e.storage) this.add(e.target.name, () => this.stored(e));
      else if (e.when || e.open) wires.set(e.target.name, [...(wires.get(e.target.name) ?? []), e]);
      else plain.push(e);
    }
    for (const [name, drivers] of wires) this.add(name, () => this.wire(name, drivers));
    for (const part of declared.parts) {
      let made: Cell | null = null;
      for (const { signal } of part.outputs) this.add(signal, () => (made ??= this.part(part)));
    }
    this.maker = new GateMaker([...declared.inputs.map((s) => s.name), ...this.cellsOf.keys()], plain);
  }

  /** Several cells may make one net: parts that share it. Each is made once, when it is first read. */
  private add(name: string, make: () => Cell): void {
    let made: Cell | null = null;
    const cell = (): Cell => {
      made ??= make();
      return made;
    };
    this.cellsOf.set(name, [...(this.cellsOf.get(name) ?? []), cell]);
  }

  get gates(): readonly Gate[] {
    return this.maker.gates;
  }

  get overflow(): Span | null {
    return this.maker.overflow;
  }

  netOf(name: string): string {
    return this.maker.netOf(name);
  }

  /** The net of an expression, whose names all have nets first. */
  private net(e: Expr): string {
    return this.maker.netOfExpr(e);
  }

  /** Makes every cell that something made so far reads, until no more are needed. */
  finish(): void {
    const done = new Set<Cell>();
    for (let read = this.maker.takeSources(); read.length > 0; read = this.maker.takeSources()) {
      for (const source of read) {
        for (const make of this.cellsOf.get(source) ?? []) {
          const cell = make();
          if (done.has(cell)) continue;
          done.add(cell);
          this.cells.push(cell);
        }
      }
    }
  }

  private stored(e: Equation): Cell {
    const { storage, target, forces = [] } = e;
    if (!storage) throw new Error(`${target.name} is not stored`);
    return {
      kind: 'stored',
      output: target.name,
      edge: storage.kind,
      data: this.net(e.expr),
      control: this.net(storage.kind === 'while' ? storage.enable : storage.clock),
      forces: forces.map((f) => ({ to: f.to, net: this.net(f.when) })),
      at: target.at ?? { from: 0, to: 0 },
    };
  }

  private wire(output: string, drivers: readonly Equation[]): Cell {
    return {
      kind: 'wire',
      output,
      drivers: drivers.map((d) => ({ value: this.net(d.expr), enable: d.when ? this.net(d.when) : null })),
      at: drivers[0]?.target.at ?? { from: 0, to: 0 },
    };
  }

  private part({ inputs, outputs, ...rest }: UsedPart): Cell {
    return {
      kind: 'part',
      ...rest,
      inputs: inputs.map(({ pin, expr }) => ({ pin, net: this.net(expr) })),
      outputs: outputs.map(({ pin, signal }) => ({ pin, net: signal })),
    };
  }
}

class GateMaker {
  readonly gates: Gate[] = [];
  overflow: Span | null = null;
  private readonly nets = new Map<string, string>();
  private readonly byShape = new Map<string, { output: string; places: Span[] }>();
  private readonly equations: ReadonlyMap<string, Expr>;
  private readonly taken: Set<string>;
  private numbered = 0;

  private sources: string[] = [];

  constructor(sources: readonly string[], equations: readonly Equation[]) {
    this.equations = new Map(equations.map((e) => [e.target.name, e.expr]));
    this.taken = new Set([...sources, ...this.equations.keys()]);
    for (const name of sources) this.nets.set(name, name);
  }

  /** Sources read since this was last asked. */
  takeSources(): readonly string[] {
    const read = this.sources;
    this.sources = [];
    return read;
  }

  /** The net of an expression; the gates of the names it reads are made first. */
  netOfExpr(e: Expr): string {
    for (const missing of this.missingFor(e)) this.netOf(missing);
    return this.make(e);
  }

  /** The net that carries a named signal; its gates, and those it needs, are made first. */
  netOf(name: string): string {
    const todo = [name];
    while (todo.length > 0) {
      const next = elementAt(todo, todo.length - 1);
      const expr = this.equations.get(next);
      const missing = expr && !this.nets.has(next) ? this.missingFor(expr) : [];
      if (missing.length > 0) {
        todo.push(...missing);
        continue;
      }
      todo.pop();
      if (expr && !this.nets.has(next)) this.nets.set(next, this.make(expr, next));
    }
    return this.read(name);
  }

  /** The net of a name that has one; a source is noted as read. */
  private read(name: string): string {
    const net = this.nets.get(name) as string;
    if (!this.equations.has(name)) this.sources.push(name);
    return net;
  }

  /** Signals that an expression reads and that have no net yet, the last first. */
  private missingFor(expr: Expr): string[] {
    const missing: string[] = [];
    eachName(expr, (name) => {
      if (!this.nets.has(name) && !missing.includes(name)) missing.push(name);
    });
    return missing.reverse();
  }

  private make(e: Expr, name?: string): string {
    if (e.kind === 'const') return String(e.value);
    if (e.kind === 'name') return this.read(e.name);
    if (e.kind === 'gate') return this.gate(e.gate, e.of, e, name);
    if (e.of.kind === 'not') return this.make(e.of.of, name);
    if (e.of.kind === 'gate') return this.gate(complement[e.of.gate], e.of.of, e, name);
    return this.gate('not', [e.of], e, name);
  }

  private gate(kind: Connective | 'not', of: readonly Expr[], e: Expr, name?: string): string {
    const inputs = of.map((x) => this.make(x));
    const shape = `${kind} ${[...inputs].sort().join(' ')}`;
    const made = this.byShape.get(shape);
    const at = e.at ?? { from: 0, to: 0 };
    if (made) {
      made.places.push(at);
      return made.output;
    }
    const places = [at];
    if (this.gates.length >= MAX_GATES) this.overflow ??= at;
    const output = name ?? this.nameFor(kind, inputs);
    this.taken.add(output);
    this.gates.push({ output, kind, inputs, says: printExpr(e, 'textbook'), at, places });
    this.byShape.set(shape, { output, places });
    return output;
  }

  private nameFor(kind: GateKind, inputs: readonly string[]): string {
    const primed = `${inputs[0]}'`;
    if (kind === 'not' && !this.taken.has(primed)) return primed;
    let name: string;
    do name = `t${++this.numbered}`;
    while (this.taken.has(name));
    return name;
  }
}
