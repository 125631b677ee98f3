import type { Board, FamilyId, Finding, Job, Netlist, Packing, Reading, Table, WalkedRow } from '@saddlebag/core';

/** Rows of a walk that are told at once, and how many there are in all. */
export interface WalkProgress {
  readonly rows: readonly WalkedRow[];
  readonly total: number;
}

/** What the worker does for the screens: the stages of core, as coarse calls on plain data. */
export interface StagesApi {
  read(sheet: string): Reading;
  table(netlist: Netlist): Table;
  pack(netlist: Netlist, family: FamilyId): Promise<{ packing: Packing | null; findings: readonly Finding[] }>;
  inspect(job: Job, packing: Packing | null): readonly Finding[];
  walk(board: Board, netlist: Netlist, tell: (progress: WalkProgress) => void): Promise<void>;
}
