import { elementAt } from '../element-at';
import { atText, type Finding, finding } from '../finding';
import { inputAt, type Network, tableOf, valueAt } from '../logic';
import { fightsOf } from './behaviour';
import type { Netlist } from './netlist';
import type { Declarations } from './sheet';

/** Wires whose outputs hang on more inputs are not gone through, nor are more wires than so many. */
const MOST_INPUTS = 16;
const MOST_WIRES = 100;

/**
 * Wires that three-state outputs drive against each other, each with the first row in which they do. `declared` is written out with its parts expanded and `netlist` made from it. What hangs on
 * something stored is left alone: which states occur is not known here.
 */
export function* checkFights(declared: Declarations, netlist: Netlist): Generator<Finding> {
  if (!netlist.cells.some((c) => c.kind === 'wire' && c.drivers.length > 1)) return;
  const { gates, fights } = fightsOf(declared, netlist);
  const given = new Set(netlist.inputs);
  for (const { wire, net } of fights.slice(0, MOST_WIRES)) {
    const cone = coneOf(net, gates);
    const inputs = netlist.inputs.filter((name) => cone.reads.has(name));
    if (inputs.length > MOST_INPUTS || ![...cone.reads].every((name) => given.has(name))) continue;
    const outputs = [{ name: wire.output, net, floats: null, open: false, dontCare: null }];
    const table = tableOf({ inputs, gates: cone.gates, stored: [], outputs });
    const rows = 2 ** inputs.length;
    let row = 0;
    while (row < rows && valueAt(table, 0, row) === 0) row++;
    if (row === rows) continue;
    const at = inputs.map((name, i) => `${name} = ${inputAt(inputs.length, i, row)}`);
    const where = at.length === 0 ? 'always' : `where ${at.join(', ')}`;
    // Enables that are inputs themselves can be named as what does not happen together.
    const on = inputs.filter(
      (name, i) => wire.drivers.some((d) => d.enable === name) && inputAt(inputs.length, i, row),
    );
    const never = `never ${on.length > 1 ? on.join(' & ') : '…'}`;
    yield finding('sheet/outputs-fight', [atText(wire.at)], { name: wire.output, where, never });
  }
}

/** The gates that a net comes from, in their order, and what they read that no gate makes, constants apart. */
function coneOf(
  net: string,
  gates: Network['gates'],
): { readonly gates: Network['gates']; readonly reads: ReadonlySet<string> } {
  const wanted = new Set([net]);
  const within: Network['gates'][number][] = [];
  for (let i = gates.length - 1; i >= 0; i--) {
    const gate = elementAt(gates, i);
    if (!wanted.delete(gate.output)) continue;
    within.push(gate);
    for (const input of gate.inputs) wanted.add(input);
  }
  for (const level of ['0', '1']) wanted.delete(level);
  return { gates: within.reverse(), reads: wanted };
}
