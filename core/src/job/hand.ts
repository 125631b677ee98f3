import {
  type Board,
  breadboardKinds,
  breadboardXY,
  byNumber,
  checkSeat,
  columnNumbers,
  cutPin,
  extractNets,
  freeHoles,
  type Hole,
  holesOfStrip,
  holesUnder,
  holeXY,
  isRail,
  jumperColours,
  jumperOf,
  labelPlacesOf,
  leadsOf,
  nextBreadboard,
  nextFree,
  noteOf,
  outlinesOf,
  parseHole,
  partOf,
  printHole,
  type Row,
  railNamed,
  readBreadboard,
  type SeatedPart,
  stripOf,
  unusableHoles,
} from '../board';
import { ownPartType, type PartKind, type PartName, partNumber, partType, readPartNumber, typeOf } from '../catalogue';
import { elementAt } from '../element-at';
import { type Finding, finding } from '../finding';
import type { Edit } from './edit';
import { rotatedInPlace } from './move';
import { readValue } from './value';

/** What a typed line asks for: an edit, or why it cannot be. */
export type Command = { readonly ok: true; readonly edit: Edit } | { readonly ok: false; readonly finding: Finding };

const no = (f: Finding): Command => ({ ok: false, finding: f });

/**
 * Reads what a person types at the board: `U1.8 > U3.2` lays a jumper between two pins, holes
 * (`b1.e17`) or rails (`b1.top+`); `pull w3`, `pull U1`, `turn U1`, `move U1 b1.e20`,
 * `seat 74HC00` with or without a hole, `label S1 K`, `label S2.3 K`, `board half`, `board full right`, `pull b2`,
 * `value R1 4k7`, `fix U1`, `unfix U1`, `replace U1 74LS00`, `colour w3 red`, `straight w3`, `bend w3`, `bend w3 b1.c17 b1.c24`, `w3.2 > U1.8` for one end of a jumper,
 * `note b1.e17 text`. `own` are the definitions of own parts that may be
 * seated by their names.
 */
export function readCommand(board: Board, text: string, own: readonly string[] = []): Command {
  const words = text.trim().split(/\s*>\s*|\s+/);
  const [first = '', second = '', third] = words;
  const verb = first.toLowerCase();
  if (verb === 'board' && words.length <= 3) return addBoard(board, second.toLowerCase(), third?.toLowerCase());
  if (verb === 'note' && second !== '') return note(board, second, text.trim().replace(/^\S+\s+\S+\s*/, ''));
  if (text.includes('>') && words.length === 2 && second !== '') return jumperBetween(board, first, second);
  const two = words.length === 2;
  const three = words.length === 3;
  if (verb === 'pull' && two) return pull(board, second);
  if (verb === 'turn' && two) return turn(board, second);
  if ((verb === 'fix' || verb === 'unfix') && two) return fix(board, second.toUpperCase(), verb === 'fix');
  if ((verb === 'straight' || verb === 'bend') && two) return straighten(board, second, verb === 'straight');
  if (verb === 'bend' && words.length > 2) return bend(board, second, words.slice(2));
  if (verb === 'seat' && (two || three) && second !== '') return seat(board, second, third, own);
  if (third !== undefined && three) {
    if (verb === 'label') return label(board, second, third);
    if (verb === 'move') return move(board, second, third);
    if (verb === 'value') return value(board, second, third);
    if (verb === 'replace') return replace(board, second, third, own);
    if (verb === 'colour') return colour(board, second, third.toLowerCase());
  }
  return no(finding('hand/not-understood', [], { text: text.trim().slice(0, 60) }));
}

/** Boards as they are typed: by kind, at the first free place, or by id. */
function addBoard(board: Board, what: string, where: string | undefined): Command {
  const kind = breadboardKinds.find((k) => k === (what || 'full'));
  const id = kind ? nextBreadboard(board, kind, where === 'right') : what;
  if (!id || !readBreadboard(id) || (where !== undefined && where !== 'right'))
    return no(finding('hand/no-place-for-board', [], { id: [what, where].filter(Boolean).join(' ').slice(0, 20) }));
  return { ok: true, edit: { kind: 'add-breadboard', id } };
}

