import { elementAt } from '../element-at';

/**
 * A block as one kind of unit of a net, beside the gates of `unit-net.ts`. A selector reads its address, least significant first, and then its data; an output of a
 * decoder reads the address and what enables it, and is low in one row of it.
 */
export interface BlockKind {
  /** Base number of the chip. */
  readonly number: string;
  readonly address: number;
  /** The row in which an output of a decoder is low; null of a selector. */
  readonly row: number | null;
  /** Units with one address that a package holds; of decoders, addresses that it holds. */
  readonly slots: number;
}

/** The number of the first kind that is a block. */
export const FIRST_BLOCK = 8;

const selector = (number: string, address: number, slots: number): BlockKind => ({ number, address, row: null, slots });
const decoder = (number: string, address: number, slots: number): BlockKind[] =>
  Array.from({ length: 2 ** address }, (_, row) => ({ number, address, row, slots }));

const kinds: readonly BlockKind[] = [
  selector('74157', 1, 4),
  selector('74153', 2, 2),
  selector('74151', 3, 1),
  ...decoder('74139', 2, 2),
  ...decoder('74138', 3, 1),
];

/** What a kind of that number is; it must be one of a block. */
export const blockKind = (kind: number): BlockKind => elementAt(kinds, kind - FIRST_BLOCK);

/** The first kind of a chip: of a selector the only one, of a decoder that of row 0. -1 where the search does not know the chip. */
export function firstKindOf(number: string): number {
  const at = kinds.findIndex((k) => k.number === number);
  return at < 0 ? -1 : FIRST_BLOCK + at;
}

/** What a package's units of a block share: its address, and what enables a decoder. */
export const sharedOf = (kind: number, ins: readonly number[]): readonly number[] => {
  const { address, row } = blockKind(kind);
  return row === null ? ins.slice(0, address) : ins;
};

/** The rows of a block's output from those of what it reads. */
export function evaluateBlockKind(
  kind: number,
  ins: readonly number[],
  bits: readonly Int32Array[],
  into: Int32Array,
): void {
  const { address, row, number } = blockKind(kind);
  const rows = ins.map((s) => bits[s] as Int32Array);
  for (let w = 0; w < into.length; w++) {
    let made = 0;
    for (let k = 0; k < 2 ** address; k++) {
      if (row !== null && k !== row) continue;
      let here = row === null ? ((rows[address + k] as Int32Array)[w] as number) : enabledBy(number, rows[address], w);
      for (let i = 0; i < address; i++) {
        const a = (rows[i] as Int32Array)[w] as number;
        here &= (k >>> i) & 1 ? a : ~a;
      }
      made |= here;
    }
    into[w] = row === null ? made : ~made;
  }
}

/** The 74139 is enabled low, the 74138 at the pin used here high. */
export const isEnabledLow = (number: string): boolean => number === '74139';

const enabledBy = (number: string, rows: Int32Array | undefined, w: number): number => {
  const enable = rows?.[w] ?? 0;
  return isEnabledLow(number) ? ~enable : enable;
};

/** The signal that a block's output is the same as, given that signals 0 and 1 are constant; -1 where it is none. */
export function sameAsBlock(kind: number, ins: readonly number[]): number {
  const { address, row, number } = blockKind(kind);
  const select = ins.slice(0, address);
  const isConstant = (s: number | undefined): s is 0 | 1 => s === 0 || s === 1;
  if (row !== null) {
    const enable = ins[address];
    const isOff = isConstant(enable) && (enable === 1) === isEnabledLow(number);
    return isOff || select.some((s, i) => isConstant(s) && s !== ((row >>> i) & 1)) ? 1 : -1;
  }
  // Only rows that the constants of the address leave can be brought out.
  const left = ins.slice(address).filter((_, k) => select.every((s, i) => !isConstant(s) || s === ((k >>> i) & 1)));
  return left.every((s) => s === left[0]) ? (left[0] ?? 0) : -1;
}
