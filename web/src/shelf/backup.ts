import { type DrawerEntry, type Finding, finding } from '@saddlebag/core';
import { db } from '../store/db';
import { keepEntry } from '../store/drawer';
import { shelf } from '../store/shelf';
import { putVersionsBack, VERSION_LETTERS, versionsOf } from '../store/versions';
import { BACKUP_FORMAT } from './backup-format';
import type { Refusal } from './refusal';

const VERSION = 1;
/** The largest backup that is read, in bytes, and the most jobs in it. */
export const MAX_BACKUP_BYTES = 256 * 1024 * 1024;
const MAX_JOBS = 5000;

/** The whole shelf as one text: every job's file as it is kept, also of damaged ones, with its versions, and the drawer. */
export async function writeBackup(): Promise<string> {
  const jobs = await Promise.all(
    (await shelf.list()).map(async ({ id, name, text }) => {
      const versions = (await versionsOf(id)).map((v) => ({ name: v.name, at: v.at, text: v.text }));
      return { name, text, ...(versions.length > 0 && { versions }) };
    }),
  );
  const drawer = await db.drawer.toArray();
  return `${JSON.stringify({ format: BACKUP_FORMAT, version: VERSION, jobs, drawer }, null, 1)}\n`;
}

/** What came back from a backup. */
export interface Restored {
  readonly jobs: number;
  /** Jobs that were on the shelf already, just as they are in the backup. */
  readonly known: number;
  readonly parts: number;
  readonly refused: readonly Refusal[];
}

/**
 * Puts the jobs of a backup on the shelf beside those that are there; one that is there already, to the letter, is left. Parts that the drawer does not have are added to
 * it. What cannot be read is told by its name, and everything else comes back.
 */
export async function restoreBackup(text: string): Promise<Restored> {
  const { readJobFile } = await import('@saddlebag/core/job-reader');
  const { jobs, drawer } = partsOf(text);
  const there = new Set((await shelf.list()).map((row) => row.text));
  const refused: Refusal[] = [];
  let [made, known] = [0, 0];
  // The one changed last comes first in a backup, and last onto the shelf.
  for (const { name, text: one, versions } of jobs.toReversed()) {
    const read = readJobFile(one);
    if (there.has(one)) known++;
    else if (!read.ok) refused.push({ from: name, findings: read.findings });
    else {
      await putVersionsBack(await shelf.add(read.job), versions);
      made++;
    }
  }
  const owned = new Set((await db.drawer.toArray()).map((entry) => entry.part));
  const fresh = drawer.filter((entry) => !owned.has(entry.part));
  for (const entry of fresh) await keepEntry(entry);
  return { jobs: made, known, parts: fresh.length, refused };
}

type Version = Parameters<typeof putVersionsBack>[1][number];

interface Parts {
  readonly jobs: readonly {
    readonly name: string;
    readonly text: string;
    readonly versions: readonly Version[];
  }[];
  readonly drawer: readonly DrawerEntry[];
}

/** What a backup holds, as far as it makes sense. */
function partsOf(text: string): Parts {
  try {
    const { jobs, drawer } = JSON.parse(text) as { readonly jobs?: unknown; readonly drawer?: unknown };
    const listed = (list: unknown): Record<string, unknown>[] =>
      Array.isArray(list) ? list.filter((one) => typeof one === 'object' && one !== null).slice(0, MAX_JOBS) : [];
    return {
      jobs: listed(jobs).map(({ name, text: one, versions }) => ({
        name: String(name ?? ''),
        text: String(one ?? ''),
        versions: listed(versions).flatMap(({ name: called, at, text: then }) =>
          typeof called === 'string' && typeof at === 'number' && Number.isFinite(at) && typeof then === 'string'
            ? [{ name: called.slice(0, VERSION_LETTERS), at, text: then }]
            : [],
        ),
      })),
      drawer: listed(drawer).flatMap(({ part, count, price }) =>
        typeof part === 'string' && part.length < 80 && Number.isInteger(count)
          ? [{ part, count: Math.max(0, Number(count)), ...(typeof price === 'number' && { price }) }]
          : [],
      ),
    };
  } catch {
    return { jobs: [{ name: 'the backup', text, versions: [] }], drawer: [] };
  }
}

/** That a backup is too large to be read. */
export const backupTooBig = (): Finding => finding('file/too-big', [], { limit: MAX_BACKUP_BYTES });