function pull(board: Board, what: string): Command {
  if (readBreadboard(what.toLowerCase()))
    return { ok: true, edit: { kind: 'remove-breadboard', id: what.toLowerCase() } };
  if (jumperOf(board, what.toLowerCase())) return { ok: true, edit: { kind: 'pull-jumper', id: what.toLowerCase() } };
  const ref = what.toUpperCase();
  if (partOf(board, ref)) return { ok: true, edit: { kind: 'pull-part', ref } };
  const slip = noteOf(board, what.toLowerCase());
  if (slip) return { ok: true, edit: { kind: 'note', note: { ...slip, text: '' } } };
  return no(/^w\d/i.test(what) ? finding('hand/no-such-jumper', [], { id: what }) : noPart(what));
}

function value(board: Board, what: string, text: string): Command {
  const part = partOf(board, what.toUpperCase());
  const kind = part && typeOf(part)?.kind;
  if (!part || !kind) return no(noPart(what));
  const read = readValue(kind, text);
  if (read === null) return no(finding('hand/no-value', [], { text: text.slice(0, 20), ref: part.ref }));
  return { ok: true, edit: { kind: 'set-value', ref: part.ref, value: read } };
}

function fix(board: Board, ref: string, fixed: boolean): Command {
  return partOf(board, ref) ? { ok: true, edit: { kind: 'fix', refs: [ref], fixed } } : no(noPart(ref));
}

function replace(board: Board, what: string, by: string, own: readonly string[]): Command {
  const part = partOf(board, what.toUpperCase());
  return part
    ? { ok: true, edit: { kind: 'replace', ref: part.ref, by: nameOf(by, own, part.part) } }
    : no(noPart(what));
}

function colour(board: Board, id: string, wanted: string): Command {
  const known = jumperColours.find((c) => c === wanted);
  if (!known && wanted !== 'plain')
    return no(finding('hand/no-such-colour', [], { colour: wanted.slice(0, 20), colours: jumperColours.join(', ') }));
  const jumper = jumperOf(board, id.toLowerCase());
  if (!jumper) return no(finding('hand/no-such-jumper', [], { id: id.slice(0, 20) }));
  return { ok: true, edit: { kind: 'colour', ids: [jumper.id], colour: known ?? null } };
}

function straighten(board: Board, id: string, straight: boolean): Command {
  const jumper = jumperOf(board, id.toLowerCase());
  if (!jumper) return no(finding('hand/no-such-jumper', [], { id: id.slice(0, 20) }));
  return { ok: true, edit: { kind: 'straighten', ids: [jumper.id], straight } };
}

/** `bend w3 b1.c17 b1.c24` leads a jumper over those holes, one after the other. */
function bend(board: Board, id: string, places: readonly string[]): Command {
  const jumper = jumperOf(board, id.toLowerCase());
  if (!jumper) return no(finding('hand/no-such-jumper', [], { id: id.slice(0, 20) }));
  const holes = places.map((place) => parseHole(place.toLowerCase()));
  const wrong = holes.findIndex((hole) => !hole || !board.breadboards.some((b) => b.id === hole.board));
  if (wrong >= 0) return no(finding('hand/no-such-hole', [], { hole: (places[wrong] ?? '').slice(0, 20) }));
  const corners = holes.flatMap((hole) => (hole ? [holeXY(hole)] : []));
  return { ok: true, edit: { kind: 'bend', id: jumper.id, corners } };
}

/** `note b1.e17 text` sticks a note beside a hole, or writes the one there anew; without text it is taken away. */
function note(board: Board, where: string, text: string): Command {
  const at = where.toLowerCase();
  const hole = parseHole(at);
  if (!hole || !board.breadboards.some((b) => b.id === hole.board))
    return no(finding('hand/no-such-hole', [], { hole: where.slice(0, 20) }));
  const there = Object.values(board.notes ?? {}).find((n) => n.at === at);
  return { ok: true, edit: { kind: 'note', note: { id: there?.id ?? nextFree('n', board.notes ?? {}), at, text } } };
}

function turn(board: Board, what: string): Command {
  const part = partOf(board, what.toUpperCase());
  const place = part && rotatedInPlace(part);
  if (!place) return no(noPart(what));
  return { ok: true, edit: { kind: 'move', ref: part.ref, ...place, follow: false } };
}

