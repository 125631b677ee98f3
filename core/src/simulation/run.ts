import { type Board, extractNets, labelPlacesOf, type Nets } from '../board';
import { elementAt } from '../element-at';
import { type Finding, finding } from '../finding';
import { shortedFinding, switchesNamed, turned } from './measure';
import { cutFinding, MOST_RUN_EVENTS, PoweredBoard, type Start, timingFinding } from './powered-board';
import { Trace } from './trace';
import { placeNamed } from './walk';

/** A switch to be moved at a moment, in nanoseconds since power up. */
export interface Move {
  readonly name: string;
  readonly on: boolean;
  readonly atNs: number;
}

/** How a board is run. */
export interface RunSettings {
  readonly untilNs: number;
  readonly moves?: readonly Move[];
  readonly start?: Start;
  /** Where potentiometers stand, from 0 to DIAL_END, by reference. */
  readonly dials?: ReadonlyMap<string, number>;
  /** Contacts bounce, with this seed. */
  readonly bounce?: number | null;
  /** Which delays are taken from the data sheets. */
  readonly delays?: 'typical' | 'most';
  /** What is stored is unknown after a time that its data sheet does not allow. */
  readonly strict?: boolean;
  /** Signals, lamps, switches or pins to be watched; all that are labelled where none is named. */
  readonly watch?: readonly string[];
  readonly nets?: Nets;
  /** Events after which the run ends early; a finding tells so. */
  readonly mostEvents?: number;
}

/** What one watched signal did. Period and share are means over whole periods, null under two. */
export interface SignalReport {
  readonly edges: number;
  readonly periodNs: number | null;
  readonly highShare: number | null;
  readonly shortestPulseNs: number | null;
}

/** What a run came to: how far it went, what was watched, and all changes of that. */
export interface Run {
  readonly untilNs: number;
  readonly events: number;
  readonly signals: Readonly<Record<string, SignalReport>>;
  readonly trace: Trace;
  readonly findings: readonly Finding[];
}

/** The net of something that can be watched: a signal, a switch or lamp by its label or reference, or a pin. */
export function netNamed(board: Board, nets: Nets, name: string): number | null {
  const place = placeNamed(board, 'show', name) ?? placeNamed(board, 'give', name);
  return nets.ofPin.get(place?.pin ?? name) ?? nets.ofPin.get(name) ?? null;
}

/** The labels of a board's switches, then of its lamps, each once. */
export function labelledSignals(board: Board): string[] {
  const places = Object.values(board.parts).flatMap((part) => labelPlacesOf(part));
  const of = (does: 'give' | 'show') => places.flatMap((p) => (p.does === does ? (p.signal ?? []) : []));
  return [...new Set([...of('give'), ...of('show')])];
}

/**
 * Powers a board up and lets time run on it: switches move when they are told to, clock modules at their rate. `unknown` are names that
 * neither a switch nor anything to watch has; nothing is run then.
 */
export function runBoard(
  board: Board,
  {
    untilNs,
    moves = [],
    start = 'unknown',
    nets = extractNets(board),
    mostEvents = MOST_RUN_EVENTS,
    ...more
  }: RunSettings,
): { readonly run: Run | null; readonly unknown: readonly string[] } {
  const live = new PoweredBoard(board, nets, {
    start,
    clocksRun: true,
    bounce: more.bounce ?? null,
    delays: more.delays ?? 'typical',
    strict: more.strict ?? false,
  });
  const named = switchesNamed(
    board,
    live,
    moves.map((m) => m.name),
  );
  const names = more.watch ?? labelledSignals(board);
  const watched = names.map((name) => ({ name, net: netNamed(board, nets, name) }));
  const unknown = [
    ...named.unknown,
    ...turned(live, more.dials ?? new Map()),
    ...watched.flatMap(({ name, net }) => (net === null ? [name] : [])),
  ];
  if (unknown.length > 0) return { run: null, unknown };
  const trace = new Trace(
    live,
    watched.map(({ name, net }) => ({ name, net: net ?? 0 })),
  );
  const inOrder = moves.map((move, i) => ({ ...move, index: elementAt(named.switches, i) }));
  inOrder.sort((a, b) => a.atNs - b.atNs);
  for (const { index, on, atNs } of inOrder) {
    if (atNs > untilNs) break;
    live.runUntil(Math.max(atNs, live.timeNs), mostEvents - live.events);
    live.setSwitch(index, on);
  }
  live.runUntil(untilNs, mostEvents - live.events);
  trace.stop();
  const isCut = live.timeNs < untilNs;
  const report = (row: Trace['rows'][number]): SignalReport => ({
    edges: row.edges,
    periodNs: row.periodNs,
    highShare: row.highShare,
    shortestPulseNs: row.shortestNs < Infinity ? row.shortestNs : null,
  });
  return {
    run: {
      untilNs: live.timeNs,
      events: live.events,
      signals: Object.fromEntries(trace.rows.map((row) => [row.name, report(row)])),
      trace,
      findings: [
        ...(live.shorted ? [shortedFinding(live)] : []),
        ...(isCut ? [cutFinding(live)] : []),
        ...live.timingFaults.map(timingFinding),
        ...(trace.rows.some((r) => r.hasForgotten) ? [finding('trace-forgets', [], {})] : []),
      ],
    },
    unknown,
  };
}
