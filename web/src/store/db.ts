import type { DrawerEntry } from '@saddlebag/core';
import Dexie, { type Table } from 'dexie';

/** What the shelf shows of a job without opening it. */
export interface Summary {
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  readonly chips: number;
  readonly jumpers: number;
  /** Definitions of the parts that its sheet makes itself; absent in rows written before there were any. */
  readonly ownParts?: readonly string[];
}

/**
 * A job as it is kept: the text of its job file, and what the shelf shows. `rev` grows with every
 * save, so that two tabs notice each other; `deletedAt` is 0 on the shelf, else when it was deleted (ms).
 */
export interface JobRow {
  readonly id: string;
  readonly name: string;
  readonly text: string;
  readonly rev: number;
  readonly changedAt: number;
  readonly deletedAt: number;
  readonly summary: Summary;
}

/** The steps that can be undone and done again in a job, as `writeHistory` has them, at its revision `rev`; `at` is when that was (ms). */
export interface HistoryRow {
  readonly id: string;
  readonly rev: number;
  readonly at: number;
  readonly text: string;
}

/** A version of a job that a person kept by name: the text of its file as it was at `at` (ms). */
export interface VersionRow {
  readonly id: string;
  readonly job: string;
  readonly name: string;
  readonly at: number;
  readonly text: string;
}

/** The file on the disk that a job is written into, as the browser holds it. */
export interface FileRow {
  readonly id: string;
  readonly handle: FileSystemFileHandle;
}

/** The browser's database: a table of jobs, one of their histories, one of versions kept by name, one of the files that they are written into, one of the drawer. */
export class ShelfDb extends Dexie {
  declare readonly jobs: Table<JobRow, string>;
  /** What the lab has, a row a part; for all jobs. */
  declare readonly drawer: Table<DrawerEntry, string>;

  /** What is lost of it costs steps back, and never a job. */
  declare readonly histories: Table<HistoryRow, string>;

  declare readonly versions: Table<VersionRow, string>;

  declare readonly files: Table<FileRow, string>;

  constructor(name = 'saddlebag') {
    super(name);
    this.version(1).stores({ jobs: 'id, deletedAt, changedAt' });
    this.version(2).stores({ drawer: 'part' });
    this.version(3).stores({ histories: 'id, at' });
    this.version(4).stores({ versions: 'id, job' });
    this.version(5).stores({ files: 'id' });
  }
}

/** The database of this browser. Tests make one of their own. */
export const db = new ShelfDb();
