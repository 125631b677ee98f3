import { entryOf } from '../element-at';
import type { PartKind } from './part';

/** Powers of ten by the letters that stand for them; the letter may take the place of the point (IEC 60062): 4k7. */
const powers: Readonly<Record<string, number>> = { p: -12, n: -9, u: -6, µ: -6, m: -3, r: 0, k: 3, M: 6 };
/** What a part's value is counted in, as a power of ten of ohms, farads, volts or hertz. */
const units: Readonly<Partial<Record<PartKind, number>>> = {
  resistor: 0,
  'resistor-network': 0,
  potentiometer: 0,
  capacitor: -9,
  supply: 0,
  clock: 0,
};

/** Whether parts of a kind have a value. */
export function hasValue(kind: PartKind | undefined): boolean {
  return kind !== undefined && kind in units;
}

/**
 * Reads a value as people write it: `4k7`, `4.7k`, `470`, `1M`, `100n`, `5V`, in ohms, nanofarads, volts or hertz by the kind
 * of part; a bare number is counted in just those. Null when it is none, not positive, or beyond 10^12.
 */
export function readValue(kind: PartKind, text: string): number | null {
  const unit = units[kind];
  const m = /^(\d{1,9})?(?:[.,](\d{1,9}))?\s*([pnuµmrkM])?(\d{1,6})?\s*(?:Ω|ohms?|F|V|Hz)?$/.exec(
    text
      .trim()
      .replace(/^(.*\d)K/, '$1k')
      .replace(/R/, 'r'),
  );
  if (!m || unit === undefined) return null;
  const [, whole = '', decimals = '', letter, after = ''] = m;
  if ((whole === '' && decimals === '') || (after !== '' && (letter === undefined || decimals !== ''))) return null;
  const number = Number(`${whole || '0'}.${decimals || after || '0'}`);
  const power = letter === undefined ? unit : entryOf(powers, letter);
  const value = Number((number * 10 ** (power - unit)).toPrecision(9));
  return value > 0 && value <= 1e12 ? value : null;
}

/** A value with its unit, as written on a parts list. */
export function shownValue(kind: string, value: number | undefined): string {
  if (value === undefined) return '';
  if (kind === 'resistor' || kind === 'resistor-network' || kind === 'potentiometer')
    return value >= 1000 ? ` ${value / 1000} kΩ` : ` ${value} Ω`;
  if (kind === 'capacitor') return value >= 1000 ? ` ${value / 1000} µF` : ` ${value} nF`;
  if (kind === 'clock') return value >= 1000 ? ` ${value / 1000} kHz` : ` ${value} Hz`;
  return kind === 'supply' ? ` ${value} V` : '';
}
