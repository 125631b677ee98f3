import { type Library, parseSheet, printStatement, type Reading, readSheet, type Sheet } from '../design';
import { benchParts } from './bench-parts';
import { type ChipData, chips } from './chips';
import { readPartNumber } from './family';
import type { PartType, Pin, PinRole } from './part';
import { unitsOf } from './units';

const fixedRoles: Readonly<Record<string, PinRole>> = { VCC: 'supply', GND: 'ground', NC: 'none' };

/** Pins of a chip that are what: from its own words and from what its behaviour makes. */
function rolesOf(data: ChipData): Map<string, PinRole> {
  const names = data.pins.split(' ');
  const roles = new Map<string, PinRole>(Object.entries(fixedRoles));
  const made = new Set(
    parseSheet(data.behaviour).sheet.lines.flatMap(({ statement: s }) =>
      s?.kind === 'equation' ? [s.target.name] : s?.kind === 'table' ? s.outputs.map((o) => o.name) : [],
    ),
  );
  for (const name of names) if (!roles.has(name)) roles.set(name, made.has(name) ? 'output' : 'input');
  for (const name of data.both?.split(' ') ?? []) roles.set(name, 'both');
  for (const name of data.analogue?.split(' ') ?? []) roles.set(name, 'analogue');
  return roles;
}

/** A chip's behaviour as a whole sheet, its pins declared: inputs and outputs in the order of their names. */
export function sheetOfChip(data: ChipData): string {
  const roles = rolesOf(data);
  const of = (...wanted: PinRole[]): string[] =>
    [...roles].filter(([name, role]) => wanted.includes(role) && !(name in fixedRoles)).map(([name]) => name);
  const declared = (kind: 'in' | 'out', names: readonly string[]): string =>
    printStatement({ kind, signals: [...names].sort(byName).map((name) => ({ name })) });
  const timed = data.timers?.map((t) => t.input) ?? [];
  return [
    declared('in', [...of('input', 'both'), ...timed]),
    declared('out', of('output', 'both')),
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
 * a signal. Throws on a behaviour that is not a faultless sheet: the catalogue is our own data.
 */
export function chipOf(data: ChipData): PartType {
  const behaviour = sheetOfChip(data);
  const { design, findings } = readSheet(behaviour);
  if (!design.behaviour || findings.length > 0)
    throw new Error(`${data.base}: the behaviour has findings: ${JSON.stringify(findings)}`);
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
    units: unitsOf(design.behaviour, data.timers ?? [], (name) => idOf.get(name) ?? null),
    body: { x: -0.5, y: -(rows - 0.38), width: half, height: rows - 0.76 },
    behaviour,
    catch: data.catch,
    chip: data,
  };
}

/** Chips by base number, each made when it is first asked for. */
const made = new Map<string, PartType>();
const dataOf: ReadonlyMap<string, ChipData> = new Map(chips.map((c) => [c.base, c]));
const benchOf: ReadonlyMap<string, PartType> = new Map(benchParts.map((p) => [p.id, p]));

function chip(base: string): PartType | null {
  const data = dataOf.get(base);
  if (!data) return null;
  let part = made.get(base);
  if (!part) {
    part = chipOf(data);
    made.set(base, part);
  }
  return part;
}

/** The part type that a job file's `part` names: `74HC00`, `led`, …; null when it is not known. */
export function partType(part: string): PartType | null {
  const number = readPartNumber(part);
  return (number && chip(number.base)) ?? benchOf.get(part) ?? null;
}

/** Every part type: chips by number, then the other things on a bench. Makes all chips: some 50 ms. */
export function catalogue(): readonly PartType[] {
  return [...chips.map((c) => chip(c.base) as PartType), ...benchParts];
}

/** Chips by what people call them: `7493`, `93`, `4017`, `SN74LS93N`. */
export function findChip(text: string): PartType | null {
  const plain = text.trim().toUpperCase();
  return partType(plain) ?? chip(plain) ?? (/^\d{2,4}$/.test(plain) ? chip(`74${plain}`) : null);
}

const sheets = new Map<string, Sheet>();

/** The library of the catalogue's chips, for sheets that use parts by number. */
export const chipLibrary: Library = (number) => {
  const part = findChip(number);
  if (!part) return null;
  let sheet = sheets.get(part.id);
  if (!sheet) {
    sheet = parseSheet(part.behaviour).sheet;
    sheets.set(part.id, sheet);
  }
  return { base: part.id, sheet, idle: part.chip?.timers?.map((t) => t.input) ?? [] };
};

/** Reads a sheet that may use the catalogue's chips by number. */
export function readDesign(text: string): Reading {
  return readSheet(text, chipLibrary);
}
