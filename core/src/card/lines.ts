import {
  type Board,
  type Jumper,
  type JumperColour,
  labelPlacesOf,
  leadsOf,
  printHole,
  type SeatedPart,
} from '../board';
import { type PartType, shownValue, typeOf } from '../catalogue';
import { shownSignal } from '../planning';

/** How the lines are read, for who has nothing but the paper. */
export const HOW_TO_READ =
  'b1.e18 is board b1, row e, column 18; b1.top+3 is hole 3 of its upper + rail. The end of a chip with the notch or the dot is that of pin 1. The longer leg of an LED is its anode; its rim is flat at the cathode. Colours of wires are those of common kits; any other does as well.';

/** Colours of a kit of wires, for signals in the order in which they are first laid; red is supply and black is ground. */
const ofSignals: readonly JumperColour[] = ['yellow', 'green', 'blue', 'orange', 'white', 'violet', 'grey', 'brown'];

/**
 * What to do with each part and jumper of a board, in a line by its reference or id, so that a person can build from it alone: where every lead goes, which
 * way round, for which signal; of a wire both holes, a colour that a kit of wires has, and what it carries. `carries` names the signal of a pin or a hole.
 */
export function buildLines(
  board: Board,
  carries: { readonly pin: (pin: string) => string | undefined; readonly hole: (hole: string) => string | undefined },
): Readonly<Record<string, string>> {
  const parts = Object.values(board.parts).map((part): [string, string] => [part.ref, seatLine(part, carries.pin)]);
  const colours = wireColours(board, carries.hole);
  const wires = Object.values(board.jumpers).map((jumper): [string, string] => [
    jumper.id,
    wireLine(jumper, colours.get(jumper.id) ?? null, carries.hole(jumper.from)),
  ]);
  return Object.fromEntries([...parts, ...wires]);
}

/** The colour that each jumper is laid in: its own where a person chose one, otherwise one for its signal. */
export function wireColours(
  board: Board,
  carries: (hole: string) => string | undefined,
): ReadonlyMap<string, JumperColour> {
  const bySignal = new Map<string, JumperColour>([
    ['1', 'red'],
    ['0', 'black'],
  ]);
  const given = new Map<string, JumperColour>();
  for (const { id, from, colour } of Object.values(board.jumpers)) {
    const signal = carries(from);
    if (colour) given.set(id, colour);
    if (colour || signal === undefined) continue;
    const known = bySignal.get(signal) ?? ofSignals[(bySignal.size - 2) % ofSignals.length];
    if (!known) continue;
    bySignal.set(signal, known);
    given.set(id, known);
  }
  return given;
}

function wireLine({ from, to }: Jumper, colour: JumperColour | null, signal: string | undefined): string {
  const carried = signal === undefined ? '' : `, carries ${shownSignal(signal)}`;
  return `${from} to ${to}${colour ? `, ${colour}` : ''}${carried}`;
}

function seatLine(part: SeatedPart, carries: (pin: string) => string | undefined): string {
  const type = typeOf(part);
  if (!type) return `${part.part} at ${part.at}`;
  const value = type.kind === 'supply' ? '' : shownValue(type.kind, part.value);
  const what = `${type.kind === 'chip' ? part.part : type.title}${value}${forSignals(part)}`;
  if (type.kind === 'chip') return `${what}: pin 1 in ${part.at}, notch to the ${notchOf(part)}`;
  const leads = leadsOf(part).flatMap(({ pin, type: lead, hole }) => {
    if (!hole) return [];
    const name = nameOf(type, lead.name, lead.id);
    const signal = name === '' ? undefined : carries(pin);
    return [
      `${name}${name === '' ? '' : ' in '}${printHole(hole)}${signal === undefined ? '' : ` (${shownSignal(signal)})`}`,
    ];
  });
  return `${what}: ${leads.length > 12 ? `first lead in ${part.at}` : leads.join(type.pins.length === 2 ? ' and ' : ', ')}`;
}

/** The signals that a part gives or shows. */
function forSignals(part: SeatedPart): string {
  const signals = [part.signal, ...labelPlacesOf(part).map((place) => place.signal)].filter((s) => s !== undefined);
  const named = [...new Set(signals)];
  return named.length === 0 ? '' : ` for ${named.join(', ')}`;
}

/** What a lead is called on a bench; nothing where the leads of a part are alike. */
function nameOf({ kind }: PartType, name: string, id: string): string {
  return ['resistor', 'capacitor'].includes(kind) && /^[12]?$/.test(name) ? '' : name || id;
}

const notchOf = ({ rotation }: SeatedPart): string =>
  ({ 0: 'left', 90: 'top', 180: 'right', 270: 'bottom' })[rotation] ?? 'left';
