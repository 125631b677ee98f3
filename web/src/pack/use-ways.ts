import { type DrawerEntry, type Finding, type Packing, type Supplies, stockOf, type Way } from '@saddlebag/core';
import { useQueries, useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { contentKey } from '../app/content-key';
import { useJobView } from '../app/job-context';
import { runLong } from '../workers/stages';

/** Seconds that the solver may look for each way. */
const SECONDS = 8;

/** A way to build as far as it is worked out. */
export interface WayState {
  readonly way: Way;
  readonly asked: boolean;
  readonly working: boolean;
  readonly packing: Packing | null;
  readonly findings: readonly Finding[];
  readonly failed: string | null;
}

/** Ways to build the design: each is worked out in the worker when it is asked for, and kept while the design and the chips stay. */
export function useWays(list: readonly Way[], drawer: readonly DrawerEntry[] | undefined) {
  const { job, reading } = useJobView();
  const queries = useQueryClient();
  const netlist = reading?.design.netlist ?? null;
  const [asked, setAsked] = useState<ReadonlySet<Way>>(new Set());
  const struck = useMemo(() => job.struck ?? [], [job.struck]);
  const stock = useMemo(() => (drawer && drawer.length > 0 ? stockOf(drawer, job.family) : null), [drawer, job.family]);
  const supplies: Supplies = { struck, drawer: stock };
  const results = useQueries({
    queries: list.map((way) => ({
      queryKey: ['way', contentKey(netlist), job.family, way, struck.join(), way === 'drawer' ? contentKey(stock) : 0],
      queryFn: ({ signal }: { signal: AbortSignal }) =>
        netlist
          ? runLong('ways', signal, (api) => api.packWay(netlist, job.family, way, supplies, SECONDS))
          : { packing: null, findings: [] },
      enabled: netlist !== null && asked.has(way),
      staleTime: Number.POSITIVE_INFINITY,
      retry: false,
    })),
  });
  const states = list.map(
    (way, i): WayState => ({
      way,
      asked: asked.has(way),
      working: results[i]?.isFetching === true,
      packing: results[i]?.data?.packing ?? null,
      findings: results[i]?.data?.findings ?? [],
      failed: results[i]?.isError ? String(results[i]?.error) : null,
    }),
  );
  return {
    states,
    ask: (which: readonly Way[]): void => setAsked(new Set([...asked, ...which])),
    stop: (): void => {
      setAsked(new Set(states.filter((s) => s.packing).map((s) => s.way)));
      void queries.cancelQueries({ queryKey: ['way'] });
    },
  };
}
