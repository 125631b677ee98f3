import {
  addPackage,
  type Board,
  type ByHand,
  dropPackage,
  type Edit,
  type Extras,
  isBare,
  type Locks,
  layOut,
  layoutBoardKindOf,
  lockGate,
  moveGate,
  newJob,
  noExtras,
  noLocks,
  type Packing,
  swapInputs,
  type UnitPlace,
  writeJobFile,
} from '@saddlebag/core';
import { useJobView } from '../base/job-context';
import { says } from '../base/words';
import { tell } from '../kit/notices';

/** What a person can do to the packing of the open job by hand. Each is one edit; what cannot be says why in a notice. */
export interface PackingHand {
  readonly locks: Locks;
  readonly move: (from: UnitPlace, to: UnitPlace) => void;
  /** What a move would come to, without doing it. */
  readonly tryMove: (from: UnitPlace, to: UnitPlace) => ByHand | null;
  readonly swap: (place: UnitPlace, i: number, j: number) => void;
  readonly pin: (net: string, on: boolean) => void;
  readonly add: (part: string) => void;
  readonly drop: (ref: string) => void;
  /** Takes a packing as the job's, its board laid out for it if there is one. */
  readonly take: (packing: Packing) => void;
}

/** Whether a board is what the planner makes of its packing, in whatever order its parts are listed. */
function isAsPlanned(board: Board, packing: Packing, design: Extras): boolean {
  const { edit } = layOut(packing, design, { kind: layoutBoardKindOf({ ...newJob(''), board }), asPacked: true });
  const text = (of: Board): string => writeJobFile({ ...newJob(''), board: of });
  return edit?.kind === 'lay-out' && text(edit.board) === text(board);
}

/** Puts packings into the job, each as one edit, with the board brought along. */
function useCommit() {
  const { job, session, netlist } = useJobView();
  const design = netlist ?? noExtras;
  const editsFor = (next: Packing): readonly Edit[] | null => {
    if (isBare(job.board)) return [{ kind: 'take-packing', packing: next }];
    const { edit, findings } = layOut(next, design, { kind: layoutBoardKindOf(job), asPacked: true });
    if (edit) return [edit];
    tell(findings.map(says).join(' '));
    return null;
  };
  const laidAfresh = 'The board is laid out afresh for it. Undo brings the old one back.';
  // A board that is as it was planned is planned anew without a word; wiring done by hand is not.
  const isByHand = (): boolean => !isBare(job.board) && !(job.packing && isAsPlanned(job.board, job.packing, design));
  return {
    commit: (what: string, request: ByHand | null): void => {
      if (!request) return;
      if (!request.ok) {
        tell(says(request.finding));
        return;
      }
      const edits = request.packing === job.packing ? [] : editsFor(request.packing);
      if (edits === null) return;
      session.dispatch({ kind: 'all', says: what, edits: [{ kind: 'lock', locks: request.locks }, ...edits] });
      if (edits.length > 0 && isByHand()) tell(laidAfresh);
    },
    take: (next: Packing): void => {
      const edits = editsFor(next);
      if (!edits) return;
      for (const edit of edits) session.dispatch(edit);
      if (!isBare(job.board)) tell(laidAfresh);
    },
  };
}

/** A person's hands on the packing: each move is checked by core and goes into the job as one edit. */
export function usePackingHand(): PackingHand {
  const { job, packing, netlist } = useJobView();
  const locks = job.locks ?? noLocks;
  const { commit, take } = useCommit();
  const known = <T>(act: (p: Packing, n: NonNullable<typeof netlist>) => T): T | null =>
    packing && netlist ? act(packing, netlist) : null;
  const tryMove = (from: UnitPlace, to: UnitPlace): ByHand | null =>
    known((p, n) => moveGate(p, locks, n, { from, to }));
  return {
    locks,
    tryMove,
    move: (from, to) => commit(`move to ${to.ref}`, tryMove(from, to)),
    swap: (place, i, j) =>
      commit(
        `swap inputs of ${place.ref}`,
        known((p) => swapInputs(p, locks, place, { i, j })),
      ),
    pin: (net, on) =>
      commit(
        `${on ? 'pin' : 'unpin'} ${net}`,
        known((p, n) => lockGate(p, locks, n, { net, on })),
      ),
    add: (part) =>
      commit(
        `add a ${part}`,
        known((p) => addPackage(p, locks, job.family, part)),
      ),
    drop: (ref) =>
      commit(
        `take ${ref} away`,
        known((p) => dropPackage(p, locks, ref)),
      ),
    take,
  };
}
