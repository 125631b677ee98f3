import type { Board, Nets } from '../board';
import { byNumber, pinOf } from '../board';
import {
  type FamilyId,
  families,
  innerName,
  innerOf,
  type PartType,
  readPartNumber,
  typeOf,
  type Unit,
} from '../catalogue';
import type { Machine } from '../logic';

/** No net: a pin in no hole. */
export const NONE = -1;

/**
 * A unit of a seated chip: nets of its input pins, its first driver, delay, and its chip's index.
 * `pulledUp` is 1 for inputs that read high when they are open. `timers`: see `Unit`.
 */
export interface CircuitUnit {
  readonly machine: Machine;
  readonly inputs: Int32Array;
  /** Its input pins by name, such as `U1.1`. */
  readonly inputPins: readonly string[];
  readonly pulledUp: Uint8Array;
  readonly timers: Unit['timers'];
  readonly driver: number;
  readonly outputs: number;
  readonly chip: number;
}

/**
 * A board lowered for simulation. All numbers in arrays are net indices (`Nets.nets`) or NONE, unless
 * said otherwise; nothing in here knows the design.
 */
export interface Circuit {
  readonly nets: number;
  /** Nets of the positive and negative leads of each supply. */
  readonly positive: Int32Array;
  readonly negative: Int32Array;
  readonly chips: readonly {
    readonly ref: string;
    readonly supply: number;
    readonly ground: number;
    readonly family: FamilyId;
    readonly delayNs: number;
  }[];
  readonly units: readonly CircuitUnit[];
  /**
   * For each driver (an output pin of a chip): its net, its chip's index, and 1 if it can let its net go. Transistors and diodes are
   * none: what they do follows from volts (`PoweredBoard`).
   */
  readonly driverNet: Int32Array;
  /** The output pins of chips by name, by driver. */
  readonly driverPin: readonly string[];
  readonly driverChip: Int32Array;
  readonly driverFloats: Uint8Array;
  /** For each net: units that read it, drivers on it, and resistors from it to other nets. */
  readonly readersOf: readonly (readonly number[])[];
  readonly driversOf: readonly (readonly number[])[];
  readonly resistorsOf: readonly (readonly Resistance[])[];
  /** Nets with a resistor on them. */
  readonly resistive: readonly number[];
  /** Actuators of switches, buttons and clocks, each with the contacts that it moves. */
  readonly switches: readonly Actuator[];
  readonly leds: readonly TwoLeads[];
}

/** A resistor as seen from one of its nets: the other one, and its value in ohms. */
export interface Resistance {
  readonly to: number;
  readonly ohms: number;
}

/** An actuator by its name (`S1`, `S2.3`); a contact is closed while the actuator stands `on` or off. */
export interface Actuator {
  readonly ref: string;
  readonly contacts: readonly { readonly a: number; readonly b: number; readonly on: boolean }[];
}

/** A part between two nets, by its name (`D1`, `H1.a`); of an LED `a` is the anode. */
export interface TwoLeads {
  readonly ref: string;
  readonly a: number;
  readonly b: number;
}

