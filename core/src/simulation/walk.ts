import { type Board, labelledPlaces, type Nets } from '../board';
import { type Finding, finding } from '../finding';
import { HIGH, inputAt, LOW, UNKNOWN } from '../logic';
import { type Circuit, compileCircuit } from './circuit';
import { type LedState, MAX_EVENTS, Simulator } from './simulator';

/** The most switches whose rows are walked: 2^16 rows. */
export const MAX_WALK_INPUTS = 16;

/**
 * A row that was run: its number (first input most significant) and, for each output in order, what
 * its LED showed: LOW for dark, HIGH for lit, UNKNOWN for anything else or no LED.
 */
export interface WalkedRow {
  readonly row: number;
  readonly seen: readonly number[];
  readonly settled: boolean;
}

/** Where the inputs and outputs of a design are found on a board: indices into the circuit, -1 for none. */
export interface Panel {
  readonly switches: readonly number[];
  readonly leds: readonly number[];
  /** Lamps that are lit when what they show is low. */
  readonly inverted: readonly boolean[];
}

/** Finds the switch of each input and the LED of each output by the signal they are labelled with. */
export function panelOf(board: Board, circuit: Circuit, inputs: readonly string[], outputs: readonly string[]): Panel {
  const [givers, showers] = [labelledPlaces(board, 'give'), labelledPlaces(board, 'show')];
  const placeOf = (places: typeof givers, signal: string) => places.find((p) => p.signal === signal);
  const indexIn = (list: readonly { ref: string }[], called: string | undefined): number =>
    list.findIndex(({ ref }) => ref === called);
  const shown = outputs.map((name) => placeOf(showers, name));
  return {
    switches: inputs.map((name) => indexIn(circuit.switches, placeOf(givers, name)?.called)),
    leds: shown.map((place) => indexIn(circuit.leds, place?.called)),
    inverted: shown.map((place) => place?.inverted ?? false),
  };
}

/** What an LED's state says about the level it shows; one of a common anode is lit by a low level. */
export function levelShown(state: LedState, inverted = false): number {
  const [lit, dark] = inverted ? [LOW, HIGH] : [HIGH, LOW];
  return state === 'lit' ? lit : state === 'dark' || state === 'dim' ? dark : UNKNOWN;
}

/** Sets the switches to a row, lets the board settle, and reads the LEDs. */
export function runRow(simulator: Simulator, panel: Panel, row: number): WalkedRow {
  panel.switches.forEach((s, i) => {
    if (s >= 0) simulator.setSwitch(s, inputAt(panel.switches.length, i, row) === 1);
  });
  const { settled } = simulator.settle();
  const seen = panel.leds.map((led, o) => (led < 0 ? UNKNOWN : levelShown(simulator.ledState(led), panel.inverted[o])));
  return { row, seen, settled };
}

/** Walks the table on a board row by row; the caller may stop between any two. */
export function* walkTable(
  board: Board,
  nets: Nets,
  inputs: readonly string[],
  outputs: readonly string[],
): Generator<WalkedRow> {
  const circuit = compileCircuit(board, nets);
  const simulator = new Simulator(circuit);
  const panel = panelOf(board, circuit, inputs, outputs);
  const rows = 2 ** Math.min(inputs.length, MAX_WALK_INPUTS);
  for (let row = 0; row < rows; row++) yield runRow(simulator, panel, row);
}

/** Whether a walk over so many inputs is done at all. */
export function checkWalk(inputs: number): Finding[] {
  if (inputs <= MAX_WALK_INPUTS) return [];
  return [finding('walk-too-wide', [], { inputs, rows: 2 ** inputs, limit: MAX_WALK_INPUTS })];
}

/** Whether a row agrees with what is wanted, output by output; unknown never does, and null wants nothing. */
export function agrees(seen: readonly number[], wanted: readonly (number | null)[]): boolean {
  return seen.every((level, i) => wanted[i] === null || (level === wanted[i] && level !== UNKNOWN));
}

/** The finding for a board that did not come to rest. */
export function restless(): Finding {
  return finding('does-not-settle', [], { events: MAX_EVENTS });
}
