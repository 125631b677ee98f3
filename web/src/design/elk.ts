import type { Netlist } from '@saddlebag/core';
import ElkApi from 'elkjs/lib/elk-api.js';
import elkWorkerUrl from 'elkjs/lib/elk-worker.min.js?url';
import { type Diagram, diagramOf, graphOf } from './layout';

let elk: InstanceType<typeof ElkApi> | undefined;

/** Lays the gates of a design out. The engine is its own worker, started at the first call. */
export async function layOutGates(netlist: Netlist): Promise<Diagram> {
  elk ??= new ElkApi({ workerFactory: () => new Worker(elkWorkerUrl, { name: 'layout' }) });
  return diagramOf(await elk.layout(graphOf(netlist)));
}
