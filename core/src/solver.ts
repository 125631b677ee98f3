import highsLoader from 'highs';
import type { SolveInteger } from './logic';

/** Where the solver's .wasm file lies; leave out in Node. */
export interface SolverOptions {
  readonly wasmUrl?: string;
}

type Highs = Awaited<ReturnType<typeof highsLoader>>;

/**
 * Integer programs by HiGHS compiled to WebAssembly, loaded at the first call. `solve` blocks its
 * thread while it works: call it in a worker. Source: highs.dev, https://doi.org/10.1007/s12532-017-0130-5.
 */
export function highsSolver(options: SolverOptions = {}): SolveInteger {
  let loaded: Promise<Highs> | undefined;
  return async (lp, seconds) => {
    const { wasmUrl } = options;
    loaded ??= highsLoader(wasmUrl === undefined ? {} : { locateFile: () => wasmUrl });
    const answer = (await loaded).solve(lp, { time_limit: seconds });
    const values: Record<string, number> = {};
    // HiGHS answers integer columns within 1e-6 of an integer (4.0000000000000036): round them.
    for (const [name, c] of Object.entries(answer.Columns))
      if ('Primal' in c) values[name] = 'Type' in c && c.Type === 'Integer' ? Math.round(c.Primal) : c.Primal;
    return { status: statusOf(answer.Status, values), detail: answer.Status, values };
  };
}

function statusOf(status: string, values: object): 'optimal' | 'feasible' | 'none' {
  if (status === 'Optimal') return 'optimal';
  return status === 'Time limit reached' && Object.keys(values).length > 0 ? 'feasible' : 'none';
}
