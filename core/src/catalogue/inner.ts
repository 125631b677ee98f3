import type { LedColour } from '../design';

/** A contact between two pins, moved by an actuator; `on` tells whether it closes when the actuator is put on or off. */
export interface Contact {
  readonly actuator: string;
  readonly a: string;
  readonly b: string;
  readonly on: boolean;
}

/** Colours that LEDs are made in, and the sound of a buzzer, which sounds where a lamp is lit. */
export type LampColour = LedColour | 'sound';

/** A light, or a buzzer, between two pins, by a name of its own (a part with a single one has `''`); red where no colour is given. */
export interface Lamp {
  readonly name: string;
  readonly anode: string;
  readonly cathode: string;
  readonly colour?: LampColour;
}

/** A resistor between two pins, with its share of the part's value. */
export interface InnerResistor {
  readonly a: string;
  readonly b: string;
  readonly share: number;
}

/** Kinds of path that conduct as levels say. */
export type DeviceKind = 'npn' | 'pnp' | 'nmos' | 'pmos' | 'diode' | 'zener' | 'analogue-switch';

/**
 * A path between two pins that conducts or not as levels say: of a transistor from collector or drain (`a`) to emitter
 * or source (`b`), as its base or gate (`control`) says; of a diode from anode to cathode, of a Zener diode too; of an analogue switch of a chip
 * both ways, as the unit says whose output is `a`.
 */
export interface SwitchingDevice {
  readonly kind: DeviceKind;
  readonly a: string;
  readonly b: string;
  readonly control: string | null;
}

/** What a part does between its pins, all by pin id; of chips their analogue switches. */
export interface Inner {
  /** Pins that are one piece of metal inside. */
  readonly joined: readonly (readonly [string, string])[];
  readonly contacts: readonly Contact[];
  readonly lamps: readonly Lamp[];
  readonly resistors: readonly InnerResistor[];
  readonly devices: readonly SwitchingDevice[];
  /** The pin that gives, or shows, the signal that the part is labelled with. */
  readonly signalPin: string | null;
  /** Whether the signal pin is the output of a timer, which gives its signal by itself and no contact does. */
  readonly runs: boolean;
}

/** A type of part, as far as its inside goes. */
interface WithInner {
  readonly inner?: Inner;
}

/** A part that only has leads. */
export const noInner: Inner = {
  joined: [],
  contacts: [],
  lamps: [],
  resistors: [],
  devices: [],
  signalPin: null,
  runs: false,
};

/** What a part does between its pins; nothing for most chips. */
export function innerOf(type: WithInner | null | undefined): Inner {
  return type?.inner ?? noInner;
}

/** An actuator or a lamp of a seated part as it is called: `S1`, or `S2.3` and `H1.a` where there are several. */
export function innerName(ref: string, name: string): string {
  return name === '' ? ref : `${ref}.${name}`;
}

/** Whether a part gives a signal that a design has from outside: a switch of any kind, a clock, or a timer once it is labelled. */
export function isStimulus(type: WithInner | null | undefined): boolean {
  const { contacts, signalPin, runs } = innerOf(type);
  return signalPin !== null && (contacts.length > 0 || runs);
}

/** Whether a part shows the one signal that it is labelled with. */
export function isIndicator(type: WithInner | null | undefined): boolean {
  const { lamps, signalPin } = innerOf(type);
  return signalPin !== null && lamps.length > 0;
}

/** The lamps of a display in the order in which segments are named: a to g, then the point. */
export function segmentsOf(type: WithInner | null | undefined): readonly Lamp[] {
  const isPoint = ({ name }: Lamp): number => Number(name === 'DP');
  return [...innerOf(type).lamps].sort((a, b) => isPoint(a) - isPoint(b) || a.name.localeCompare(b.name));
}
