import {
  asInDrawer,
  bestOfAll,
  type DrawerEntry,
  elementAt,
  type Finding,
  locksKey,
  type Packing,
  type PackProgress,
  rulesOf,
  type Strategy,
  type Supplies,
  stockOf,
} from '@saddlebag/core';
import { type QueryKey, type UseQueryResult, useQueries, useQueryClient } from '@tanstack/react-query';
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

/** What came of packing. */
type PackOutcome = Pick<StrategyState, 'packing' | 'findings'>;

/** The strategies of a job, and what can be done about them. */
export interface Strategies {
  readonly states: readonly StrategyState[];
  /** Has strategies worked out. */
  readonly ask: (which: readonly Strategy[]) => void;
  /** Works a strategy out and gives what came of it. */
  readonly work: (strategy: Strategy) => Promise<PackOutcome>;
  readonly stop: () => void;
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

/** Of which design and rules a strategy is asked: after a change of either it must be asked for again. */
function useStrategyKey(stock: ReturnType<typeof stockOf> | null): (strategy: Strategy) => QueryKey {
  const { job, netlist } = useJobView();
  const rules = rulesOf(job);
  return (strategy) => [
    'strategy',
    contentKey(netlist),
    job.family,
    strategy,
    rules.excluded.join(),
    locksKey(rules.locks),
    strategy === 'drawer' ? contentKey(stock) : 0,
  ];
}

/** How a strategy is worked out in the worker; `heard` is told how far it is. */
function useStrategyQuery(
  drawer: readonly DrawerEntry[],
  supplies: Supplies,
  heard: (strategy: Strategy, progress: PackProgress) => void,
) {
  const { job, netlist } = useJobView();
  const { family } = job;
  return (strategy: Strategy) => ({
    queryFn: ({ signal }: { signal: AbortSignal }) => {
      if (!netlist) return { packing: null, findings: [] };
      const tell = callback((p: PackProgress) => heard(strategy, p));
      return runLong('ways', signal, async (api) => {
        const made = await api.packByStrategy(netlist, { family, strategy, supplies }, tell);
        const named = strategy === 'drawer' && made.packing && asInDrawer(made.packing, drawer, family);
        return named ? { ...made, packing: named } : made;
      });
    },
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
}

/** What a query and what was told on the way come to. */
function stateOf(
  strategy: Strategy,
  { data, isFetching: working, isError, error }: UseQueryResult<PackOutcome>,
  soFar: PackProgress | null,
): StrategyState {
  // Stopped: the best so far is kept.
  const kept = working || data ? null : (soFar?.packing ?? null);
  return {
    strategy,
    working,
    progress: soFar,
    packing: data?.packing ?? kept,
    findings: data?.findings ?? [],
    failed: isError ? String(error) : null,
  };
}

/** The strategies side by side: each is worked out in the worker when it is asked for, and kept while the design and what it must keep to stay. */
export function useStrategies(list: readonly Strategy[], drawer: readonly DrawerEntry[] | undefined): Strategies {
  const { job, netlist } = useJobView();
  const queries = useQueryClient();
  const stock = useMemo(() => (drawer && drawer.length > 0 ? stockOf(drawer, job.family) : null), [drawer, job.family]);
  const supplies: Supplies = { ...rulesOf(job), drawer: stock };
  const keyOf = useStrategyKey(stock);
  const [asked, setAsked] = useState<ReadonlySet<string>>(new Set());
  const { progress, heard } = useProgress();
  const workingOut = useStrategyQuery(drawer ?? [], supplies, (strategy, p) => heard(keyOf(strategy).join(), p));
  const queryOf = (strategy: Strategy) => ({ queryKey: keyOf(strategy), ...workingOut(strategy) });
  const results = useQueries({
    queries: list.map((strategy) => ({
      ...queryOf(strategy),
      enabled: netlist !== null && asked.has(keyOf(strategy).join()),
    })),
  });
  const states = list.map((strategy, i) =>
    stateOf(strategy, elementAt(results, i), progress.get(keyOf(strategy).join()) ?? null),
  );
  // No way is shown with less than what another one found for it.
  const best = bestOfAll(states, supplies);
  const ask = (which: readonly Strategy[]): void =>
    setAsked((all) => new Set([...all, ...which.map((strategy) => keyOf(strategy).join())]));
  return {
    states: states.map((state, i) => ({ ...state, packing: best[i] ?? null })),
    ask,
    work: (strategy) => {
      ask([strategy]);
      return queries.fetchQuery(queryOf(strategy));
    },
    stop: () => {
      setAsked(new Set(states.filter((s) => !s.working).map((s) => keyOf(s.strategy).join())));
      void queries.cancelQueries({ queryKey: ['strategy'] });
    },
  };
}
