import { elementAt } from '../element-at';
import { atText, type Finding, finding, isError } from '../finding';
import type { Reading } from './design';

/** Most lines of a sheet that are put right at once: beyond, something else is the matter. */
const MOST_LINES = 40;
const infix: Readonly<Record<string, string>> = { AND: '&', OR: '|', XOR: '^' };

/**
 * The reading of a sheet with what beginners write in other words told as that: `A AND B`, `&&`, `||`, `IN A B`, `input A`, `/A`, `// …`, and `AB`
 * where A and B are signals. Such a line gets one finding whose fix is the line put right; what followed from it is left unsaid. Only
 * lines that are sound once they are put right are spoken of so. `read` reads a text as this one was read.
 */
export function withRemedies(text: string, reading: Reading, read: (text: string) => Reading): Reading {
  if (!reading.findings.some(isError)) return reading;
  const lines = linesOf(text);
  const bad = new Set(reading.findings.flatMap((f) => (isError(f) ? lineAt(lines, f) : [])));
  const known = namesIn(text);
  const meant = lines.map((line, i) => (bad.has(i) && bad.size <= MOST_LINES ? putRight(line.text, known) : line.text));
  if (meant.every((line, i) => line === lines[i]?.text)) return reading;
  const right = read(meant.join('\n'));
  const after = linesOf(meant.join('\n'));
  const still = new Set(right.findings.flatMap((f) => (isError(f) ? lineAt(after, f) : [])));
  const sure = lines.flatMap((line, i) => (meant[i] !== line.text && !still.has(i) ? [i] : []));
  if (sure.length === 0) return reading;
  const left = new Set(right.findings.map(keyOf));
  const told = sure.map((i) => {
    const { from, text: was } = elementAt(lines, i);
    return finding(
      'sheet/meant',
      [atText({ from, to: from + was.length })],
      { line: elementAt(meant, i).trim() },
      meant[i],
    );
  });
  const others = reading.findings.filter((f) => {
    const [at] = lineAt(lines, f);
    return (at === undefined || !sure.includes(at)) && (!isError(f) || left.has(keyOf(f)));
  });
  return { ...reading, findings: [...told, ...others] };
}

interface Line {
  readonly from: number;
  readonly text: string;
}

function linesOf(text: string): Line[] {
  let from = 0;
  return text.split('\n').map((line) => {
    const at = { from, text: line };
    from += line.length + 1;
    return at;
  });
}

function lineAt(lines: readonly Line[], { places }: Finding): number[] {
  const [place] = places;
  if (place?.kind !== 'text') return [];
  const at = lines.findLastIndex((line) => line.from <= place.span.from);
  return at < 0 ? [] : [at];
}

const keyOf = ({ code, facts }: Finding): string => JSON.stringify([code, facts]);

/** The names that lines declare or make, however they are written. */
function namesIn(text: string): ReadonlySet<string> {
  const names = new Set<string>();
  for (const line of text.split('\n')) {
    const declared = /^\s*(?:in|out|inputs?|outputs?)\s+([^=#]*)$/i.exec(line.replace(/(#|\/\/).*/, ''))?.[1];
    for (const name of declared?.replace(/"[^"]*"/g, ' ').match(/[A-Za-z_]\w*/g) ?? []) names.add(name);
    const made = /^\s*([A-Za-z_]\w*)\s*=/.exec(line)?.[1];
    if (made !== undefined) names.add(made);
  }
  return names;
}

function putRight(line: string, known: ReadonlySet<string>): string {
  const commented = /^([^#"]*(?:"[^"]*"[^#"]*)*?)\/\/(.*)$/.exec(line);
  const whole = commented ? `${commented[1]}#${commented[2]}` : line;
  const hash = whole.indexOf('#');
  const [body, comment] = hash < 0 ? [whole, ''] : [whole.slice(0, hash), whole.slice(hash)];
  const declares = /^(\s*)(inputs?|outputs?|in|out)(\s+(?!=).*)$/i.exec(body);
  if (declares) return `${declares[1]}${/^i/i.test(elementAt(declares, 2)) ? 'in' : 'out'}${declares[3]}${comment}`;
  const equals = body.indexOf('=');
  if (equals < 0) return body + comment;
  const expr = body
    .slice(equals + 1)
    .replace(/&&/g, '&')
    .replace(/\|\|/g, '|')
    .replace(/\b(AND|OR|XOR)\b(?!\s*\()/gi, (word) => infix[word.toUpperCase()] ?? word)
    .replace(/\bNOT\b\s*(?!\s*\()/gi, '~')
    .replace(/\/\s*(?=[A-Za-z_(])/g, '~')
    .replace(/[A-Za-z_]\w*/g, (word) => (known.has(word) ? word : (apart(word, known) ?? word)));
  return `${body.slice(0, equals + 1)}${expr}${comment}`;
}

/** `AB` as `A·B` where both are names; null where it does not fall apart into names in just one way. */
function apart(word: string, known: ReadonlySet<string>): string | null {
  if (word.length > 12) return null;
  const ways = (rest: string): string[][] =>
    rest === ''
      ? [[]]
      : [...known].flatMap((name) =>
          rest.startsWith(name) ? ways(rest.slice(name.length)).map((w) => [name, ...w]) : [],
        );
  const found = ways(word);
  return found.length === 1 ? elementAt(found, 0).join('·') : null;
}
