import {
  type Behaviour,
  type Board,
  drivenBy,
  extractNets,
  type Finding,
  isBuiltOtherwise,
  type Job,
  looseNets,
  matched,
  type Netlist,
  type Nets,
  nameNets,
  ownNames,
  type Packing,
  type Reading,
  sourcesOf,
} from '@saddlebag/core';
import { createContext, useContext } from 'react';
import type { JobSession } from '../store/session';
import type { PowerBench } from './bench';
import { neighboursOf } from './neighbours';
import { Colours } from './palette';
import type { PowerSubject } from './subject';

/** A board with what is read off it: its nets and, by net index, the signals they carry. */
export interface ReadBoard {
  readonly board: Board;
  readonly nets: Nets;
  readonly names: ReadonlyMap<number, string>;
  /** The packing as the wiring has it: a gate may sit on another unit than it was packed into. */
  readonly wired: Packing | null;
}

/** Everything the six steps share about the open job. `reading` is null until it has been read once. */
export interface JobView {
  readonly id: string;
  readonly job: Job;
  readonly session: JobSession;
  readonly reading: Reading | null;
  /** The reading's gates and behaviour, the same objects for as long as they state the same. */
  readonly netlist: Netlist | null;
  readonly behaviour: Behaviour | null;
  readonly packing: Packing | null;
  readonly packingPending: boolean;
  readonly packingFindings: readonly Finding[];
  readonly stopPacking: () => void;
  readonly startPacking: () => void;
  readonly board: ReadBoard;
  readonly findings: readonly Finding[] | null;
  readonly colours: Colours;
  readonly bench: PowerBench;
  /** What the table at Power up is about. */
  readonly subject: PowerSubject;
}

/** The open job as the screens see it; null outside a job. */
export const JobContext = createContext<JobView | null>(null);
const noColours = new Colours([]);

/** The open job as the screens see it. Throws outside a job, which is a mistake of the code. */
export function useJobView(): JobView {
  const view = useContext(JobContext);
  if (!view) throw new Error('no job is open here');
  return view;
}

/** The session of the open job: what only changes the job, and shows nothing of it, asks for this and is not drawn again with it. */
export const SessionContext = createContext<JobSession | null>(null);

/** The session of the open job, through which every edit goes. Throws outside a job. */
export function useSession(): JobSession {
  const session = useContext(SessionContext);
  if (!session) throw new Error('no job is open here');
  return session;
}

/** Apart from the rest, so that hundreds of tags are not drawn again when anything else of the job changes. */
export const ColoursContext = createContext<Colours>(noColours);

/** The colours of the open job's signals. */
export function useColours(): Colours {
  return useContext(ColoursContext);
}

/** Extracts the nets of a board and names them as far as the packing knows. */
export function readBoard(board: Board, packing: Packing | null): ReadBoard {
  const nets = extractNets(board);
  const wired = packing && matched(packing, board, nets);
  const sources = wired ? sourcesOf(wired, board) : new Map<string, string>();
  const names = nameNets(nets, sources);
  // Where no design says what is what, nets go by names of their own.
  if (!packing || packing.outputs.length === 0 || isBuiltOtherwise(board, packing))
    for (const [net, name] of ownNames(board, nets, names)) names.set(net, name);
  return { board, nets, names, wired };
}

/** The colours of a job's signals: of its design and packing (`signalsOf`), and what its board has beside. */
export function coloursOf(signals: readonly string[], packing: Packing | null, read: ReadBoard): Colours {
  return new Colours([...signals, ...read.names.values()], neighboursOf(packing, read));
}

/** Every signal of a job in the order in which colours are given: inputs, outputs, what is between, the packing's own; not what leads nowhere. */
export function signalsOf(reading: Reading | null, packing: Packing | null): string[] {
  const design = reading?.design;
  const gates = design?.netlist?.gates.map((g) => g.output) ?? [];
  const loose = packing ? looseNets(packing) : new Set<string>();
  const driven = packing?.packages.flatMap((p) => p.units.flatMap((u) => (u ? drivenBy(u) : []))) ?? [];
  const own = driven.filter((net) => !loose.has(net));
  const declared = [...(design?.inputs ?? []), ...(design?.outputs ?? [])].map((s) => s.name);
  return [...declared, ...gates, ...own];
}
