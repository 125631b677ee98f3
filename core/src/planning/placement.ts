import {
  type Board,
  type Breadboard,
  type BreadboardKind,
  breadboardId,
  columnsOf,
  hasRailHole,
  type SeatedPart,
} from '../board';
import { typeOf } from '../catalogue';
import { inputUaOf, pinLimitsOf } from '../electrical';
import { elementAt } from '../element-at';
import { drivenBy, type Package, type Packing } from '../packing';

/** The most breadboards that a plan uses. */
export const MAX_BOARDS = 40;

/**
 * Ohms: LED series resistor (3.1 mA at 5 V, within the 4 mA at which HC levels are guaranteed), pull-down,
 * and pull-up of an open-collector output (enough for its LED, 5 mA to sink).
 */
export const LED_OHMS = 1000;
/** The same for an LED on a net that only a pull-up resistor lifts: 0.7 mA, so that the net stays high to an HC input, some 4.3 V. */
const LED_OHMS_PULLED_UP = 3300;
/** Ohms of the resistor that holds a switch's signal low while it is open. */
export const PULL_DOWN_OHMS = 10_000;
/** Ohms of the resistor that lifts an open-collector output: 5 mA to sink at 5 V. */
export const PULL_UP_OHMS = 1000;
/** Nanofarads of the capacitor beside each chip. */
export const CAPACITOR_NF = 100;

/** Free columns left beside a chip, for wires that cross the channel: as many as cost no further board. */
const GAPS = [5, 4, 3, 2] as const;
/** Parts stay from this column on, and MARGIN columns from the right end: there rail links run from top to bottom. */
const FIRST = 5;
const MARGIN = 6;

/** Kinds of breadboard that a plan is laid out on: minis have no rails. */
export type LayoutBoardKind = Exclude<BreadboardKind, 'mini'>;

/**
 * Seats everything of a packing from left to right as signals flow: supply, a switch with its
 * pull-down for each input, the chips over the channel, an LED with its resistor for each output.
 * Goes on to a further board when one is full; null when MAX_BOARDS are not enough.
 */
export function seatAll(packing: Packing, kind: LayoutBoardKind = 'full'): Board | null {
  const tries = GAPS.map((gap) => seatWith(packing, gap, kind));
  const least = Math.min(...tries.map((seats) => seats.board));
  const seats = tries.find((t) => t.board === least);
  if (!seats || least > MAX_BOARDS) return null;
  return { breadboards: seats.breadboards(), parts: seats.parts, jumpers: {} };
}

function seatWith(packing: Packing, gap: number, kind: LayoutBoardKind): Seats {
  const seats = new Seats(gap, kind);
  seats.add({ ref: 'P1', part: 'supply', at: seats.at('top+', 3), rotation: 0, value: 5 });
  for (const [i, name] of packing.inputs.entries()) seats.addSwitch(name, i + 1, pullDownFor(packing, name));
  seats.skip(gap);
  for (const { units, ...chip } of packing.packages) seats.addChip(chip);
  const pulledUp = openNets(packing);
  for (const [i, { name, net }] of packing.outputs.entries()) {
    const ohms = pulledUp.includes(net) ? LED_OHMS_PULLED_UP : LED_OHMS;
    seats.addLed(name, i + 1, { resistor: packing.inputs.length + i + 1, ohms });
  }
  const first = packing.inputs.length + packing.outputs.length + 1;
  for (const [i, net] of pulledUp.entries()) seats.addPullUp(net, first + i);
  return seats;
}

/** Ohms that inputs without a current of their own are pulled down with; fewer for those of TTL. */
const E12 = [10, 12, 15, 18, 22, 27, 33, 39, 47, 56, 68, 82] as const;

/** The pull-down of a switch: as large as leaves what its inputs give surely low, up to PULL_DOWN_OHMS. */
export function pullDownFor({ packages }: Packing, signal: string): number {
  const read = packages.flatMap(({ units, ...named }) => {
    const type = typeOf(named);
    const { inputLowV } = pinLimitsOf(named.part, '74');
    return units.flatMap((use, u) =>
      (use?.inputs ?? []).flatMap((net, i) => {
        const id = type?.units[u]?.inputs[i];
        const name = type?.pins.find((p) => p.id === id)?.name ?? '';
        return net === signal ? [{ ua: inputUaOf(named.part, name, '74').low, volts: inputLowV }] : [];
      }),
    );
  });
  const ua = read.reduce((sum, r) => sum + r.ua, 0);
  const most = ua === 0 ? PULL_DOWN_OHMS : (0.9e6 * Math.min(...read.map((r) => r.volts))) / ua;
  const values = [10, 100, 1000].flatMap((decade) => E12.map((e) => (e * decade) / 10));
  return most >= PULL_DOWN_OHMS ? PULL_DOWN_OHMS : (values.findLast((ohms) => ohms <= most) ?? 10);
}

