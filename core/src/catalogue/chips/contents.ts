import { elementAt } from '../../element-at';
import type { MemoryData } from './chip-data';

/**
 * What a memory does that holds some words, from address 0 up, in the sheet language: each data output as a tree of choices by its address lines, the
 * most significant at the root. Parts of trees that hold the same are made once, and choices between equals none. Words that are not given are blank.
 */
export function behaviourHolding({ address, data, blank, shows }: MemoryData, words: readonly number[]): string {
  const lines: string[] = [];
  const made = new Map<string, string>();
  const addresses = address.split(' ');
  /** The signal that holds a run of bits, a power of two of them, chosen by the least significant lines. */
  const tree = (bits: string): string => {
    if (!bits.includes('1')) return '0';
    if (!bits.includes('0')) return '1';
    const known = made.get(bits);
    if (known !== undefined) return known;
    const [low, high] = [bits.slice(0, bits.length / 2), bits.slice(bits.length / 2)];
    const line = elementAt(addresses, addresses.length - Math.log2(bits.length));
    const [a, b] = [tree(low), tree(high)];
    const name = `t${made.size}`;
    made.set(bits, name);
    lines.push(`${name} = ${chosen(line, a, b)}`);
    return name;
  };
  const size = 2 ** addresses.length;
  const outputs = data.split(' ').map((pin, i, all) => {
    const place = all.length - 1 - i;
    const bit = (n: number): string => String(((words[n] ?? -blank) >> place) & 1);
    const bits = Array.from({ length: size }, (_, n) => bit(n)).join('');
    const held = tree(bits);
    return shows.replaceAll('Q@', pin).replaceAll('@', `(${held} | a)`);
  });
  // Every address line is an input of the memory, whether what it holds depends on it or not.
  return [`a = (${addresses.join(' | ')}) & 0`, ...lines, ...outputs].join('\n');
}

/** One of two signals, or levels, by a line. */
function chosen(line: string, low: string, high: string): string {
  if (low === high) return low;
  if (low === '0') return high === '1' ? line : `${line} & ${high}`;
  if (low === '1') return high === '0' ? `~${line}` : `~${line} | ${high}`;
  if (high === '0') return `~${line} & ${low}`;
  if (high === '1') return `${line} | ${low}`;
  return `~${line} & ${low} | ${line} & ${high}`;
}
