import { type Board, drivenBy, holeXY, type Nets, type Packing, parseHole, pinOf, typeOf } from '@saddlebag/core';
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

/** Which signals are seen beside each other: on the pins of one chip, in the packing and on the board, and on strips within three columns. */
export function neighboursOf(packing: Packing | null, { board, nets, names }: Named): Neighbours {
  const found = new Map<string, Map<string, number>>();
  const meet = (a: string, b: string, weight: number): void => {
    if (a === b) return;
    for (const [one, other] of [
      [a, b],
      [b, a],
    ] as const) {
      const of = found.get(one) ?? new Map<string, number>();
      of.set(other, (of.get(other) ?? 0) + weight);
      found.set(one, of);
    }
  };
  const all = (signals: Iterable<string>, weight: number): void => {
    const list = [...new Set(signals)].filter((s) => s !== '0' && s !== '1');
    for (const [i, a] of list.entries()) for (const b of list.slice(i + 1)) meet(a, b, weight);
  };
  for (const { units } of packing?.packages ?? [])
    all(
      units.flatMap((use) => (use ? [...use.inputs, ...drivenBy(use)] : [])),
      WEIGHT.chip,
    );
  const signalAt = (pin: string): string[] => {
    const name = names.get(nets.ofPin.get(pin) ?? -1);
    return name === undefined ? [] : [name];
  };
  for (const part of Object.values(board.parts)) {
    const type = typeOf(part);
    if (type?.kind === 'chip')
      all(
        type.pins.flatMap((p) => signalAt(pinOf(part.ref, p.id))),
        WEIGHT.chip,
      );
  }
  // Strips by row of strips: those of one half of one board lie side by side.
  const rows = new Map<string, { x: number; name: string }[]>();
  for (const [strip, net] of nets.ofStrip) {
    const name = names.get(net);
    const m = /^(\w+)\.(\d+)([ef])$/.exec(strip);
    const hole = m && parseHole(`${m[1]}.${m[3]}${m[2]}`);
    if (name === undefined || !hole) continue;
    const row = `${m?.[1]} ${m?.[3]}`;
    rows.set(row, [...(rows.get(row) ?? []), { x: holeXY(hole).x, name }]);
  }
  for (const row of rows.values()) {
    row.sort((a, b) => a.x - b.x);
    for (const [i, a] of row.entries())
      for (let k = i + 1; k < row.length && (row[k] as { x: number }).x - a.x <= NEAR; k++)
        all([a.name, (row[k] as { name: string }).name], WEIGHT.strips);
  }
  return found;
}
