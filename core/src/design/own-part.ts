import { atText, type Finding, finding, type Span } from '../finding';
import { rangeOf } from './bus';
import { elaborate, type Library, type LibraryPart } from './elaborate';
import { expressionsOf, namesIn } from './equation';
import { printStatement } from './printer';
import type { Equation, Line, Sheet, Signal, Statement } from './sheet';

/** A part that a sheet defines itself, between `part` and `end`. */
export interface OwnPart {
  readonly name: string;
  readonly title: string;
  /** Pin names from pin 1 up; VCC and GND are the supply pins, NC leads nowhere. */
  readonly pins: readonly string[];
  /** Whether its two rows stand 0.6 inch apart instead of 0.3. */
  readonly wide: boolean;
  /** The memory of the catalogue that it is, by its base number, and what that holds: it then has the pins of that. */
  readonly of?: { readonly base: string; readonly words: readonly number[] };
  /** Its behaviour as a whole sheet: inputs and outputs as its pins and statements have them. */
  readonly sheet: Sheet;
  /** The definition, neatly and without comments: what a job carries wherever the part is used. */
  readonly text: string;
  readonly at: Span;
}

/** The longest name and definition of an own part, and the fewest and most pins of one. */
const MAX_NAME = 24;
/** The most characters of the definition of a part, from `part` to `end`. */
export const MAX_OWN_TEXT = 8000;
const FEWEST_PINS = 4;
const MOST_PINS = 64;

/** What a pin is for, as far as the behaviour says. */
export type LogicRole = 'supply' | 'ground' | 'none' | 'input' | 'output' | 'both';

const fixedRoles: Readonly<Record<string, LogicRole>> = { VCC: 'supply', GND: 'ground', NC: 'none' };

/**
 * What each pin of a part is, by the equations of its behaviour: an output where one makes it, both
 * where it is driven only at times and read as well, an input otherwise.
 */
export function pinRolesOf(pins: readonly string[], equations: readonly Equation[]): Map<string, LogicRole> {
  const shared = new Map(equations.map((e) => [e.target.name, e.when !== undefined || e.open === true]));
  const read = new Set(equations.flatMap((e) => namesIn(...expressionsOf(e))));
  const roleOf = (name: string): LogicRole => {
    const atTimes = shared.get(name);
    if (atTimes === undefined) return 'input';
    return atTimes && read.has(name) ? 'both' : 'output';
  };
  return new Map(pins.map((name) => [name, fixedRoles[name] ?? roleOf(name)]));
}

/** The parts that a sheet defines, and what is wrong with their names and pins; `library` has the others. */
export function ownPartsOf(sheet: Sheet, library: Library): { parts: Map<string, OwnPart>; findings: Finding[] } {
  const parts = new Map<string, OwnPart>();
  const findings: Finding[] = [];
  for (const section of sectionsOf(sheet.lines)) {
    const { head } = section;
    const place = [atText(head.name.at ?? nowhere)];
    const { name } = head.name;
    if (parts.has(name)) findings.push(finding('sheet/part-twice', place, { name }));
    else if (library(name)) findings.push(finding('sheet/part-known', place, { name }));
    else if (name.length > MAX_NAME) findings.push(finding('sheet/part-name', place, { name, limit: MAX_NAME }));
    else {
      const memory = head.of && library(head.of.name);
      const wrong = head.of ? checkMemory(section, memory ?? null) : checkPins(section);
      const part = memory ? programmed(section, memory) : ownPart(section, library);
      if (part.text.length > MAX_OWN_TEXT)
        wrong.push(finding('sheet/part-too-long', place, { name, limit: MAX_OWN_TEXT }));
      findings.push(...wrong);
      if (wrong.length === 0) parts.set(name, part);
    }
  }
  return { parts, findings };
}

/** A library with the parts that a sheet defines itself. */
export function withOwnParts(library: Library, parts: ReadonlyMap<string, OwnPart>): Library {
  if (parts.size === 0) return library;
  return (number) => {
    const own = parts.get(number);
    return own ? { base: own.of?.base ?? own.name, sheet: own.sheet, own: own.text } : library(number);
  };
}

type Head = Extract<Statement, { kind: 'part' }>;
type Pins = Extract<Statement, { kind: 'pins' }>;
type Holds = Extract<Statement, { kind: 'holds' }>;

interface Section {
  readonly head: Head;
  readonly pins: readonly Pins[];
  readonly holds: readonly Holds[];
  /** What stands between, blocks and declarations apart. */
  readonly inside: readonly Statement[];
  readonly stray: readonly Finding[];
}

