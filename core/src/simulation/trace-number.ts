import { HIGH, LOW } from '../logic';
import { NOT_YET, type TraceColumns } from './trace-window';

/** A stretch of columns over which a number stays the same; its value is null where a signal of it is unknown, or it changes within a column. */
export interface NumberStretch {
  /** The first column, and the one after the last. */
  readonly from: number;
  readonly to: number;
  readonly value: bigint | null;
  /** Whether it changes more often than the columns can show. */
  readonly isBusy: boolean;
}

/** Several signals over a span as one number, the first the most significant; columns before the trace began are left out. */
export function numberOf(rows: readonly TraceColumns[]): NumberStretch[] {
  const columns = rows[0]?.to.length ?? 0;
  const stretches: NumberStretch[] = [];
  for (let c = 0; c < columns; c++) {
    if (rows.some((row) => row.to[c] === NOT_YET)) continue;
    const isBusy = rows.some((row) => (row.changes[c] ?? 0) > 1);
    const value = isBusy ? null : valueAt(rows, c);
    const last = stretches[stretches.length - 1];
    // A change within a column belongs to what comes after it.
    if (last?.to === c && last.value === value && last.isBusy === isBusy && !hasChanged(rows, c, value))
      stretches[stretches.length - 1] = { ...last, to: c + 1 };
    else stretches.push({ from: c, to: c + 1, value, isBusy });
  }
  return stretches;
}

/** A change within a column that comes back to the same number, such as one that passes in between, begins a new stretch. */
const hasChanged = (rows: readonly TraceColumns[], c: number, value: bigint | null): boolean =>
  value !== null && rows.some((row) => (row.changes[c] ?? 0) > 0);

/** The number at the end of the span: null where a signal of it is unknown, undefined where it is not traced yet. */
export function numberAtEnd(rows: readonly TraceColumns[]): bigint | null | undefined {
  const at = (rows[0]?.to.length ?? 0) - 1;
  return at < 0 || rows.some((row) => row.to[at] === NOT_YET) ? undefined : valueAt(rows, at);
}

function valueAt(rows: readonly TraceColumns[], c: number): bigint | null {
  let value = 0n;
  for (const row of rows) {
    const level = row.to[c];
    if (level !== HIGH && level !== LOW) return null;
    value = 2n * value + (level === HIGH ? 1n : 0n);
  }
  return value;
}

/** A number of so many bits as it is written; `signed` is two's complement. */
export function numberWords(value: bigint, bits: number, form: 'binary' | 'decimal' | 'hex' | 'signed'): string {
  if (form === 'binary') return value.toString(2).padStart(bits, '0');
  if (form === 'hex')
    return value
      .toString(16)
      .toUpperCase()
      .padStart(Math.ceil(bits / 4), '0');
  return (form === 'signed' ? BigInt.asIntN(bits, value) : value).toString();
}
