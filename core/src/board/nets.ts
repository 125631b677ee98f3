import { innerOf, typeOf } from '../catalogue';
import type { Board } from './board';
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
  const union = new Strips();
  const leads = new Map<string, Lead>();
  const pinStrips: [pin: string, strip: string][] = [];
  for (const part of Object.values(board.parts)) {
    for (const lead of leadsOf(part)) {
      leads.set(lead.pin, lead);
      if (!lead.hole) continue;
      const strip = stripOf(lead.hole);
      union.find(strip);
      pinStrips.push([lead.pin, strip]);
    }
    for (const [a, b] of innerOf(typeOf(part)).joined) {
      const [from, to] = [leads.get(`${part.ref}.${a}`)?.hole, leads.get(`${part.ref}.${b}`)?.hole];
      if (from && to) union.join(stripOf(from), stripOf(to));
    }
  }
  const jumperStrips: [id: string, strip: string][] = [];
  for (const { id, from, to } of Object.values(board.jumpers)) {
    const ends = [parseHole(from), parseHole(to)].flatMap((hole) => (hole ? [stripOf(hole)] : []));
    const [a, b] = ends;
    if (a !== undefined) jumperStrips.push([id, a]);
    if (a !== undefined) union.join(a, b ?? a);
  }
  return { ...numbered(union, pinStrips, jumperStrips), leads };
}

function numbered(
  union: Strips,
  pinStrips: readonly [string, string][],
  jumperStrips: readonly [string, string][],
): Omit<Nets, 'leads'> {
  const members = new Map<string, { strips: string[]; pins: string[]; jumpers: string[] }>();
  const netOf = (strip: string) => {
    const root = union.find(strip);
    const net = members.get(root) ?? { strips: [], pins: [], jumpers: [] };
    members.set(root, net);
    return net;
  };
  for (const strip of [...union.strips()].sort()) netOf(strip).strips.push(strip);
  for (const [pin, strip] of pinStrips) netOf(strip).pins.push(pin);
  for (const [id, strip] of jumperStrips) netOf(strip).jumpers.push(id);
  const nets = [...members.values()].map((net, index) => ({
    index,
    strips: net.strips,
    pins: net.pins.sort(),
    jumpers: net.jumpers.sort(),
  }));
  const ofPin = new Map<string, number>();
  const ofStrip = new Map<string, number>();
  for (const { index, pins, strips } of nets) {
    for (const pin of pins) ofPin.set(pin, index);
    for (const strip of strips) ofStrip.set(strip, index);
  }
  return { nets, ofPin, ofStrip };
}

/** Union-find with path halving (Tarjan and van Leeuwen 1984) over strip names. */
class Strips {
  private readonly parent = new Map<string, string>();

  strips(): Iterable<string> {
    return this.parent.keys();
  }

  find(strip: string): string {
    let at = strip;
    let up = this.parent.get(at);
    if (up === undefined) {
      this.parent.set(at, at);
      return at;
    }
    while (up !== at) {
      const over = this.parent.get(up) as string;
      this.parent.set(at, over);
      at = over;
      up = this.parent.get(at) as string;
    }
    return at;
  }

  join(a: string, b: string): void {
    const [ra, rb] = [this.find(a), this.find(b)];
    if (ra !== rb) this.parent.set(ra < rb ? rb : ra, ra < rb ? ra : rb);
  }
}
