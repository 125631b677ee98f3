import { type Finding, type FindingCode, isError } from '../finding';
import { rangeOf, wiresOf } from './bus';
import { lex } from './lexer';
import type { Line, Sheet } from './sheet';

/** What is said of a signal that nothing makes. */
const ofUnmade: readonly FindingCode[] = ['sheet/unknown-signal', 'sheet/output-undefined'];
/** What is said of a block or part as a whole, by name. */
const ofSections: readonly FindingCode[] = [
  'sheet/part-makes-nothing',
  'sheet/part-pins',
  'sheet/part-rail',
  'sheet/memory-empty',
];
/** What is said where a block or part is used. */
const ofUses: readonly FindingCode[] = [
  'sheet/unknown-part',
  'sheet/unknown-pin',
  'sheet/pins-open',
  'sheet/output-joined',
];
/** What is said where wires do not come out even. */
const ofWidths: readonly FindingCode[] = ['sheet/bus-width', 'sheet/row-width', 'sheet/table-cells'];

/**
 * Of the findings of a sheet those that say more than that a line could not be read. A signal on such a line, or at a use of a block or part that has one, may be made there: that
 * nothing makes it is known only when the line is right, and would bury what is to be mended. So is what is said of that block or part as a whole, and of the widths of
 * buses while the line of one is wrong. `wrong` is what was found line by line; `more` what was found of the sheet as a whole.
 */
export function withoutConsequences(
  { text, sheet }: { readonly text: string; readonly sheet: Sheet },
  wrong: readonly Finding[],
  more: readonly Finding[],
): Finding[] {
  const starts = startsOf(text);
  const linesOf = (codes: (code: FindingCode) => boolean): Set<number> =>
    new Set(wrong.filter((f) => isError(f) && codes(f.code)).flatMap((f) => lineOf(f, starts) ?? []));
  const bad = linesOf((code) => !ofUnmade.includes(code));
  if (bad.size === 0) return [...wrong, ...more];
  const { within, users } = brokenSections(sheet, bad);
  const namesOf = (line: number): string[] => namesOn(text.slice(starts[line], starts[line + 1]));
  const made = madeOn([...bad].flatMap(namesOf), sheet);
  const unread = linesOf((code) => !ofUnmade.includes(code) && !ofWidths.includes(code));
  const isBusUnread = [...unread].flatMap(namesOf).some((name) => rangeOf(name) !== null);
  const follows = (found: Finding): boolean => {
    const { code, facts } = found;
    if (ofUnmade.includes(code)) return made.has(String(facts.name));
    if (ofUses.includes(code)) return users.has(lineOf(found, starts) ?? -1);
    if (code === 'sheet/stray-row') return isUnderBad(lineOf(found, starts) ?? 0, sheet, bad);
    if (ofSections.includes(code)) return within.has(String(facts.name));
    return isBusUnread && ofWidths.includes(code);
  };
  return [...wrong, ...more].filter((f) => !follows(f));
}

/** Where the lines of a text begin; one more for its end. */
function startsOf(text: string): number[] {
  const starts = [0];
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) starts.push(at + 1);
  return [...starts, text.length];
}

/** The line of a finding, from 0; null when it is nowhere in the text. */
function lineOf({ places: [place] }: Finding, starts: readonly number[]): number | null {
  if (place?.kind !== 'text') return null;
  let [low, high] = [0, starts.length - 2];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if ((starts[middle] ?? 0) <= place.span.from) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Whether a row stands, with others, under a line that could not be read: the head of its table. */
function isUnderBad(line: number, { lines }: Sheet, bad: ReadonlySet<number>): boolean {
  let above = line - 1;
  while (above >= 0 && (lines[above]?.statement?.kind === 'row' || isEmpty(lines[above]))) above--;
  return bad.has(above);
}

const isEmpty = (line: Line | undefined): boolean => line?.statement === undefined && line?.comment !== undefined;

/**
 * Blocks and parts with a bad line between head and end (`within`), and the lines that use one with a bad line or a bad head (`users`), which become bad too; so do blocks with
 * such a line.
 */
function brokenSections(
  { lines }: Sheet,
  bad: Set<number>,
): { readonly within: ReadonlySet<string>; readonly users: ReadonlySet<number> } {
  const [within, broken, users] = [new Set<string>(), new Set<string>(), new Set<number>()];
  for (let before = -1; before !== broken.size + users.size; ) {
    before = broken.size + users.size;
    let open: string | null = null;
    lines.forEach(({ statement: s }, i) => {
      const isHead = s?.kind === 'block' || s?.kind === 'part';
      if (isHead) open = s.name.name;
      else if (s?.kind === 'end') open = null;
      else if (s?.kind === 'use' && broken.has(s.part.name)) users.add(i);
      if (users.has(i)) bad.add(i);
      if (open === null || !bad.has(i)) return;
      broken.add(open);
      if (!isHead) within.add(open);
    });
  }
  return { within, users };
}

/** Signals that may be made, or declared, where some names stand: those themselves, wires of buses, and the outputs of a use. */
function madeOn(written: readonly string[], sheet: Sheet): { readonly has: (signal: string) => boolean } {
  const buses = new Map<string, string[]>();
  for (const { statement: s } of sheet.lines) {
    if (s?.kind !== 'in' && s?.kind !== 'out') continue;
    for (const { name } of s.signals) {
      const range = rangeOf(name);
      if (range) buses.set(range.base, wiresOf(range));
    }
  }
  const names = new Set<string>();
  for (const name of written) {
    const range = rangeOf(name);
    const base = range?.base ?? name;
    names.add(base);
    for (const wire of range ? wiresOf(range) : (buses.get(base) ?? [])) names.add(wire);
  }
  return { has: (signal) => names.has(signal) || names.has(signal.split('.', 1)[0] ?? signal) };
}

/** The names on a line as they are written, buses with their range; a range that is none is left out. */
function namesOn(line: string): string[] {
  const tokens = lex(line);
  return tokens.flatMap(({ kind, text, to }, i) => {
    if (kind !== 'name') return [];
    const [, range = ''] = /^(\[\d{1,2}(?::\d{1,2})?\])?/.exec(tokens[i + 1]?.kind === '[' ? line.slice(to) : '') ?? [];
    return [`${text}${range}`];
  });
}
