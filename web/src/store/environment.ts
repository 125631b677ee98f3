import { type History, type Job, startHistory, writeHistory } from '@saddlebag/core';
import type { SessionEnvironment } from './session';
import { shelf } from './shelf';

const rescueKey = (id: string): string => `saddlebag:rescue:${id}`;

/** The real world of a session: this browser's database, clock and local storage. */
export const world: SessionEnvironment = {
  save: (id, job, base) => shelf.save(id, job, base),
  keepHistory: (id, rev, history) => shelf.keepSteps(id, rev, writeHistory(history)),
  saveCopy: (job) => shelf.add({ ...job, name: `${job.name} (other tab)` }),
  now: Date.now,
  later: (run, ms) => {
    const timer = setTimeout(run, ms);
    return () => clearTimeout(timer);
  },
  rescue: (id, text) => {
    try {
      if (text === null) localStorage.removeItem(rescueKey(id));
      else localStorage.setItem(rescueKey(id), text);
    } catch {
      rescueBare(id, text);
    }
  },
};

/** Rescues a job without its steps, for which there was no room. */
function rescueBare(id: string, text: string | null): void {
  try {
    if (text !== null) localStorage.setItem(rescueKey(id), JSON.stringify({ ...parsed(text), history: '' }));
  } catch {
    // Storage is full or shut: the save that runs beside this is what is left, and its failure is shown.
  }
}

/** The history of a job as it is at a revision: the steps that were kept, or a fresh start. */
export async function keptHistory(id: string, rev: number, job: Job): Promise<History> {
  const steps = await shelf.steps(id, rev);
  const { readHistory } = await import('@saddlebag/core/job-reader');
  return (steps === null ? null : readHistory(steps, job)) ?? startHistory(job);
}

/** Brings work that a closing tab could only rescue back to the shelf. Called before a job is opened. */
export async function recoverRescued(id: string): Promise<void> {
  const kept = rescued(id);
  if (kept === null) return;
  const { readJobFile } = await import('@saddlebag/core/job-reader');
  const { base, text, history, isSaved } = parsed(kept);
  const read = readJobFile(text);
  // Of a job that was saved only its steps were on their way: where it has moved on since, they lead nowhere.
  if (isSaved) {
    if ((await shelf.get(id))?.rev === base) await shelf.keepSteps(id, base, history);
  } else if (read.ok) {
    const saved = await shelf.save(id, read.job, base);
    const row = saved.ok ? undefined : await shelf.get(id);
    if (!saved.ok && row?.text !== text) await world.saveCopy(read.job);
    else await shelf.keepSteps(id, saved.ok ? saved.rev : (row?.rev ?? 0), history);
  }
  world.rescue(id, null);
}

/** What a closing tab left; null where there is nothing, or where the browser keeps it shut. */
function rescued(id: string): string | null {
  try {
    return localStorage.getItem(rescueKey(id));
  } catch {
    return null;
  }
}

function parsed(kept: string): { base: number; text: string; history: string; isSaved: boolean } {
  try {
    const read = JSON.parse(kept) as { base: unknown; text: unknown; history?: unknown; isSaved?: unknown };
    const history = typeof read.history === 'string' ? read.history : '';
    return { base: Number(read.base), text: String(read.text), history, isSaved: read.isSaved === true };
  } catch {
    return { base: 0, text: '', history: '', isSaved: false };
  }
}
