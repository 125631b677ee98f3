import { type Job, writeJobFile } from '@saddlebag/core';
import { db, type VersionRow } from './db';

/** The most versions that are kept of a job. */
export const MOST_VERSIONS = 100;
/** The most letters of a version's name. */
export const VERSION_LETTERS = 120;

/** Keeps a job as it is now, by a name. False where there are as many already. */
export function keepVersion(job: string, name: string, content: Job): Promise<boolean> {
  return db.transaction('rw', db.versions, async () => {
    if ((await db.versions.where({ job }).count()) >= MOST_VERSIONS) return false;
    const row = { id: crypto.randomUUID(), job, name: name.slice(0, VERSION_LETTERS), at: Date.now() };
    await db.versions.add({ ...row, text: writeJobFile(content) });
    return true;
  });
}

/** The versions of a job, the newest first. */
export async function versionsOf(job: string): Promise<readonly VersionRow[]> {
  return (await db.versions.where({ job }).toArray()).sort((a, b) => b.at - a.at);
}

/** Puts versions of a job back as they were, from a backup. */
export async function putVersionsBack(
  job: string,
  versions: readonly Pick<VersionRow, 'name' | 'at' | 'text'>[],
): Promise<void> {
  await db.versions.bulkAdd(versions.slice(0, MOST_VERSIONS).map((v) => ({ ...v, id: crypto.randomUUID(), job })));
}

/** Lets a version go. */
export const dropVersion = (id: string): Promise<void> => db.versions.delete(id);
