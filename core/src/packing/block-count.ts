import { blockKind, firstKindOf, sharedOf } from './block-kinds';

/** More than any signal has for a number; keys of what is shared are numbers to this base. */
const BASE = 512;

/** How many packages the blocks of a net take: selectors with one address share packages, outputs of a decoder with one address are of one. */
export class BlockCount {
  private readonly uses = new Map<number, number>();
  private readonly addresses = new Map<string, number>();
  packages = 0;

  /** Takes a unit of a block among those that are counted, or one out. */
  tally(kind: number, ins: readonly number[], sign: 1 | -1): void {
    const block = blockKind(kind);
    let key = firstKindOf(block.number);
    for (const s of sharedOf(kind, ins)) key = key * BASE + s;
    const uses = this.uses.get(key) ?? 0;
    if (uses + sign === 0) this.uses.delete(key);
    else this.uses.set(key, uses + sign);
    if (block.row === null) {
      this.packages += Math.ceil((uses + sign) / block.slots) - Math.ceil(uses / block.slots);
      return;
    }
    const came = Number(uses + sign > 0) - Number(uses > 0);
    if (came === 0) return;
    const addresses = this.addresses.get(block.number) ?? 0;
    this.addresses.set(block.number, addresses + came);
    this.packages += Math.ceil((addresses + came) / block.slots) - Math.ceil(addresses / block.slots);
  }

  clear(): void {
    this.uses.clear();
    this.addresses.clear();
    this.packages = 0;
  }
}

/** What a unit of a block takes of a package. */
export function blockShare(kind: number): number {
  const { address, row, slots } = blockKind(kind);
  return 1 / (row === null ? slots : slots * 2 ** address);
}
