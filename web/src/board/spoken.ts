import {
  type Board,
  type Hole,
  holesOfStrip,
  isRail,
  jumperOf,
  type Nets,
  noteOf,
  occupancyOf,
  parseHole,
  partOf,
  printHole,
  shownSignal,
  stripOf,
  typeOf,
} from '@saddlebag/core';

/** What is to be told of: the board with the names of its nets, and what a meter reads on a net while the power is on. */
export interface Told {
  readonly board: Board;
  readonly nets: Nets;
  readonly names: ReadonlyMap<number, string>;
  readonly levelOf: (net: number) => string | null;
}

/** So many leads of a strip are named; of more it is said how many. */
const MOST_NAMED = 6;

/** A hole in words: where it is, what is in it, what its strip carries, what else is in the strip and which of its holes are free. */
export function spokenHole(told: Told, cursor: string): string {
  const hole = parseHole(cursor);
  if (!hole) return cursor;
  const taken = occupancyOf(told.board);
  const holes = holesOfStrip(hole);
  const inside = holes.flatMap((h) => (printHole(h) === cursor ? [] : (taken.get(printHole(h)) ?? [])));
  const free = holes.filter((h) => !taken.has(printHole(h)));
  const here = (taken.get(cursor) ?? []).map((lead) => spokenLead(told.board, lead));
  return sentences([
    placed(hole),
    here.length > 0 ? `in it ${here.join(' and ')}` : 'nothing in it',
    ...carried(told, told.nets.ofStrip.get(stripOf(hole))),
    inside.length > MOST_NAMED
      ? `${inside.length} other leads in the ${isRail(hole.row) ? 'rail' : 'strip'}`
      : inside.length > 0
        ? `with ${inside.map((lead) => spokenLead(told.board, lead)).join(', ')}`
        : '',
    freeInWords(hole, free),
  ]);
}

function placed({ board, row, column }: Hole): string {
  return isRail(row) ? `${board}, ${row} rail, hole ${column}` : `${board}, row ${row}, column ${column}`;
}

function freeInWords({ row }: Hole, free: readonly Hole[]): string {
  if (free.length === 0) return 'no free hole';
  return isRail(row)
    ? `${free.length} free holes`
    : `free: ${free
        .map((h) => h.row)
        .sort()
        .join(', ')}`;
}

function carried({ names, levelOf }: Told, net: number | null | undefined): string[] {
  if (net === null || net === undefined) return [];
  const [signal, level] = [names.get(net), levelOf(net)];
  return [signal === undefined ? 'carries nothing named' : `carries ${shownSignal(signal)}`, level ?? ''];
}

/** A lead in words: `U1.8` is pin 8 of U1 with its name, `w3` a jumper with where its other end is. */
function spokenLead(board: Board, lead: string): string {
  const [ref = '', pin] = lead.split('.');
  const [part, jumper] = [partOf(board, ref), jumperOf(board, ref)];
  const type = part && typeOf(part);
  if (type && pin !== undefined) {
    const name = type.pins.find((p) => p.id === pin)?.name ?? '';
    return type.kind === 'chip' ? `${ref} pin ${pin} ${name}` : `${ref} lead ${name || pin}`;
  }
  return jumper ? `jumper ${ref}` : lead;
}

/** A part, a jumper or a note in words. */
export function spokenThing(told: Told, what: string): string {
  const { board, nets } = told;
  const [part, jumper, note] = [partOf(board, what), jumperOf(board, what), noteOf(board, what)];
  if (jumper) {
    const from = parseHole(jumper.from);
    return sentences([
      `jumper ${what} from ${jumper.from} to ${jumper.to}`,
      ...carried(told, from && nets.ofStrip.get(stripOf(from))),
    ]);
  }
  if (note) return `note at ${note.at}: ${note.text}`;
  const type = part && typeOf(part);
  if (!part || !type) return what;
  const leads = type.kind === 'chip' ? [] : type.pins.map((p) => `${p.name || p.id} ${netOfPin(told, part.ref, p.id)}`);
  return sentences([
    `${part.ref}, ${type.kind === 'chip' ? `${part.part}, ${type.title}` : type.title}`,
    part.value === undefined ? '' : `value ${part.value}`,
    `first pin in ${part.at}`,
    part.rotation === 0 ? '' : `rotated by ${part.rotation}`,
    ...leads,
  ]);
}

function netOfPin({ nets, names }: Told, ref: string, pin: string): string {
  const net = nets.ofPin.get(`${ref}.${pin}`);
  const signal = net === undefined ? undefined : names.get(net);
  return signal === undefined ? 'to nothing named' : `to ${shownSignal(signal)}`;
}

const sentences = (parts: readonly string[]): string => parts.filter((part) => part !== '').join('; ');
