import { COLUMNS } from '../board';
import { type PartType, typeOf, type Unit } from '../catalogue';
import { drivenBy, equalUnits, type Locks, noLocks, type Packing, type Slot, type UnitUse } from '../packing';

/** Columns between chips, and what a signal that runs against the flow costs against one that runs with it. */
const GAP = 4;
const AGAINST = 0.4;
/** What crossing the channel, and going to the next board, costs in columns. */
const CHANNEL = 3;
const BOARD = 12;
/** Changes tried for each chip, and in all at the least and at the most. */
const TRIES_A_CHIP = 400;
const LEAST_TRIES = 800;
const MOST_TRIES = 30_000;

/**
 * The same packing arranged so that its wires are short and run from left to right: packages in another order, gates
 * on other units of the same kind, inputs of a gate exchanged. What is held stays on its unit, every package keeps its
 * name. Simulated annealing (S. Kirkpatrick, C. D. Gelatt and M. P. Vecchi, Science 220, 1983) over the half
 * perimeters of the nets, with a fixed seed: the same packing is always arranged alike. `tell` is called with the share done.
 */
export function arranged(packing: Packing, locks: Locks = noLocks, tell?: (share: number) => void): Packing {
  const floor = new Placement(packing, locks);
  const tries = Math.min(MOST_TRIES, Math.max(LEAST_TRIES, TRIES_A_CHIP * packing.packages.length));
  let heat = 6;
  const cooling = 0.05 ** (1 / Math.max(1, tries));
  for (let n = 0; n < tries; n++) {
    floor.tryChange(heat);
    heat *= cooling;
    if (tell && n % 500 === 0) tell(n / tries);
  }
  return floor.best();
}

/** Numbers that look random and are the same every time (D. H. Lehmer's generator, multiplier of Park and Miller, 1988). */
class Dice {
  private state = 20_261_123;

  /** A whole number from 0 up to, without, `n`. */
  below(n: number): number {
    this.state = (this.state * 48_271) % 2_147_483_647;
    return this.state % n;
  }

  share(): number {
    return this.below(1 << 24) / (1 << 24);
  }
}

/** A pin of a part: columns from its first pin, and whether it lies above the channel. */
interface PinPlace {
  readonly dx: number;
  readonly upper: boolean;
}

interface UnitPins {
  readonly inputs: readonly PinPlace[];
  readonly outputs: readonly PinPlace[];
}

/** What a use reads and drives, as indices of nets; -1 for supply and ground. */
interface UseNets {
  readonly read: readonly number[];
  readonly driven: readonly number[];
}

function pinsOf(type: PartType, unit: Unit): UnitPins {
  const place = (id: string): PinPlace => {
    const pin = type.pins.find((p) => p.id === id);
    return { dx: pin?.dx ?? 0, upper: (pin?.dy ?? 0) < 0 };
  };
  return { inputs: unit.inputs.map(place), outputs: unit.outputs.map(place) };
}

class Placement {
  private readonly dice = new Dice();
  private readonly types: readonly PartType[];
  private readonly order: number[];
  private readonly uses: (UnitUse | null)[][];
  private readonly column: Float64Array;
  private readonly row: Float64Array;
  private readonly netIndex = new Map<string, number>();
  private readonly extents: Extents;
  /** Where the pins of each unit lie, by package and unit. */
  private readonly places: readonly (readonly UnitPins[])[];
  private readonly fixed: ReadonlySet<string>;
  /** Slots by kind of unit: those of one list may be exchanged. */
  private readonly peers: readonly (readonly Slot[])[];
  /** Slots of gates with several inputs that are not held. */
  private readonly gates: readonly Slot[];
  private cost: number;
  private least: number;
  private found: Packing;

  constructor(
    private readonly packing: Packing,
    locks: Locks,
  ) {
    this.types = packing.packages.map((p) => typeOf(p) ?? unknownPart(p.part));
    this.places = this.types.map((type) => type.units.map((unit) => pinsOf(type, unit)));
    this.order = packing.packages.map((_, i) => i);
    this.uses = packing.packages.map((p) => [...p.units]);
    this.column = new Float64Array(this.order.length);
    this.row = new Float64Array(this.order.length);
    for (const net of this.allNets()) this.netIndex.set(net, this.netIndex.size);
    this.extents = new Extents(this.netIndex.size);
    this.fixed = new Set(locks.pins.map((p) => p.net));
    this.peers = equalUnits(packing.packages)
      .map((slots) => slots.filter((s) => this.isFree(s)))
      .filter((slots) => slots.length > 1);
    this.gates = this.slots().filter((s) => {
      const gate = this.unitAt(s).gate;
      return gate !== null && gate.width > 1 && this.isFree(s);
    });
    this.cost = this.price();
    this.least = this.cost;
    this.found = packing;
  }

