import { elementAt } from '../element-at';
import { type Behaviour, compile, type Rows, sweep } from '../logic';
import type { Unused } from './netlist';

/** Designs of more inputs are not looked through for rows that do not matter. */
const MAX_INPUTS = 12;

/** The rows that matter to no output; null when nothing is said to be free, or something is stored or has over 12 inputs. */
export function unusedIn({ inputs, gates, outputs, stored }: Behaviour): Unused | null {
  if (stored.length > 0 || inputs.length > MAX_INPUTS || outputs.every((o) => o.dontCare === null)) return null;
  const { columns, rows } = sweep(compile({ inputs, gates, outputs: outputs.map((o) => o.dontCare ?? '0') }));
  const isFree = (column: Rows, row: number): boolean => (elementAt(column, row >>> 5) >>> (row & 31)) % 2 !== 0;
  const common: number[] = [];
  let more = false;
  for (let row = 0; row < rows; row++) {
    const free = columns.filter((c) => isFree(c as Rows, row)).length;
    if (free === columns.length) common.push(row);
    else if (free > 0) more = true;
  }
  return { rows: common, more };
}
