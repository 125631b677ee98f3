import type { Cube, Rows } from './cover';

/** Several functions of the same inputs: the rows where each is high, and where its value does not matter. */
export interface Functions {
  readonly inputs: number;
  readonly on: readonly Rows[];
  readonly free: readonly Rows[];
}

/** A product with the functions it may serve, bit o for function o. */
export interface Product extends Cube {
  readonly serves: number;
}

/** Up to so many inputs all prime products are listed: 3^12 products are looked at. */
export const MAX_PRIME_INPUTS = 12;

/**
 * All prime products of some functions: those that no literal can be dropped from without serving
 * fewer functions. Of up to MAX_PRIME_INPUTS inputs and 30 functions. Source: Quine (1952) and McCluskey
 * (1956), on an array of all 3^n products indexed by ternary digits (0, 1, absent).
 */
export function primesOf({ inputs, on, free }: Functions): Product[] {
  const total = 3 ** inputs;
  const serves = new Int32Array(total);
  const digits = new Uint8Array(inputs);
  const power = Array.from({ length: inputs }, (_, k) => 3 ** k);
  for (let c = 0; c < total; c++) {
    serves[c] = servedBy(c, digits, power, serves, on, free);
    step(digits);
  }
  const primes: Product[] = [];
  digits.fill(0);
  for (let c = 0; c < total; c++) {
    const own = serves[c] as number;
    if (own !== 0 && isPrime(c, own, digits, power, serves)) primes.push({ ...cubeOf(digits), serves: own });
    step(digits);
  }
  return primes;
}

/** Counts on in ternary, digit 0 fastest. */
function step(digits: Uint8Array): void {
  for (let k = 0; k < digits.length; k++) {
    if (digits[k] === 2) digits[k] = 0;
    else {
      (digits[k] as number)++;
      return;
    }
  }
}

/** Functions a product serves: those its two halves both do; of a single row, those that allow it. */
function servedBy(
  c: number,
  digits: Uint8Array,
  power: readonly number[],
  serves: Int32Array,
  on: readonly Rows[],
  free: readonly Rows[],
): number {
  const absent = digits.indexOf(2);
  if (absent >= 0) {
    const p = power[absent] as number;
    return (serves[c - 2 * p] as number) & (serves[c - p] as number);
  }
  let row = 0;
  for (let k = digits.length - 1; k >= 0; k--) row = row * 2 + (digits[k] as number);
  let mask = 0;
  for (let o = 0; o < on.length; o++) {
    const word = (on[o]?.[row >>> 5] as number) | (free[o]?.[row >>> 5] as number);
    if ((word >>> (row & 31)) & 1) mask |= 1 << o;
  }
  return mask;
}

function isPrime(c: number, own: number, digits: Uint8Array, power: readonly number[], serves: Int32Array): boolean {
  for (let k = 0; k < digits.length; k++) {
    const digit = digits[k] as number;
    if (digit !== 2 && (serves[c + (2 - digit) * (power[k] as number)] as number) === own) return false;
  }
  return true;
}

function cubeOf(digits: Uint8Array): Cube {
  let [care, value] = [0, 0];
  for (let k = 0; k < digits.length; k++) {
    if (digits[k] === 2) continue;
    care |= 1 << k;
    if (digits[k] === 1) value |= 1 << k;
  }
  return { care, value };
}
