import {
  type Applied,
  type Edit,
  type History,
  type Job,
  perform,
  redo,
  startHistory,
  undo,
  writeHistory,
  writeJobFile,
} from '@saddlebag/core';
import type { Saved } from './shelf';

/** Whether what is on the screen is on the shelf. `failed` holds until a later save succeeds. */
export type SaveState = 'saved' | 'pending' | 'failed';

/** What a session shows: the history it is at, whether that is on the shelf, and since when. */
export interface SessionState {
  readonly history: History;
  readonly saveState: SaveState;
  readonly savedAtMs: number;
}

/** What a session needs of the world; tests pass their own. */
export interface SessionEnvironment {
  readonly save: (id: string, job: Job, base: number) => Promise<Saved>;
  /** Keeps the steps of a job that has been saved; may fail silently. */
  readonly keepHistory: (id: string, rev: number, history: History) => Promise<void>;
  /** Puts a job beside the one that another tab has changed, and returns the new id. */
  readonly saveCopy: (job: Job) => Promise<string>;
  readonly now: () => number;
  readonly later: (run: () => void, ms: number) => () => void;
  /** Keeps text at once, without waiting: for a tab that is closing. */
  readonly rescue: (id: string, text: string | null) => void;
}

const SAVE_AFTER_MS = 250;
/** The most letters of steps that a closing tab leaves beside its job: what it is kept in is small. */
const MOST_RESCUED = 60_000;
const RETRY_AFTER_MS = 5000;

/**
 * One open job: its history, and its way to the shelf. Saves soon after each edit and never twice at
 * once. When another tab has saved first, this tab's work goes on in a copy (`onMoved` tells its id).
 */
export class JobSession {
  private state: SessionState;
  private readonly listeners = new Set<() => void>();
  private cancelTimer: (() => void) | null = null;
  private saves: Promise<void> = Promise.resolve();
  private saving = false;
  private dirty = false;
  /** Whether the steps of what was saved last are still on their way to the shelf. */
  private keeping = false;

  private id: string;
  private rev: number;

  constructor(
    { id, history, rev }: { readonly id: string; readonly history: History; readonly rev: number },
    private readonly world: SessionEnvironment,
    private readonly onMoved: (id: string) => void = () => {},
  ) {
    this.id = id;
    this.rev = rev;
    this.state = { history, saveState: 'saved', savedAtMs: world.now() };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly snapshot = (): SessionState => this.state;

  get job(): Job {
    return this.state.history.job;
  }

  /** Applies an edit; what stands in its way comes back and nothing has changed. */
  dispatch(edit: Edit): Applied {
    const { history, applied } = perform(this.state.history, edit, this.world.now());
    this.advance(history);
    return applied;
  }

  undo(): void {
    this.advance(undo(this.state.history));
  }

  redo(): void {
    this.advance(redo(this.state.history));
  }

  /** Whether what another tab has saved would be taken over; asked before it is read. */
  wants(rev: number): boolean {
    return !this.dirty && !this.saving && rev > this.rev;
  }

  /** Takes over what another tab has saved, unless there is work here that is not saved yet. */
  adopt(job: Job, rev: number): boolean {
    if (!this.wants(rev)) return false;
    this.rev = rev;
    this.set({ history: startHistory(job), saveState: 'saved', savedAtMs: this.world.now() });
    return true;
  }

  /** Saves now what is not saved yet; done when this and every save before it is. */
  flush(): Promise<void> {
    this.cancelTimer?.();
    this.cancelTimer = null;
    this.saves = this.saves.then(() => (this.dirty ? this.saveOnce() : undefined));
    return this.saves;
  }

  /** For a tab that is going away: keeps unsaved work where it can be kept at once. */
  rescue(): void {
    if (this.dirty || this.saving || this.keeping)
      this.world.rescue(
        this.id,
        JSON.stringify({
          base: this.rev,
          text: writeJobFile(this.job),
          history: writeHistory(this.state.history, MOST_RESCUED),
          isSaved: !this.dirty && !this.saving,
        }),
      );
    void this.flush();
  }

  private advance(history: History): void {
    if (history === this.state.history) return;
    const changed = history.job !== this.job;
    this.set({ ...this.state, history, ...(changed && { saveState: 'pending' as const }) });
    if (!changed) return;
    this.dirty = true;
    this.saveLater();
  }

  private saveLater(): void {
    this.cancelTimer?.();
    this.cancelTimer = this.world.later(() => void this.flush(), SAVE_AFTER_MS);
  }

  private async saveOnce(): Promise<void> {
    const { job, id } = this;
    const { history } = this.state;
    this.dirty = false;
    this.saving = true;
    try {
      const saved = await this.world.save(this.id, job, this.rev);
      if (saved.ok) this.rev = saved.rev;
      else await this.moveToCopy(job);
      this.saving = false;
      this.keeping = true;
      this.set({ ...this.state, saveState: this.dirty ? 'pending' : 'saved', savedAtMs: this.world.now() });
      await this.world.keepHistory(this.id, this.rev, history);
      this.keeping = false;
      // What a closing tab left stays until all of it is kept, the steps too.
      if (!this.dirty) for (const each of new Set([id, this.id])) this.world.rescue(each, null);
    } catch {
      this.saving = false;
      this.keeping = false;
      this.dirty = true;
      this.cancelTimer = this.world.later(() => void this.flush(), RETRY_AFTER_MS);
      this.set({ ...this.state, saveState: 'failed' });
    }
  }

  private async moveToCopy(job: Job): Promise<void> {
    this.id = await this.world.saveCopy(job);
    this.rev = 1;
    this.onMoved(this.id);
  }

  private set(state: SessionState): void {
    this.state = state;
    for (const listener of this.listeners) listener();
  }
}
