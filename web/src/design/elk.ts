import type { Netlist } from '@saddlebag/core';
import ElkApi from 'elkjs/lib/elk-api.js';
import elkWorkerUrl from 'elkjs/lib/elk-worker.min.js?url';
import { type Diagram, diagramOf, graphOf } from './layout';

let elk: InstanceType<typeof ElkApi> | undefined;

const started = (): InstanceType<typeof ElkApi> => {
  elk ??= new ElkApi({ workerFactory: () => new Worker(elkWorkerUrl, { name: 'layout' }) });
  return elk;
};

/** Starts the engine, so that it is there when the first design has been read. */
export const startLayout = (): void => void started();

/**
 * Lays the gates of a design out. The engine is its own worker, started at the first call; when `signal` aborts while it
 * works it is ended, since it does not listen, and the next call starts another.
 */
export async function layOutGates(netlist: Netlist, signal: AbortSignal): Promise<Diagram> {
  signal.throwIfAborted();
  const engine = started();
  return new Promise<Diagram>((resolve, reject) => {
    const stop = (): void => {
      engine.terminateWorker();
      if (elk === engine) elk = undefined;
      reject(signal.reason);
    };
    signal.addEventListener('abort', stop, { once: true });
    engine
      .layout(graphOf(netlist))
      .then((root) => resolve(diagramOf(root)), reject)
      .finally(() => signal.removeEventListener('abort', stop));
  });
}
