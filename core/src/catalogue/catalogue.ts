import {
  draftOf,
  elaborate,
  type Library,
  type LibraryPart,
  MAX_OWN_TEXT,
  type OwnPart,
  ownPartsOf,
  parseSheet,
  pinRolesOf,
  printStatement,
  type Reading,
  readSheet,
  type Sheet,
  withRemedies,
} from '../design';
import { isError } from '../finding';
import { onceFor, remembered } from '../memo';
import { benchParts } from './bench-parts';
import { type AnalogueContacts, type ChipData, chips } from './chips';
import { behaviourHolding } from './chips/contents';
import { readPartNumber } from './family';
import { noInner, type SwitchingDevice } from './inner';
import type { PartType, Pin, PinRole } from './part';
import { unitsOf } from './units';

/** What each pin of a chip is: by what its behaviour makes, and by its own words for pins without a logic level. */
function rolesOf(data: ChipData): Map<string, PinRole> {
  const { sheet } = parseSheet(data.behaviour);
  const { equations } = elaborate(sheet, chipLibrary, true).declared;
  const roles = new Map<string, PinRole>(pinRolesOf(data.pins.split(' '), equations));
  for (const name of [...(data.analogue?.split(' ') ?? []), ...endsOf(data)]) roles.set(name, 'analogue');
  return roles;
}

/** The pins of a chip's analogue switches, those that a switch has alone first. */
function endsOf({ contacts }: ChipData): string[] {
  const joins = contacts?.joins ?? {};
  return [...new Set([...Object.keys(joins), ...Object.values(joins)])];
}

/** A chip's behaviour as a whole sheet, its pins declared: inputs and outputs in the order of their names. */
export function sheetOfChip(data: ChipData): string {
  const roles = rolesOf(data);
  const of = (...wanted: PinRole[]): string[] =>
    [...roles].filter(([, role]) => wanted.includes(role)).map(([name]) => name);
  const declared = (kind: 'in' | 'out', names: readonly string[]): string =>
    printStatement({ kind, signals: [...names].sort(byName).map((name) => ({ name })) });
  const timed = data.timers?.map((t) => t.input) ?? [];
  return [
    declared('in', [...of('input', 'both'), ...timed]),
    declared('out', [...of('output', 'both'), ...Object.keys(data.contacts?.joins ?? {})]),
    data.behaviour,
  ].join('\n');
}

/** Orders pin names as people count them: 1A, 1B, 2A, 10A. */
export function byName(a: string, b: string): number {
  return a.localeCompare(b, 'en', { numeric: true });
}

/**
 * Makes a chip from its data sheet: pins of a dual-in-line package laid out from pin 1 (anchor, lower
 * row, notch to the left), and units taken from the behaviour, one for each group of outputs that share
 * a signal. Throws on a behaviour with an error: the catalogue is our own data, and own parts are checked
 * where they are written.
 */
export function chipOf(data: ChipData): PartType {
  const behaviour = sheetOfChip(data);
  const { design, findings } = readSheet(behaviour, chipLibrary);
  if (!design.behaviour)
    throw new Error(`${data.base}: the behaviour has findings: ${JSON.stringify(findings.filter(isError))}`);
  const names = data.pins.split(' ');
  const half = names.length / 2;
  const rows = data.rows ?? 3;
  const roles = rolesOf(data);
  const pins = names.map((name, i): Pin => {
    const lower = i < half;
    const place = { dx: lower ? i : names.length - 1 - i, dy: lower ? 0 : -rows };
    return { id: String(i + 1), name, role: roles.get(name) as PinRole, ...place };
  });
  const idOf = new Map(pins.map((p) => [p.name, p.id]));
  return {
    id: data.base,
    kind: 'chip',
    title: data.title,
    prefix: 'U',
    pins,
    units: unitsOf(design.behaviour, data, (name) => idOf.get(name) ?? null),
    body: { x: -0.5, y: -(rows - 0.38), width: half, height: rows - 0.76 },
    behaviour,
    caveat: data.caveat,
    chip: data,
    ...innerOfChip(data, idOf),
  };
}

