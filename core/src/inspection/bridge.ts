import { stripsOfEnds } from '../board';
import { innerOf } from '../catalogue';
import { elementAt } from '../element-at';
import { type FactsOf, type Finding, type FindingCode, finding, type Place } from '../finding';
import { GROUND, SUPPLY } from '../planning';
import type { Context } from './context';

/** What belongs on each strip of a net, by strip; a strip that nothing is known of is absent. */
type Marks = ReadonlyMap<string, readonly string[]>;

/**
 * The jumper that brings together what should be apart in a net: of those without which it would fall into two, the one
 * that leaves the fewest things with others that do not belong to them; of equal ones that with the highest number,
 * which was laid last. Undefined where no single jumper does it.
 *
 * `apart` are pins that must end on different sides, where the caller knows them; without them any two marks do.
 */
export function bridgeIn(c: Context, net: number | undefined, apart: readonly string[] = []): string | undefined {
  if (net === undefined) return undefined;
  const edges = edgesOf(c, net);
  const marks = marksOf(c, net);
  const must = apart.flatMap((pin) => c.lead(pin)?.strip ?? []);
  let best: { id: string; mixed: number } | undefined;
  for (const { id, a, b } of edges) {
    if (id === null || a === b) continue;
    const side = reachable(
      a,
      edges.filter((e) => e.id !== id),
    );
    if (side.has(b) || (must.length > 1 && must.every((s) => side.has(s) === side.has(elementAt(must, 0))))) continue;
    const [near, far] = [foreign(marks, (s) => side.has(s)), foreign(marks, (s) => !side.has(s))];
    if (near.kinds === 0 || far.kinds === 0) continue;
    const mixed = near.foreign + far.foreign;
    if (!best || mixed <= best.mixed) best = { id, mixed };
  }
  return best?.id;
}

interface Edge {
  /** The jumper; null for metal inside a part, which cannot be pulled. */
  readonly id: string | null;
  readonly a: string;
  readonly b: string;
}

/** What joins the strips of a net: its jumpers in the order of their numbers, and metal inside parts. */
function edgesOf(c: Context, net: number): Edge[] {
  const { jumpers = [], pins = [] } = c.nets.nets[net] ?? {};
  const numbered = [...jumpers].sort((a, b) => Number(a.slice(1)) - Number(b.slice(1)));
  const wires = numbered.flatMap((id): Edge[] => {
    const jumper = c.board.jumpers[id];
    const [a, b] = jumper ? stripsOfEnds(jumper) : [null, null];
    return a !== null && b !== null ? [{ id, a, b }] : [];
  });
  const refs = new Set(pins.map((pin) => c.lead(pin)?.ref ?? ''));
  const metal = c.known
    .filter((k) => refs.has(k.seated.ref))
    .flatMap(({ type, named }) =>
      innerOf(type).joined.flatMap(([a, b]): Edge[] => {
        const [from, to] = [c.lead(named(a))?.strip, c.lead(named(b))?.strip];
        return from && to ? [{ id: null, a: from, b: to }] : [];
      }),
    );
  return [...wires, ...metal];
}

function reachable(from: string, edges: readonly Edge[]): ReadonlySet<string> {
  const seen = new Set([from]);
  for (let grew = true; grew; ) {
    grew = false;
    for (const { a, b } of edges) {
      if (seen.has(a) === seen.has(b)) continue;
      seen.add(a).add(b);
      grew = true;
    }
  }
  return seen;
}

/** What is known to belong on each strip of a net: signals of the design, rails, and the far ends of lamps. */
function marksOf(c: Context, net: number): Marks {
  const marks = new Map<string, string[]>();
  for (const pin of c.pinsOn(net)) {
    const strip = c.lead(pin)?.strip;
    const mark = markOf(c, pin);
    if (strip && mark !== undefined) marks.set(strip, [...(marks.get(strip) ?? []), mark]);
  }
  return marks;
}

function markOf(c: Context, pin: string): string | undefined {
  const expected = c.expected.get(pin);
  if (expected !== undefined) return expected;
  const { type } = c.lead(pin) ?? {};
  if (type?.role === 'supply' || type?.id === '+') return SUPPLY;
  if (type?.role === 'ground' || type?.id === '-') return GROUND;
  const known = c.partAt(pin);
  const { lamps, contacts } = innerOf(known?.type);
  if (lamps.some((l) => l.anode === type?.id || l.cathode === type?.id)) return pin;
  // Without a design every output and switch is a signal of its own.
  if (c.packing) return undefined;
  return c.driveOf(pin) !== null || contacts.some((k) => k.b === type?.id) ? pin : undefined;
}

/** Of the marks on some strips: how many kinds there are, and how many are not of the kind that is there most. */
function foreign(marks: Marks, isHere: (strip: string) => boolean): { kinds: number; foreign: number } {
  const counts = new Map<string, number>();
  let all = 0;
  for (const [strip, there] of marks) {
    if (!isHere(strip)) continue;
    for (const mark of there) counts.set(mark, (counts.get(mark) ?? 0) + 1);
    all += there.length;
  }
  return { kinds: counts.size, foreign: all - Math.max(0, ...counts.values()) };
}

/** A finding about things that are joined: the jumper that joins them stands first, and pulling it is the fix. */
export function joinedFinding<C extends FindingCode>(
  code: C,
  bridge: string | undefined,
  places: readonly Place[],
  facts: Omit<FactsOf<C>, 'bridge'>,
): Finding {
  const told = { ...facts, bridge: bridge ?? 'the jumper between them' } as unknown as FactsOf<C>;
  if (bridge === undefined) return finding(code, places, told);
  return finding(code, [{ kind: 'jumper', id: bridge }, ...places], told, `pull ${bridge}`);
}
