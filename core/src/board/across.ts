import { type Inner, innerOf, typeOf } from '../catalogue';
import type { Board, SeatedPart } from './board';
import type { Nets } from './nets';
import { cutPin, pinOf } from './pin';

/** What lies inside a part between two of its pins: a resistor, a contact, the path of a transistor. */
export interface InnerPath {
  readonly a: string;
  readonly b: string;
}

/** A path that leads on from a net: the part and what of it is crossed, the pin it begins at and the one it comes out at. */
export interface Crossing<P extends InnerPath> {
  readonly part: SeatedPart;
  readonly path: P;
  readonly from: string;
  readonly to: string;
  /** The net at the far pin, by its index; undefined for a pin in no hole. It may be the net itself. */
  readonly net: number | undefined;
}

/**
 * Every path of a kind that begins at a net, in the order of the net's pins: the one traversal across resistors, contacts and
 * switching devices. `pathsOf` chooses the kind from what a part has inside. Asks nothing of states: a contact leads on
 * whether it is closed or not.
 */
export function crossingsFrom<P extends InnerPath>(
  { parts }: Pick<Board, 'parts'>,
  { nets, ofPin }: Nets,
  net: number,
  pathsOf: (inner: Inner) => readonly P[],
): Crossing<P>[] {
  return (nets[net]?.pins ?? []).flatMap((from) => {
    const { ref, id } = cutPin(from);
    const part = parts[ref];
    if (!part) return [];
    return pathsOf(innerOf(typeOf(part))).flatMap((path) => {
      if (path.a !== id && path.b !== id) return [];
      const to = pinOf(ref, path.a === id ? path.b : path.a);
      return [{ part, path, from, to, net: ofPin.get(to) }];
    });
  });
}