function label(board: Board, what: string, signal: string): Command {
  const { ref, id } = cutPin(what);
  const part = partOf(board, ref.toUpperCase());
  if (!part) return no(noPart(what));
  const of = what === ref ? {} : { of: nameWithin(part, id) };
  return { ok: true, edit: { kind: 'label', ref: part.ref, signal, ...of } };
}

/** A contact or lamp as the part names it, whatever its case was when it was typed. */
function nameWithin(part: SeatedPart, typed: string): string {
  const place = labelPlacesOf(part).find((p) => p.name.toLowerCase() === typed.toLowerCase());
  return place?.name ?? typed;
}

/** Values that parts come with when they are seated by hand: ohms, nanofarads, volts. */
const usual: Readonly<Partial<Record<PartKind, number>>> = {
  resistor: 1000,
  'resistor-network': 10_000,
  potentiometer: 10_000,
  capacitor: 100,
  supply: 5,
};

function seat(board: Board, what: string, at: string | undefined, own: readonly string[]): Command {
  const named = nameOf(what, own);
  const type = typeOf(named);
  if (!type) return no(finding('hand/no-such-type', [], { part: what.slice(0, 40) }));
  const value = usual[type.kind];
  const ref = nextFree(type.prefix, board.parts);
  const part: SeatedPart = {
    ref,
    ...named,
    at: at?.toLowerCase() ?? '',
    turn: 0,
    ...(value !== undefined && { value }),
  };
  if (at !== undefined) return { ok: true, edit: { kind: 'seat', part } };
  const free = freeSeat(board, part);
  return free
    ? { ok: true, edit: { kind: 'seat', part: free } }
    : no(finding('hand/no-seat', [], { part: named.part }));
}

/**
 * What a typed word names: an own part, a chip by its number, or another part by its word. A bare number is of the family of the part that
 * it replaces, where it is made in that.
 */
function nameOf(what: string, own: readonly string[], instead = ''): PartName {
  const definition = own.find((text) => ownPartType(text)?.id === what);
  if (definition !== undefined) return { part: what, own: definition };
  const number = readPartNumber(what);
  if (!number) return { part: what.toLowerCase() };
  const bare = /^(74)?\d+$/.test(what.trim());
  const before = readPartNumber(instead)?.family;
  const made = partType(what)?.chip?.families ?? [];
  const family = bare && before && made.includes(before) ? before : number.family;
  return { part: partNumber(number.base, family ?? 'HC') };
}

/** Rows in which the first pin of a part goes when nobody says where. */
const homes: Readonly<Record<PartKind, Row>> = {
  chip: 'e',
  switch: 'f',
  led: 'c',
  resistor: 'a',
  capacitor: 'top+',
  supply: 'top+',
  'dip-switch': 'e',
  'change-over': 'b',
  'push-button': 'e',
  'led-bar': 'e',
  display: 'e',
  'resistor-network': 'b',
  diode: 'f',
  transistor: 'c',
  potentiometer: 'b',
  clock: 'b',
};

/**
 * The part at the first place, from the left, where all its leads find free holes in strips that hold nothing yet and
 * its body lies over no strip in use and on no other part; failing that, in any free holes; null when there are none.
 */
export function freeSeat(board: Board, part: SeatedPart): SeatedPart | null {
  const row = homes[typeOf(part)?.kind ?? 'chip'];
  const used = stripsInUse(board);
  let second: SeatedPart | null = null;
  for (const { id } of board.breadboards)
    for (const column of columnNumbers(id)) {
      const tried = { ...part, at: `${id}.${row}${column}` };
      if (checkSeat(board, tried).length > 0) continue;
      const holes = [...leadsOf(tried).map((lead) => lead.hole), ...holesUnder(tried).map(parseHole)];
      const clear = holes.every((hole) => !hole || isRail(hole.row) || !used.has(stripOf(hole)));
      if (clear && !liesOnAnother(board, tried)) return tried;
      second ??= tried;
    }
  return second;
}

function stripsInUse(board: Board): ReadonlySet<string> {
  return new Set([...unusableHoles(board).keys()].flatMap((hole) => stripOf(parseHole(hole) as Hole)));
}

function liesOnAnother(board: Board, part: SeatedPart): boolean {
  const all = outlinesOf({ ...board, parts: { ...board.parts, [part.ref]: part } });
  const own = all.find((o) => o.ref === part.ref);
  return (
    own !== undefined &&
    all.some(
      (o) =>
        o.ref !== part.ref &&
        o.x < own.x + own.width &&
        own.x < o.x + o.width &&
        o.y < own.y + own.height &&
        own.y < o.y + o.height,
    )
  );
}

