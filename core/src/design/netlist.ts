import { atText, type Finding, finding, type Span } from '../finding';
import { type Connective, complement, type Expr, type GateKind, type Network, printExpr } from '../logic';
import type { Declarations } from './sheet';

/** The most gates that are made from one sheet. */
export const MAX_GATES = 20_000;

/**
 * One gate of the design. `output` names the net it drives; `inputs` are nets, `0` and `1` among
 * them for constants. `says` is its expression in textbook notation, `at` its span in the sheet.
 */
export interface Gate {
  readonly output: string;
  readonly kind: GateKind;
  readonly inputs: readonly string[];
  readonly says: string;
  readonly at: Span;
}

/**
 * The gates of a design in topological order. Nets are named by the sheet where it names them, a
 * bare complement is named `E'`, and the rest are numbered `t1`, `t2` …. Equal gates are made once.
 * `outputs` says which net carries each output: an output may share a net, or be an input or constant.
 */
export interface Netlist {
  readonly inputs: readonly string[];
  readonly outputs: readonly { readonly name: string; readonly net: string }[];
  readonly gates: readonly Gate[];
}

/** Makes the gates of checked declarations: every name known, no loops. */
export function netlistOf(declared: Declarations): { netlist: Netlist; findings: Finding[] } {
  const maker = new GateMaker(declared);
  const outputs: { name: string; net: string }[] = [];
  for (const { name } of declared.outputs) outputs.push({ name, net: maker.netOf(name) });
  const netlist = { inputs: declared.inputs.map((s) => s.name), outputs, gates: maker.gates };
  const findings = maker.overflow ? [finding('sheet/too-large', [atText(maker.overflow)], { limit: MAX_GATES })] : [];
  return { netlist: findings.length > 0 ? { ...netlist, gates: [], outputs: [] } : netlist, findings };
}

/** The netlist as a network that `compile` takes. */
export function networkOf(netlist: Netlist): Network {
  return { inputs: netlist.inputs, gates: netlist.gates, outputs: netlist.outputs.map((o) => o.net) };
}

class GateMaker {
  readonly gates: Gate[] = [];
  overflow: Span | null = null;
  private readonly nets = new Map<string, string>();
  private readonly byShape = new Map<string, string>();
  private readonly equations: ReadonlyMap<string, Expr>;
  private readonly taken: Set<string>;
  private numbered = 0;

  constructor(declared: Declarations) {
    this.equations = new Map(declared.equations.map((e) => [e.target.name, e.expr]));
    this.taken = new Set([...declared.inputs.map((s) => s.name), ...this.equations.keys()]);
    for (const { name } of declared.inputs) this.nets.set(name, name);
  }

  /** The net that carries a named signal; its gates, and those it needs, are made first. */
  netOf(name: string): string {
    const todo = [name];
    while (todo.length > 0) {
      const next = todo[todo.length - 1] as string;
      const expr = this.equations.get(next);
      const missing = expr && !this.nets.has(next) ? this.missingFor(expr) : [];
      if (missing.length > 0) {
        todo.push(...missing);
        continue;
      }
      todo.pop();
      if (expr && !this.nets.has(next)) this.nets.set(next, this.make(expr, next));
    }
    return this.nets.get(name) as string;
  }

  private missingFor(expr: Expr): string[] {
    if (expr.kind === 'name') return this.nets.has(expr.name) ? [] : [expr.name];
    if (expr.kind === 'not') return this.missingFor(expr.of);
    return expr.kind === 'gate' ? expr.of.flatMap((e) => this.missingFor(e)).reverse() : [];
  }

  private make(e: Expr, name?: string): string {
    if (e.kind === 'const') return String(e.value);
    if (e.kind === 'name') return this.nets.get(e.name) as string;
    if (e.kind === 'gate') return this.gate(e.gate, e.of, e, name);
    if (e.of.kind === 'not') return this.make(e.of.of, name);
    if (e.of.kind === 'gate') return this.gate(complement[e.of.gate], e.of.of, e, name);
    return this.gate('not', [e.of], e, name);
  }

  private gate(kind: Connective | 'not', of: readonly Expr[], e: Expr, name?: string): string {
    const inputs = of.map((x) => this.make(x));
    const shape = `${kind} ${[...inputs].sort().join(' ')}`;
    const made = this.byShape.get(shape);
    if (made !== undefined) return made;
    const at = e.at ?? { from: 0, to: 0 };
    if (this.gates.length >= MAX_GATES) this.overflow ??= at;
    const output = name ?? this.nameFor(kind, inputs);
    this.taken.add(output);
    this.gates.push({ output, kind, inputs, says: printExpr(e, 'textbook'), at });
    this.byShape.set(shape, output);
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
