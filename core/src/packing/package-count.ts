import { elementAt } from '../element-at';
import type { Duty } from './candidate';
import { AND, AOI, kindNumber, NAND, NOR, NOT, OR, XNOR, XOR } from './unit-net';
import type { UnitKind } from './units';

/** Units of one width that a chip has. */
interface Size {
  readonly width: number;
  readonly units: number;
}

/** A number below which no width of a gate lies twice: kinds are numbered so. */
const STRIDE = 16;
/** The place of a gate of a kind and width in counts. */
export const placeOf = (kind: number, width: number): number => kind * STRIDE + width;
/** How long counts of gates are. */
export const PLACES = 8 * STRIDE;

/** The most sums that are remembered; beyond, they are worked out again. */
const MOST_KEPT = 200_000;

/**
 * How few packages hold so many gates of each kind and width: units of each kind in their own packages, wide ones first, what is spare of these serving
 * narrower gates and then inverters; of spare AND-OR-inverts the best share for NANDs, NORs and inverters is looked for. A close estimate in a
 * search; the packages of an answer are chosen by the integer program.
 */
export class PackageCount {
  private readonly sizes: readonly (readonly Size[])[];
  private readonly inverters: number;
  private readonly inverting: number;
  private readonly aoi: Size | null;
  private readonly weights: Float64Array;
  private readonly kept = new Map<number, number>();

  constructor(kinds: readonly UnitKind[]) {
    const sizes: Size[][] = Array.from({ length: 8 }, () => []);
    for (const { duty, units } of kinds) {
      const of = elementAt(sizes, kindNumber(duty.kind));
      const same = of.find((s) => s.width === duty.width);
      if (!same) of.push({ width: duty.width, units: units.length });
      else if (units.length > same.units) of[of.indexOf(same)] = { width: duty.width, units: units.length };
    }
    for (const of of sizes) of.sort((a, b) => a.width - b.width);
    this.sizes = sizes;
    this.inverters = Math.max(0, ...elementAt(sizes, NOT).map((s) => s.units));
    this.inverting = Math.max(0, ...[NAND, NOR, XOR, XNOR].flatMap((k) => elementAt(sizes, k).map((s) => s.units)));
    this.aoi = elementAt(sizes, AOI).at(-1) ?? null;
    // Sums of counts by such weights are whole and differ for what differs, but for one in millions.
    let state = 0x2545f491;
    this.weights = Float64Array.from({ length: PLACES }, () => {
      state = Math.imul(state ^ (state >>> 15), 0x2c1b3c6d) + 0x297a2d39;
      return 1 + (state >>> 0) * 1024 + ((state >>> 7) & 1023);
    });
  }

  /** Whether there are units for a gate, and how wide they may be. */
  mostInputs(kind: number): number {
    if (kind === NOT) return this.inverters + this.inverting + (this.aoi ? 1 : 0) > 0 ? 1 : 0;
    return elementAt(this.sizes, kind).at(-1)?.width ?? 0;
  }

  /** What a gate takes of a package: one by the units of the smallest chip that has it. */
  share({ kind, width }: Duty): number {
    const number = kindNumber(kind);
    if (number === NOT) return 1 / Math.max(1, this.inverters || this.inverting);
    const size = elementAt(this.sizes, number).find((s) => s.width >= width);
    if (number === AOI) return 1 / 2;
    return size ? 1 / size.units : 1;
  }

  /** The packages for some counts, by place. */
  of(counts: Int32Array): number {
    let key = 0;
    for (let p = 0; p < PLACES; p++) if (counts[p] !== 0) key += (counts[p] as number) * (this.weights[p] as number);
    const known = this.kept.get(key);
    if (known !== undefined) return known;
    const packages = this.count(counts);
    if (this.kept.size > MOST_KEPT) this.kept.clear();
    this.kept.set(key, packages);
    return packages;
  }

  private count(counts: Int32Array): number {
    const at = (kind: number, width: number): number => counts[placeOf(kind, width)] as number;
    let packages = 0;
    let spare = 0;
    for (const kind of [AND, OR]) packages += this.chain(kind, counts, 0).packages;
    for (const kind of [XOR, XNOR]) {
      const made = this.chain(kind, counts, 0);
      packages += made.packages;
      spare += made.spare;
    }
    const aoi = at(AOI, 2) + at(AOI, 3);
    const aoiPackages = this.aoi ? Math.max(Math.ceil(aoi / 2), at(AOI, 3)) : aoi;
    packages += aoiPackages;
    const idle = this.aoi ? 2 * aoiPackages - aoi : 0;
    const not = at(NOT, 1);
    let least = Number.POSITIVE_INFINITY;
    for (let toNand = 0; toNand <= idle; toNand++)
      for (let toNor = 0; toNand + toNor <= idle; toNor++) {
        const nand = this.chain(NAND, counts, toNand);
        const nor = this.chain(NOR, counts, toNor);
        const left = not - spare - nand.spare - nor.spare - (idle - toNand - toNor);
        const more = left > 0 ? Math.ceil(left / Math.max(1, this.inverters, this.inverting)) : 0;
        least = Math.min(least, nand.packages + nor.packages + more);
      }
    return packages + least;
  }

  /** Packages for the gates of one kind, wide ones first, when so many of two inputs are served elsewhere; units that are spare. */
  private chain(kind: number, counts: Int32Array, served: number): { packages: number; spare: number } {
    let [packages, spare] = [0, 0];
    const sizes = elementAt(this.sizes, kind);
    let wider = Number.POSITIVE_INFINITY;
    for (let i = sizes.length - 1; i >= 0; i--) {
      const size = elementAt(sizes, i);
      const below = i > 0 ? elementAt(sizes, i - 1).width : 0;
      let wanted = 0;
      for (let width = below + 1; width <= size.width && width < wider; width++)
        wanted += counts[placeOf(kind, width)] as number;
      if (i === 0) wanted = Math.max(0, wanted - served);
      const fromSpare = Math.min(spare, wanted);
      const more = Math.ceil((wanted - fromSpare) / size.units);
      packages += more;
      spare += more * size.units - wanted;
      wider = size.width;
    }
    return { packages, spare };
  }
}

/** The key of a duty's place, for counts of candidates. */
export const placeOfDuty = (duty: Duty): number => placeOf(kindNumber(duty.kind), duty.width);
