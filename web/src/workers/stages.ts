import * as Comlink from 'comlink';
import type { StagesApi } from './protocol';

/** A worker with its remote face. */
interface Running {
  readonly worker: Worker;
  readonly api: Comlink.Remote<StagesApi>;
}

function start(name: string): Running {
  const worker = new Worker(new URL('./stages.worker.ts', import.meta.url), { type: 'module', name });
  return { worker, api: Comlink.wrap<StagesApi>(worker) };
}

let quick: Running | undefined;
const long = new Map<string, Running>();

/** The worker for what is done in a moment: reading, tables, inspection. */
export function stages(): Comlink.Remote<StagesApi> {
  quick ??= start('stages');
  return quick.api;
}

/**
 * Runs something long in a worker that is kept for `task`, and ended when `signal` aborts: the solver
 * and a walk do not listen while they work. The next call for the task starts a fresh worker.
 */
export async function runLong<T>(
  task: 'pack' | 'walk' | 'restate' | 'compare' | 'chips' | 'ways' | 'plan' | 'tour',
  signal: AbortSignal,
  run: (api: Comlink.Remote<StagesApi>) => Promise<T>,
): Promise<T> {
  signal.throwIfAborted();
  const running = long.get(task) ?? start(task);
  long.set(task, running);
  return new Promise<T>((resolve, reject) => {
    const stop = (): void => {
      running.worker.terminate();
      if (long.get(task) === running) long.delete(task);
      reject(signal.reason);
    };
    signal.addEventListener('abort', stop, { once: true });
    run(running.api)
      .then(resolve, reject)
      .finally(() => signal.removeEventListener('abort', stop));
  });
}

/** Wraps a callback so that a worker can call it. */
export function callback<P>(tell: (progress: P) => void): typeof tell {
  return Comlink.proxy(tell);
}
