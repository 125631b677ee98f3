import {
  type FamilyId,
  families,
  findChip,
  partNumber,
  partType,
  readPartNumber,
  readValue,
  shownValue,
  typeOf,
} from '../catalogue';
import { printCsv } from '../design';
import { type Finding, finding } from '../finding';
import type { Packing } from './packing';

/** What the lab has of a part: its number as printed (`74HC00`) or its kind and value (`resistor 10 kΩ`), how many, and what one costs if that is known. */
export interface DrawerEntry {
  readonly part: string;
  readonly count: number;
  readonly price?: number;
}

/** Bounds on a drawer that is read. */
const MAX_LINES = 2000;
const MAX_COUNT = 9999;

/** Entries as CSV (RFC 4180), a line each after a head. */
export function drawerToCsv(entries: readonly DrawerEntry[]): string {
  return printCsv([['part', 'count', 'price'], ...entries.map((e) => [e.part, e.count, e.price ?? ''])]);
}

/**
 * Reads a drawer from CSV: part number however printed, count, and price if there is one; counts of one part
 * add up. Lines that are not understood are named and left out; nothing else is lost.
 */
export function drawerFromCsv(text: string): { entries: DrawerEntry[]; findings: Finding[] } {
  const entries = new Map<string, DrawerEntry>();
  const findings: Finding[] = [];
  const lines = text.replace(/^\ufeff/, '').split(/\r\n|\n|\r/);
  if (lines.length > MAX_LINES)
    findings.push(finding('drawer/too-long', [], { lines: lines.length, limit: MAX_LINES }));
  for (const [i, line] of lines.slice(0, MAX_LINES).entries()) {
    if (line.trim() === '') continue;
    const [name = '', count = '', price = ''] = line.split(/[,;\t]/).map((f) => f.trim().replace(/^"(.*)"$/, '$1'));
    if (i === 0 && /^(part|chip|number|type)/i.test(name)) continue;
    const part = drawerPart(name);
    const n = Number(count === '' ? '1' : count);
    const cost = price === '' ? undefined : Number(price);
    if (part === null) findings.push(finding('drawer/no-part', [], { line: i + 1, part: name.slice(0, 40) }));
    else if (!Number.isInteger(n) || n < 0 || n > MAX_COUNT || (cost !== undefined && !(cost >= 0)))
      findings.push(finding('drawer/bad-number', [], { line: i + 1, text: line.slice(0, 60), limit: MAX_COUNT }));
    else {
      const before = entries.get(part)?.count ?? 0;
      entries.set(part, { part, count: Math.min(MAX_COUNT, before + n), ...(cost !== undefined && { price: cost }) });
    }
  }
  return { entries: [...entries.values()], findings };
}

/**
 * A part as the drawer names it, however it is written: a chip, of a bare number the high-speed CMOS one; a resistor or capacitor with its value,
 * named (`resistor 470`) or by its unit alone (`4k7`, `100n`). Null when it is none of these.
 */
export function drawerPart(text: string): string | null {
  const loose = looseOf(text);
  if (loose) return `${loose.kind}${shownValue(loose.kind, loose.value)}`;
  const named = readPartNumber(text);
  if (named?.family) return partType(text)?.kind === 'chip' ? partNumber(named.base, named.family) : null;
  const type = findChip(text);
  return type ? partNumber(type.id, 'HC') : null;
}

/** A resistor or capacitor, in ohms or nanofarads, as people write it; null for anything else. */
function looseOf(text: string): { readonly kind: 'resistor' | 'capacitor'; readonly value: number } | null {
  const [, before, value = '', after] =
    /^([rc]|resistor|capacitor)?s?\s*(\d\S*(?: \S{1,4})?)(?:\s+(resistor|capacitor)s?)?$/i.exec(text.trim()) ?? [];
  const named = (before ?? after)?.toLowerCase();
  const isFarads = named ? named.startsWith('c') : /\d\s*[pnuµ]\d*F?$/.test(value);
  if (!named && !isFarads && !/\d\s*(?:[kM]\d*(?:Ω|ohms?)?|R\d*|Ω|ohms?)$/i.test(value)) return null;
  const kind = isFarads ? 'capacitor' : 'resistor';
  const read = readValue(kind, value);
  return read === null ? null : { kind, value: read };
}

/** The values of the loose parts that a drawer has, in ohms and farads, each in order. */
export interface LooseValues {
  readonly ohms: readonly number[];
  readonly farads: readonly number[];
}

/** The resistors and capacitors of a drawer of which there is at least one. */
export function looseValues(entries: readonly DrawerEntry[]): LooseValues {
  const found = entries.flatMap(({ part, count }) => (count > 0 ? (looseOf(part) ?? []) : []));
  const of = (kind: string): number[] => found.flatMap((f) => (f.kind === kind ? f.value : [])).sort((a, b) => a - b);
  return {
    ohms: of('resistor'),
    farads: of('capacitor').map((nanofarads) => Number((nanofarads * 1e-9).toPrecision(6))),
  };
}

