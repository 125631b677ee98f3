import type {
  Behaviour,
  Board,
  BuildCard,
  Comparison,
  DrawerEntry,
  FamilyId,
  FamilySwap,
  Finding,
  Form,
  FoundResistor,
  FunctionTable,
  Job,
  Layout,
  LayoutBoardKind,
  Netlist,
  NextStep,
  Packing,
  PackProgress,
  PartName,
  Paths,
  Reading,
  Recovered,
  Restated,
  Rules,
  Side,
  Strategy,
  Supplies,
  Table,
  TableSubject,
  Tour,
  Update,
  WalkedRow,
  WireLength,
} from '@saddlebag/core';

/** Rows of a walk that are told at once, and how many there are in all. */
export interface WalkProgress {
  readonly rows: readonly WalkedRow[];
  readonly total: number;
}

/** How far a tour is. */
export interface TourProgress {
  readonly covered: number;
  readonly transitions: number;
}

/** What a tour came to, without its presses, of which there may be many thousands. */
export type TourResult = Omit<Tour, 'steps'> & { readonly presses: number };

/** What the worker does for the screens: the stages of core, as coarse calls on plain data. */
export interface StagesApi {
  read(sheet: string): Reading;
  table(behaviour: Behaviour): Table;
  functionTable(part: PartName, unit: string): FunctionTable | null;
  restate(
    sheet: string,
    signals: readonly string[],
    form: Form,
  ): Promise<{ restated: Restated | null; findings: readonly Finding[] }>;
  countChips(sheet: string, family: FamilyId): Promise<number | null>;
  compare(a: Side, b: Side): { comparison: Comparison | null; findings: readonly Finding[] };
  pack(
    netlist: Netlist,
    family: FamilyId,
    rules: Rules,
  ): Promise<{ packing: Packing | null; findings: readonly Finding[] }>;
  packByStrategy(
    netlist: Netlist,
    asked: { readonly family: FamilyId; readonly strategy: Strategy; readonly supplies: Supplies },
    tell: (progress: PackProgress) => void,
  ): Promise<{ packing: Packing | null; findings: readonly Finding[] }>;
  guide(board: Board, packing: Packing, netlist: Netlist, kind: LayoutBoardKind): NextStep;
  layOut(job: Job, packing: Packing, netlist: Netlist | null, tell: (share: number) => void): Layout;
  update(
    board: Board,
    design: { readonly packing: Packing; readonly netlist: Netlist },
    kind: LayoutBoardKind,
    tell: (share: number) => void,
  ): Update;
  swapFamily(job: Job, family: FamilyId, drawer?: readonly DrawerEntry[]): FamilySwap;
  route(board: Board): Paths;
  readBack(board: Board): Recovered;
  /** How long its wires are against the least, in tenths of an inch, and how often they cross. */
  measure(board: Board): WireLength & { readonly crossings: number };
  card(board: Board, packing: Packing, netlist: Netlist, behaviour: Behaviour | null): BuildCard;
  inspect(job: Job, packing: Packing | null): readonly Finding[];
  resistors(
    board: Board,
    asked: { readonly family: FamilyId; readonly ledMa: number; readonly drawerOhms: readonly number[] },
  ): readonly FoundResistor[];
  tour(board: Board, behaviour: Behaviour, tell: (progress: TourProgress) => void): TourResult;
  walk(board: Board, subject: TableSubject, tell: (progress: WalkProgress) => void): Promise<void>;
}
