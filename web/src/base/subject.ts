import {
  type Behaviour,
  type Board,
  hasDesign,
  type Netlist,
  type Nets,
  storingChips,
  subjectOf,
  type WatchedSheet,
} from '@saddlebag/core';
import type { BenchSubject } from './bench';

/** What the table at Power up is about: the design's inputs and outputs, or, where there is no design, what the board has. */
export interface PowerSubject extends BenchSubject {
  /** Whether a design says what the outputs should be. */
  readonly wanted: boolean;
}

/** A board with its nets and the names of their signals. */
interface NamedBoard {
  readonly board: Board;
  readonly nets: Nets;
  readonly names: ReadonlyMap<number, string>;
}

/** Works out what the table is about, and what the board is held to. */
export function tableSubject(
  netlist: Netlist | null,
  behaviour: Behaviour | null,
  { board, nets, names }: NamedBoard,
): PowerSubject {
  if (hasDesign(netlist)) {
    const key = JSON.stringify([netlist.inputs, netlist.outputs]);
    const stores = (behaviour?.stored.length ?? 0) > 0;
    const sheet = behaviour && { behaviour, pins: gatePins(behaviour, { nets, names }) };
    return { key, inputs: netlist.inputs, outputs: netlist.outputs.map((o) => o.name), stores, wanted: true, sheet };
  }
  const seen = subjectOf(board, nets);
  return { key: JSON.stringify(seen), ...seen, stores: storingChips(board).length > 0, wanted: false, sheet: null };
}

/** The pin at which each signal that a gate makes, or that is stored, is to be found on a board. */
function gatePins({ stored, gates }: Behaviour, { nets, names }: Omit<NamedBoard, 'board'>): WatchedSheet['pins'] {
  const netOf = new Map([...names].map(([net, signal]) => [signal, net]));
  return [...stored.map((s) => s.name), ...gates.map((g) => g.output)].flatMap((signal) => {
    const pins = nets.nets[netOf.get(signal) ?? -1]?.pins ?? [];
    const pin = pins.find((p) => nets.leads.get(p)?.type.role === 'output');
    return pin === undefined ? [] : [{ signal, pin }];
  });
}
