import type { Behaviour, Expr, MachineOutput, Network } from '../logic';
import { chain } from '../logic';
import { type Netlist, networkOf, type WireCell } from './netlist';
import type { Declarations, Equation } from './sheet';

/**
 * What a design does. `declared` is written out with its parts expanded and `netlist` made from it;
 * the gates that tell where an output floats or does not matter are added to the netlist's own.
 */
export function behaviourOf(declared: Declarations, netlist: Netlist): Behaviour {
  const { gates, wires, adder } = gatesOf(declared, netlist);
  const floats = new Map(wires.map((w) => [w.output, adder.floating(w)]));
  const outputs = netlist.outputs.map(
    ({ name, net }): MachineOutput => ({
      name,
      net,
      floats: floats.get(net) ?? null,
      open: wires.some((w) => w.output === net && w.drivers[0]?.enable === null),
      dontCare: adder.dontCare(name),
    }),
  );
  const stored = netlist.cells.flatMap((c) =>
    c.kind === 'stored' ? [{ name: c.output, data: c.data, edge: c.edge, control: c.control, forces: c.forces }] : [],
  );
  return { inputs: netlist.inputs, gates, stored, outputs };
}

/** A wire that three-state outputs share, with the net that is high where one of them drives it high and another low. */
export interface WireFight {
  readonly wire: WireCell;
  readonly net: string;
}

/** Of the wires of a design those that several three-state outputs share, with the gates that tell where these fight; rows that never occur do not count. */
export function fightsOf(
  declared: Declarations,
  netlist: Netlist,
): { readonly gates: Network['gates']; readonly fights: readonly WireFight[] } {
  const { gates, wires, adder } = gatesOf(declared, netlist);
  const shared = wires.filter((w) => w.drivers.length > 1 && w.drivers.every((d) => d.enable !== null));
  return { gates, fights: shared.map((wire) => ({ wire, net: adder.fighting(wire) })) };
}

/** The gates of a design with the wires between them, and what adds more to them. */
function gatesOf(
  declared: Declarations,
  netlist: Netlist,
): { readonly gates: Network['gates'][number][]; readonly wires: readonly WireCell[]; readonly adder: GateAdder } {
  const gates: Network['gates'][number][] = [];
  const wires = netlist.cells.filter((c): c is WireCell => c.kind === 'wire');
  const ready = new Set(['0', '1', ...networkOf(netlist).inputs]);
  for (const { output } of wires) ready.delete(output);
  const waiting = [...wireGates(wires), ...netlist.gates];
  // Wires stand among the gates wherever what drives them is made.
  for (let rest: Network['gates'][number][] = waiting; rest.length > 0; ) {
    const later: Network['gates'][number][] = [];
    for (const gate of rest) {
      if (!gate.inputs.every((net) => ready.has(net))) later.push(gate);
      else {
        gates.push({ output: gate.output, kind: gate.kind, inputs: gate.inputs });
        ready.add(gate.output);
      }
    }
    if (later.length === rest.length) throw new Error('the wires of the design form a loop');
    rest = later;
  }
  return { gates, wires, adder: new GateAdder(gates, ready, declared) };
}

/** The resolving gate of each shared wire: open-collector outputs meet in an AND. */
function wireGates(wires: readonly WireCell[]): Network['gates'][number][] {
  return wires.map(({ output, drivers }) =>
    drivers[0]?.enable === null
      ? { output, kind: 'and', inputs: drivers.map((d) => d.value) }
      : { output, kind: 'wire', inputs: drivers.flatMap((d) => [d.value, d.enable ?? '1']) },
  );
}

/** Adds gates for expressions that the netlist itself does not need. */
class GateAdder {
  private readonly never: Expr | null;
  private readonly dontCares = new Map<string, Expr>();
  private readonly plain = new Map<string, Equation>();
  private readonly made = new Map<string, string>();
  private count = 0;

  constructor(
    private readonly gates: Network['gates'][number][],
    private readonly ready: Set<string>,
    declared: Declarations,
  ) {
    this.never = declared.never.length > 0 ? chain('or', declared.never) : null;
    for (const e of declared.equations) {
      if (e.dontCare) this.dontCares.set(e.target.name, e.dontCare);
      if (!e.storage && !e.when && !e.open) this.plain.set(e.target.name, e);
    }
  }

  /** The net that is high while none of a wire's three-state outputs drives it; null for open-collector ones. */
  floating({ drivers }: WireCell): string | null {
    const enables = drivers.flatMap((d) => d.enable ?? []);
    if (enables.length < drivers.length) return null;
    return this.gate(enables.length === 1 ? 'not' : 'nor', enables);
  }

  /** The net that is high where one of a wire's three-state outputs drives it high and another low. */
  fighting({ drivers }: WireCell): string {
    const driven = (to: 0 | 1): string =>
      this.gate(
        'or',
        drivers.map(({ value, enable }) =>
          this.gate('and', [enable ?? '1', to === 1 ? value : this.gate('not', [value])]),
        ),
      );
    const both = [driven(1), driven(0)];
    return this.gate('and', this.never ? [...both, this.gate('not', [this.net(this.never)])] : both);
  }

  /** The net that is high where a signal's value does not matter; null where it always does. */
  dontCare(name: string): string | null {
    const parts = [this.dontCares.get(name), this.never].filter((e): e is Expr => !!e);
    return parts.length > 0 ? this.net(chain('or', parts)) : null;
  }

  private net(e: Expr): string {
    if (e.kind === 'const') return String(e.value);
    if (e.kind === 'name') return this.named(e.name);
    if (e.kind === 'not') return this.gate('not', [this.net(e.of)]);
    return this.gate(
      e.gate,
      e.of.map((x) => this.net(x)),
    );
  }

  /** The net of a signal, which may have no gate yet when nothing else needs it. */
  private named(name: string): string {
    const equation = this.plain.get(name);
    if (!equation || this.ready.has(name)) return name;
    let net = this.made.get(name);
    if (net === undefined) {
      net = this.net(equation.expr);
      this.made.set(name, net);
    }
    return net;
  }

  private gate(kind: Network['gates'][number]['kind'], inputs: readonly string[]): string {
    const output = `dc.${++this.count}`;
    this.gates.push({ output, kind, inputs });
    this.ready.add(output);
    return output;
  }
}