  best(): Packing {
    return this.found;
  }

  private *allNets(): Generator<string> {
    yield* this.packing.inputs;
    for (const units of this.uses)
      for (const use of units) if (use) yield* [...use.inputs, ...drivenBy(use)].filter((n) => n !== '0' && n !== '1');
  }

  private slots(): Slot[] {
    return this.uses.flatMap((units, pack) => units.map((_, unit) => ({ pack, unit })));
  }

  private unitAt({ pack, unit }: Slot): Unit {
    return this.types[pack]?.units[unit] as Unit;
  }

  private inSlot({ pack, unit }: Slot): UnitUse | null {
    return this.uses[pack]?.[unit] ?? null;
  }

  private put({ pack, unit }: Slot, use: UnitUse | null): void {
    (this.uses[pack] as (UnitUse | null)[])[unit] = use;
  }

  private isFree(slot: Slot): boolean {
    const use = this.inSlot(slot);
    return !use || !drivenBy(use).some((net) => this.fixed.has(net));
  }

  /** Tries one change and keeps it when it is shorter, or by chance while it is hot. */
  tryChange(heat: number): void {
    const back = this.change();
    if (!back) return;
    const cost = this.price();
    if (cost <= this.cost || this.dice.share() < Math.exp((this.cost - cost) / heat)) {
      this.cost = cost;
      if (cost < this.least - 1e-9) this.keep();
    } else back();
  }

  private keep(): void {
    this.least = this.cost;
    const packages = this.order.map((p) => ({ ...(this.packing.packages[p] as Packing['packages'][0]) }));
    this.found = {
      ...this.packing,
      packages: packages.map((p, i) => ({ ...p, units: [...(this.uses[this.order[i] as number] as UnitUse[])] })),
    };
  }

  /** Makes a change and gives the way back; null when there was nothing to change. */
  private change(): (() => void) | null {
    const kind = this.dice.below(3);
    if (kind === 0) return this.exchangePackages();
    return kind === 1 ? this.exchangeUnits() : this.exchangeInputs();
  }

  private exchangePackages(): (() => void) | null {
    const n = this.order.length;
    if (n < 2) return null;
    const [from, to] = [this.dice.below(n), this.dice.below(n)];
    if (from === to) return null;
    const moveTo = (a: number, b: number): void => {
      const [moving] = this.order.splice(a, 1);
      this.order.splice(b, 0, moving as number);
    };
    moveTo(from, to);
    return () => moveTo(to, from);
  }

  private exchangeUnits(): (() => void) | null {
    const list = this.peers[this.dice.below(Math.max(1, this.peers.length))];
    if (!list) return null;
    const [a, b] = [list[this.dice.below(list.length)] as Slot, list[this.dice.below(list.length)] as Slot];
    const [one, other] = [this.inSlot(a), this.inSlot(b)];
    if (one === other) return null;
    this.put(a, other);
    this.put(b, one);
    return () => {
      this.put(a, one);
      this.put(b, other);
    };
  }

  private exchangeInputs(): (() => void) | null {
    const slot = this.gates[this.dice.below(Math.max(1, this.gates.length))];
    const use = slot && this.inSlot(slot);
    if (!slot || !use || !this.isFree(slot)) return null;
    const n = use.inputs.length;
    const [i, j] = [this.dice.below(n), this.dice.below(n)];
    if (use.inputs[i] === use.inputs[j]) return null;
    const inputs = [...use.inputs];
    [inputs[i], inputs[j]] = [inputs[j] as string, inputs[i] as string];
    this.put(slot, { ...use, inputs });
    return () => this.put(slot, use);
  }