/** What a chip does between its pins: its analogue switches; of a single timer which pin gives its signal. */
function innerOfChip(
  { contacts, dividers = [] }: ChipData,
  idOf: ReadonlyMap<string, string>,
): Pick<PartType, 'inner'> {
  const [timer, ...others] = dividers.flatMap(({ pulse }) => pulse ?? []);
  if (timer && others.length === 0)
    return { inner: { ...noInner, signalPin: idOf.get(timer.output) as string, runs: true } };
  return contacts ? { inner: { ...noInner, devices: switchesOf(contacts, idOf) } } : {};
}

/** The paths that a chip's analogue switches are, by pin id. */
function switchesOf({ joins }: AnalogueContacts, idOf: ReadonlyMap<string, string>): SwitchingDevice[] {
  const id = (name: string): string => idOf.get(name) as string;
  return Object.entries(joins).map(([own, other]) => ({
    kind: 'analogue-switch',
    a: id(own),
    b: id(other),
    control: null,
  }));
}

const dataOf: ReadonlyMap<string, ChipData> = new Map(chips.map((c) => [c.base, c]));
const benchOf: ReadonlyMap<string, PartType> = new Map(benchParts.map((p) => [p.id, p]));

/** The chip of a base number, made when it is first asked for; null when there is none. */
const chip: (base: string) => PartType | null = remembered((base) => {
  const data = dataOf.get(base);
  return data ? chipOf(data) : null;
});

/** The part type that a job file's `part` names: `74HC00`, `led`, …; null when it is not known. */
export const partType: (part: string) => PartType | null = remembered((part) => {
  const number = readPartNumber(part);
  return (number && chip(number.base)) ?? benchOf.get(part) ?? null;
});

/** What names a part: its number or word and, for a part of one's own, its definition. */
export interface PartName {
  readonly part: string;
  readonly own?: string;
  /** How far apart its leads are bent, in tenths of an inch; as they come where it is absent. */
  readonly span?: number;
}

/**
 * The type of a part named, its leads bent as it is seated; null when it is not known or its own definition cannot be read. A span that the
 * leads do not allow is taken for the nearest that they do.
 */
export function typeOf({ part, own, span }: PartName): PartType | null {
  if (span !== undefined) return bentType(`${part} ${span}`);
  return own === undefined ? partType(part) : ownPartType(own);
}

const bentType: (partAndSpan: string) => PartType | null = remembered((text) => {
  const [part = '', span = ''] = text.split(' ');
  const type = partType(part);
  const [, second] = type?.pins ?? [];
  if (!type?.spans || !second) return type;
  const [least, most] = type.spans;
  const apart = Math.max(least, Math.min(most, Number(span)));
  const usual = Math.max(second.dx, second.dy);
  const [right, down] = second.dx > 0 ? [apart - usual, 0] : [0, apart - usual];
  const { pins, body } = type;
  return {
    ...type,
    pins: pins.map((pin) => (pin === second ? { ...pin, dx: pin.dx + right, dy: pin.dy + down } : pin)),
    body: { ...body, x: body.x + right / 2, y: body.y + down / 2 },
  };
});

/** Definitions are long; fewer types of them are kept than of numbers. */
const MOST_OWN_TYPES = 500;

/** The type that a part's definition, from `part` to `end`, makes; null when it has a mistake. */
export const ownPartType: (text: string) => PartType | null = remembered(makeOwnType, MOST_OWN_TYPES);

function makeOwnType(text: string): PartType | null {
  if (text.length > MAX_OWN_TEXT) return null;
  const { sheet, findings } = parseSheet(text);
  const { parts, findings: more } = ownPartsOf(sheet, chipLibrary);
  const [part] = parts.values();
  if (!part || findings.length > 0 || more.length > 0) return null;
  try {
    return { ...chipOf(dataOfOwn(part)), own: part.text, ownName: part.name };
  } catch {
    return null;
  }
}

