import { type Netlist, networkOf } from '../design';
import { compile, coneOf, inputAt, MAX_TABLE_INPUTS, rowBit, sweep } from '../logic';

/** A pin to look at, with switch settings that must make it high and low; null where none does. */
export interface Trial {
  readonly pin: string;
  readonly high: string | null;
  readonly low: string | null;
}

/** The most inputs for which trials are worked out; beyond, the card names the pin alone. */
const MAX_INPUTS = 16;

/**
 * Finds the last row that makes a net of the design high and the last that makes it low, written as
 * switch settings `K=1 E=0`; inputs that the net does not depend on are left out of neither, so that
 * the row is one row of the table. Rows in which no output matters are no trial: there a board may do otherwise.
 */
export function trialOf(netlist: Netlist, net: string, pin: string): Trial {
  const { inputs } = netlist;
  if (inputs.length > Math.min(MAX_INPUTS, MAX_TABLE_INPUTS)) return { pin, high: null, low: null };
  const cone = coneOf(netlist.gates, [net]);
  const needed = netlist.gates.filter((gate) => cone.has(gate.output));
  // What comes out of a part used by number is not told by the switches alone.
  const made = new Set(networkOf(netlist).inputs.slice(inputs.length));
  if (made.has(net) || needed.some((g) => g.inputs.some((n) => made.has(n)))) return { pin, high: null, low: null };
  const [column] = sweep(compile({ inputs, gates: needed, outputs: [net] })).columns;
  const rows = 2 ** inputs.length;
  const unused = new Set(netlist.unused?.rows);
  const find = (value: 0 | 1): string | null => {
    for (let row = rows - 1; row >= 0; row--)
      if (!unused.has(row) && column && rowBit(column, row) === value)
        return inputs.map((name, i) => `${name}=${inputAt(inputs.length, i, row)}`).join(' ');
    return null;
  };
  return { pin, high: find(1), low: find(0) };
}
