import {
  againstShortest,
  type Board,
  type Edit,
  type Finding,
  hasFixed,
  layoutBoardKindOf,
  type Packing,
} from '@saddlebag/core';
import { useRef, useState } from 'react';
import { useJobView } from '../base/job-context';
import { fixed } from '../base/numbers';
import { remedy, says } from '../base/words';
import { callback, runLong, stages } from '../workers/stages';
import { tell } from './notices';

/** Laying out in the worker: how far it is, and what can be begun or stopped. */
export interface LayingOut {
  /** The share that is done; null while nothing is laid out. */
  readonly share: number | null;
  /** Lays the packing out on fresh boards. */
  readonly afresh: () => void;
  /** Brings the board up to the packing and keeps what it can. */
  readonly update: () => void;
  readonly stop: () => void;
}

/** The wires of a board in words: how many and how long, against the shortest possible, and their crossings. */
async function wiresOf(board: Board): Promise<string> {
  const { crossings, ...length } = await stages().measure(board);
  const many = (count: number, noun: string): string => `${count} ${noun}${count === 1 ? '' : 's'}`;
  const metres = (length.laid * 2.54) / 1000;
  const wires = many(Object.keys(board.jumpers).length, 'wire');
  return `${wires}, ${fixed(metres, 2)} m in all, ${againstShortest(length)}; ${many(crossings, 'crossing')}.`;
}

interface Made {
  readonly edit: Edit | null;
  readonly says: string | null;
}

/** Work that lays out: one at a time, what comes of it is one edit, and it can be stopped. */
function useWork(onLaid: (() => void) | undefined) {
  const { session } = useJobView();
  const [share, setShare] = useState<number | null>(null);
  const working = useRef<AbortController | null>(null);
  const take = async ({ edit, says: text }: Made, signal: AbortSignal): Promise<void> => {
    const laid = edit && !signal.aborted && session.dispatch(edit).ok;
    if (laid) onLaid?.();
    if (laid && edit.kind === 'lay-out') tell(`${text ?? 'Laid out.'} ${await wiresOf(edit.board)}`);
    else if (text !== null) tell(text);
  };
  const run = (make: (signal: AbortSignal, telling: (done: number) => void) => Promise<Made>): void => {
    working.current?.abort();
    const control = new AbortController();
    const { signal } = control;
    working.current = control;
    setShare(0);
    // A share told by work that was stopped, still on its way, is of no concern.
    const telling = callback((done: number) => {
      if (!signal.aborted) setShare(done);
    });
    make(signal, telling)
      .then((made) => take(made, signal))
      .catch((e: unknown) => {
        if (!signal.aborted) tell(`The layout failed: ${String(e)}`);
      })
      .finally(() => {
        if (working.current === control) setShare(null);
      });
  };
  const stop = (): void => {
    working.current?.abort();
    setShare(null);
  };
  return { share, run, stop };
}

/** Lays the job's packing out, long work off the screen's thread; what comes of it is one edit; `onLaid` is told when it is done. */
export function useLayOut(onLaid?: () => void): LayingOut {
  const { job, packing, netlist } = useJobView();
  const { share, run, stop } = useWork(onLaid);
  return {
    share,
    stop,
    afresh: () =>
      packing &&
      run(async (signal, telling) => {
        const { edit, findings } = await runLong('plan', signal, (api) => api.layOut(job, packing, netlist, telling));
        const around = hasFixed(job.board);
        const remedies = (f: Finding): string => (around ? 'Unfix what is in the way, or mend it by hand.' : remedy(f));
        const refusal = findings.map((f) => `${says(f)} ${remedies(f)}`).join(' ');
        return { edit, says: edit ? (around ? 'Laid out around what is fixed.' : null) : refusal };
      }),
    update: () =>
      packing &&
      netlist &&
      run(async (signal, telling) => {
        const kind = layoutBoardKindOf(job);
        const made = await runLong('plan', signal, (api) => api.update(job.board, { packing, netlist }, kind, telling));
        if (made.stopped) {
          const why = `The board was left as it is: ${says(made.stopped)} Lay it out afresh, or mend it by hand.`;
          return { edit: null, says: why };
        }
        const { board, taken, added } = made;
        const said = [
          taken.length === 0 ? 'Nothing had to go.' : `Removed: ${list(taken)}.`,
          added.length === 0 ? '' : `New or moved: ${list(added)}.`,
        ];
        return { edit: { kind: 'lay-out', packing: made.packing, board }, says: said.filter(Boolean).join(' ') };
      }),
  };
}

const list = (ids: readonly string[]): string =>
  ids.length > 24 ? `${ids.slice(0, 24).join(' ')} and ${ids.length - 24} more` : ids.join(' ');

/** The packing, once the sheet has something to lay out. */
export function usePackingToLay(): Packing | null {
  const { packing, reading } = useJobView();
  return (reading?.design.outputs.length ?? 0) > 0 ? packing : null;
}