/** Lowers a board and its extracted nets to a circuit. Parts that are not known are left out. */
export function compileCircuit(board: Board, nets: Nets): Circuit {
  const net = (pin: string): number => nets.ofPin.get(pin) ?? NONE;
  const chips: Circuit['chips'][number][] = [];
  const units: CircuitUnit[] = [];
  const driverNet: number[] = [];
  const driverPin: string[] = [];
  const driverChip: number[] = [];
  const driverFloats: number[] = [];
  const parts = Object.values(board.parts).sort((a, b) => byNumber(a.ref, b.ref));
  const addUnit = (ref: string, type: PartType, family: FamilyId, unit: Unit): void => {
    const inputPins = unit.inputs.map((pin) => pinOf(ref, pin));
    const inputs = Int32Array.from(inputPins, net);
    const { machine, outputs, timers } = unit;
    const pulledUp = Uint8Array.from(unit.inputs, (pin) => (readsHigh(type, family, pin) ? 1 : 0));
    const [driver, chip] = [driverNet.length, chips.length - 1];
    units.push({ machine, inputs, inputPins, pulledUp, timers, driver, outputs: outputs.length, chip });
    outputs.forEach((pin, o) => {
      driverNet.push(net(pinOf(ref, pin)));
      driverPin.push(pinOf(ref, pin));
      driverChip.push(chip);
      driverFloats.push(unit.drives[o] === 'push-pull' ? 0 : 1);
    });
  };
  for (const seated of parts) {
    const { ref, part } = seated;
    const type = typeOf(seated);
    if (type?.kind !== 'chip') continue;
    const family = readPartNumber(part)?.family ?? 'HC';
    const netOfRole = (role: string): number => net(pinOf(ref, type.pins.find((p) => p.role === role)?.id ?? ''));
    const delayNs = families[family].delayNs.typical;
    chips.push({ ref, supply: netOfRole('supply'), ground: netOfRole('ground'), family, delayNs });
    for (const unit of type.units) addUnit(ref, type, family, unit);
  }
  const of = (kind: string) => parts.filter((p) => typeOf(p)?.kind === kind);
  const ends = (kind: string, a: string, b: string): TwoLeads[] =>
    of(kind).map(({ ref }) => ({ ref, a: net(pinOf(ref, a)), b: net(pinOf(ref, b)) }));
  const supplies = ends('supply', '+', '-');
  const count = nets.nets.length;
  const lists = <T>(): T[][] => Array.from({ length: count }, () => []);
  const [readersOf, driversOf, resistorsOf] = [lists<number>(), lists<number>(), lists<Resistance>()];
  units.forEach((unit, u) => {
    for (const n of unit.inputs) readersOf[n]?.push(u);
  });
  driverNet.forEach((n, d) => {
    driversOf[n]?.push(d);
  });
  const switches: Actuator[] = [];
  const leds: TwoLeads[] = [];
  for (const seated of parts) {
    const { ref, value = 1000 } = seated;
    const { contacts, lamps, resistors } = innerOf(typeOf(seated));
    const at = (id: string): number => net(pinOf(ref, id));
    for (const actuator of new Set(contacts.map((c) => c.actuator))) {
      const own = contacts.filter((c) => c.actuator === actuator).map((c) => ({ a: at(c.a), b: at(c.b), on: c.on }));
      switches.push({ ref: innerName(ref, actuator), contacts: own });
    }
    for (const { name, anode, cathode } of lamps)
      leds.push({ ref: innerName(ref, name), a: at(anode), b: at(cathode) });
    for (const { a, b, share } of resistors) {
      const [from, to, ohms] = [at(a), at(b), Math.max(1e-3, value * share)];
      if (from === NONE || to === NONE || from === to) continue;
      resistorsOf[from]?.push({ to, ohms });
      resistorsOf[to]?.push({ to: from, ohms });
    }
  }
  return {
    nets: count,
    positive: Int32Array.from(supplies, (s) => s.a),
    negative: Int32Array.from(supplies, (s) => s.b),
    chips,
    units,
    driverNet: Int32Array.from(driverNet),
    driverPin,
    driverChip: Int32Array.from(driverChip),
    driverFloats: Uint8Array.from(driverFloats),
    readersOf,
    driversOf,
    resistorsOf,
    resistive: resistorsOf.flatMap((list, n) => (list.length > 0 ? [n] : [])),
    switches,
    leds,
  };
}

/** Whether a pin reads high when it is open: by its family, or because the chip pulls it up itself. */
function readsHigh(type: PartType, family: FamilyId, pin: string): boolean {
  if (families[family].openInput === 'high') return true;
  const name = type.pins.find((p) => p.id === pin)?.name ?? '';
  return type.chip?.pulledUp?.split(' ').includes(name) === true;
}
