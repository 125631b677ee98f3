import { typeOf, type Unit } from '../catalogue';
import type { Netlist, StoredCell } from '../design';
import { elementAt } from '../element-at';
import { drivenBy, type Packing, type UnitUse } from './packing';
import { gatesOfUnit, netsRead, type PlainGate } from './unit-gates';

/** Two nets that must be equal in every row that matters, the design's and the packing's, and what they are, in words. */
export interface End {
  readonly what: string;
  readonly wanted: string;
  readonly made: string | undefined;
}

/** A stored signal as it stands on one side: its nets there, and what names the gates added for it. */
interface Side extends Pick<StoredCell, 'edge' | 'data' | 'control' | 'forces'> {
  readonly prefix: string;
}

/** What compares the flip-flops and latches of a design with those of a packing: gates added on each side, and the ends to be equal. */
export interface StoredEnds {
  readonly ofDesign: readonly PlainGate[];
  readonly ofPacking: readonly PlainGate[];
  readonly ends: readonly End[];
}

/**
 * The gates inside a unit that stores signals of `stored`, these being sources; what it makes beside them (Q') is an output of these gates. Gates that
 * depend on what the unit stores for nobody are left out.
 */
export function gatesBesideStored(unit: Unit, use: UnitUse, prefix: string, stored: ReadonlySet<string>): PlainGate[] {
  const { behaviour } = unit;
  const own = behaviour.stored.map(({ name }) => storedNet(unit, use, name) ?? prefix + name);
  const inputs = [...behaviour.inputs, ...behaviour.stored.map((s) => s.name)];
  const all = gatesOfUnit(
    { ...unit, behaviour: { ...behaviour, inputs } },
    [...netsRead(unit, use), ...own],
    drivenBy(use),
    prefix,
  );
  const idle = new Set(own.filter((net) => !stored.has(net)));
  return all.filter((gate) => {
    if (own.includes(gate.output)) return false;
    if (!gate.inputs.some((net) => idle.has(net))) return true;
    idle.add(gate.output);
    return false;
  });
}

/** The net that a stored signal of a unit is on, by the output that gives it plainly. */
function storedNet(unit: Unit, use: UnitUse, name: string): string | undefined {
  const at = unit.behaviour.outputs.findIndex((o) => o.net === name);
  return at < 0 ? undefined : drivenBy(use)[at];
}

/**
 * What each stored signal of a design and the unit of a packing that makes its net must agree in: the edge or the level of the clock, what clears and
 * presets, and where neither does the value that is taken. Whatever form the flip-flop has: of a JK one the value is J Q' + K' Q.
 */
export function storedEnds({ cells }: Netlist, { packages }: Packing): StoredEnds | string {
  const made = new Map<string, Side>();
  for (const { ref, units, ...named } of packages)
    for (const [u, use] of units.entries()) {
      const unit = typeOf(named)?.units[u];
      if (!use || !unit) continue;
      const prefix = `${ref}.${unit.name}/`;
      const read = netsRead(unit, use);
      const nets = new Map(unit.behaviour.inputs.map((name, i): [string, string] => [name, elementAt(read, i)]));
      const of = (net: string): string => (net === '0' || net === '1' ? net : (nets.get(net) ?? prefix + net));
      for (const { name } of unit.behaviour.stored) nets.set(name, storedNet(unit, use, name) ?? prefix + name);
      for (const { name, edge, data, control, forces } of unit.behaviour.stored) {
        const own = {
          edge,
          data: of(data),
          control: of(control),
          forces: forces.map((f) => ({ ...f, net: of(f.net) })),
        };
        made.set(of(name), { ...own, prefix: `${prefix}${name}/` });
      }
    }
  const [ofDesign, ofPacking, ends]: [PlainGate[], PlainGate[], End[]] = [[], [], []];
  for (const cell of cells) {
    if (cell.kind !== 'stored') continue;
    const side = made.get(cell.output);
    if (!side) return `${cell.output} is stored nowhere`;
    if ((side.edge === 'while') !== (cell.edge === 'while')) return `${cell.output} is stored in another way`;
    const [wanted, is] = [statesOf(cell.output, { ...cell, prefix: '' }), statesOf(cell.output, side)];
    ofDesign.push(...wanted.gates);
    ofPacking.push(...is.gates);
    for (const [k, what] of wanted.what.entries())
      ends.push({ what: `${what} of ${cell.output}`, wanted: elementAt(wanted.nets, k), made: is.nets[k] });
  }
  return { ofDesign, ofPacking, ends };
}

/** The nets by which two stored signals are compared, each a function of their sources, and the gates that make them. */
function statesOf(q: string, { edge, data, control, forces, prefix }: Side) {
  const gates: PlainGate[] = [];
  const gate = (name: string, kind: PlainGate['kind'], inputs: readonly string[]): string => {
    const output = `${prefix}${q}/${name}`;
    gates.push({ output, kind, inputs });
    return output;
  };
  const forced = (to: 0 | 1): string => {
    const terms = forces.flatMap((force, i) => {
      if (force.to !== to) return [];
      const before = forces.slice(0, i).filter((other) => other.to !== to);
      const others = before.map((other, k) => gate(`before ${i} ${k}`, 'not', [other.net]));
      return [gate(`force ${i}`, 'and', [force.net, ...others, '1'])];
    });
    return gate(`to ${to}`, 'or', [...terms, '0']);
  };
  const [clear, preset] = [forced(0), forced(1)];
  const free = gate('free', 'nor', [clear, preset]);
  const taken = (value: string): string => gate('taken', 'and', [value, free]);
  if (edge !== 'while') {
    // Both as a rising edge.
    const clock = edge === 'rise' ? control : gate('clock', 'not', [control]);
    const what = ['the clock', 'the clear', 'the preset', 'the data'] as const;
    return { gates, nets: [clock, clear, preset, taken(data)], what };
  }
  const closed = gate('closed', 'not', [control]);
  const follows = gate('follows', 'or', [gate('open', 'and', [control, data]), gate('holds', 'and', [closed, q])]);
  return { gates, nets: [gate('next', 'or', [taken(follows), preset])], what: ['the next value'] as const };
}
