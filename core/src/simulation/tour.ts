import { type Board, extractNets, type Nets } from '../board';
import { elementAt } from '../element-at';
import { type Finding, finding } from '../finding';
import { type Behaviour, type TransitionGraph, transitionGraph, UNKNOWN } from '../logic';
import { fromChance } from './chance-starts';
import { type Circuit, compileCircuit } from './circuit';
import { Hand } from './hand';
import { PoweredBoard, type Start } from './powered-board';
import type { TourDifference, TourStep } from './tour-step';
import { panelOf } from './walk';

/**
 * What a tour came to. `transitions` is how many there are to see: each reachable state, with every setting of the inputs, and each input in it that may change
 * what is stored. Words list `inputs`, `stored` and `outputs` in order. `starts` are those by chance, which a design without a reset is tried from; null where it
 * has one.
 */
export interface Tour {
  readonly inputs: readonly string[];
  readonly stored: readonly string[];
  readonly outputs: readonly string[];
  readonly transitions: number;
  readonly covered: number;
  readonly differing: number;
  readonly starts: { readonly tried: number; readonly differing: number } | null;
  readonly first: TourDifference | null;
  /** Every press of the tour, in order, from power up. */
  readonly steps: readonly TourStep[];
  readonly findings: readonly Finding[];
}

/** How far a tour may go, and whom it tells how far it is. */
export interface TourOptions {
  readonly nets?: Nets;
  /** States that are gone through, and presses, at the most. */
  readonly mostStates?: number;
  readonly mostPresses?: number;
  /** Told now and then how many of the transitions have been seen; false ends the tour. */
  readonly onProgress?: (covered: number, of: number) => boolean;
}

const MOST_PRESSES = 200_000;
/** After so many differences the board has shown enough. */
const MOST_DIFFERENCES = 100;
/** Presses between two reports of how far it is. */
const A_REPORT = 500;

/**
 * The presses that lead through every transition of a design, nearest first: a short tour, not always the shortest. Each step is the input that
 * turns over; after `null` the power is put off and on, since nothing that is left can be reached from there.
 */
export class Itinerary {
  private at = 0;
  private readonly isSeen: Uint8Array;
  private ahead: number[] = [];
  /** Transitions that the board does otherwise: no way leads through them any more. */
  private readonly isBarred: Uint8Array;
  readonly transitions: number;
  covered = 0;

  constructor(private readonly graph: TransitionGraph) {
    const { after, stepping } = graph;
    this.isSeen = new Uint8Array(after.length * stepping.length);
    this.isBarred = new Uint8Array(after.length * (after[0]?.length ?? 0));
    this.transitions = after.reduce((sum, row) => sum + stepping.filter((i) => elementAt(row, i) >= 0).length, 0);
  }

  get state(): number {
    return this.at;
  }

  private isOpen(state: number, k: number): boolean {
    const { after, stepping } = this.graph;
    const row = elementAt(after, state);
    return this.isSeen[state * stepping.length + k] === 0 && elementAt(row, elementAt(stepping, k)) >= 0;
  }

  /** The input to turn over next; null where all is seen, or the rest is out of reach from here. */
  next(): number | null {
    const { after, stepping } = this.graph;
    if (this.ahead.length === 0) this.ahead = this.wayToOpen();
    const input = this.ahead.shift();
    if (input === undefined) return null;
    const k = stepping.indexOf(input);
    if (k >= 0 && this.isOpen(this.at, k)) {
      this.isSeen[this.at * stepping.length + k] = 1;
      this.covered++;
    }
    this.at = elementAt(elementAt(after, this.at), input);
    return input;
  }

  /** Leads no way through a transition any more. */
  bar(state: number, input: number): void {
    this.isBarred[state * (this.graph.after[0]?.length ?? 0) + input] = 1;
  }

  /** Begins at the first state again. */
  restart(): void {
    this.at = 0;
    this.ahead = [];
  }

  /** The fewest inputs to turn over, the last of them a transition that has not been seen. */
  private wayToOpen(): number[] {
    const { after, stepping } = this.graph;
    const from = new Map<number, readonly [before: number, input: number] | null>([[this.at, null]]);
    const queue = [this.at];
    for (let n = 0; n < queue.length; n++) {
      const state = elementAt(queue, n);
      const k = stepping.findIndex((_, j) => this.isOpen(state, j));
      if (k >= 0) {
        const way = [elementAt(stepping, k)];
        for (let step = from.get(state); step; step = from.get(step[0])) way.unshift(step[1]);
        return way;
      }
      elementAt(after, state).forEach((next, input) => {
        if (next < 0 || from.has(next) || this.isBarred[state * elementAt(after, 0).length + input] === 1) return;
        from.set(next, [state, input]);
        queue.push(next);
      });
    }
    return [];
  }
}

/** Levels as a word: `-` where any will do, `?` where nobody knows. */
export const shownWord = (levels: readonly (number | null)[]): string =>
  levels.map((l) => (l === null ? '-' : l === UNKNOWN ? '?' : String(l))).join('');

/** The presses of a tour as they are to be made by hand, from power up; `more` is how many follow those that are given. */
export interface PlannedTour {
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  /** Presses that bring what is stored to a known state first; null where none do. */
  readonly toStart: readonly string[] | null;
  readonly steps: readonly TourStep[];
  readonly more: number;
}

