import { innerName, innerOf, typeOf } from '../catalogue';
import { onceFor } from '../memo';
import { crossingsFrom } from './across';
import type { Board, SeatedPart } from './board';
import { isRailStrip } from './hole';
import type { Nets } from './nets';
import { pinOf } from './pin';

/** A place of a part that can be labelled with a signal: a contact that gives it, or a lamp that shows it. */
export interface LabelPlace {
  readonly ref: string;
  /** The actuator or lamp by its name within the part; `''` where there is only one. */
  readonly name: string;
  /** As it is called: `S1`, `S2.3`, `H1.a`. */
  readonly called: string;
  readonly does: 'give' | 'show';
  /** The pin that carries the signal (`S2.14`). */
  readonly pin: string;
  /** The pin at the other end of the contact or lamp; null for a change-over, which has two. */
  readonly other: string | null;
  /** A lamp that the signal lights when it is low: its pin is the cathode. */
  readonly inverted: boolean;
  readonly signal: string | undefined;
}

/** The signal that a contact or lamp of a part is labelled with; `''` names the only one. */
export function labelOf({ signal, labels = [] }: SeatedPart, name: string): string | undefined {
  return name === '' ? signal : labels.find((l) => l.of === name)?.signal;
}

/** The places of a part that can be labelled, in the order of its contacts or lamps; none for other parts. */
export const labelPlacesOf: (part: SeatedPart) => readonly LabelPlace[] = onceFor(workedOut);

function workedOut(part: SeatedPart): LabelPlace[] {
  const { ref } = part;
  const { contacts, lamps, signalPin } = innerOf(typeOf(part));
  const place = (name: string, does: LabelPlace['does'], pin: string, other: string | null): LabelPlace => ({
    ref,
    name,
    called: innerName(ref, name),
    does,
    pin: pinOf(ref, pin),
    other: other === null ? null : pinOf(ref, other),
    inverted: false,
    signal: labelOf(part, name),
  });
  const [contact] = contacts;
  const [lamp] = lamps;
  if (signalPin !== null && contact) {
    const other = contacts.length > 1 ? null : contact.a === signalPin ? contact.b : contact.a;
    return [place('', 'give', signalPin, other)];
  }
  if (signalPin !== null && lamp) return [place('', 'show', signalPin, lamp.cathode)];
  if (signalPin !== null) return [];
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

/**
 * The pin that must carry the signal of a lamp: its own, or the far end of a resistor that stands between the two
 * with nothing else on the lamp's side and no rail at its far end.
 */
export function shownPin(board: Board, nets: Nets, { pin }: LabelPlace): string {
  const net = nets.ofPin.get(pin) ?? -1;
  if (nets.nets[net]?.pins.length !== 2) return pin;
  const [resistor] = crossingsFrom(board, nets, net, ({ resistors }) => resistors);
  const isRail = nets.nets[resistor?.net ?? -1]?.strips.some(isRailStrip) ?? false;
  return resistor && !isRail ? resistor.to : pin;
}
