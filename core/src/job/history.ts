import { type Applied, applyEdit, type Edit, saysEdit } from './edit';
import type { Job } from './job';

/** A step of a history: what it was, when, and the edit that leads back over it. */
export interface Step {
  readonly says: string;
  /** Whether it is one of several keys typed into the sheet. */
  readonly typed: boolean;
  readonly back: Edit;
  readonly atMs: number;
}

/** A job with the steps that lead back and those undone. The newest step of each list is its last. */
export interface History {
  readonly job: Job;
  readonly past: readonly Step[];
  readonly future: readonly Step[];
}

/** Keys that follow within this many milliseconds are undone as one. */
const TOGETHER_MS = 1200;
/** Steps that can be undone. */
const DEPTH = 500;

/** A history that begins with a job: nothing to undo, nothing to redo. */
export function startHistory(job: Job): History {
  return { job, past: [], future: [] };
}

/** Applies an edit and remembers the way back; `atMs` is the time, given by the caller. */
export function perform(history: History, edit: Edit, atMs: number): { history: History; applied: Applied } {
  const applied = applyEdit(history.job, edit);
  if (!applied.ok || applied.job === history.job) return { history, applied };
  const typed = edit.kind === 'write-sheet' && edit.typed === true;
  const step: Step = { says: saysEdit(edit), typed, back: applied.inverse, atMs };
  return { history: { job: applied.job, past: grouped(history.past, step), future: [] }, applied };
}

function grouped(past: readonly Step[], step: Step): Step[] {
  const last = past[past.length - 1];
  if (!last?.typed || !step.typed || step.atMs - last.atMs > TOGETHER_MS) return [...past, step].slice(-DEPTH);
  const back: Edit = { kind: 'all', says: step.says, edits: [step.back, last.back] };
  return [...past.slice(0, -1), { ...step, back }];
}

/** Takes the last step back; the same history when there is none. */
export function undo(history: History): History {
  const step = history.past[history.past.length - 1];
  if (!step) return history;
  const applied = applyEdit(history.job, step.back);
  if (!applied.ok) throw new Error('an undo was refused');
  const future = [...history.future, { ...step, back: applied.inverse }];
  return { job: applied.job, past: history.past.slice(0, -1), future };
}

/** Does the last undone step again; the same history when there is none. */
export function redo(history: History): History {
  const step = history.future[history.future.length - 1];
  if (!step) return history;
  const applied = applyEdit(history.job, step.back);
  if (!applied.ok) throw new Error('a redo was refused');
  const past = [...history.past, { ...step, back: applied.inverse }];
  return { job: applied.job, past, future: history.future.slice(0, -1) };
}
