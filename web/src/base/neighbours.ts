import {
  type Board,
  drivenBy,
  holeXY,
  isRail,
  type Nets,
  type Packing,
  pinOf,
  stripNamed,
  typeOf,
} from '@saddlebag/core';
import type { Neighbours } from './palette';

/** A board with its nets and their names. */
interface Named {
  readonly board: Board;
  readonly nets: Nets;
  readonly names: ReadonlyMap<number, string>;
}

/** What it matters when two signals look the same: on strips side by side, near each other, on one chip. */
const WEIGHT = { strips: 100, chip: 1 } as const;
/** Strips that are seen together, in columns. */
const NEAR = 3;

/** Counts how much it matters that two signals look different. */
class Meetings {
  readonly found = new Map<string, Map<string, number>>();

  /** All of some signals are seen together; ground and supply have colours of their own. */
  all(signals: Iterable<string>, weight: number): void {
    const list = [...new Set(signals)].filter((s) => s !== '0' && s !== '1');
    for (const [i, a] of list.entries())
      for (const b of list.slice(i + 1)) {
        this.add(a, b, weight);
        this.add(b, a, weight);
      }
  }

  private add(one: string, other: string, weight: number): void {
    const of = this.found.get(one) ?? new Map<string, number>();
    of.set(other, (of.get(other) ?? 0) + weight);
    this.found.set(one, of);
  }
}

/** Which signals are seen beside each other: on the pins of one chip, in the packing and on the board, and on strips within three columns. */
export function neighboursOf(packing: Packing | null, read: Named): Neighbours {
  const meetings = new Meetings();
  for (const { units } of packing?.packages ?? [])
    meetings.all(
      units.flatMap((use) => (use ? [...use.inputs, ...drivenBy(use)] : [])),
      WEIGHT.chip,
    );
  const { board, nets, names } = read;
  const signalAt = (pin: string): string[] => {
    const name = names.get(nets.ofPin.get(pin) ?? -1);
    return name === undefined ? [] : [name];
  };
  for (const part of Object.values(board.parts)) {
    const type = typeOf(part);
    if (type?.kind !== 'chip') continue;
    meetings.all(
      type.pins.flatMap((p) => signalAt(pinOf(part.ref, p.id))),
      WEIGHT.chip,
    );
  }
  for (const row of stripRows(read))
    for (const [i, a] of row.entries())
      for (const b of row.slice(i + 1)) {
        if (b.x - a.x > NEAR) break;
        meetings.all([a.name, b.name], WEIGHT.strips);
      }
  return meetings.found;
}

/** The named strips in rows from left to right: those of one half of one board lie side by side. */
function stripRows({ nets, names }: Named): { readonly x: number; readonly name: string }[][] {
  const rows = new Map<string, { x: number; name: string }[]>();
  for (const [strip, net] of nets.ofStrip) {
    const name = names.get(net);
    const hole = stripNamed(strip);
    if (name === undefined || !hole || isRail(hole.row)) continue;
    const key = `${hole.board} ${hole.row}`;
    const row = rows.get(key) ?? [];
    row.push({ x: holeXY(hole).x, name });
    rows.set(key, row);
  }
  return [...rows.values()].map((row) => row.sort((a, b) => a.x - b.x));
}
