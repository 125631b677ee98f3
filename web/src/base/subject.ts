import { type Board, hasDesign, type Netlist, type Nets, storingChips, subjectOf } from '@saddlebag/core';
import type { BenchSubject } from './bench';

/** What the table at Power up is about: the design's inputs and outputs, or, where there is no design, what the board has. */
export interface PowerSubject extends BenchSubject {
  /** Whether a design says what the outputs should be. */
  readonly wanted: boolean;
}

/** Works out what the table is about; `stores` says whether the design does. */
export function tableSubject(
  netlist: Netlist | null,
  stores: boolean,
  { board, nets }: { readonly board: Board; readonly nets: Nets },
): PowerSubject {
  if (hasDesign(netlist)) {
    const key = JSON.stringify([netlist.inputs, netlist.outputs]);
    return { key, inputs: netlist.inputs, outputs: netlist.outputs.map((o) => o.name), stores, wanted: true };
  }
  const seen = subjectOf(board, nets);
  return { key: JSON.stringify(seen), ...seen, stores: storingChips(board).length > 0, wanted: false };
}
