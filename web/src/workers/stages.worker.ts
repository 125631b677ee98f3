import {
  type Board,
  broughtUpTo,
  buildCard,
  chipLibrary,
  compareDesigns,
  countChips,
  crossingsOf,
  extractNets,
  type FamilyId,
  inspectJob,
  layOutJob,
  nextStepOf,
  pack,
  packByStrategy,
  printedTableIn,
  readBack,
  readDesign,
  resistorsOf,
  restate,
  routeJumpers,
  swapFamily,
  tableOf,
  tourBoard,
  type WalkedRow,
  walkTable,
  wireLength,
} from '@saddlebag/core';
import { highsSolver } from '@saddlebag/core/solver';
import * as Comlink from 'comlink';
import wasmUrl from 'highs/runtime?url';
import type { StagesApi } from './protocol';

const solve = highsSolver({ wasmUrl });
/** Rows are told in lots of about this many milliseconds. */
const LOT_MS = 40;

/** Passes a share on at most once in a while: telling costs more than the work between two shares. */
function seldom(tell: (share: number) => void): (share: number) => void {
  let told = performance.now();
  return (share) => {
    if (performance.now() - told < LOT_MS) return;
    told = performance.now();
    tell(share);
  };
}

const api: StagesApi = {
  read: readDesign,
  table: tableOf,
  functionTable: printedTableIn,
  restate: (sheet, signals, form) => restate(sheet, { signals, form }, chipLibrary, solve),
  countChips: (sheet, family) => countChips(sheet, family, solve),
  compare: compareDesigns,
  pack: (netlist, family, rules) => pack(netlist, family, solve, { rules }),
  packByStrategy: (netlist, asked, tell) => packByStrategy(netlist, asked, solve, { tell }),
  guide: nextStepOf,
  layOut: (job, packing, netlist, tell) => layOutJob(job, packing, netlist, { tell: seldom(tell) }),
  swapFamily,
  update: (board, { packing, netlist }, kind, tell) =>
    broughtUpTo(board, packing, netlist, { kind, tell: seldom(tell) }),
  route: routeJumpers,
  readBack,
  measure: (board) => ({ ...wireLength(board), crossings: crossingsOf(routeJumpers(board)) }),
  card: buildCard,
  inspect: inspectJob,
  resistors: (board: Board, asked: { family: FamilyId; ledMa: number; drawerOhms: readonly number[] }) =>
    resistorsOf(board, asked),
  tour(board, behaviour, tell) {
    const { steps, ...rest } = tourBoard(board, behaviour, {
      onProgress: (covered, transitions) => {
        tell({ covered, transitions });
        return true;
      },
    });
    return { ...rest, presses: steps.length };
  },
  async walk(board, { inputs, outputs }, tell) {
    const total = 2 ** inputs.length;
    let rows: WalkedRow[] = [];
    let told = performance.now();
    for (const row of walkTable(board, extractNets(board), { inputs, outputs })) {
      rows.push(row);
      if (performance.now() - told < LOT_MS) continue;
      tell({ rows, total });
      rows = [];
      told = performance.now();
    }
    tell({ rows, total });
  },
};

Comlink.expose(api);
