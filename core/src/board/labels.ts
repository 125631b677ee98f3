import { clockHertz, innerName, innerOf, typeOf } from '../catalogue';
import { onceFor } from '../memo';
import { crossingsFrom } from './across';
import type { Board, SeatedPart } from './board';
import { isRailStrip, markOf } from './hole';
import type { Nets } from './nets';
import { cutPin, pinOf } from './pin';

/** A place of a part that can be labelled with a signal: a contact, or a timer's output, that gives it, or a lamp that shows it. */
export interface LabelPlace {
  readonly ref: string;
  /** The actuator or lamp by its name within the part; `''` where there is only one. */
  readonly name: string;
  /** As it is called: `S1`, `S2.3`, `H1.a`. */
  readonly called: string;
  readonly does: 'give' | 'show';
  /** The pin that carries the signal (`S2.14`). */
  readonly pin: string;
  /** The pin at the other end of the contact or lamp; null for a change-over, which has two, and for a timer. */
  readonly other: string | null;
  /** A lamp that the signal lights when it is low: its pin is the cathode. */
  readonly inverted: boolean;
  readonly signal: string | undefined;
  /** Whether it changes by itself, as clock modules and timers do, and nobody presses it. */
  readonly runsByItself: boolean;
}

/** The signal that a contact or lamp of a part is labelled with; `''` names the only one. */
export function labelOf({ signal, labels = [] }: SeatedPart, name: string): string | undefined {
  return name === '' ? signal : labels.find((l) => l.of === name)?.signal;
}

/** The places of a part that can be labelled, in the order of its contacts or lamps; none for other parts. */
export const labelPlacesOf: (part: SeatedPart) => readonly LabelPlace[] = onceFor(workedOut);

function workedOut(part: SeatedPart): LabelPlace[] {
  const { ref } = part;
  const { contacts, lamps, signalPin, runs } = innerOf(typeOf(part));
  const place = (name: string, does: LabelPlace['does'], pin: string, other: string | null): LabelPlace => ({
    ref,
    name,
    called: innerName(ref, name),
    does,
    pin: pinOf(ref, pin),
    other: other === null ? null : pinOf(ref, other),
    inverted: false,
    signal: labelOf(part, name),
    runsByItself: runs || clockHertz(part) !== null,
  });
  const [contact] = contacts;
  const [lamp] = lamps;
  if (signalPin !== null && contact) {
    const other = contacts.length > 1 ? null : contact.a === signalPin ? contact.b : contact.a;
    return [place('', 'give', signalPin, other)];
  }
  if (signalPin !== null && lamp) return [place('', 'show', signalPin, lamp.cathode)];
  if (signalPin !== null) return runs ? [place('', 'give', signalPin, null)] : [];
  if (contact) return contacts.map((c) => place(c.actuator, 'give', c.b, c.a));
  // Lamps with one anode for all are told apart, and lit, by their cathodes.
  const inverted = lamps.length > 1 && lamps.every((l) => l.anode === lamp?.anode);
  return lamps.map((l) => ({
    ...place(l.name, 'show', inverted ? l.cathode : l.anode, inverted ? l.anode : l.cathode),
    inverted,
  }));
}

/** The labelled places of a board that give, or show, a signal, in the order of its parts. */
export function labelledPlaces(board: Board, does: LabelPlace['does']): readonly LabelledPlace[] {
  return allLabelled(board)[does];
}

const allLabelled: (board: Board) => Record<LabelPlace['does'], readonly LabelledPlace[]> = onceFor(({ parts }) => {
  const places = Object.values(parts).flatMap((part) =>
    part.signal === undefined && part.labels === undefined
      ? []
      : labelPlacesOf(part).flatMap((p) => (p.signal === undefined ? [] : [{ ...p, signal: p.signal }])),
  );
  return { give: places.filter((p) => p.does === 'give'), show: places.filter((p) => p.does === 'show') };
});

/** A place with the signal that it is labelled with. */
export type LabelledPlace = LabelPlace & { readonly signal: string };

/** Where the signal of a lamp comes from: the pin that must carry it, and the parts between that and the lamp. */
export interface LampFeed {
  readonly pin: string;
  readonly through: readonly string[];
}

/**
 * Where the signal of a lamp comes from: its own pin, or the far end of a resistor that stands between the two
 * with nothing else on the lamp's side and no rail at its far end. Of a lamp, or buzzer, that a transistor switches to ground: its base or gate, or the
 * far end of the resistor before that.
 */
export function lampFeed(board: Board, nets: Nets, place: LabelPlace): LampFeed {
  const switched = switchedBy(board, nets, place);
  if (switched) return switched;
  const { pin } = place;
  const net = nets.ofPin.get(pin) ?? -1;
  const own = { pin, through: [] };
  if (nets.nets[net]?.pins.length !== 2) return own;
  const [resistor] = crossingsFrom(board, nets, net, ({ resistors }) => resistors);
  const isRail = nets.nets[resistor?.net ?? -1]?.strips.some(isRailStrip) ?? false;
  return resistor && !isRail ? { pin: resistor.to, through: [resistor.part.ref] } : own;
}

/** The pin that must carry the signal of a lamp; see `lampFeed`. */
export function shownPin(board: Board, nets: Nets, place: LabelPlace): string {
  return lampFeed(board, nets, place).pin;
}

/** What switches the transistor that joins a lamp to ground, where its other end goes to supply; null where none does. */
function switchedBy(board: Board, nets: Nets, { pin, other, inverted }: LabelPlace): LampFeed | null {
  const netOf = (at: string | null): number => nets.ofPin.get(at ?? '') ?? -1;
  const isOnRail = (net: number | undefined, mark: '+' | '-'): boolean =>
    nets.nets[net ?? -1]?.strips.some((strip) => isRailStrip(strip) && markOf(strip) === mark) ?? false;
  const resistorsAt = (net: number) => crossingsFrom(board, nets, net, ({ resistors }) => resistors);
  const [above, below] = [netOf(pin), netOf(other)];
  if (inverted || !(isOnRail(above, '+') || resistorsAt(above).some((r) => isOnRail(r.net, '+')))) return null;
  const [switching, ...more] = crossingsFrom(board, nets, below, ({ devices }) => devices).filter(
    ({ path, from, net }) =>
      (path.kind === 'npn' || path.kind === 'nmos') && cutPin(from).id === path.a && isOnRail(net, '-'),
  );
  if (!switching || more.length > 0) return null;
  const { ref } = switching.part;
  const control = pinOf(ref, switching.path.control ?? '');
  const [base] = resistorsAt(netOf(control));
  return { pin: base?.to ?? control, through: base ? [ref, base.part.ref] : [ref] };
}
