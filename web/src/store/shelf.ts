import type { Job } from '@saddlebag/core';
import { db, type JobRow, type ShelfDb, type Summary } from './db';

/** What reads and writes jobs is not needed for the shelf to stand there; the page of a job brings it along. */
const writing = () => import('./kept-job');

/** The outcome of a save: the new revision, or that another tab had saved meanwhile. */
export type Saved =
  | { readonly ok: true; readonly rev: number }
  | { readonly ok: false; readonly reason: 'conflict' | 'gone' };

/** A row as the shelf shows it; `damaged` when it is not as this program writes them, and then `text` is all that is left of it. */
export interface ShelfRow extends JobRow {
  readonly damaged: boolean;
}

const noSummary: Summary = { inputs: [], outputs: [], chips: 0, jumpers: 0 };
const isNumber = (value: unknown): value is number => typeof value === 'number' && Number.isFinite(value);
const isNames = (value: unknown): boolean => Array.isArray(value) && value.every((v) => typeof v === 'string');

/** Reads a row of the database, whatever it holds: what is missing or of another kind is made good, and told. */
function readRow(row: JobRow): ShelfRow {
  const { name, text, rev, changedAt, deletedAt, summary } = row as { readonly [K in keyof JobRow]: unknown };
  const s = (typeof summary === 'object' && summary !== null ? summary : {}) as {
    readonly [K in keyof Summary]: unknown;
  };
  const isWhole = isNames(s.inputs) && isNames(s.outputs) && isNumber(s.chips) && isNumber(s.jumpers);
  const sound = typeof name === 'string' && typeof text === 'string' && isNumber(rev) && isNumber(changedAt) && isWhole;
  return {
    id: row.id,
    name: typeof name === 'string' && name !== '' ? name : 'A job without a name',
    text: typeof text === 'string' ? text : '',
    rev: isNumber(rev) ? rev : 0,
    changedAt: isNumber(changedAt) ? changedAt : 0,
    deletedAt: isNumber(deletedAt) ? deletedAt : 0,
    summary: isWhole ? (summary as Summary) : noSummary,
    damaged: !sound,
  };
}

/** So many jobs keep their steps, those changed last. */
const MOST_HISTORIES = 40;

/** The list of jobs in this browser. Time and ids come from outside, for tests. */
export class Shelf {
  constructor(
    private readonly store: ShelfDb = db,
    private readonly now: () => number = Date.now,
    private readonly newId: () => string = () => crypto.randomUUID(),
  ) {}

  /** Jobs on the shelf, the one changed last first; a row that is damaged is among them, told as that. */
  async list(): Promise<ShelfRow[]> {
    const rows = (await this.store.jobs.toArray()).map(readRow);
    return rows.filter((row) => row.deletedAt === 0).sort((a, b) => b.changedAt - a.changedAt);
  }

  /** Jobs in the bin, the one deleted last first. */
  async bin(): Promise<ShelfRow[]> {
    const rows = (await this.store.jobs.toArray()).map(readRow);
    return rows.filter((row) => row.deletedAt !== 0).sort((a, b) => b.deletedAt - a.deletedAt);
  }

  get(id: string): Promise<JobRow | undefined> {
    return this.store.jobs.get(id);
  }

  /** Puts a job on the shelf and returns its id. A name that is taken gets a number behind it. */
  async add(job: Job): Promise<string> {
    const id = this.newId();
    const names = new Set((await this.list()).map((row) => row.name));
    const name = freeName(job.name, names);
    await this.store.jobs.add(await this.row(id, { ...job, name }, 1));
    return id;
  }

  async addNew(name = 'New job', sheet = ''): Promise<string> {
    const { newJob } = await writing();
    return this.add(newJob(name, sheet));
  }

  /** Saves a job over revision `base`; refuses when the shelf has another revision by now. */
  async save(id: string, job: Job, base: number): Promise<Saved> {
    const next = await this.row(id, job, base + 1);
    return this.store.transaction('rw', this.store.jobs, async (): Promise<Saved> => {
      const row = await this.store.jobs.get(id);
      if (!row) return { ok: false, reason: 'gone' };
      if (row.rev !== base) return { ok: false, reason: 'conflict' };
      await this.store.jobs.put({ ...next, deletedAt: row.deletedAt });
      return { ok: true, rev: base + 1 };
    });
  }

  /** Keeps the steps of a job, as `writeHistory` has them, beside its revision `rev`. What there is no room for is not kept: the job itself is safe. */
  async keepSteps(id: string, rev: number, text: string): Promise<void> {
    try {
      await this.store.transaction('rw', this.store.histories, async () => {
        await this.store.histories.put({ id, rev, at: this.now(), text });
        const keys = await this.store.histories.orderBy('at').primaryKeys();
        await this.store.histories.bulkDelete(keys.slice(0, -MOST_HISTORIES));
      });
    } catch {
      // A full disk: steps back are the first thing to do without.
    }
  }

  /** The steps that were kept of a job as it is at a revision; null where there are none. */
  async steps(id: string, rev: number): Promise<string | null> {
    const row = await this.store.histories.get(id).catch(() => undefined);
    return row?.rev === rev && typeof row.text === 'string' ? row.text : null;
  }

  async rename(id: string, job: Job, rev: number, name: string): Promise<Saved> {
    return this.save(id, { ...job, name }, rev);
  }

  /** Puts a job into the bin, where it stays until the bin is emptied. */
  async delete(id: string): Promise<void> {
    await this.store.jobs.update(id, { deletedAt: this.now() });
  }

  /** Forgets for good what is in the bin. */
  async emptyBin(): Promise<void> {
    const ids = (await this.bin()).map((row) => row.id);
    await this.store.jobs.bulkDelete(ids);
    await this.store.histories.bulkDelete(ids);
    await this.store.files.bulkDelete(ids);
    await this.store.versions.where('job').anyOf(ids).delete();
  }

  async putBack(id: string): Promise<void> {
    await this.store.jobs.update(id, { deletedAt: 0 });
  }

  private async row(id: string, job: Job, rev: number): Promise<JobRow> {
    const { keptJob } = await writing();
    return { id, ...keptJob(job), rev, changedAt: this.now(), deletedAt: 0 };
  }
}

/** `Lock`, `Lock 2`, `Lock 3` …: the first that is not taken; a number at the end is counted on. */
export function freeName(wanted: string, taken: ReadonlySet<string>): string {
  if (!taken.has(wanted)) return wanted;
  const base = wanted.replace(/ \d+$/, '');
  let n = 2;
  while (taken.has(`${base} ${n}`)) n++;
  return `${base} ${n}`;
}

/** The shelf of this browser. Tests make one of their own. */
export const shelf = new Shelf();
