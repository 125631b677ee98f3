import { type Board, emptyBoard } from '../board';
import type { FamilyId } from '../catalogue';
import type { Netlist } from '../design';
import { fingerprint, type Locks, noLocks, type Packing, type Rules } from '../packing';
import type { OwnTable } from './own-table';
import type { TraceSetup } from './trace-setup';

/**
 * The document: everything a person decided about one circuit, and nothing that can be computed from
 * it. `packing` is the one the board was laid out from, null before that.
 */
export interface Job {
  readonly name: string;
  readonly family: FamilyId;
  readonly sheet: string;
  readonly packing: Packing | null;
  readonly board: Board;
  /** The truth table that the person fills in, to be compared with the sheet's; absent when none was begun. */
  readonly ownTable?: OwnTable;
  /** Chips that the packing of this job must not choose, by base number. */
  readonly excluded?: readonly string[];
  /** Findings that need not be told again, with why. */
  readonly silenced?: readonly Silenced[];
  /** What was decided of the packing by hand. */
  readonly locks?: Locks;
  /** How the trace is looked at at Power up; absent where nobody has arranged it. */
  readonly trace?: TraceSetup;
}

/** What names and labels are made of: anything but control characters, which no screen, file or label can show. */
export const PLAIN_TEXT = /^\P{Cc}*$/u;
/** The most characters of a job's name. */
export const MAX_JOB_NAME = 200;

/** The most letters of a silenced finding: of its code, of its places and of the reason. */
export const SILENCED_LETTERS = { code: 60, place: 400, reason: 400 } as const;

/** A finding that is left unsaid at one place: its code, the place as text (`U1.5`, `w12`), and the person's reason. */
export interface Silenced {
  readonly code: string;
  readonly place: string;
  readonly reason: string;
}

/** A new job with an empty sheet and one bare breadboard. */
export function newJob(name: string, sheet = ''): Job {
  return { name, family: 'HC', sheet, packing: null, board: emptyBoard };
}

/** What every packing of a job keeps to. */
export function rulesOf({ excluded = [], locks = noLocks }: Job): Rules {
  return { excluded, locks };
}

/**
 * The packing that the job's wiring is held to: its own while it serves the design as it now is,
 * otherwise a fresh one.
 */
export function currentPacking(job: Job, netlist: Netlist | null, fresh: Packing | null): Packing | null {
  if (job.packing && netlist && job.packing.design === fingerprint(netlist)) return job.packing;
  return fresh;
}
