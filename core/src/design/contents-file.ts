import Papa from 'papaparse';
import { type Finding, finding } from '../finding';
import type { LibraryPart } from './elaborate';
import { printStatement } from './printer';
import type { Statement } from './sheet';
import { canName } from './symbols';

/** The longest file of contents that is read, in characters. */
export const MAX_CONTENTS_LENGTH = 1_000_000;
/** More than the largest memory has, so that a file for one is read to where it is too long. */
const MOST_WORDS = 65_536;
/** Words of a definition that stand in a line. */
const IN_A_LINE = 16;

/** The words of a file from address 0 up, those between that it does not give as undefined. */
interface Contents {
  readonly words: readonly (number | undefined)[];
  readonly findings: readonly Finding[];
}

/** What a memory of a sheet is to be: its name and title there, and the number of the memory. */
export interface WantedMemory {
  readonly name: string;
  readonly title: string;
  readonly number: string;
}

/**
 * Reads what a memory holds from a file and writes it as the part of a sheet: Intel HEX (records of 16-bit addresses, checksums held to), a list of words in
 * hexadecimal (an address and a colon may stand before them), or CSV of addresses and words or of words alone. The part is null where the file cannot
 * be read or does not fit the memory; the finding says where.
 */
export function memoryFromFile(
  text: string,
  { name, title, number }: WantedMemory,
  library: (number: string) => LibraryPart | null,
): { part: string | null; findings: readonly Finding[] } {
  const no = (...findings: readonly Finding[]) => ({ part: null, findings });
  const memory = library(number)?.memory;
  if (!memory) return no(finding('sheet/no-memory', [], { number: number.slice(0, 40) }));
  if (!canName(name)) return no(finding('contents/bad-name', [], { name: name.slice(0, 40) }));
  if (text.length > MAX_CONTENTS_LENGTH)
    return no(finding('contents/too-long', [], { length: text.length, limit: MAX_CONTENTS_LENGTH }));
  const { words, findings } = contentsOf(text);
  if (findings.length > 0) return no(...findings);
  if (words.length === 0) return no(finding('contents/none', [], {}));
  const facts = { bits: memory.bits, most: memory.words, count: words.length };
  if (words.length > memory.words) return no(finding('sheet/too-many-words', [], facts));
  const wide = words.find((word) => word !== undefined && word >= 2 ** memory.bits);
  if (wide !== undefined)
    return no(finding('sheet/wide-word', [], { ...facts, word: wide.toString(16).toUpperCase() }));
  const digits = Math.ceil(memory.bits / 4);
  const printed = Array.from(words, (word) =>
    (word ?? memory.blank * (2 ** memory.bits - 1)).toString(16).toUpperCase().padStart(digits, '0'),
  );
  const lines: Statement[] = [
    { kind: 'part', name: { name, ...(title !== '' && { label: title }) }, of: { name: number } },
  ];
  for (let at = 0; at < printed.length; at += IN_A_LINE)
    lines.push({ kind: 'holds', words: printed.slice(at, at + IN_A_LINE) });
  return { part: [...lines, { kind: 'end' } as const].map((s) => printStatement(s)).join('\n'), findings: [] };
}

function contentsOf(text: string): Contents {
  const lines = text.split(/\r\n?|\n/).map((line) => line.trim());
  if (lines.some((line) => line.startsWith(':'))) return intelHex(lines);
  return lines.some((line) => /[,;\t]/.test(line)) ? fromCsv(text) : plainHex(lines);
}

/**
 * Records `:LLAAAATT…CC`: length, address, type (00 data, 01 end), data, and a sum that makes all bytes come to nothing. Source: Intel, "Hexadecimal
 * Object File Format Specification" (1988). Longer addresses (types 02 to 05) belong to larger memories than these; 00 of them are passed over.
 */
function intelHex(lines: readonly string[]): Contents {
  const words: (number | undefined)[] = [];
  for (const [i, line] of lines.entries()) {
    if (line === '') continue;
    const bytes = /^:(?:[0-9a-f]{2})+$/i.test(line)
      ? Array.from({ length: (line.length - 1) / 2 }, (_, k) => Number.parseInt(line.slice(2 * k + 1, 2 * k + 3), 16))
      : [];
    const [length = 0, high = 0, low = 0, type = 0] = bytes;
    const isWhole = bytes.length === length + 5 && bytes.reduce((sum, byte) => sum + byte, 0) % 256 === 0;
    if (!isWhole) return { words, findings: [finding('contents/bad-record', [], { line: i + 1 })] };
    if (type === 1) break;
    const data = bytes.slice(4, -1);
    if (type !== 0 && data.some((byte) => byte !== 0))
      return { words, findings: [finding('contents/far-record', [], { line: i + 1 })] };
    if (type === 0) for (const [k, byte] of data.entries()) words[high * 256 + low + k] = byte;
  }
  return { words, findings: [] };
}

/** Words with spaces between, `0x` before them or not; `1F0:` says where those behind it go. What follows `#` or `//` is a remark. */
function plainHex(lines: readonly string[]): Contents {
  const words: (number | undefined)[] = [];
  let at = 0;
  for (const [i, line] of lines.entries()) {
    const [, place, rest = ''] = /^(?:(?:0x)?([0-9a-f]{1,6})\s*:)?(.*)$/i.exec(line.replace(/(#|\/\/).*$/, '')) ?? [];
    if (place !== undefined) at = Number.parseInt(place, 16);
    for (const word of rest.trim().split(/\s+/).filter(Boolean)) {
      if (!/^(0x)?[0-9a-f]{1,4}$/i.test(word)) return badWord(words, i, word);
      if (at >= MOST_WORDS) return { words, findings: [finding('contents/far-record', [], { line: i + 1 })] };
      words[at++] = Number.parseInt(word.replace(/^0x/i, ''), 16);
    }
  }
  return { words, findings: [] };
}

/** Columns `address,word`, or words alone; a first row of names is passed over. Numbers are decimal, `0x1F` or `0b0110`. */
function fromCsv(text: string): Contents {
  const rows = Papa.parse<string[]>(text.trim(), { skipEmptyLines: 'greedy' }).data.map((row) =>
    row.map((c) => c.trim()),
  );
  const words: (number | undefined)[] = [];
  for (const [i, row] of rows.entries()) {
    const cells = row.filter((cell) => cell !== '');
    const numbers = cells.map(numberOf);
    if (i === 0 && numbers.includes(null)) continue;
    const bad = numbers.indexOf(null);
    if (bad >= 0 || cells.length > 2) return badWord(words, i, cells[bad] ?? cells.join(' '));
    const [first = 0, second] = numbers as number[];
    const [at, word] = second === undefined ? [words.length, first] : [first, second];
    if (at >= MOST_WORDS) return { words, findings: [finding('contents/far-record', [], { line: i + 1 })] };
    words[at] = word;
  }
  return { words, findings: [] };
}

function numberOf(cell: string): number | null {
  if (!/^(\d{1,6}|0x[0-9a-f]{1,4}|0b[01]{1,16})$/i.test(cell)) return null;
  return Number(cell);
}

function badWord(words: Contents['words'], line: number, word: string): Contents {
  return { words, findings: [finding('contents/bad-word', [], { line: line + 1, word: word.slice(0, 20) })] };
}
