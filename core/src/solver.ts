import highsLoader from 'highs';
import type { SolveInteger, SolverProgress } from './logic';

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
  let hear: (line: string) => void = () => {};
  return async (lp, seconds, tell) => {
    const { wasmUrl } = options;
    loaded ??= highsLoader({
      ...(wasmUrl !== undefined && { locateFile: () => wasmUrl }),
      print: (line) => hear(line),
      printErr: () => {},
    });
    let bound: number | undefined;
    hear = (line) => {
      const progress = progressOf(line);
      if (!progress) return;
      if (progress.bound !== null) bound = progress.bound;
      tell?.(progress);
    };
    const answer = (await loaded).solve(lp, { time_limit: seconds, output_flag: true, log_to_console: true });
    hear = () => {};
    const values: Record<string, number> = {};
    // HiGHS answers integer columns within 1e-6 of an integer (4.0000000000000036): round them.
    for (const [name, c] of Object.entries(answer.Columns))
      if ('Primal' in c) values[name] = 'Type' in c && c.Type === 'Integer' ? Math.round(c.Primal) : c.Primal;
    const solution = { status: statusOf(answer.Status, values), detail: answer.Status, values };
    return bound === undefined ? solution : { ...solution, bound };
  };
}

/** The bound and the best in a line of the solver's log, as its table and its report give them; null for other lines. */
export function progressOf(line: string): SolverProgress | null {
  const report = /^\s+Dual bound\s+(\S+)/.exec(line);
  if (report) return { bound: numberIn(report[1]), best: null };
  const row = /^.{3}\s*\d+\s+\d+\s+\d+\s+[\d.]+%\s+(\S+)\s+(\S+)\s/.exec(line);
  return row && { bound: numberIn(row[1]), best: numberIn(row[2]) };
}

function numberIn(text = ''): number | null {
  const n = Number(text);
  return text !== '' && Number.isFinite(n) ? n : null;
}

function statusOf(status: string, values: object): 'optimal' | 'feasible' | 'none' {
  if (status === 'Optimal') return 'optimal';
  return status === 'Time limit reached' && Object.keys(values).length > 0 ? 'feasible' : 'none';
}
