import { innerOf, typeOf } from '../catalogue';
import { elementAt } from '../element-at';
import { onceFor } from '../memo';
import type { Board, Jumper, SeatedPart } from './board';
import { parseHole, stripOf } from './hole';
import { type Lead, leadsOf } from './seating';

/** What conducts as one: strips, the pins in them and the jumpers that join them. */
export interface Net {
  readonly index: number;
  readonly strips: readonly string[];
  readonly pins: readonly string[];
  readonly jumpers: readonly string[];
}

/**
 * The connectivity of a board, read off its holes, strips, rails, jumpers, leads and the metal inside of parts; everything after
 * the board works on this. `ofPin` and `ofStrip` give a net's index in `nets`; only strips that hold
 * something belong to a net. `leads` holds every lead by pin.
 */
export interface Nets {
  readonly nets: readonly Net[];
  readonly ofPin: ReadonlyMap<string, number>;
  readonly ofStrip: ReadonlyMap<string, number>;
  readonly leads: ReadonlyMap<string, Lead>;
}

/**
 * Extracts the nets of a board by union-find over strips. Leads and jumper ends that are in no hole
 * join nothing. The result does not depend on the order of parts or jumpers, but for net numbers,
 * which follow the strips' names.
 */
export function extractNets(board: Board): Nets {
  const [parts, jumpers] = [Object.values(board.parts), Object.values(board.jumpers)];
  const [ofParts, ofJumpers] = [parts.map(stripsOfPart), jumpers.map(stripsOfJumper)];
  const union = new Strips();
  for (const { joined } of ofParts) for (const [a, b] of joined) union.join(a, b);
  for (const [a, b] of ofJumpers) if (a >= 0) union.join(a, b < 0 ? a : b);
  for (const { strips } of ofParts) for (const strip of strips) if (strip >= 0) union.find(strip);

  const members: { strips: string[]; pins: string[]; jumpers: string[] }[] = [];
  const netOfRoot = new Int32Array(names.length).fill(-1);
  const netOf = (strip: number): number => {
    const root = union.find(strip);
    if (netOfRoot[root] === -1) netOfRoot[root] = members.push({ strips: [], pins: [], jumpers: [] }) - 1;
    return elementAt(netOfRoot, root);
  };
  const ofStrip = new Map<string, number>();
  for (const strip of inOrder()) {
    if (!union.holds(strip)) continue;
    const net = netOf(strip);
    members[net]?.strips.push(elementAt(names, strip));
    ofStrip.set(elementAt(names, strip), net);
  }
  const ofPin = new Map<string, number>();
  for (const { leads: own, strips } of ofParts)
    for (const [i, lead] of own.entries()) {
      const strip = elementAt(strips, i);
      if (strip < 0) continue;
      const net = netOf(strip);
      members[net]?.pins.push(lead.pin);
      ofPin.set(lead.pin, net);
    }
  for (const [i, [a]] of ofJumpers.entries()) if (a >= 0) members[netOf(a)]?.jumpers.push(jumpers[i]?.id as string);
  const nets = members.map(({ strips, pins, jumpers }, index) => ({
    index,
    strips,
    pins: pins.sort(),
    jumpers: jumpers.sort(),
  }));
  return { nets, ofPin, ofStrip, leads: leadsByPin(board.parts) };
}

/** The leads of all parts by their pins; what is seated is the same object from one jumper to the next. */
const leadsByPin: (parts: Board['parts']) => ReadonlyMap<string, Lead> = onceFor(
  (parts) => new Map(Object.values(parts).flatMap((part) => stripsOfPart(part).leads.map((lead) => [lead.pin, lead]))),
);

/** Strips by number: a strip has the same one in every board, so parts and jumpers keep theirs from one edit to the next. */
const numbers = new Map<string, number>();
const names: string[] = [];
let ordered: readonly number[] = [];

function numberOf(strip: string | null): number {
  if (strip === null) return -1;
  const known = numbers.get(strip);
  if (known !== undefined) return known;
  numbers.set(strip, names.length);
  return names.push(strip) - 1;
}

/** All numbers in the order of the strips' names. */
function inOrder(): readonly number[] {
  if (ordered.length !== names.length)
    ordered = names.map((_, i) => i).sort((a, b) => (elementAt(names, a) < elementAt(names, b) ? -1 : 1));
  return ordered;
}

/** What a part has on a board: its leads, the strip of each (-1 for none), and strips that its metal joins. */
interface PartStrips {
  readonly leads: readonly Lead[];
  readonly strips: readonly number[];
  readonly joined: readonly (readonly [number, number])[];
}

const stripsOfPart: (part: SeatedPart) => PartStrips = onceFor((part) => {
  const leads = leadsOf(part);
  const strips = leads.map((lead) => numberOf(lead.strip));
  const at = (id: string): number => strips[leads.findIndex((l) => l.type.id === id)] ?? -1;
  const joined = innerOf(typeOf(part))
    .joined.map(([a, b]) => [at(a), at(b)] as const)
    .filter(([a, b]) => a >= 0 && b >= 0);
  return { leads, strips, joined };
});

/** The strips that the two ends of a jumper are in; null for an end in no hole. */
export const stripsOfEnds: (jumper: Jumper) => readonly [from: string | null, to: string | null] = onceFor((jumper) => {
  const [from, to] = [parseHole(jumper.from), parseHole(jumper.to)];
  return [from && stripOf(from), to && stripOf(to)];
});

/** The strips of a jumper's ends by number, -1 where there is one end or none. */
const stripsOfJumper: (jumper: Jumper) => readonly [number, number] = onceFor((jumper) => {
  const [a = -1, b = -1] = stripsOfEnds(jumper).flatMap((strip) => (strip === null ? [] : [numberOf(strip)]));
  return [a, b];
});

/** Union-find with path halving (Tarjan and van Leeuwen 1984) over strips by number. */
class Strips {
  /** The strip above each, -1 for those that hold nothing. */
  private readonly parent = new Int32Array(names.length).fill(-1);

  holds(strip: number): boolean {
    return this.parent[strip] !== -1;
  }

  find(strip: number): number {
    const { parent } = this;
    if (parent[strip] === -1) parent[strip] = strip;
    let at = strip;
    for (let up = elementAt(parent, at); up !== at; up = elementAt(parent, at)) {
      parent[at] = elementAt(parent, up);
      at = elementAt(parent, at);
    }
    return at;
  }

  join(a: number, b: number): void {
    this.parent[this.find(a)] = this.find(b);
  }
}
