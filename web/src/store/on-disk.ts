import { type Job, writeJobFile } from '@saddlebag/core';
import { db } from './db';

/** How a job stands to its file on the disk. `asleep`: the browser asks the person once more, after a reload, before it writes. */
export interface OnDisk {
  readonly state: 'none' | 'kept' | 'writing' | 'asleep' | 'failed';
  readonly name: string;
}

const NONE: OnDisk = { state: 'none', name: '' };
/** So long after the last step the file is written, in milliseconds. */
const REST_MS = 700;

/** Whether the browser lets a page write into a file that the person chose. */
export const canWriteFiles = (): boolean => 'showSaveFilePicker' in globalThis;

/** A job's file on the disk, written soon after each step; whatever becomes of it, the job itself is kept in the browser. */
export class DiskFile {
  private state: OnDisk = NONE;
  private handle: FileSystemFileHandle | null = null;
  private readonly listeners = new Set<() => void>();
  private rest: ReturnType<typeof setTimeout> | undefined;
  private written: Job | null = null;

  constructor(
    private readonly id: string,
    private readonly job: () => Job,
  ) {}

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly snapshot = (): OnDisk => this.state;

  /** Finds the file that the job was written into before. */
  async recall(): Promise<void> {
    const handle = (await db.files.get(this.id))?.handle ?? null;
    if (!handle || this.handle) return;
    this.handle = handle;
    const isAllowed = (await handle.queryPermission?.({ mode: 'readwrite' })) === 'granted';
    this.set(isAllowed ? 'kept' : 'asleep');
    if (isAllowed) this.follow();
  }

  /** Writes the job into a file that the person chooses, or into the one it had, and goes on so. Called by a press: browsers ask for one. */
  async write(suggested: string): Promise<void> {
    const job = this.job();
    this.set('writing');
    try {
      const { fileSave } = await import('browser-fs-access');
      const text = new Blob([writeJobFile(job)], { type: 'application/json' });
      const options = { fileName: suggested, extensions: ['.json'], description: 'Saddlebag job' };
      this.handle = (await fileSave(text, options, this.handle, true)) ?? null;
      this.written = job;
      if (this.handle) await db.files.put({ id: this.id, handle: this.handle });
      this.set(this.handle ? 'kept' : 'none');
      // What was done while it was being written.
      this.follow();
    } catch (e) {
      const isLeft = e instanceof DOMException && e.name === 'AbortError';
      this.set(!isLeft ? 'failed' : this.handle ? 'asleep' : 'none');
    }
  }

  /** The job may have changed: the file follows when that rests. */
  follow(): void {
    if (this.state.state !== 'kept' || this.job() === this.written) return;
    clearTimeout(this.rest);
    this.rest = setTimeout(() => void this.write(''), REST_MS);
  }

  /** No more is written from here. */
  close(): void {
    clearTimeout(this.rest);
  }

  private set(state: OnDisk['state']): void {
    this.state = state === 'none' ? NONE : { state, name: this.handle?.name ?? '' };
    for (const listener of this.listeners) listener();
  }
}

declare global {
  interface FileSystemFileHandle {
    queryPermission?(descriptor: { readonly mode: 'readwrite' }): Promise<PermissionState>;
  }
}