function move(board: Board, what: string, at: string): Command {
  const part = partOf(board, what.toUpperCase());
  if (!part) return no(noPart(what));
  const hole = parseHole(at.toLowerCase());
  if (!hole) return no(finding('hand/no-such-hole', [], { hole: at }));
  return { ok: true, edit: { kind: 'move', ref: part.ref, at: printHole(hole), turn: part.turn, follow: true } };
}

const noPart = (ref: string): Finding => finding('hand/no-such-part', [], { ref });

/** A place named by the person: one hole, or any free hole of a strip. */
interface End {
  readonly said: string;
  readonly hole: Hole;
  readonly exact: boolean;
}

function jumperBetween(board: Board, from: string, to: string): Command {
  const end = /^(w\d+)\.([12])$/i.exec(from);
  if (end) return rePlug(board, elementAt(end, 1).toLowerCase(), end[2] === '1' ? 'from' : 'to', to);
  const [a, b] = endsOf(board, from, to);
  if ('code' in a) return no(a);
  if ('code' in b) return no(b);
  const taken = new Map(unusableHoles(board));
  const p = a.exact ? a.hole : freeHoles(taken, a.hole, b.hole)[0];
  if (!p) return no(finding('hand/strip-full', [], { at: a.said }));
  taken.set(printHole(p), ['this jumper']);
  const q = b.exact ? b.hole : freeHoles(taken, b.hole, p)[0];
  if (!q) return no(finding('hand/strip-full', [], { at: b.said }));
  const jumper = { id: nextFree('w', board.jumpers), from: printHole(p), to: printHole(q) };
  return { ok: true, edit: { kind: 'lay-jumper', jumper } };
}

/** `w3.2 > U1.8` puts the second end of a jumper elsewhere. */
function rePlug(board: Board, id: string, end: 'from' | 'to', to: string): Command {
  const jumper = jumperOf(board, id);
  if (!jumper) return no(finding('hand/no-such-jumper', [], { id }));
  const kept = parseHole(end === 'from' ? jumper.to : jumper.from);
  const target = endOf(board, to, kept);
  if ('code' in target) return no(target);
  const other = kept ?? target.hole;
  const hole = target.exact ? target.hole : freeHoles(unusableHoles(board), target.hole, other)[0];
  if (!hole) return no(finding('hand/strip-full', [], { at: to }));
  return { ok: true, edit: { kind: 're-plug', id, end, hole: printHole(hole) } };
}

/** Both ends of a jumper; a rail that is named without its board is the one nearest to the other end. */
function endsOf(board: Board, from: string, to: string): readonly [End | Finding, End | Finding] {
  const a = endOf(board, from, null);
  const b = endOf(board, to, 'code' in a ? null : a.hole);
  return ['code' in b ? a : endOf(board, from, b.hole), b];
}

/** Words that people have for supply and ground. */
const supplyWords = /^(vcc|vdd|v\+|\+5 ?v?|5v|\+|supply|plus)$/i;
const groundWords = /^(gnd|vss|0v|-|ground|minus)$/i;

/** The rails that a word means: those of a mark (`GND`), or of a name without a board (`bottom-`); null for other words. */
function railsMeant(board: Board, said: string): Hole[] | null {
  const short = /^(?:(left|right)-)?(top|bottom)[+-]$/i.test(said) ? said.toLowerCase() : null;
  const mark = supplyWords.test(said) ? '+' : groundWords.test(said) ? '-' : null;
  if (short === null && mark === null) return null;
  const names = short === null ? ['top', 'bottom'].map((row) => `${row}${mark}`) : [short];
  const halves = (name: string): string[] => (short === null ? [name, `left-${name}`, `right-${name}`] : [name]);
  const all = board.breadboards.flatMap(({ id }) =>
    names.flatMap(halves).flatMap((name) => railNamed(`${id}.${name}`) ?? []),
  );
  const fed = mark === null ? [] : all.filter((rail) => isFedBy(board, rail, mark));
  return fed.length > 0 ? fed : all;
}