  /** Where each package begins: as the plan seats them, from left to right and board by board. */
  private place(): void {
    const start = 5 + 2 * this.packing.inputs.length + GAP;
    let [column, row] = [start, 0];
    for (const p of this.order) {
      const width = (this.types[p]?.pins.length ?? 14) / 2;
      if (column + width > COLUMNS - 6) [column, row] = [5, row + 1];
      this.column[p] = column;
      this.row[p] = row;
      column += width + GAP;
    }
    this.end = column;
    this.lastRow = row;
  }

  private end = 0;
  private lastRow = 0;

  private price(): number {
    this.place();
    const { extents } = this;
    extents.clear();
    for (const [i, net] of this.packing.inputs.entries())
      extents.add(this.netIndex.get(net) ?? -1, { x: 5 + 2 * i, row: 0, upper: false, source: true });
    for (const [k, { net }] of this.packing.outputs.entries())
      extents.add(this.netIndex.get(net) ?? -1, {
        x: Math.min(COLUMNS, this.end + 4 * k),
        row: this.lastRow,
        upper: false,
        source: false,
      });
    for (const [pack, units] of this.uses.entries()) {
      const [x, y] = [this.column[pack] as number, this.row[pack] as number];
      const places = this.places[pack] as readonly UnitPins[];
      for (let u = 0; u < units.length; u++) {
        const use = units[u];
        if (!use) continue;
        const { inputs, outputs } = places[u] as UnitPins;
        const { read, driven } = this.netsOf(use);
        for (let k = 0; k < read.length; k++) {
          const at = inputs[k] as PinPlace;
          extents.add(read[k] as number, { x: x + at.dx, row: y, upper: at.upper, source: false });
        }
        for (let k = 0; k < driven.length; k++) {
          const at = outputs[k] as PinPlace;
          extents.add(driven[k] as number, { x: x + at.dx, row: y, upper: at.upper, source: true });
        }
      }
    }
    return extents.total();
  }

  private readonly known = new WeakMap<UnitUse, UseNets>();

  /** The nets of a use by index, -1 for supply and ground. */
  private netsOf(use: UnitUse): UseNets {
    const known = this.known.get(use);
    if (known) return known;
    const index = (net: string): number => this.netIndex.get(net) ?? -1;
    const nets = { read: use.inputs.map(index), driven: drivenBy(use).map(index) };
    this.known.set(use, nets);
    return nets;
  }
}

/** The half perimeters of nets, gathered pin by pin; each array is indexed by net. */
class Extents {
  private readonly left: Float64Array;
  private readonly right: Float64Array;
  private readonly first: Float64Array;
  private readonly last: Float64Array;
  /** 1 upper half, 2 lower half, 3 both. */
  private readonly halves: Uint8Array;
  private readonly source: Float64Array;

  constructor(nets: number) {
    this.left = new Float64Array(nets);
    this.right = new Float64Array(nets);
    this.first = new Float64Array(nets);
    this.last = new Float64Array(nets);
    this.halves = new Uint8Array(nets);
    this.source = new Float64Array(nets);
  }

  clear(): void {
    this.left.fill(1e9);
    this.right.fill(-1e9);
    this.first.fill(1e9);
    this.last.fill(-1e9);
    this.halves.fill(0);
    this.source.fill(-1);
  }

  add(
    net: number,
    {
      x,
      row,
      upper,
      source,
    }: { readonly x: number; readonly row: number; readonly upper: boolean; readonly source: boolean },
  ): void {
    if (net < 0) return;
    if (x < (this.left[net] as number)) this.left[net] = x;
    if (x > (this.right[net] as number)) this.right[net] = x;
    if (row < (this.first[net] as number)) this.first[net] = row;
    if (row > (this.last[net] as number)) this.last[net] = row;
    this.halves[net] = (this.halves[net] as number) | (upper ? 1 : 2);
    if (source && (this.source[net] as number) < 0) this.source[net] = x + 1000 * row;
  }

  total(): number {
    let sum = 0;
    for (let net = 0; net < this.left.length; net++) {
      const [left, right] = [this.left[net] as number, this.right[net] as number];
      if (right < left) continue;
      const rows = (this.last[net] as number) - (this.first[net] as number);
      sum += right - left + BOARD * rows + (this.halves[net] === 3 ? CHANNEL : 0);
      const source = this.source[net] as number;
      const from = source % 1000;
      if (source >= 0 && rows === 0 && from > left) sum += AGAINST * (from - left);
    }
    return sum;
  }
}

function unknownPart(part: string): never {
  throw new Error(`no part is known as ${part}`);
}
