import {
  type Behaviour,
  type Board,
  broughtUpTo,
  buildCard,
  chipLibrary,
  compareDesigns,
  countChips,
  crossingsOf,
  type DrawerEntry,
  extractNets,
  type FamilyId,
  type Form,
  inspectJob,
  type Job,
  type LayoutBoardKind,
  layOutJob,
  type Netlist,
  nextStepOf,
  type Packing,
  type PackProgress,
  type PartName,
  pack,
  packByStrategy,
  printedTableIn,
  type Rules,
  readBack,
  readDesign,
  resistorsOf,
  restate,
  routeJumpers,
  type Strategy,
  type Supplies,
  swapFamily,
  type TableSubject,
  tableOf,
  tourBoard,
  walkTable,
  wireLength,
} from '@saddlebag/core';
import { highsSolver } from '@saddlebag/core/solver';
import type { WalkProgress } from '../workers/protocol';

const solve = highsSolver();
const api = {
  read: readDesign,
  table: tableOf,
  functionTable: async (part: PartName, unit: string) => printedTableIn(part, unit),
  restate: (sheet: string, signals: readonly string[], form: Form) => restate(sheet, { signals, form }, chipLibrary),
  countChips: (sheet: string, family: FamilyId) => countChips(sheet, family, solve),
  pack: (netlist: Netlist, family: FamilyId, rules: Rules) => pack(netlist, family, solve, { rules }),
  packByStrategy: (
    netlist: Netlist,
    asked: { readonly family: FamilyId; readonly strategy: Strategy; readonly supplies: Supplies },
    tell: (p: PackProgress) => void,
  ) => packByStrategy(netlist, asked, solve, { tell }),
  compare: compareDesigns,
  guide: nextStepOf,
  layOut: (job: Job, packing: Packing, netlist: Netlist | null) => layOutJob(job, packing, netlist),
  update: (
    board: Board,
    { packing, netlist }: { readonly packing: Packing; readonly netlist: Netlist },
    kind: LayoutBoardKind,
    tell: (share: number) => void,
  ) => broughtUpTo(board, packing, netlist, { kind, tell }),
  swapFamily: async (job: Job, family: FamilyId, drawer?: readonly DrawerEntry[]) => swapFamily(job, family, drawer),
  route: async (board: Board) => routeJumpers(board),
  readBack: async (board: Board) => readBack(board),
  measure: (board: Board) => ({ ...wireLength(board), crossings: crossingsOf(routeJumpers(board)) }),
  card: buildCard,
  inspect: inspectJob,
  resistors: (board: Board, asked: { family: FamilyId; ledMa: number; drawerOhms: readonly number[] }) =>
    resistorsOf(board, asked),
  tour: async (board: Board, behaviour: Behaviour) => {
    const { steps, ...rest } = tourBoard(board, behaviour);
    return { ...rest, presses: steps.length };
  },
  async walk(board: Board, subject: TableSubject, tell: (progress: WalkProgress) => void) {
    const rows = [...walkTable(board, extractNets(board), { inputs: subject.inputs, outputs: subject.outputs })];
    tell({ rows, total: rows.length });
  },
};

/** Stands in for `workers/stages` in tests: the same calls, answered here, since jsdom has no workers. */
export const localStages = {
  stages: () => api,
  runLong: async (task: string, signal: AbortSignal, run: (a: typeof api) => Promise<unknown>) => {
    localStages.asked.push(task);
    return localStages.instead ? localStages.instead(signal, run as never) : run(api);
  },
  callback: <T>(tell: T): T => tell,
  /** The long tasks that were asked for. */
  asked: [] as string[],
  /** A worker of a test's own, for what runs long. */
  instead: null as null | ((signal: AbortSignal, run: (a: object) => Promise<unknown>) => Promise<unknown>),
  reset: () => {
    localStages.asked = [];
    localStages.instead = null;
  },
};