/** Whether a rail is joined to that lead of a supply. */
function isFedBy(board: Board, rail: Hole, mark: '+' | '-'): boolean {
  const { ofPin, ofStrip } = extractNets(board);
  const net = ofStrip.get(stripOf(rail));
  return (
    net !== undefined &&
    Object.values(board.parts).some((p) => typeOf(p)?.kind === 'supply' && ofPin.get(`${p.ref}.${mark}`) === net)
  );
}

/** Of several rails the one with the free hole nearest to a place. */
function nearestRail(board: Board, rails: readonly Hole[], near: Hole): Hole | undefined {
  const taken = unusableHoles(board);
  const [x, y] = [holeXY(near).x, holeXY(near).y];
  const away = (h: Hole): number => Math.hypot(holeXY(h).x - x, holeXY(h).y - y);
  return rails.flatMap((rail) => freeHoles(taken, rail, near).slice(0, 1)).sort((a, b) => away(a) - away(b))[0];
}

function endOf(board: Board, said: string, near: Hole | null): End | Finding {
  const rails = railsMeant(board, said);
  if (rails) {
    const rail = near ? nearestRail(board, rails, near) : rails[0];
    return rail ? { said, hole: rail, exact: false } : finding('hand/strip-full', [], { at: said });
  }
  const hole = parseHole(said.toLowerCase());
  const onBoard = (h: Hole): boolean => board.breadboards.some((b) => b.id === h.board);
  if (hole) return onBoard(hole) ? { said, hole, exact: true } : finding('hand/no-such-hole', [], { hole: said });
  const any = railNamed(said.toLowerCase());
  if (any) {
    return onBoard(any) ? { said, hole: any, exact: false } : finding('hand/no-such-hole', [], { hole: said });
  }
  if (/^b[shm]?\d+r?\./i.test(said)) return finding('hand/no-such-hole', [], { hole: said.slice(0, 20) });
  const pin = /^([A-Za-z]+\d+)\.([\w+-]+)$/.exec(said);
  if (!pin) return finding('hand/not-understood', [], { text: said.slice(0, 60) });
  return pinEnd(board, said, elementAt(pin, 1).toUpperCase(), elementAt(pin, 2).toUpperCase());
}

function pinEnd(board: Board, said: string, ref: string, id: string): End | Finding {
  const part = partOf(board, ref);
  if (!part) return noPart(ref);
  const leads = leadsOf(part);
  const lead = leads.find(({ type }) => type.id === id || type.name === id);
  if (!lead) {
    const pins = leads.map(({ type }) => type.id).join(', ');
    return finding('hand/no-such-pin', [{ kind: 'part', ref }], { ref, pin: id, pins });
  }
  if (!lead.hole) return finding('hand/lead-off-board', [], { ref, pin: id });
  return { said, hole: lead.hole, exact: false };
}

/**
 * The next place of a part that is nudged by one hole: `dx` columns and `dy` rows. Over the channel,
 * up and down skip to the next row, or board, that takes the part. Null when nothing does.
 */
export function nudged(board: Board, ref: string, dx: number, dy: number): Edit | null {
  const part = partOf(board, ref);
  const anchor = part && parseHole(part.at);
  if (!part || !anchor) return null;
  const from = holeXY(anchor);
  const seats = board.breadboards
    .flatMap(({ id }) => holesInColumn(id, from.x + dx - breadboardXY(id).x))
    .filter((h) => (dy === 0 ? holeXY(h).y === from.y : Math.sign(holeXY(h).y - from.y) === dy))
    .sort((p, q) => Math.abs(holeXY(p).y - from.y) - Math.abs(holeXY(q).y - from.y));
  const [nearest] = seats;
  if (!nearest) return null;
  return { kind: 'move', ref, at: printHole(nearest), turn: part.turn, follow: true };
}

function holesInColumn(board: string, column: number): Hole[] {
  const rows = ['top+', 'top-', 'j', 'e', 'bottom+', 'bottom-'] as const;
  return rows.flatMap((row) => {
    const hole = parseHole(printHole({ board, column, row }));
    if (!hole) return [];
    return row.length > 1 ? [hole] : holesOfStrip(hole);
  });
}

/** References and ids of everything on a board, in the order a person steps through them. */
export function thingsOn(board: Board): string[] {
  return [...Object.keys(board.parts).sort(byNumber), ...Object.keys(board.jumpers).sort(byNumber)];
}
