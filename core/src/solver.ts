import highsLoader from 'highs';
import type { SolveInteger, SolverProgress } from './logic';

/** Where the solver's .wasm file lies; leave out in Node. */
export interface SolverOptions {
  readonly wasmUrl?: string;
}

type Highs = Awaited<ReturnType<typeof highsLoader>>;

/**
 * Integer programs by HiGHS compiled to WebAssembly, loaded at the first call. `solve` blocks its
 * thread while it works: call it in a worker. Effort is counted, not measured, so that a busy machine
 * takes longer and finds the same. Source: highs.dev, https://doi.org/10.1007/s12532-017-0130-5.
 */
export function highsSolver(options: SolverOptions = {}): SolveInteger {
  let loaded: Promise<Highs> | undefined;
  let hear: (line: string) => void = () => {};
  return async (lp, { effort, until }, tell) => {
    const { wasmUrl } = options;
    loaded ??= highsLoader({
      ...(wasmUrl !== undefined && { locateFile: () => wasmUrl }),
      print: (line) => hear(line),
      printErr: () => {},
    });
    const highs = await loaded;
    if (until !== undefined && Date.now() >= until) return { status: 'none', detail: TOO_LATE, values: {}, effort: 0 };
    let bound: number | undefined;
    let isFound = false;
    const clock = new CountingClock(effort, until);
    hear = (line) => {
      const progress = progressOf(line);
      if (!progress) return;
      if (progress.bound !== null) bound = progress.bound;
      if (progress.best !== null) isFound = true;
      if (tell) clock.paused(() => tell(progress));
    };
    const answer = clock.during(() => highs.solve(lp, { time_limit: effort, output_flag: true, log_to_console: true }));
    hear = () => {};
    const values: Record<string, number> = {};
    // HiGHS answers integer columns within 1e-6 of an integer (4.0000000000000036): round them.
    for (const [name, c] of Object.entries(answer.Columns))
      if ('Primal' in c) values[name] = 'Type' in c && c.Type === 'Integer' ? Math.round(c.Primal) : c.Primal;
    const status = statusOf(answer.Status, isFound);
    const solution = { status, detail: answer.Status, values, effort: clock.effort };
    return bound === undefined ? solution : { ...solution, bound };
  };
}

/** What HiGHS says when its time is over. */
const TOO_LATE = 'Time limit reached';

/** Readings of its clock that the solver makes in about a second of a quiet machine. */
const READINGS = 8_000;
/** Readings between two looks at the real clock. */
const LOOK = 32;

/**
 * Stands in for `performance.now` while the solver runs: each reading is one more step, wherever in its work the solver
 * asks what time it is. Its time limit so becomes a count of its own steps, the same on every machine; HiGHS has limits
 * of nodes as well, but what takes long in these programs comes before the first node. The solver blocks its thread, so
 * that nobody else reads this clock.
 */
class CountingClock {
  private readings = 0;
  private ended = false;
  private readonly real = performance.now;

  constructor(
    private readonly limit: number,
    private readonly until = Number.POSITIVE_INFINITY,
  ) {}

  /** Effort so far, as `SolveLimits` counts it. */
  get effort(): number {
    return this.readings / READINGS;
  }

  during<T>(work: () => T): T {
    this.stand();
    try {
      return work();
    } finally {
      performance.now = this.real;
    }
  }

  /** Something that may want the real time, in between. */
  paused(work: () => void): void {
    performance.now = this.real;
    work();
    this.stand();
  }

  private stand(): void {
    performance.now = () => this.read();
  }

  /** Milliseconds as the solver takes them; past the moment at which it is to end, later than its limit. */
  private read(): number {
    if (++this.readings % LOOK === 0 && Date.now() >= this.until) this.ended = true;
    return 1000 * (this.effort + (this.ended ? this.limit : 0));
  }
}

/** The bound and the best in a line of the solver's log, as its table and its report give them; null for other lines. */
export function progressOf(line: string): SolverProgress | null {
  const dual = /^\s+Dual bound\s+(\S+)/.exec(line);
  if (dual) return { bound: numberIn(dual[1]), best: null };
  const primal = /^\s+Primal bound\s+(\S+)/.exec(line);
  if (primal) return { bound: null, best: numberIn(primal[1]) };
  const row = /^.{3}\s*\d+\s+\d+\s+\d+\s+[\d.]+%\s+(\S+)\s+(\S+)\s/.exec(line);
  return row && { bound: numberIn(row[1]), best: numberIn(row[2]) };
}

function numberIn(text = ''): number | null {
  const n = Number(text);
  return text !== '' && Number.isFinite(n) ? n : null;
}

/** Broken off before anything was found, HiGHS still has values for the columns: they solve nothing. */
function statusOf(status: string, isFound: boolean): 'optimal' | 'feasible' | 'none' {
  if (status === 'Optimal') return 'optimal';
  return status === TOO_LATE && isFound ? 'feasible' : 'none';
}
