import type { BoardVolts, PinReader, Watch } from '../electrical';
import type { InputPins } from './input-pins';
import type { TimedIsland } from './live-islands';

/** Where others depend on the volts of a moving node they are asked again whenever it has moved by so much. */
const WATCH_V = 0.005;

/** The volts at which islands that move have to be looked at again: where inputs turn over, and in steps where others depend on them or somebody follows them. */
export class IslandWatches {
  /** For islands that nothing else depends on, the levels that are watched, where they never change. */
  private readonly lasting: (readonly Watch[] | undefined)[] = [];
  /** Nodes that are followed for their own sake, by island, and in which steps. */
  private readonly followed = new Map<number, readonly { readonly node: number; readonly stepV: number }[]>();

  constructor(
    private readonly board: BoardVolts,
    private readonly inputs: InputPins,
  ) {}

  /** Has a node of an island that moves followed, in steps of so many volts. */
  follow(i: number, node: number, stepV: number): void {
    this.followed.set(i, [...(this.followed.get(i) ?? []), { node, stepV }]);
  }

  /** The levels at which an island has to be looked at again, as it stands. */
  of(i: number, timed: TimedIsland): readonly Watch[] {
    const { inputs } = this;
    const reference = inputs.reference[i] as ReadonlySet<number>;
    const followed = this.followed.get(i) ?? [];
    const isLasting = reference.size === 0 && followed.length === 0;
    const before = isLasting ? this.lasting[i] : undefined;
    if (before) return before;
    const { rowOf } = this.board;
    const on = inputs.on[i] as readonly number[];
    const watches = on.flatMap((r): Watch[] => {
      const row = rowOf[(inputs.readers[r] as PinReader).net ?? -1] as number;
      const [low, high] = inputs.turningV(r);
      return high === low
        ? [{ row, volts: low }]
        : [
            { row, volts: low },
            { row, volts: high },
          ];
    });
    const around = (node: number, byV: number): void => {
      const row = rowOf[node] as number;
      const [least] = timed.nodeV(row);
      watches.push({ row, volts: least + byV }, { row, volts: least - byV });
    };
    for (const node of reference) around(node, WATCH_V);
    for (const { node, stepV } of followed) around(node, stepV);
    if (isLasting && on.every((r) => inputs.isSteady(r))) this.lasting[i] = watches;
    return watches;
  }
}
