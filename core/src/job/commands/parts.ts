import { cutPin, labelPlacesOf, nextFree, parseHole, printHole, type SeatedPart } from '../../board';
import {
  ownPartType,
  type PartKind,
  type PartName,
  partNumber,
  partType,
  readPartNumber,
  readValue,
  typeOf,
} from '../../catalogue';
import { finding } from '../../finding';
import { freeSeat } from '../free-seat';
import { rotatedInPlace } from '../move';
import { type Command, type CommandKind, does, no, noPart, type Typed, withPart } from './command';

/** Commands of seated parts. */
export const partCommands = {
  seat: { usage: ['seat 74HC00', 'seat 74HC00 b1.e5', 'seat led'], words: [1, 2], read: seat },
  move: { usage: ['move U1 b1.e20'], words: [2, 2], read: move },
  rotate: { usage: ['rotate U1'], words: [1, 1], read: rotate },
  value: { usage: ['value R1 4k7', 'value C1 100n'], words: [2, 2], read: value },
  span: { usage: ['span C1 3'], words: [2, 2], read: span },
  limit: { usage: ['limit P1 100'], words: [2, 2], read: limit },
  label: { usage: ['label S1 K', 'label S2.3 K'], words: [2, 2], read: label },
  fix: { usage: ['fix U1'], words: [1, 1], read: (typed) => fix(typed, true) },
  unfix: { usage: ['unfix U1'], words: [1, 1], read: (typed) => fix(typed, false) },
  replace: { usage: ['replace U1 74LS00'], words: [2, 2], read: replace },
} as const satisfies Record<string, CommandKind>;

/** Values that parts come with when they are seated by hand: ohms, nanofarads, volts, hertz. */
const usual: Readonly<Partial<Record<PartKind, number>>> = {
  resistor: 1000,
  'resistor-network': 10_000,
  potentiometer: 10_000,
  capacitor: 100,
  supply: 5,
  clock: 1,
};

function seat({ board, words: [what = '', at], own }: Typed): Command {
  const named = nameOf(what, own);
  const type = typeOf(named);
  if (!type) return no(finding('hand/no-such-type', [], { part: what.slice(0, 40) }));
  const value = usual[type.kind];
  const ref = nextFree(type.prefix, board.parts);
  const part: SeatedPart = {
    ref,
    ...named,
    at: at?.toLowerCase() ?? '',
    rotation: 0,
    ...(value !== undefined && { value }),
  };
  const seated = at === undefined ? freeSeat(board, part) : part;
  return seated ? does({ kind: 'seat', part: seated }) : no(finding('hand/no-seat', [], { part: named.part }));
}

function move(typed: Typed): Command {
  const [what = '', at = ''] = typed.words;
  return withPart(typed, what, (part) => {
    const hole = parseHole(at.toLowerCase());
    if (!hole) return no(finding('hand/no-such-hole', [], { hole: at.slice(0, 20) }));
    return does({ kind: 'move', ref: part.ref, at: printHole(hole), rotation: part.rotation, follow: true });
  });
}

/** Rotates a part by a quarter, a chip by a half, where it is. */
function rotate(typed: Typed): Command {
  const [what = ''] = typed.words;
  return withPart(typed, what, (part) => {
    const place = rotatedInPlace(part);
    return place ? does({ kind: 'move', ref: part.ref, ...place, follow: false }) : no(noPart(what));
  });
}

function value(typed: Typed): Command {
  const [what = '', text = ''] = typed.words;
  return withPart(typed, what, (part) => {
    const kind = typeOf(part)?.kind;
    const read = kind ? readValue(kind, text) : null;
    if (read === null) return no(finding('hand/no-value', [], { text: text.slice(0, 20), ref: part.ref }));
    return does({ kind: 'set-value', ref: part.ref, value: read });
  });
}

/** How many holes apart the leads of a part are. */
function span(typed: Typed): Command {
  const [what = '', text = ''] = typed.words;
  return withPart(typed, what, ({ ref }) =>
    does({ kind: 'set-span', ref, span: /^\d{1,2}$/.test(text) ? Number(text) : 0 }),
  );
}

/** The current limit of a supply: milliamperes as a number, or with their unit. */
function limit(typed: Typed): Command {
  const [what = '', text = ''] = typed.words;
  const [, number, unit] = /^(\d+(?:\.\d+)?)(ma|a)?$/i.exec(text) ?? [];
  return withPart(typed, what, ({ ref }) =>
    does({ kind: 'set-limit', ref, ma: Math.round(Number(number ?? 0) * (unit?.toLowerCase() === 'a' ? 1000 : 1)) }),
  );
}

function label(typed: Typed): Command {
  const [what = '', signal = ''] = typed.words;
  const { ref, id } = cutPin(what);
  return withPart(typed, ref, (part) =>
    does({ kind: 'label', ref: part.ref, signal, ...(id !== '' && { of: nameWithin(part, id) }) }),
  );
}

/** A contact or lamp as the part names it, whatever its case was when it was typed. */
function nameWithin(part: SeatedPart, typed: string): string {
  const place = labelPlacesOf(part).find((p) => p.name.toLowerCase() === typed.toLowerCase());
  return place?.name ?? typed;
}

function fix(typed: Typed, fixed: boolean): Command {
  const [what = ''] = typed.words;
  return withPart(typed, what, ({ ref }) => does({ kind: 'fix', refs: [ref], fixed }));
}

function replace(typed: Typed): Command {
  const [what = '', by = ''] = typed.words;
  return withPart(typed, what, (part) =>
    does({ kind: 'replace', ref: part.ref, by: nameOf(by, typed.own, part.part) }),
  );
}

/**
 * What a typed word names: an own part, a chip by its number, or another part by its word. A bare number is of the family of the part that
 * it replaces, where it is made in that.
 */
function nameOf(what: string, own: readonly string[], instead = ''): PartName {
  const types = own.flatMap((text) => ownPartType(text) ?? []);
  const defined = types.find((type) => type.ownName === what);
  if (defined?.own !== undefined)
    return { part: partNumber(defined.id, defined.chip?.families[0] ?? 'HC'), own: defined.own };
  const number = readPartNumber(what);
  if (!number) return { part: what.toLowerCase() };
  const bare = /^(74)?\d+$/.test(what.trim());
  const before = readPartNumber(instead)?.family;
  const made = partType(what)?.chip?.families ?? [];
  const family = bare && before && made.includes(before) ? before : number.family;
  return { part: partNumber(number.base, family ?? 'HC') };
}
