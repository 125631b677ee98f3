import { applyEdit, type Edit } from './edit';
import type { History, Step } from './history';
import type { Job } from './job';

/** The most letters that a history is kept with: some hundred steps of a large board. */
export const MOST_KEPT = 400_000;

/** The steps of a history as text, to be kept beside its job; of too many the oldest are left out. */
export function writeHistory({ past, future }: History, most = MOST_KEPT): string {
  const [before, after] = [past, future].map((steps) => steps.map((step) => JSON.stringify(step))) as [
    string[],
    string[],
  ];
  // The newest step of each list is its last: what is farthest away goes first.
  let length = [...before, ...after].reduce((sum, step) => sum + step.length + 1, 0);
  while (length > most && before.length + after.length > 0)
    length -= ((before.length >= after.length ? before : after).shift()?.length ?? 0) + 1;
  return `{"past":[${before.join()}],"future":[${after.join()}]}`;
}

/**
 * A history as it was written, for the job that it was written with; null when it does not belong to that job, or is not as it was written. It is tried:
 * all steps are gone back and come forward again, which must end where it began.
 */
export function readHistory(text: string, job: Job): History | null {
  try {
    const { past, future } = JSON.parse(text) as { readonly past: readonly Step[]; readonly future: readonly Step[] };
    const isSound = [past, future].every((steps) => steps.every(isStep) && comesBack(job, steps));
    return isSound ? { job, past, future } : null;
  } catch {
    return null;
  }
}

function isStep(step: Step): boolean {
  const { says, typed, back, atMs } = step;
  return (
    typeof says === 'string' && typeof typed === 'boolean' && typeof back.kind === 'string' && Number.isFinite(atMs)
  );
}

function comesBack(job: Job, steps: readonly Step[]): boolean {
  let at = job;
  const forth: Edit[] = [];
  for (const { back } of steps.toReversed()) {
    const applied = applyEdit(at, back);
    if (!applied.ok) return false;
    at = applied.job;
    forth.push(applied.inverse);
  }
  for (const edit of forth.toReversed()) {
    const applied = applyEdit(at, edit);
    if (!applied.ok) return false;
    at = applied.job;
  }
  return inOrder(at) === inOrder(job);
}

/** A value as text with its keys in order: what was taken away and put back stands last in its object. */
const inOrder = (value: unknown): string =>
  JSON.stringify(value, (_, one: unknown) =>
    typeof one === 'object' && one !== null && !Array.isArray(one)
      ? Object.fromEntries(Object.entries(one).sort(([a], [b]) => (a < b ? -1 : 1)))
      : one,
  );