function sectionsOf(lines: readonly Line[]): Section[] {
  const sections: { head: Head; pins: Pins[]; holds: Holds[]; inside: Statement[]; stray: Finding[] }[] = [];
  let open: (typeof sections)[number] | null = null;
  for (const { statement: s } of lines) {
    if (s?.kind === 'part') {
      open = { head: s, pins: [], holds: [], inside: [], stray: [] };
      sections.push(open);
    } else if (s?.kind === 'end' || s?.kind === 'block') open = null;
    else if (!open || !s) continue;
    else if (s.kind === 'pins') open.pins.push(s);
    else if (s.kind === 'holds') open.holds.push(s);
    else if (s.kind === 'in' || s.kind === 'out')
      open.stray.push(finding('sheet/part-declares', [atText(s.signals[0]?.at ?? nowhere)], { word: s.kind }));
    else open.inside.push(s);
  }
  return sections;
}

function ownPart({ head, pins, inside }: Section, library: Library): OwnPart {
  const names = pins.flatMap((p) => p.names.map((n) => n.name));
  const statements = inside.map((statement): Line => ({ statement }));
  const { equations } = elaborate({ lines: statements }, library, true).declared;
  const roles = pinRolesOf(names, equations);
  const declared = (kind: 'in' | 'out'): Line => {
    const wanted = (role: LogicRole | undefined): boolean =>
      role === 'both' || role === (kind === 'in' ? 'input' : 'output');
    const signals = pins.flatMap((p) => p.names.filter((n) => wanted(roles.get(n.name)))) as Signal[];
    return { statement: { kind, signals } };
  };
  const body = [head, ...pins, ...inside, { kind: 'end' } as const];
  return {
    name: head.name.name,
    title: head.name.label ?? '',
    pins: names,
    wide: pins.some((p) => p.wide),
    sheet: { lines: [declared('in'), declared('out'), ...statements] },
    text: body.map((s) => printStatement(s)).join('\n'),
    at: head.name.at ?? nowhere,
  };
}

/** A memory of the catalogue with contents of its own. */
function programmed({ head, holds }: Section, { base, memory }: LibraryPart): OwnPart {
  const words = holds.flatMap((h) => h.words.map((word) => Number.parseInt(word, 16)));
  const fits = memory && words.length <= memory.words && words.every((word) => word < 2 ** memory.bits);
  const body = [{ ...head, of: { name: base } }, ...holds, { kind: 'end' } as const];
  return {
    name: head.name.name,
    title: head.name.label ?? '',
    pins: [],
    wide: false,
    of: { base, words },
    sheet: fits ? memory.holding(words) : { lines: [] },
    text: body.map((s) => printStatement(s)).join('\n'),
    at: head.name.at ?? nowhere,
  };
}

/** What is wrong with a part that says which memory it is. */
function checkMemory({ head, pins, holds, inside, stray }: Section, found: LibraryPart | null): Finding[] {
  const { name } = head.name;
  const place = [atText(head.of?.at ?? nowhere)];
  const memory = found?.memory;
  if (!memory) return [finding('sheet/no-memory', place, { number: head.of?.name ?? '' })];
  if (pins.length + inside.length + stray.length > 0) return [finding('sheet/memory-only-holds', place, { name })];
  if (holds.length === 0) return [finding('sheet/memory-empty', place, { name })];
  const findings: Finding[] = [];
  let count = 0;
  for (const { words, at } of holds) {
    count += words.length;
    const facts = { bits: memory.bits, most: memory.words, count };
    const wide = words.find((word) => Number.parseInt(word, 16) >= 2 ** memory.bits);
    if (wide !== undefined)
      findings.push(finding('sheet/wide-word', [atText(at ?? nowhere)], { ...facts, word: wide }));
    if (count <= memory.words) continue;
    findings.push(finding('sheet/too-many-words', [atText(at ?? nowhere)], facts));
    break;
  }
  return findings;
}

function checkPins({ head, pins, holds, stray: strays }: Section): Finding[] {
  const { name, at } = head.name;
  const place = [atText(at ?? nowhere)];
  const stray = [...strays, ...holds.map((h) => finding('sheet/stray-holds', [atText(h.at ?? nowhere)], {}))];
  const all = pins.flatMap((p) => p.names);
  const count = all.length;
  if (count < FEWEST_PINS || count > MOST_PINS || count % 2 === 1)
    return [finding('sheet/part-pins', place, { name, count, least: FEWEST_PINS, most: MOST_PINS })];
  const findings = [...stray];
  for (const rail of ['VCC', 'GND'])
    if (!all.some((p) => p.name === rail)) findings.push(finding('sheet/part-rail', place, { name, rail }));
  const seen = new Set(['NC']);
  for (const pin of all) {
    if (rangeOf(pin.name)) findings.push(finding('sheet/pin-range', [atText(pin.at ?? nowhere)], { pin: pin.name }));
    if (seen.has(pin.name) && pin.name !== 'NC')
      findings.push(finding('sheet/pin-again', [atText(pin.at ?? nowhere)], { pin: pin.name }));
    seen.add(pin.name);
  }
  return findings;
}

const nowhere: Span = { from: 0, to: 0 };
