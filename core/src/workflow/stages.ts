import { extractNets, isBare } from '../board';
import { type FamilyId, readDesign } from '../catalogue';
import type { Netlist, Reading } from '../design';
import { type Finding, finding } from '../finding';
import { inspect, isBuiltOtherwise } from '../inspection';
import type { Edit } from '../job/edit';
import { currentPacking, type Job, newJob, rulesOf, SILENCED_LETTERS } from '../job/job';
import type { SolveInteger } from '../logic';
import { type Packing, pack } from '../packing';
import { type LayoutBoardKind, type PlanOptions, plan } from '../planning';
import { steeringFindings } from './hazards';
import { wrongTimes } from './timer-parts';

/** A job's design and the packing its wiring is held to; null while the sheet has an error. */
export interface Packed {
  readonly reading: Reading;
  readonly packing: Packing | null;
  readonly findings: readonly Finding[];
}

/** Reads a job's sheet and packs it, unless the job's own packing still serves. */
export async function packJob(job: Job, solve: SolveInteger): Promise<Packed> {
  const reading = readDesign(job.sheet);
  const { netlist } = reading.design;
  const own = currentPacking(job, netlist, null);
  if (!netlist || own) return { reading, packing: own, findings: [] };
  return { reading, ...(await pack(netlist, job.family, solve, { rules: rulesOf(job) })) };
}

/** How many chips a whole sheet takes when it is packed; null when it cannot be. */
export async function countChips(sheet: string, family: FamilyId, solve: SolveInteger): Promise<number | null> {
  const { packing } = await packJob({ ...newJob(''), sheet, family }, solve);
  return packing ? packing.packages.length : null;
}

/** A laid-out board as an edit; null with findings where it cannot be. */
export interface Layout {
  readonly edit: Edit | null;
  readonly findings: readonly Finding[];
}

/** The kind of board that a job is laid out on: that of its first one, full size in place of a mini. */
export function layoutBoardKindOf({ board }: Job): LayoutBoardKind {
  const type = board.breadboards[0]?.type ?? 'full';
  return type === 'mini' ? 'full' : type;
}

/** What a design wants of its board besides its gates. */
export type Extras = Pick<Netlist, 'fittings' | 'pulses'>;
/** Nothing besides. */
export const noExtras: Extras = { fittings: [], pulses: [] };

/** The edit that lays a packing of a design out on fresh boards, with what its sheet wants signals shown on, or why it cannot be. */
export function layOut(
  given: Packing,
  { fittings, pulses }: Extras,
  options: Omit<PlanOptions, keyof Extras> = {},
): Layout {
  const { packing, board, findings } = plan(given, { ...options, fittings, pulses });
  return { edit: board && { kind: 'lay-out', packing, board }, findings };
}

/** Whether the board was laid out from another design than the sheet now states. */
export function isOutdated(job: Job, packing: Packing | null): boolean {
  if (isBuiltOtherwise(job.board, packing)) return false;
  return !isBare(job.board) && job.packing !== null && packing !== null && job.packing.design !== packing.design;
}

/**
 * Inspects a job's board against a packing, its design for pulses that reach a clock or clear, and its timers for the times that the sheet wants; that the sheet has moved on since is said first. What was silenced at
 * its place is left out.
 */
export function inspectJob(job: Job, packing: Packing | null): Finding[] {
  const isOld = isOutdated(job, packing);
  const ofBoard = inspect(job.board, extractNets(job.board), packing, job.family);
  // What is only good to know stands last.
  const notes = ofBoard.findLastIndex((f) => f.severity !== 'note') + 1;
  const ofSheet = [...steeringFindings(job), ...(isOld ? [] : wrongTimes(job, packing))];
  const found = [...ofBoard.slice(0, notes), ...ofSheet, ...ofBoard.slice(notes)];
  const told = found.filter((f) => !job.silenced?.some((s) => s.code === f.code && s.place === placeText(f)));
  return isOld ? [finding('board-outdated', [], {}), ...told] : told;
}

/** The places of a finding as one text, by which it is silenced: `U1.5`, `w12`, of very many the first; empty when it is of the whole board. */
export function placeText({ places }: Finding): string {
  const named = places.map((p) => ('ref' in p ? p.ref : 'pin' in p ? p.pin : 'id' in p ? p.id : JSON.stringify(p)));
  return named.join(' ').slice(0, SILENCED_LETTERS.place);
}