/** Whether the levels of two families meet both ways, so that they can stand on one board. */
export function levelsMeet(a: FamilyId, b: FamilyId): boolean {
  const drives = (x: FamilyId, y: FamilyId): boolean =>
    families[x].outputLowV <= families[y].inputLowV && families[x].outputHighV >= families[y].inputHighV;
  return drives(a, b) && drives(b, a);
}

/** How many chips of each family a drawer holds. */
function familyCounts(entries: readonly DrawerEntry[]): Map<FamilyId, number> {
  const counts = new Map<FamilyId, number>();
  for (const { part, count } of entries) {
    const family = readPartNumber(part)?.family;
    if (family && count > 0) counts.set(family, (counts.get(family) ?? 0) + count);
  }
  return counts;
}

/**
 * The families of a drawer that go on one board with a family: levels of any two of them meet both ways. HCT goes with LS and with HC, but these do
 * not go together: the one of which there is more comes first.
 */
function mates(counts: ReadonlyMap<FamilyId, number>, family: FamilyId): readonly FamilyId[] {
  const chosen = [family];
  for (const [other] of [...counts].sort(([, a], [, b]) => b - a))
    if (other !== family && chosen.every((one) => levelsMeet(one, other))) chosen.push(other);
  return chosen;
}

/** How many packages of each base number a drawer holds in a family, and in those that go together with it. */
export function stockOf(entries: readonly DrawerEntry[], family: FamilyId): Map<string, number> {
  const together = mates(familyCounts(entries), family);
  const stock = new Map<string, number>();
  for (const { part, count } of entries) {
    const named = readPartNumber(part);
    if (named && together.includes(named.family ?? family)) stock.set(named.base, (stock.get(named.base) ?? 0) + count);
  }
  return stock;
}

/** What is left of a drawer while chips are taken from it, of a family and those that go together with it. */
export class DrawerLeft {
  private readonly left: Map<string, number>;
  private readonly together: readonly FamilyId[];

  constructor(entries: readonly DrawerEntry[], family: FamilyId) {
    this.left = new Map(entries.map((e) => [e.part, e.count]));
    this.together = mates(familyCounts(entries), family);
  }

  /** Takes one chip of a base number: `wanted` as long as there is one, then others; null when there is none. */
  take(base: string, wanted: string): string | null {
    const others = [...this.left.keys()].filter((part) => {
      const named = readPartNumber(part);
      return named?.base === base && (named.family === null || this.together.includes(named.family));
    });
    const part = [wanted, ...others].find((p) => (this.left.get(p) ?? 0) > 0);
    if (part === undefined) return null;
    this.left.set(part, (this.left.get(part) ?? 0) - 1);
    return part;
  }
}

/** A packing with the part numbers that the drawer has: its own family as far as there is of it, then those that go with it. */
export function asInDrawer(packing: Packing, entries: readonly DrawerEntry[], family: FamilyId): Packing {
  const left = new DrawerLeft(entries, family);
  const packages = packing.packages.map((pack) => {
    const base = typeOf(pack)?.id;
    if (pack.own !== undefined || base === undefined) return pack;
    return { ...pack, part: left.take(base, pack.part) ?? pack.part };
  });
  return { ...packing, packages };
}

/** A mixture of families that a drawer can build with: `family` leads it, `others` are those in the drawer whose levels meet it both ways. */
export interface DrawerMixture {
  readonly family: FamilyId;
  readonly others: readonly FamilyId[];
}

/**
 * The mixture with most chips of a drawer: the families whose levels meet one another, led by that with most chips of its own. Null for a drawer without chips.
 */
export function mixtureOf(entries: readonly DrawerEntry[]): DrawerMixture | null {
  const counts = familyCounts(entries);
  const [best] = [...counts]
    .map(([family, own]) => {
      const [, ...others] = mates(counts, family);
      return { family, others, own, all: others.reduce((sum, other) => sum + (counts.get(other) ?? 0), own) };
    })
    .sort((a, b) => b.all - a.all || b.own - a.own);
  return best ? { family: best.family, others: best.others } : null;
}

/** The parts list of a packing as CSV: number, how many, price of one and of all, and how many the drawer has. */
export function partsListCsv(packing: Packing, entries: readonly DrawerEntry[]): string {
  const counts = new Map<string, number>();
  for (const { part } of packing.packages) counts.set(part, (counts.get(part) ?? 0) + 1);
  const of = new Map(entries.map((e) => [e.part, e]));
  const lines = [...counts].sort().map(([part, count]) => {
    const price = of.get(part)?.price;
    const sum = price === undefined ? '' : (price * count).toFixed(2);
    return [part, count, price ?? '', sum, of.get(part)?.count ?? 0];
  });
  return printCsv([['part', 'count', 'price', 'sum', 'in the drawer'], ...lines]);
}
