import { type Board, byNumber, cutPin, type LabelPlace, labelPlacesOf, type Nets } from '../board';
import { innerOf, typeOf } from '../catalogue';
import { entryOf } from '../element-at';
import { type Finding, finding } from '../finding';
import { inputAt, UNKNOWN } from '../logic';
import { compileSweep } from './board-sweep';
import { type Circuit, compileCircuit } from './circuit';
import { levelShown, type Panel } from './panel';
import { PoweredBoard, type Unclear } from './powered-board';

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
  /** Where a lamp is neither lit nor dark: the first pin that no level can be told of, or a lamp that burns. */
  readonly unclear?: Unclear;
}

/** The finding that tells why a lamp shows no level: the pin, and what is the matter with it. */
export function unclearFinding(unclear: Unclear): Finding {
  const { pin } = unclear;
  const places = [{ kind: 'pin' as const, pin }];
  switch (unclear.why) {
    case 'no-supply':
      return finding('unclear-no-supply', places, { pin });
    case 'open':
      return finding('unclear-open', places, { pin });
    case 'between':
      return finding('unclear-between', places, { pin, volts: unclear.volts.toFixed(1) });
    case 'lamp-burns':
      return finding('unclear-lamp-burns', [{ kind: 'part', ref: cutPin(pin).ref }], {
        lamp: pin,
        ma: unclear.ma.toFixed(0),
      });
  }
}

/** The switches and lamps of a board, each with the name it goes by: the signal it is labelled with, or what it is called itself. */
function namedPlaces(board: Board, does: LabelPlace['does']): (LabelPlace & { readonly goesBy: string })[] {
  const parts = Object.values(board.parts).sort((a, b) => byNumber(a.ref, b.ref));
  const places = parts.flatMap((part) => labelPlacesOf(part).filter((p) => p.does === does));
  // A timer gives a signal of the design only where it is labelled with one.
  const given = places.filter((p) => p.signal !== undefined || !innerOf(typeOf(entryOf(board.parts, p.ref))).runs);
  return given.map((p) => ({ ...p, goesBy: p.signal ?? p.called }));
}

/** What a table is about: the inputs that are set and the outputs that are read, by name. */
export interface TableSubject {
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
}

/** The switch or lamp that goes by a name: one that is labelled with it first. */
export function placeNamed(board: Board, does: LabelPlace['does'], name: string): LabelPlace | undefined {
  return placeFinder(board, does)(name);
}

/** Finds switches or lamps by name, many on one board. */
function placeFinder(board: Board, does: LabelPlace['does']): (name: string) => LabelPlace | undefined {
  const places = namedPlaces(board, does);
  return (name) => places.find((p) => p.signal === name) ?? places.find((p) => p.goesBy === name);
}

/**
 * What a table of a board without a design is about: its labelled switches and lamps; where none of a kind is labelled, all that are wired,
 * by their references. Names that stand twice count once.
 */
export function subjectOf(board: Board, nets: Nets): TableSubject {
  const isWired = (pin: string): boolean => (nets.nets[nets.ofPin.get(pin) ?? -1]?.pins.length ?? 0) > 1;
  const names = (does: LabelPlace['does']): string[] => {
    const places = namedPlaces(board, does);
    const labelled = places.filter((p) => p.signal !== undefined);
    const chosen = labelled.length > 0 ? labelled : places.filter((p) => isWired(p.pin));
    return [...new Set(chosen.map((p) => p.goesBy))];
  };
  return { inputs: names('give'), outputs: names('show') };
}

/** The chips of a board that store something: what its lamps show then depends on what went before. */
export function storingChips(board: Board): string[] {
  const stores = (ref: string): boolean => {
    const part = board.parts[ref];
    // A timer that gives a signal is held in a walk, and stores nothing.
    const isHeld = part?.signal !== undefined && innerOf(typeOf(part)).runs;
    return !isHeld && typeOf(part ?? { part: '' })?.units.some((u) => u.behaviour.stored.length > 0) === true;
  };
  return Object.keys(board.parts).filter(stores).sort(byNumber);
}

/** Finds the switch of each input and the LED of each output by the name they go by. */
export function panelOf(board: Board, circuit: Circuit, inputs: readonly string[], outputs: readonly string[]): Panel {
  const indexIn = (list: readonly { ref: string }[], called: string | undefined): number =>
    list.findIndex(({ ref }) => ref === called);
  const [giving, showing] = [placeFinder(board, 'give'), placeFinder(board, 'show')];
  const shown = outputs.map(showing);
  return {
    switches: inputs.map((name) => indexIn(circuit.switches, giving(name)?.called)),
    leds: shown.map((place) => indexIn(circuit.leds, place?.called)),
    inverted: shown.map((place) => place?.inverted ?? false),
  };
}

/** Sets the switches to a row, lets the board settle, and reads the LEDs. */
export function runRow(live: PoweredBoard, panel: Panel, row: number): WalkedRow {
  panel.switches.forEach((s, i) => {
    if (s >= 0) live.setSwitch(s, inputAt(panel.switches.length, i, row) === 1);
  });
  const { settled } = live.settle();
  return rowSeen(live, panel, row, settled);
}

/** The level that each output of a panel shows, LOW, HIGH or UNKNOWN. */
export function lampsOf(live: PoweredBoard, panel: Panel): number[] {
  return panel.leds.map((led, o) => (led < 0 ? UNKNOWN : levelShown(live.ledState(led), panel.inverted[o])));
}

/** The row that the switches of a board at rest stand at, and what its lamps show; null where an input has no switch. */
export function rowAtHand(live: PoweredBoard, panel: Panel, settled: boolean): WalkedRow | null {
  if (panel.switches.some((s) => s < 0) || panel.switches.length > MAX_WALK_INPUTS) return null;
  const row = panel.switches.reduce((sum, s) => 2 * sum + Number(live.isOn(s)), 0);
  return rowSeen(live, panel, row, settled);
}

function rowSeen(live: PoweredBoard, panel: Panel, row: number, settled: boolean): WalkedRow {
  const seen = lampsOf(live, panel);
  const unclear = seen.includes(UNKNOWN) ? live.unclear() : null;
  return { row, seen, settled, ...(unclear && { unclear }) };
}

/**
 * Walks the table on a board row by row; the caller may stop between any two. Boards that are a function of their switches are swept, many
 * rows at once, but for rows that nobody can tell the level of; `byEvents` has the simulator do them all, one after the other.
 */
export function* walkTable(
  board: Board,
  nets: Nets,
  { inputs, outputs }: TableSubject,
  byEvents = false,
): Generator<WalkedRow> {
  const circuit = compileCircuit(board);
  const panel = panelOf(board, circuit, inputs, outputs);
  const rows = 2 ** Math.min(inputs.length, MAX_WALK_INPUTS);
  const swept = byEvents ? null : compileSweep(board, nets, { circuit, panel })?.sweep();
  let live: PoweredBoard | null = null;
  for (let row = 0; row < rows; row++) {
    const seen = swept?.next().value ?? null;
    if (seen && !seen.includes(UNKNOWN)) yield { row, seen, settled: true };
    else {
      live ??= new PoweredBoard(board, nets, { circuit });
      yield runRow(live, panel, row);
    }
  }
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
  return finding('board-runs', [], {});
}
