import type { FamilyId } from '../family';

/** What a chip is for, by which it is found and shelved. */
export type ChipGroup =
  | 'gates'
  | 'buffers'
  | 'selectors and decoders'
  | 'analogue switches'
  | 'arithmetic'
  | 'flip-flops and latches'
  | 'shift registers'
  | 'counters'
  | 'memories'
  | 'timers'
  | 'own parts';

/** How long a pulse lasts: `factor` times C times (R + `plusOhms`), by the data sheet. */
export interface PulseLength {
  readonly factor: number;
  readonly plusOhms?: number;
}

/**
 * A pulse that ends by itself: while `output` is high a timer runs, and then `input`, which is no pin
 * of the chip, goes high for a moment. Its resistor goes from supply to the pin `resistor` (or the chip's own, of `ownOhms`, from the pin
 * `ownResistor`), its capacitor from there to the pin `capacitor`. `retriggers`: a trigger during the pulse begins it anew.
 */
export interface PulseTimer {
  readonly input: string;
  readonly output: string;
  readonly resistor: string;
  readonly capacitor: string;
  readonly own?: { readonly pin: string; readonly ohms: number };
  readonly retriggers?: true;
  readonly lengths: Partial<Record<FamilyId, PulseLength>>;
}

/**
 * A divider inside a chip from supply to ground, whose tap may be a pin, and the inputs that compare their volts with a share of the tap's. `pulse`: where it can time one,
 * the inputs that begin it, end it and cut it short (the first and the last when low), its output, and the output that keeps its capacitor empty until it begins.
 */
export interface TimerDivider {
  readonly tap: string | null;
  readonly aboveOhms: number;
  readonly belowOhms: number;
  readonly compares: Readonly<Record<string, number>>;
  readonly pulse?: TimerPins;
}

/** The pins of a timer, by name; see `TimerDivider`. */
export interface TimerPins {
  readonly begins: string;
  readonly ends: string;
  readonly clears: string;
  readonly output: string;
  readonly empties: string;
}

/** Nanoseconds from the inputs to some outputs, going high and going low, each typical and greatest. */
export interface OutputDelay {
  /** Names of the outputs, or `*` for all that are not named. */
  readonly pins: string;
  readonly rise: readonly [typical: number, most: number];
  readonly fall: readonly [typical: number, most: number];
  /** The family whose data sheet they are worked out from; null where they stand in the chip's own. */
  readonly workedOutFrom: FamilyId | null;
}

/** A memory whose contents are put in by a programmer: its address and data pins, the most significant first. */
export interface MemoryData {
  readonly address: string;
  readonly data: string;
  /** What a cell holds that was never programmed. */
  readonly blank: 0 | 1;
  /** What shows a bit `@` at its output, by the select pins. */
  readonly shows: string;
}

/**
 * Contacts between two pins that levels move. `joins` gives for the pin that a contact has alone the one at its other end; the
 * behaviour says by the first pin's name when it is closed. `ohms`: what a closed one has, typically, at 4.5 V and 25 °C.
 */
export interface AnalogueContacts {
  readonly joins: Readonly<Record<string, string>>;
  readonly ohms: number;
}

/** A chip as a data sheet gives it: pins counted from 1, behaviour in the sheet language. */
export interface ChipData {
  readonly base: string;
  readonly title: string;
  readonly group: ChipGroup;
  /** Other words people look it up by. */
  readonly aliases?: string;
  /**
   * Pin names from pin 1 up, counter-clockwise from the notch; VCC and GND are the supply pins, NC
   * leads nowhere. A small n at the end marks a pin that acts when low.
   */
  readonly pins: string;
  /** The statements of the sheet, without its in and out lines, which follow from the pins. */
  readonly behaviour: string;
  /** Pins that carry no logic level: where a timer's resistor and capacitor go. */
  readonly analogue?: string;
  /** Inputs that the chip itself pulls high when they are left open. */
  readonly pulledUp?: string;
  /** Of an analogue switch: its contacts, whose pins carry no logic level of their own. */
  readonly contacts?: AnalogueContacts;
  readonly timers?: readonly PulseTimer[];
  readonly dividers?: readonly TimerDivider[];
  /** Inputs that have levels of their own, in volts: low up to the first, high from the second. */
  readonly levelsV?: Readonly<Record<string, readonly [low: number, high: number]>>;
  /** Its latch is taken to be set when the power comes on and nothing says otherwise: one pulse, as such timers often give. */
  readonly startsHigh?: true;
  /** Of a memory whose contents are put in: what makes its outputs of them. */
  readonly memory?: MemoryData;
  /** Least volts of an output that gives its current, where its data sheet differs from the family. */
  readonly outputHighV?: number;
  /** Distance of its two rows of pins, in tenths of an inch, where it is not 3. */
  readonly rows?: 6;
  /** Its own limits, for parts that belong to no family: supply in volts, output in mA sunk and given. */
  readonly own?: {
    readonly supplyV: readonly [number, number];
    readonly outputMa: readonly [number, number];
    /** The most an output may ever carry, in mA. */
    readonly absoluteMa: number;
    /** Typical and greatest delay in ns. */
    readonly delayNs: readonly [number, number];
  };
  /** Families it is made in, as published. */
  readonly families: readonly FamilyId[];
  /** Output currents in mA where they are not the family's: sunk low, given high. */
  readonly drive?: Partial<Record<FamilyId, readonly [low: number, high: number]>>;
  /** The most an open output may be pulled up to, in volts, where it may exceed the supply. */
  readonly openV?: number;
  /** Inputs that switch at one level going up and at a lower one going down. */
  readonly schmitt?: true;
  /** What catches people out. */
  readonly caveat: string;
}

/** Writes a line for units 1 to n: every name that begins with 1 begins with each number in turn. */
export function units(n: number, line: string): string {
  const of = (k: number): string => line.replace(/\b1(?=[A-Za-z])/g, String(k));
  return Array.from({ length: n }, (_, i) => of(i + 1)).join('\n');
}

/** Writes a line for each of some names, put in place of `@`. */
export function forEach(names: string, line: string): string {
  return names
    .split(' ')
    .map((name) => line.replaceAll('@', name))
    .join('\n');
}

/** The families most chips are made in. */
export const everywhere: readonly FamilyId[] = ['74', 'LS', 'ALS', 'F', 'S', 'HC', 'HCT', 'AC', 'ACT'];
/** The CMOS families in which nearly every number was made. */
export const cmos: readonly FamilyId[] = ['HC', 'HCT'];
/** The TTL families in which nearly every number was made. */
export const ttl: readonly FamilyId[] = ['74', 'LS'];
