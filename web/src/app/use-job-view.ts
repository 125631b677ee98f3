import { currentPacking, type Finding, heldKey, type Netlist, rulesOf } from '@saddlebag/core';
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { Colours } from '../kit/palette';
import { PowerBench } from '../power/bench';
import { tableSubject } from '../power/subject';
import type { JobSession } from '../store/session';
import { runLong, stages } from '../workers/stages';
import { contentKey } from './content-key';
import { type JobView, readBoard, signalsOf } from './job-context';
import { useLatest } from './use-latest';

const none: readonly Finding[] = [];

/** Computes, from the job alone, everything the six steps show. Each stage is asked for again when what it depends on changes. */
export function useJobView(id: string, session: JobSession): JobView {
  const { history } = useSyncExternalStore(session.subscribe, session.snapshot);
  const { job } = history;
  const queries = useQueryClient();
  const reading = useQuery({
    queryKey: ['read', job.sheet],
    queryFn: () => stages().read(job.sheet),
    placeholderData: keepPreviousData,
  });
  const netlist: Netlist | null = reading.data?.design.netlist ?? null;
  const own = currentPacking(job, netlist, null);
  const rules = rulesOf(job);
  const packKey = ['pack', contentKey(netlist), job.family, rules.struck.join(), heldKey(rules.held)];
  const packed = useQuery({
    queryKey: packKey,
    queryFn: ({ signal }) => runLong('pack', signal, (api) => api.pack(netlist as Netlist, job.family, rules)),
    enabled: netlist !== null && own === null && !reading.isPlaceholderData,
  });
  const packing = own ?? (netlist ? (packed.data?.packing ?? null) : null);
  const board = useMemo(() => readBoard(job.board, packing), [job.board, packing]);
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
  const colours = useMemo(() => new Colours(signalsOf(reading.data ?? null, packing)), [reading.data, packing]);
  const [bench] = useState(() => new PowerBench());
  const behaviour = reading.data?.design.behaviour ?? null;
  const subject = useMemo(
    () => tableSubject(netlist, (behaviour?.stored.length ?? 0) > 0, board),
    [netlist, behaviour, board],
  );
  useEffect(() => bench.lay(board.board, board.nets, subject), [bench, board, subject]);
  const packingPending = packed.isFetching;
  const packingFindings = packed.data?.findings ?? none;
  const stopPacking = useLatest(() => void queries.cancelQueries({ queryKey: packKey }));
  const startPacking = useLatest(() => void packed.refetch());
  const read = reading.data ?? null;
  const findings = inspected.data ?? null;
  return useMemo(
    () => ({
      id,
      job,
      session,
      reading: read,
      packing,
      packingPending,
      packingFindings,
      stopPacking,
      startPacking,
      board,
      findings,
      colours,
      bench,
      subject,
    }),
    [
      id,
      job,
      session,
      read,
      packing,
      packingPending,
      packingFindings,
      stopPacking,
      startPacking,
      board,
      findings,
      colours,
      bench,
      subject,
    ],
  );
}