/** An own part as chips of the catalogue are given: a memory with its contents, or one that counts as HC, the family of jobs. */
function dataOfOwn(part: OwnPart): ChipData {
  const memory = part.of && dataOf.get(part.of.base);
  if (memory?.memory && part.of)
    return {
      ...memory,
      title: part.title === '' ? `${memory.title}: ${part.name}` : part.title,
      behaviour: behaviourHolding(memory.memory, part.of.words),
    };
  return {
    base: part.name,
    title: part.title === '' ? 'a part of your own' : part.title,
    group: 'own parts',
    pins: part.pins.join(' '),
    behaviour: part.sheet.lines
      .slice(2)
      .flatMap(({ statement }) => (statement ? [printStatement(statement)] : []))
      .join('\n'),
    ...(part.wide && { rows: 6 as const }),
    families: ['HC'],
    caveat: 'A part of your own: nobody has held its pins and its limits against a data sheet but you.',
  };
}

/** Every part type: chips by number, then the other things on a bench. Makes all chips: some 50 ms. */
export function catalogue(): readonly PartType[] {
  return [...chips.map((c) => chip(c.base) as PartType), ...benchParts];
}

/** Chips by what people call them: `7493`, `93`, `4017`, `SN74LS93N`. A base number is the newer part where there are two: `SN7473` is the older. */
export function findChip(text: string): PartType | null {
  const plain = text.trim().toUpperCase();
  return chip(plain) ?? partType(plain) ?? (/^\d{2,4}$/.test(plain) ? chip(`74${plain}`) : null);
}

const sheetOfPart: (part: PartType) => Sheet = onceFor((part) => parseSheet(part.behaviour).sheet);

/** The behaviour of a memory, by its base number, that holds some words: sheets are read again with every key. */
const sheetHolding: (baseAndWords: string) => Sheet = remembered((text) => {
  const [base = '', ...words] = text.split(' ');
  const chip = dataOf.get(base);
  if (!chip?.memory) return { lines: [] };
  return parseSheet(sheetOfChip({ ...chip, behaviour: behaviourHolding(chip.memory, words.map(Number)) })).sheet;
}, MOST_OWN_TYPES);

/** What a sheet may have a memory hold. */
function memoryOf({ chip }: PartType): Partial<Pick<LibraryPart, 'memory'>> {
  const { memory } = chip ?? {};
  if (!chip || !memory) return {};
  const [address, data] = [memory.address.split(' '), memory.data.split(' ')];
  const holding = (words: readonly number[]): Sheet => sheetHolding(`${chip.base} ${words.join(' ')}`);
  return { memory: { words: 2 ** address.length, bits: data.length, blank: memory.blank, holding } };
}

/** The library of the catalogue's chips, for sheets that use parts by number. */
export const chipLibrary: Library = (number) => {
  const part = findChip(number);
  if (!part) return null;
  return {
    base: part.id,
    sheet: sheetOfPart(part),
    idle: part.chip?.timers?.map((t) => t.input) ?? [],
    oneShots: [
      ...(part.chip?.timers ?? []).map(() => []),
      ...(part.chip?.dividers ?? []).flatMap(({ pulse }) => (pulse ? [[pulse.ends, pulse.empties]] : [])),
    ],
    ...(part.chip?.contacts && { joinsPins: true as const }),
    ...memoryOf(part),
  };
};

/** Reads a sheet that may use the catalogue's chips by number, and knows what beginners write in other words. */
export function readDesign(text: string): Reading {
  const read = (one: string): Reading => readSheet(one, chipLibrary);
  const reading = withRemedies(text, read(text), read);
  const draft = draftOf(text, reading, read);
  return draft ? { ...reading, draft } : reading;
}
