import type { SessionEnvironment } from './session';
import { shelf } from './shelf';

const rescueKey = (id: string): string => `saddlebag:rescue:${id}`;

/** The real world of a session: this browser's database, clock and local storage. */
export const world: SessionEnvironment = {
  save: (id, job, base) => shelf.save(id, job, base),
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
      // Storage is full or shut: the save that runs beside this is what is left, and its failure is shown.
    }
  },
};

/** Brings work that a closing tab could only rescue back to the shelf. Called before a job is opened. */
export async function recoverRescued(id: string): Promise<void> {
  const kept = rescued(id);
  if (kept === null) return;
  const { readJobFile } = await import('@saddlebag/core/job-reader');
  const { base, text } = parsed(kept);
  const read = readJobFile(text);
  if (read.ok) {
    const saved = await shelf.save(id, read.job, base);
    const row = saved.ok ? undefined : await shelf.get(id);
    if (!saved.ok && row?.text !== text) await world.saveCopy(read.job);
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

function parsed(kept: string): { base: number; text: string } {
  try {
    const { base, text } = JSON.parse(kept) as { base: unknown; text: unknown };
    return { base: Number(base), text: String(text) };
  } catch {
    return { base: 0, text: '' };
  }
}
