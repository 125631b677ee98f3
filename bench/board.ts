/** Planning and inspecting large boards, against what the screen allows. */
import {
  applyEdit,
  type Board,
  extractNets,
  inspect,
  matched,
  newJob,
  type Packing,
  packJob,
  plan,
  wireLength,
} from '@saddlebag/core';
import { highsSolver } from '@saddlebag/core/solver';

type Median = (task: () => void, times?: number) => number;
type Line = (what: string, ms: number, times: number) => void;

/** A frame at sixty a second. */
const FRAME_MS = 16.7;

/** Measures two boards of some 40 and 58 chips; `sheetOf` gives a seeded sheet of so many gates. */
export async function measureBoard(median: Median, line: Line, sheetOf: (gates: number, seed: number) => string) {
  for (const gates of [150, 228]) {
    const { packing: given } = await packJob(newJob('bench', sheetOf(gates, 7)), highsSolver());
    if (!given) continue;
    const start = performance.now();
    const { board, packing } = plan(given);
    const planMs = performance.now() - start;
    if (!board) continue;
    const size = `${packing.packages.length} chips, ${Object.keys(board.jumpers).length} jumpers`;
    const { laid, bound } = wireLength(board);
    line(`${size}: planned, against 5 s; wires ${(laid / bound).toFixed(2)} of the least`, planMs, planMs / 5000);
    const extract = median(() => void extractNets(board));
    line(`${size}: extracted, against a frame`, extract, extract / FRAME_MS);
    const whole = median(() => void inspected(board, packing));
    line(`${size}: extracted, matched and inspected, against a frame`, whole, whole / FRAME_MS);
    const cut = withoutOne(board);
    const edited = median(() => void inspected(cut, packing));
    line(`${size}: the same after a jumper is pulled`, edited, edited / FRAME_MS);
    const nets = extractNets(cut);
    const match = median(() => void matched(packing, cut, nets));
    line(`${size}: of that the match`, match, match / FRAME_MS);
  }
}

function inspected(board: Board, packing: Packing): number {
  return inspect(board, extractNets(board), packing, 'HC').length;
}

/** The board with a signal's jumper pulled out, as by hand: everything else is the same object. */
function withoutOne(board: Board): Board {
  const id = Object.keys(board.jumpers).at(-40) ?? 'w1';
  const applied = applyEdit({ ...newJob('bench'), board }, { kind: 'pull-jumper', id });
  return applied.ok ? applied.job.board : board;
}
