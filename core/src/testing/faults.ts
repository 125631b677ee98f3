import { type Board, extractNets, holesOfStrip, occupancyOf, parseHole, printHole } from '../board';
import { partType } from '../catalogue';
import { rotatedInPlace } from '../job';

/** Something that goes wrong on a bench, on the n-th thing it can go wrong with; null when it cannot. */
export type Fault = (board: Board, n: number) => Board | null;

const nth = <T>(list: readonly T[], n: number): T | undefined => list[n % Math.max(1, list.length)];
const isFree = (board: Board, hole: string): boolean => parseHole(hole) !== null && !occupancyOf(board).has(hole);

const pullJumper: Fault = (board, n) => {
  const id = nth(Object.keys(board.jumpers), n);
  if (id === undefined) return null;
  const { [id]: _, ...jumpers } = board.jumpers;
  return { ...board, jumpers };
};

/** One end of a jumper one column off. */
const offByOne: Fault = (board, n) => {
  const jumper = nth(Object.values(board.jumpers), n);
  const hole = jumper && parseHole(jumper.to);
  if (!jumper || !hole) return null;
  for (const by of [1, -1]) {
    const beside = { ...hole, column: hole.column + by };
    const strip = parseHole(printHole(beside)) ? holesOfStrip(beside) : [];
    const free = strip.map(printHole).find((h) => isFree(board, h));
    if (free !== undefined) return { ...board, jumpers: { ...board.jumpers, [jumper.id]: { ...jumper, to: free } } };
  }
  return null;
};

/** An end of a jumper that is on a rail, on the other rail of the pair. */
const otherRail: Fault = (board, n) => {
  const onRail = Object.values(board.jumpers).flatMap((jumper) =>
    (['from', 'to'] as const).flatMap((end) => (/\.(top|bottom)[+-]/.test(jumper[end]) ? [{ jumper, end }] : [])),
  );
  const chosen = nth(onRail, n);
  if (!chosen) return null;
  const { jumper, end } = chosen;
  const hole = parseHole(jumper[end].replace(/[+-]/, (mark) => (mark === '+' ? '-' : '+')));
  const free = hole
    ? holesOfStrip(hole)
        .map(printHole)
        .find((h) => isFree(board, h))
    : undefined;
  if (free === undefined) return null;
  return { ...board, jumpers: { ...board.jumpers, [jumper.id]: { ...jumper, [end]: free } } };
};

/** The far ends of two jumpers, exchanged. */
const swapEnds: Fault = (board, n) => {
  const list = Object.values(board.jumpers);
  const [a, b] = [nth(list, n), nth(list, n * 7 + 3)];
  if (!a || !b || a === b) return null;
  return { ...board, jumpers: { ...board.jumpers, [a.id]: { ...a, to: b.to }, [b.id]: { ...b, to: a.to } } };
};

const rotation =
  (kind: 'chip' | 'led'): Fault =>
  (board, n) => {
    const part = nth(
      Object.values(board.parts).filter((p) => partType(p.part)?.kind === kind),
      n,
    );
    const place = part && rotatedInPlace(part);
    return place ? { ...board, parts: { ...board.parts, [part.ref]: { ...part, ...place } } } : null;
  };

const pullPart: Fault = (board, n) => {
  const ref = nth(Object.keys(board.parts), n);
  if (ref === undefined) return null;
  const { [ref]: _, ...parts } = board.parts;
  return { ...board, parts };
};

/** A jumper between two strips that carry different things. */
const short: Fault = (board, n) => {
  const { nets } = extractNets(board);
  const [a, b] = [nth(nets, n), nth(nets, n * 5 + 1)];
  if (!a || !b || a === b) return null;
  const freeIn = (strips: readonly string[]): string | undefined =>
    strips
      .flatMap((strip) => {
        const [, id = '', column, side] = /^(b[shm]?\d+r?)\.(\d+)([ef])$/.exec(strip) ?? [];
        const hole = column === undefined ? null : parseHole(`${id}.${side === 'e' ? 'a' : 'j'}${column}`);
        return hole ? holesOfStrip(hole).map(printHole) : [];
      })
      .find((h) => isFree(board, h));
  const [from, to] = [freeIn(a.strips), freeIn(b.strips)];
  if (from === undefined || to === undefined) return null;
  return { ...board, jumpers: { ...board.jumpers, w9999: { id: 'w9999', from, to } } };
};

/**
 * What goes wrong on benches, by what it is called: each takes a good board and a number, any number, and gives the same
 * faulty board for the same number.
 */
export const faults: Readonly<Record<string, Fault>> = {
  'a jumper pulled': pullJumper,
  'a jumper off by one column': offByOne,
  'a jumper at the other rail': otherRail,
  'two jumper ends exchanged': swapEnds,
  'a chip turned round': rotation('chip'),
  'an LED turned round': rotation('led'),
  'a part pulled': pullPart,
  'two signals joined': short,
};