/** Nets that only open-collector outputs drive: each needs a pull-up resistor. */
function openNets(packing: Packing): string[] {
  const nets = packing.packages.flatMap(({ units, ...named }) =>
    (typeOf(named)?.units ?? []).flatMap((unit, i) => {
      const use = units[i];
      // A pin that is input and output at once is pulled up inside the chip.
      const open = (k: number): boolean =>
        unit.drives[k] === 'open-collector' && !unit.inputs.includes(elementAt(unit.outputs, k));
      return use ? drivenBy(use).filter((_, k) => open(k)) : [];
    }),
  );
  const read = new Set([
    ...packing.outputs.map((o) => o.net),
    ...packing.packages.flatMap((p) => p.units.flatMap((u) => u?.inputs ?? [])),
  ]);
  return [...new Set(nets)].filter((net) => read.has(net));
}

class Seats {
  board = 1;
  readonly parts: Record<string, SeatedPart> = {};
  private column = FIRST;
  private capacitors = 0;

  private readonly last: number;

  constructor(
    private readonly gap: number,
    private readonly kind: LayoutBoardKind,
  ) {
    this.last = columnsOf(this.id) - MARGIN;
  }

  private get id(): string {
    return breadboardId(this.kind, this.board);
  }

  /** A hole of the board that is being filled. */
  at(row: string, column = this.column): string {
    return `${this.id}.${row}${column}`;
  }

  breadboards(): Breadboard[] {
    return Array.from({ length: this.board }, (_, i) => ({
      id: breadboardId(this.kind, i + 1),
      type: this.kind,
    }));
  }

  add(part: SeatedPart): void {
    this.parts[part.ref] = part;
  }

  skip(columns: number): void {
    this.column += columns;
  }

  /** Moves on until `width` columns fit and the rails have holes over the column at `railAt`. */
  private room(width: number, railAt: number): void {
    const full = (): boolean => this.column + width - 1 > this.last;
    while (!full() && !hasRailHole(this.column + railAt, this.id)) this.column++;
    if (!full()) return;
    this.board++;
    this.column = FIRST;
    while (!hasRailHole(this.column + railAt, this.id)) this.column++;
  }

  addSwitch(signal: string, number: number, ohms: number): void {
    this.room(1, 0);
    this.add({ ref: `S${number}`, part: 'switch', at: this.at('f'), rotation: 0, signal });
    this.add({ ref: `R${number}`, part: 'resistor', at: this.at('a'), rotation: 0, value: ohms });
    this.column += 2;
  }

  addChip(chip: Omit<Package, 'units'>): void {
    const type = typeOf(chip);
    const width = (type?.pins.length ?? 14) / 2;
    this.room(width, 0);
    this.add({ ...chip, at: this.at('e'), rotation: 0 });
    const column = [1, 2, 3].map((d) => this.column + d).find((c) => hasRailHole(c, this.id));
    const at = this.at('top+', column);
    this.add({ ref: `C${++this.capacitors}`, part: 'capacitor', at, rotation: 0, value: CAPACITOR_NF });
    this.column += width + this.gap;
  }

  /** From the supply rail down to a strip of its own. */
  addPullUp(net: string, number: number): void {
    this.room(1, 0);
    this.add({
      ref: `R${number}`,
      part: 'resistor',
      at: this.at('top+'),
      rotation: 0,
      value: PULL_UP_OHMS,
      signal: net,
    });
    this.column += 2;
  }

  /** An LED with its number, and the number and ohms of its resistor. */
  addLed(signal: string, number: number, { resistor, ohms }: { resistor: number; ohms: number }): void {
    this.room(2, 1);
    this.add({ ref: `D${number}`, part: 'led', at: this.at('c'), rotation: 0, signal });
    const to = this.at('a', this.column + 1);
    this.add({ ref: `R${resistor}`, part: 'resistor', at: to, rotation: 0, value: ohms });
    this.column += this.gap > 3 ? 4 : 3;
  }
}
