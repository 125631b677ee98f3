import {
  type Behaviour,
  currentPacking,
  type Finding,
  fingerprint,
  type Job,
  locksKey,
  type Netlist,
  type Packing,
  rulesOf,
} from '@saddlebag/core';
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import { PowerBench } from '../base/bench';
import { contentKey, printedOnce } from '../base/content-key';
import { coloursOf, type JobView, type ReadBoard, readBoard, signalsOf } from '../base/job-context';
import { type PowerSubject, tableSubject } from '../base/subject';
import { useKept, useSame } from '../base/use-kept';
import { useLatest } from '../base/use-latest';
import type { JobSession } from '../store/session';
import { workerRunner } from '../workers/bench';
import { runLong, stages } from '../workers/stages';
import { useShownJob } from './use-shown-job';

const none: readonly Finding[] = [];
const fingerprintOf = printedOnce(fingerprint);
const printedBehaviour = printedOnce<Behaviour>((behaviour) => JSON.stringify(behaviour));

/** Everything the six steps show, and whether some of it is still that of an earlier reading. */
interface JobStages {
  readonly view: JobView;
  readonly isBehind: boolean;
}

/** Computes, from the job alone, everything the six steps show. Each stage is asked for again when what it depends on changes. */
export function useJobStages(id: string, session: JobSession): JobStages {
  const job = useShownJob(session);
  const { sheet } = job;
  const reading = useQuery({
    queryKey: ['read', sheet],
    queryFn: () => stages().read(sheet),
    placeholderData: keepPreviousData,
  });
  // What hangs on the reading is drawn beside what else goes on: with a large sheet it takes more than a frame.
  const read = useDeferredValue(reading.data ?? null);
  const isBehind = reading.isPlaceholderData || read !== (reading.data ?? null);
  const design = read?.design;
  // What a comment or a space leaves as it was stays the same object, and what hangs on it is not done again.
  const netlist: Netlist | null = useKept(design?.netlist ?? null, fingerprintOf(design?.netlist ?? null));
  const behaviour = useKept(design?.behaviour ?? null, printedBehaviour(design?.behaviour ?? null));
  const { packing, ...pack } = usePacking(job, netlist, isBehind);
  const board = useMemo(() => readBoard(job.board, packing), [job.board, packing]);
  const findings = useFindings(job, packing);
  const all = signalsOf(read, packing);
  const signals = useKept(all, all.join(' '));
  const given = useMemo(() => coloursOf(signals, packing, board), [signals, packing, board]);
  const colours = useKept(given, given.key);
  const subject = useMemo(() => tableSubject(netlist, behaviour, board), [netlist, behaviour, board]);
  const bench = useBench(board, subject);
  const view = useSame({
    id,
    job,
    session,
    reading: read,
    netlist,
    behaviour,
    packing,
    ...pack,
    board,
    findings,
    colours,
    bench,
    subject,
  });
  return { view, isBehind };
}

/** What inspection finds on the board; null until it has been inspected once. */
function useFindings(job: Job, packing: Packing | null): readonly Finding[] | null {
  const inspected = useQuery({
    queryKey: [
      'inspect',
      contentKey(job.board),
      contentKey(job.packing),
      contentKey(packing),
      contentKey(job.silenced ?? null),
    ],
    queryFn: () => stages().inspect(job, packing),
    placeholderData: keepPreviousData,
  });
  return inspected.data ?? null;
}

/** The bench that a board lies on while its job is open. */
function useBench({ board, nets }: ReadBoard, subject: PowerSubject): PowerBench {
  const [bench] = useState(() => new PowerBench(workerRunner));
  useEffect(() => bench.lay(board, nets, subject), [bench, board, nets, subject]);
  useEffect(() => () => bench.close(), [bench]);
  return bench;
}

type PackingView = Pick<JobView, 'packing' | 'packingPending' | 'packingFindings' | 'stopPacking' | 'startPacking'>;

/** The job's own packing where it fits its sheet, otherwise one that the worker finds; none is looked for while the netlist `isBehind`. */
function usePacking(job: Job, netlist: Netlist | null, isBehind: boolean): PackingView {
  const queries = useQueryClient();
  const own = currentPacking(job, netlist, null);
  const rules = rulesOf(job);
  const queryKey = ['pack', fingerprintOf(netlist), job.family, rules.excluded.join(), locksKey(rules.locks)];
  const packed = useQuery({
    queryKey,
    queryFn: ({ signal }) => runLong('pack', signal, (api) => api.pack(netlist as Netlist, job.family, rules)),
    enabled: netlist !== null && own === null && !isBehind,
  });
  return {
    packing: own ?? (netlist ? (packed.data?.packing ?? null) : null),
    packingPending: packed.isFetching,
    packingFindings: packed.data?.findings ?? none,
    stopPacking: useLatest(() => void queries.cancelQueries({ queryKey })),
    startPacking: useLatest(() => void packed.refetch()),
  };
}
