import { benchParts } from './bench-parts';
import { findChip } from './catalogue';
import { type ChipData, chips } from './chips';
import { partNumber, readPartNumber } from './family';

/** A line of the parts list: what it is called, what it is, and its shelf. */
export interface PartEntry {
  readonly id: string;
  readonly number: string;
  readonly title: string;
  readonly group: string;
}

const numberWords: Readonly<Record<string, string>> = {
  one: '1',
  single: '1',
  two: '2',
  dual: '2',
  double: '2',
  three: '3',
  triple: '3',
  four: '4',
  quad: '4',
  quadruple: '4',
  five: '5',
  six: '6',
  hex: '6',
  seven: '7',
  eight: '8',
  octal: '8',
  nine: '9',
  ten: '10',
  twelve: '12',
  thirteen: '13',
};
/** Words of one meaning. */
const sameWords: Readonly<Record<string, string>> = {
  multiplexer: 'selector',
  mux: 'selector',
  demultiplexer: 'decoder',
  inverter: 'not',
  exclusive: 'xor',
  monostable: 'shot',
  bcd: 'decade',
  flipflop: 'flop',
  resistors: 'resistor',
};

/** Words of a text, as they are compared: lower case, numbers as digits, no plural. */
function wordsOf(text: string): string[] {
  return text
    .toLowerCase()
    .replace(/flip[- ]flops?/g, 'flop')
    .replace(/(three|tri|3)-state/g, 'threestate')
    .replace(/open[- ](collector|drain)/g, 'opencollector')
    .split(/[^a-z0-9]+/)
    .filter((w) => w !== '' && !['a', 'an', 'of', 'and', 'with', 'the', 'to', 'by', 'input', 'bit'].includes(w))
    .map((w) => numberWords[w] ?? sameWords[w] ?? w)
    .map((w) => (w.length > 3 && w.endsWith('s') && !w.endsWith('ss') ? w.slice(0, -1) : w));
}

const entryOf = (c: ChipData): PartEntry => ({
  id: c.base,
  number: partNumber(c.base, c.families.includes('HC') ? 'HC' : (c.families[0] ?? '74')),
  title: c.title,
  group: c.group,
});

/** All parts as a list, chips by number, then the other things on a bench. */
export const partEntries: readonly PartEntry[] = [
  ...chips.map(entryOf),
  ...benchParts.map((p) => ({ id: p.id, number: p.id, title: p.title, group: 'on the bench' })),
];

const searched: ReadonlyMap<string, readonly string[]> = new Map([
  ...chips.map((c): [string, string[]] => [
    c.base,
    wordsOf(`${c.title} ${c.group} ${c.aliases ?? ''} ${/\bnot\b|inver/.test(`${c.title} ${c.aliases}`) ? 'not' : ''}`),
  ]),
  ...benchParts.map((p): [string, string[]] => [p.id, wordsOf(`${p.title} ${p.kind} ${p.caveat}`)]),
]);

/**
 * Parts by number, however printed, or by what they do: `three-input nor`, `decade counter`, `sr latch`.
 * Every word must fit, the last one as a beginning; a number found comes first. All parts for no words.
 * `own` are entries of own parts, which come before those of the catalogue.
 */
export function searchParts<E extends PartEntry>(text: string, own: readonly E[] = []): readonly (E | PartEntry)[] {
  const plain = text.trim();
  const all = [...own, ...partEntries];
  if (plain === '') return all;
  const number = readPartNumber(plain) || /^\d{2,5}$/.test(plain) ? findChip(plain) : null;
  const digits = /^(?:74)?(\d+)$/.exec(plain)?.[1];
  const words = wordsOf(plain);
  const last = words[words.length - 1];
  const fits = (own: readonly string[]): boolean =>
    words.length > 0 && words.every((w) => own.includes(w) || (w === last && own.some((o) => o.startsWith(w))));
  const found = all.filter(
    (e) =>
      e.id !== number?.id &&
      (fits(searched.get(e.id) ?? wordsOf(`${e.number} ${e.title} ${e.group}`)) ||
        (digits !== undefined && e.id.replace(/^(SN)?74(?=\d)/, '').startsWith(digits))),
  );
  const first = number && partEntries.find((e) => e.id === number.id);
  return first ? [first, ...found] : found;
}
