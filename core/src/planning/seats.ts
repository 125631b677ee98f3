import {
  type Board,
  type BreadboardKind,
  breadboardId,
  columnsOf,
  hasRailHole,
  nextFree,
  pinOf,
  type SeatedPart,
} from '../board';
import { segmentsOf, typeOf } from '../catalogue';
import type { LedColour } from '../design';
import type { TimerValues } from '../electrical';
import type { Package } from '../packing';
import { GROUND, SUPPLY } from './expectation';
import type { PulseValues } from './pulse-values';
import { TIMER, TIMER_PREFIX, timerLeads, timerNets, timerPinsOf } from './timer';

/** Kinds of breadboard that a plan is laid out on: minis have no rails. */
export type LayoutBoardKind = Exclude<BreadboardKind, 'mini'>;

/** Nanofarads of the capacitor beside each chip. */
export const CAPACITOR_NF = 100;

/** Parts stay from this column on, and MARGIN columns from the right end: there rail links run from top to bottom. */
const FIRST = 5;
const MARGIN = 6;
/** Columns of a display, and of the resistors of its segments. */
const DISPLAY_COLUMNS = 6;
/** Lamps of a bar that are used: as many as a network has resistors. */
export const BAR_LAMPS = 8;
const BAR_COLUMNS = 10;

/** A digit to be seated: its signals, of segments a to g and perhaps the point, and whether they light when low. */
export interface Digit {
  readonly signals: readonly { readonly name: string; readonly net: string }[];
  readonly low: boolean;
  readonly ohms: number;
}

/**
 * Resistor and capacitor of a one-shot for a pulse of some seconds, with the pin that is charged and the other end of the capacitor; of a timer, whose capacitor goes to
 * ground (`far` is null), the net of that pin too.
 */
export type Timing = PulseValues & { readonly charged: string; readonly seconds: number } & (
    | { readonly far: string; readonly net?: undefined }
    | { readonly far: null; readonly net: string }
  );

/** Columns of a resistor and a capacitor of a one-shot. */
const TIMING_COLUMNS = 4;
/** From so many nanofarads up a capacitor is electrolytic. */
const ELECTROLYTIC_NF = 1000;

/**
 * Breadboards that are filled from left to right, column by column, with what each pin is to be joined to where a signal's label does not say it: to a
 * net of the design, to SUPPLY or GROUND, or to a net between parts, whose name begins with `~`.
 */
export class Seats {
  /** The breadboard that is being filled, from 1. */
  board = 1;
  readonly parts: Record<string, SeatedPart> = {};
  readonly joins = new Map<string, string>();
  private column = FIRST;
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
  private at(row: string, column = this.column): string {
    return `${this.id}.${row}${column}`;
  }

  /** The breadboards that were begun. */
  breadboards(): Board['breadboards'] {
    return Array.from({ length: this.board }, (_, i) => ({ id: breadboardId(this.kind, i + 1), type: this.kind }));
  }

  /** How many columns a board has for parts. */
  get width(): number {
    return this.last - FIRST + 1;
  }

  skip(columns: number): void {
    this.column += columns;
  }

  private add(part: SeatedPart): string {
    this.parts[part.ref] = part;
    return part.ref;
  }

  /** Seats a part by the next free reference of its kind. */
  private seat({ part, at, ...rest }: Omit<SeatedPart, 'ref' | 'rotation'> & Partial<SeatedPart>): string {
    const prefix = typeOf({ part })?.prefix ?? 'X';
    return this.add({ ref: nextFree(prefix, this.parts), part, at, rotation: 0, ...rest });
  }

  private join(ref: string, pin: string, net: string): void {
    this.joins.set(pinOf(ref, pin), net);
  }