/** Plans the tour of a clocked design without a board: up to so many presses of it; null for a design that stores nothing. */
export function plannedTour(behaviour: Behaviour, mostSteps: number): PlannedTour | null {
  if (behaviour.stored.length === 0) return null;
  const graph = transitionGraph(behaviour);
  const guide = new Itinerary(graph);
  const steps: TourStep[] = [];
  let more = 0;
  while (guide.covered < guide.transitions && steps.length + more < MOST_PRESSES) {
    const { inputs, stored } = elementAt(graph.states, guide.state);
    const input = guide.next();
    if (input === null) break;
    const { wanted } = elementAt(graph.states, guide.state);
    if (steps.length < mostSteps) steps.push({ press: elementAt(behaviour.inputs, input), inputs, stored, wanted });
    else more++;
  }
  return {
    inputs: behaviour.inputs,
    outputs: behaviour.outputs.map((o) => o.name),
    toStart: graph.toStart?.map((i) => elementAt(behaviour.inputs, i)) ?? null,
    steps,
    more,
  };
}

/**
 * Goes through every state of a clocked design on its board, one press after the other, and compares what the lamps show with the sheet. Boards with one-shots are not
 * gone through: their pulses end by themselves.
 */
export function tourBoard(board: Board, behaviour: Behaviour, options: TourOptions = {}): Tour {
  const graph = transitionGraph(behaviour, options.mostStates);
  const names = {
    inputs: behaviour.inputs,
    stored: behaviour.stored.map((s) => s.name),
    outputs: behaviour.outputs.map((o) => o.name),
  };
  const circuit = compileCircuit(board);
  const panel = panelOf(board, circuit, names.inputs, names.outputs);
  const untold = oneShotsOf(circuit);
  if (untold.length > 0) {
    const transitions = new Itinerary(graph).transitions;
    const findings = [finding('tour-one-shots', [], { refs: untold.join(', ') })];
    return { ...names, transitions, covered: 0, differing: 0, starts: null, first: null, steps: [], findings };
  }
  const nets = options.nets ?? extractNets(board);
  const powered = (start: Start): Hand => new Hand(new PoweredBoard(board, nets, { circuit, start }), panel);
  const guide = new Itinerary(graph);
  const { steps, isEnded, ...toured } = pressed(graph, guide, powered, options);
  // Without a reset a board starts in any state: those that cannot be reached from a cleared one are tried as well.
  const isTried = graph.toStart === null && !isEnded && names.outputs.length > 0;
  const chance = isTried
    ? fromChance(
        behaviour,
        (seed) => powered({ chance: seed }),
        () => options.onProgress?.(guide.covered, guide.transitions) !== false,
      )
    : null;
  return {
    ...names,
    transitions: guide.transitions,
    covered: guide.covered,
    differing: toured.differing + (chance?.differing ?? 0),
    starts: chance && { tried: chance.tried, differing: chance.differing },
    first: toured.first ?? chance?.first ?? null,
    steps,
    findings: findingsOf(graph, guide, { outputs: names.outputs.length, starts: chance?.tried ?? 0 }),
  };
}

/** The chips of a board that have one-shots: on the sheet a pulse, once begun, stays. */
function oneShotsOf({ chips, units }: Circuit): string[] {
  return [...new Set(units.flatMap(({ chip, timers }) => (timers.length > 0 ? [elementAt(chips, chip).ref] : [])))];
}

interface Pressed {
  readonly steps: readonly TourStep[];
  readonly differing: number;
  readonly first: TourDifference | null;
  /** Whether the one who is told how far it is has ended it. */
  readonly isEnded: boolean;
}

/** Presses the switches of a board as an itinerary leads, from power up again wherever it leads no further or the board differs. */
function pressed(
  { states, toStart, inputs: inputNames }: TransitionGraph,
  guide: Itinerary,
  powered: (start: Start) => Hand,
  { mostPresses = MOST_PRESSES, onProgress }: TourOptions,
): Pressed {
  const nameOf = (input: number): string => elementAt(inputNames, input);
  const start: Start = toStart ? 'unknown' : 'clear';
  const steps: TourStep[] = [];
  let [differing, first, isEnded] = [0, null as TourDifference | null, false];
  while (!isEnded && guide.covered < guide.transitions && steps.length < mostPresses) {
    const hand = powered(start);
    const before = guide.covered;
    guide.restart();
    for (const i of toStart ?? []) hand.press(i);
    const presses = (toStart ?? []).map(nameOf);
    for (;;) {
      const from = guide.state;
      const { inputs, stored } = elementAt(states, from);
      const input = guide.next();
      if (input === null || steps.length >= mostPresses) break;
      const { wanted } = elementAt(states, guide.state);
      const step = { press: nameOf(input), inputs, stored, wanted };
      presses.push(step.press);
      steps.push(step);
      hand.press(input);
      const seen = hand.lamps();
      if (steps.length % A_REPORT === 0) isEnded = onProgress?.(guide.covered, guide.transitions) === false;
      if (isEnded) break;
      if (wanted.every((w, o) => w === null || seen[o] === w)) continue;
      differing++;
      first ??= { ...step, presses: [...presses], seen, start };
      // From here on the board and the sheet are no longer in the same state.
      guide.bar(from, input);
      break;
    }
    if (guide.covered === before || differing >= MOST_DIFFERENCES) break;
  }
  return { steps, differing, first, isEnded };
}

function findingsOf(
  graph: TransitionGraph,
  { covered, transitions }: Itinerary,
  { outputs, starts }: { readonly outputs: number; readonly starts: number },
): Finding[] {
  return [
    ...(graph.toStart ? [] : [starts > 0 ? finding('tour-no-reset', [], { starts }) : finding('tour-cleared', [], {})]),
    ...(graph.isWhole ? [] : [finding('tour-cut', [], { states: graph.states.length })]),
    ...(covered < transitions ? [finding('tour-incomplete', [], { covered, transitions })] : []),
    ...(outputs === 0 ? [finding('tour-no-lamps', [], {})] : []),
  ];
}
