import {
  asInDrawer,
  bestOfAll,
  type DrawerEntry,
  type Finding,
  locksKey,
  type Packing,
  type PackProgress,
  rulesOf,
  type Strategy,
  type Supplies,
  stockOf,
} from '@saddlebag/core';
import { type QueryKey, useQueries, useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { contentKey } from '../base/content-key';
import { useJobView } from '../base/job-context';
import { callback, runLong } from '../workers/stages';

/** A strategy as far as it is worked out. */
export interface StrategyState {
  readonly strategy: Strategy;
  readonly working: boolean;
  /** How far it is while it is worked out, and how far it came when it was stopped. */
  readonly progress: PackProgress | null;
  readonly packing: Packing | null;
  readonly findings: readonly Finding[];
  readonly failed: string | null;
}

const nowhere: PackProgress = { bound: null, best: null, packing: null };

/** How far each strategy is, by its key; a packing or bound that was told stays until a better one is. */
function useProgress() {
  const [progress, setProgress] = useState<ReadonlyMap<string, PackProgress>>(new Map());
  const heard = (key: string, next: PackProgress): void =>
    setProgress((all) => {
      const before = all.get(key) ?? nowhere;
      return new Map(all).set(key, {
        ...next,
        packing: next.packing ?? before.packing,
        bound: next.bound ?? before.bound,
      });
    });
  return { progress, heard };
}

/** The strategies side by side: each is worked out in the worker when it is asked for, and kept while the design and what it must keep to stay. */
export function useStrategies(list: readonly Strategy[], drawer: readonly DrawerEntry[] | undefined) {
  const { job, netlist } = useJobView();
  const queries = useQueryClient();
  const stock = useMemo(() => (drawer && drawer.length > 0 ? stockOf(drawer, job.family) : null), [drawer, job.family]);
  const rules = rulesOf(job);
  const supplies: Supplies = { ...rules, drawer: stock };
  // What is asked for is asked of this design and these rules: after a change of either it must be asked for again.
  const keyOf = (strategy: Strategy): QueryKey => [
    'strategy',
    contentKey(netlist),
    job.family,
    strategy,
    rules.excluded.join(),
    locksKey(rules.locks),
    strategy === 'drawer' ? contentKey(stock) : 0,
  ];
  const [asked, setAsked] = useState<ReadonlySet<string>>(new Set());
  const { progress, heard } = useProgress();
  const queryOf = (strategy: Strategy) => ({
    queryKey: keyOf(strategy),
    queryFn: ({ signal }: { signal: AbortSignal }) => {
      if (!netlist) return { packing: null, findings: [] };
      const key = keyOf(strategy).join();
      const tell = callback((p: PackProgress) => heard(key, p));
      return runLong('ways', signal, async (api) => {
        const made = await api.packByStrategy(netlist, { family: job.family, strategy, supplies }, tell);
        const named = strategy === 'drawer' && made.packing && asInDrawer(made.packing, drawer ?? [], job.family);
        return named ? { ...made, packing: named } : made;
      });
    },
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
  const results = useQueries({
    queries: list.map((strategy) => ({
      ...queryOf(strategy),
      enabled: netlist !== null && asked.has(keyOf(strategy).join()),
    })),
  });
  const states = list.map((strategy, i): StrategyState => {
    const soFar = progress.get(keyOf(strategy).join()) ?? null;
    const working = results[i]?.isFetching === true;
    // Stopped: the best so far is kept.
    const kept = working ? null : (soFar?.packing ?? null);
    return {
      strategy,
      working,
      progress: soFar,
      packing: results[i]?.data?.packing ?? (results[i]?.data ? null : kept),
      findings: results[i]?.data?.findings ?? [],
      failed: results[i]?.isError ? String(results[i]?.error) : null,
    };
  });
  // No way is shown with less than what another one found for it.
  const best = bestOfAll(
    states.map(({ strategy, packing }) => ({ strategy, packing })),
    supplies,
  );
  const shown = states.map((state, i) => ({ ...state, packing: best[i] ?? null }));
  const ask = (which: readonly Strategy[]): void =>
    setAsked((all) => new Set([...all, ...which.map((strategy) => keyOf(strategy).join())]));
  return {
    states: shown,
    ask,
    /** Works a way out and gives what came of it. */
    work: (strategy: Strategy) => {
      ask([strategy]);
      return queries.fetchQuery(queryOf(strategy));
    },
    stop: (): void => {
      setAsked(new Set(states.filter((s) => !s.working).map((s) => keyOf(s.strategy).join())));
      void queries.cancelQueries({ queryKey: ['strategy'] });
    },
  };
}