  /** Joins two pins by a net of their own, which begins at the first: that may be a pin of a chip. */
  private joinBoth(a: readonly [ref: string, pin: string], b: readonly [ref: string, pin: string]): void {
    const net = `~${pinOf(...b)}`;
    this.join(...a, net);
    this.join(...b, net);
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

  addSupply(): void {
    this.seat({ part: 'supply', at: this.at('top+', 3), value: 5 });
  }

  /** A switch from the supply rail's side to a strip with a resistor to ground. */
  addSwitch(signal: string, ohms: number): void {
    this.room(1, 0);
    this.seat({ part: 'switch', at: this.at('f'), signal });
    this.seat({ part: 'resistor', at: this.at('a'), value: ohms });
    this.column += 2;
  }

  /** A change-over switch between supply and ground, which needs no resistor. */
  addChangeOver(signal: string): void {
    this.room(3, 0);
    const ref = this.seat({ part: 'change-over', at: this.at('h'), signal });
    this.join(ref, '1', SUPPLY);
    this.join(ref, '3', GROUND);
    this.column += 4;
  }

  /** A push-button over the channel: its upper left pin is fed, its lower right one has the resistor to ground. */
  addButton(signal: string, ohms: number): void {
    this.room(3, 2);
    const ref = this.seat({ part: 'push-button', at: this.at('e'), signal });
    this.join(ref, '4', SUPPLY);
    this.seat({ part: 'resistor', at: this.at('a', this.column + 2), value: ohms });
    this.column += 4;
  }

  addClock(signal: string, hertz: number): void {
    this.room(3, 0);
    const ref = this.seat({ part: 'clock', at: this.at('h'), signal, value: hertz });
    this.join(ref, '1', SUPPLY);
    this.join(ref, '2', GROUND);
    this.column += 4;
  }

  /**
   * A timer that runs by itself with its capacitor: one resistor from supply straight down into the strip of its discharge, the other across the channel
   * beside it, and then the capacitor that they charge.
   */
  addTimer(signal: string, { ohms: [above = 0, below = 0], farads }: TimerValues): void {
    const named = { ref: nextFree(TIMER_PREFIX, this.parts), part: TIMER };
    const width = 5;
    this.room(width + TIMING_COLUMNS, 1);
    this.add({ ...named, at: this.at('e'), rotation: 0, signal });
    this.addSupplyCapacitor([2, 3]);
    const pins = timerPinsOf(named);
    const toSupply = this.seat({ part: 'resistor', at: this.at('top+', this.column + 1), value: above });
    this.column += width;
    const between = this.seat({ part: 'resistor', at: this.at('f'), value: below });
    const [capacitor, plus, minus] = this.seatTimingCapacitor(farads * 1e9);
    this.column += TIMING_COLUMNS;
    if (!pins) return;
    const leads = timerLeads(pins);
    for (const [pin, net] of timerNets(named)) this.joins.set(pin, net);
    this.join(toSupply, '2', leads.toSupply[1]);
    for (const i of [0, 1] as const) this.join(between, String(i + 1), leads.toCapacitor[i]);
    this.join(capacitor, plus, leads.capacitor[0]);
    this.join(capacitor, minus, leads.capacitor[1]);
  }

  /** A chip with its capacitor, and the parts of its one-shots beside it on the same board. */
  addChip(chip: Omit<Package, 'units'>, timings: readonly Timing[]): void {
    const width = (typeOf(chip)?.pins.length ?? 14) / 2;
    this.room(timings.length === 0 ? width : width + this.gap + TIMING_COLUMNS * timings.length, 0);
    this.add({ ...chip, at: this.at('e'), rotation: 0 });
    this.addSupplyCapacitor([1, 2, 3]);
    this.column += width + this.gap;
    for (const timing of timings) this.addTiming(chip.ref, timing);
  }

  /** The capacitor across the rails beside a chip, in the first of some columns from its first on that have rail holes. */
  private addSupplyCapacitor(columns: readonly number[]): void {
    const column = columns.map((d) => this.column + d).find((c) => hasRailHole(c, this.id));
    this.seat({ part: 'capacitor', at: this.at('top+', column), value: CAPACITOR_NF });
  }

  /** The resistor of a one-shot from the supply rail to the strip of its capacitor, both beside the chip that they time. */
  private addTiming(chip: string, timing: Timing): void {
    const { charged, ohms, nanofarads } = timing;
    this.room(3, 0);
    const resistor = this.seat({ part: 'resistor', at: this.at('top+'), value: ohms });
    const [capacitor, plus, minus] = this.seatTimingCapacitor(nanofarads);
    const net = timing.far === null ? timing.net : `~${pinOf(chip, charged)}`;
    this.join(chip, charged, net);
    this.join(resistor, '2', net);
    this.join(capacitor, plus, net);
    if (timing.far === null) this.join(capacitor, minus, GROUND);
    else this.joinBoth([chip, timing.far], [capacitor, minus]);
    this.column += TIMING_COLUMNS;
  }

  /** The capacitor that is charged, beside the resistor in this column: its reference, the lead that is charged, and the other. */
  private seatTimingCapacitor(nanofarads: number): readonly [ref: string, plus: string, minus: string] {
    if (nanofarads >= ELECTROLYTIC_NF)
      return [this.seat({ part: 'electrolytic', at: this.at('h', this.column + 1), value: nanofarads }), '1', '2'];
    // Rotated, the first lead is at the right.
    const at = this.at('h', this.column + 2);
    return [this.seat({ part: 'capacitor', at, value: nanofarads, rotation: 90 }), '2', '1'];
  }

  /** From the supply rail down to a strip of its own. */
  addPullUp(net: string, ohms: number): void {
    this.room(1, 0);
    this.seat({ part: 'resistor', at: this.at('top+'), value: ohms, signal: net });
    this.column += 2;
  }

  /** An LED, with its resistor to ground behind it. */
  addLed(signal: string, ohms: number, colour: LedColour = 'red'): void {
    this.room(2, 1);
    this.seat({ part: colour === 'red' ? 'led' : `led-${colour}`, at: this.at('c'), signal });
    this.seat({ part: 'resistor', at: this.at('a', this.column + 1), value: ohms });
    this.column += this.gap > 3 ? 4 : 3;
  }

  /** Up to BAR_LAMPS lamps in one bar over the channel, with a network to ground above their cathodes. */
  addBar(signals: readonly string[], ohms: number): void {
    this.room(BAR_COLUMNS + 1, 0);
    const labels = signals.map((signal, i) => ({ of: String(i + 1), signal }));
    this.seat({ part: 'led-bar', at: this.at('e', this.column + 1), labels });
    const network = this.seat({ part: 'network-common', at: this.at('h'), value: ohms });
    this.join(network, '1', GROUND);
    this.column += BAR_COLUMNS + 2;
  }

  /**
   * Digits side by side as they are read, before them the resistors of their segments, each across the channel: above it the signal, below it the segment.
   * As many digits as one board has room for stay together.
   */
  addDigits(digits: readonly Digit[]): void {
    const widthOf = (some: readonly Digit[]): number =>
      some.reduce((sum, d) => sum + d.signals.length + DISPLAY_COLUMNS, 1);
    for (let from = 0; from < digits.length; ) {
      let to = from + 1;
      while (to < digits.length && widthOf(digits.slice(from, to + 1)) <= this.width) to++;
      const together = digits.slice(from, to);
      this.room(widthOf(together), 0);
      const resistors = together.map((digit) => digit.signals.map((s) => this.addSeries(s.net, digit.ohms)));
      this.column++;
      together.forEach((digit, i) => {
        this.addDisplay(digit, resistors[i] ?? []);
      });
      this.column++;
      from = to;
    }
  }

  /** A resistor across the channel: its upper end at a net, its lower end free. */
  private addSeries(net: string, ohms: number): string {
    const ref = this.seat({ part: 'resistor', at: this.at('f'), value: ohms });
    this.join(ref, '1', net);
    this.column++;
    return ref;
  }

  private addDisplay({ signals, low }: Digit, resistors: readonly string[]): void {
    const part = low ? 'display-anode' : 'display-cathode';
    const segments = segmentsOf(typeOf({ part })).slice(0, signals.length);
    const labels = segments.map(({ name }, i) => ({ of: name, signal: signals[i]?.name ?? '' }));
    const ref = this.seat({ part, at: this.at('d'), labels });
    segments.forEach(({ anode, cathode }, i) => {
      this.joinBoth([resistors[i] ?? '', '2'], [ref, low ? cathode : anode]);
    });
    const [common] = segments;
    if (common) this.join(ref, low ? common.anode : common.cathode, low ? SUPPLY : GROUND);
    this.column += DISPLAY_COLUMNS;
  }

  /** A buzzer that a transistor switches to ground, with the resistor of its base across the channel. */
  addBuzzer(signal: { readonly name: string; readonly net: string }, ohms: number): void {
    this.room(7, 0);
    const buzzer = this.seat({ part: 'buzzer', at: this.at('b'), signal: signal.name });
    const transistor = this.seat({ part: 'npn', at: this.at('h', this.column + 4) });
    this.join(buzzer, '1', SUPPLY);
    this.join(transistor, '1', GROUND);
    this.joinBoth([buzzer, '2'], [transistor, '3']);
    const base = this.seat({ part: 'resistor', at: this.at('f', this.column + 5), value: ohms });
    this.join(base, '2', signal.net);
    this.column += 8;
  }
}
