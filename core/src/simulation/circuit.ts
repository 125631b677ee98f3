import { type Board, byNumber, pinOf, type SeatedPart } from '../board';
import {
  clearDelayOf,
  clockHertz,
  delaysOf,
  type EdgeDelays,
  type FamilyId,
  familyOf,
  innerName,
  innerOf,
  type PartType,
  typeOf,
  type Unit,
} from '../catalogue';
import type { Machine } from '../logic';

/** A unit of a seated chip: its machine, its first driver, how many outputs it has, and its chip's index. `timers`: see `Unit`. */
export interface CircuitUnit {
  readonly machine: Machine;
  readonly behaviour: Unit['behaviour'];
  /** Its input pins by name, such as `U1.1`. */
  readonly inputPins: readonly string[];
  readonly timers: Unit['timers'];
  /** How long a clear or preset takes to its outputs, in nanoseconds; null where it takes as long as the clock. */
  readonly clearDelay: EdgeDelays['rise'] | null;
  readonly driver: number;
  readonly outputs: number;
  readonly chip: number;
}

/**
 * An actuator of a switch, button or clock by name (`S1`, `S2.3`), or a timer that is labelled with a signal. `hertz`: the rate of a clock; `timer` and
 * `output`: the unit of a timer and the driver that gives the signal, by index. `isByHand`: neither of them, so that only a person moves it.
 */
export interface CircuitSwitch {
  readonly ref: string;
  readonly hertz: number | null;
  readonly timer: number | null;
  readonly output: number | null;
  readonly isByHand: boolean;
}

/** A seated chip. */
export interface CircuitChip {
  readonly ref: string;
  readonly type: PartType;
  readonly family: FamilyId;
}

/** What of a board computes, is moved by hand, and shines, lowered for simulation. What lies between is the board's volts. */
export interface Circuit {
  /** All seated parts, in the order of their references. */
  readonly parts: readonly SeatedPart[];
  readonly chips: readonly CircuitChip[];
  readonly units: readonly CircuitUnit[];
  /** The output pins of chips by name, by driver, and the index of the chip of each. */
  readonly driverPin: readonly string[];
  readonly driverChip: Int32Array;
  /** For each driver its delays in nanoseconds, going high and going low. */
  readonly driverDelays: readonly EdgeDelays[];
  /** What gives the signals that come from outside. */
  readonly switches: readonly CircuitSwitch[];
  /** Lamps by name (`D1`, `H1.a`). */
  readonly leds: readonly { readonly ref: string }[];
}

/** Lowers a board to a circuit. Parts that are not known are left out. */
export function compileCircuit(board: Board): Circuit {
  const parts = Object.values(board.parts).sort((a, b) => byNumber(a.ref, b.ref));
  const chips: CircuitChip[] = [];
  const units: CircuitUnit[] = [];
  const driverPin: string[] = [];
  const driverChip: number[] = [];
  const driverDelays: EdgeDelays[] = [];
  for (const seated of parts) {
    const { ref } = seated;
    const type = typeOf(seated);
    if (type?.kind !== 'chip') continue;
    const family = familyOf(seated);
    const chip = chips.push({ ref, type, family }) - 1;
    const clearDelay = type.chip ? clearDelayOf(type.chip.base, family) : null;
    const nameOf = (id: string): string => type.pins.find((p) => p.id === id)?.name ?? '';
    for (const { machine, behaviour, inputs, outputs, timers } of type.units) {
      const inputPins = inputs.map((pin) => pinOf(ref, pin));
      units.push({
        machine,
        behaviour,
        inputPins,
        timers,
        clearDelay,
        driver: driverPin.length,
        outputs: outputs.length,
        chip,
      });
      for (const pin of outputs) {
        driverPin.push(pinOf(ref, pin));
        driverChip.push(chip);
        driverDelays.push(delaysOf(type, family, nameOf(pin)));
      }
    }
  }
  const insides = parts.map((part) => ({ ...part, hertz: clockHertz(part), ...innerOf(typeOf(part)) }));
  return {
    parts,
    chips,
    units,
    driverPin,
    driverChip: Int32Array.from(driverChip),
    driverDelays,
    switches: insides.flatMap(({ ref, contacts, hertz, runs, signalPin, signal }): CircuitSwitch[] => {
      if (runs && signal !== undefined) {
        const timer = units.findIndex(({ chip }) => chips[chip]?.ref === ref);
        const output = driverPin.indexOf(pinOf(ref, signalPin ?? ''));
        return [{ ref, hertz, timer, output, isByHand: false }];
      }
      const actuators = [...new Set(contacts.map((c) => c.actuator))];
      const other = { hertz, timer: null, output: null, isByHand: hertz === null };
      return actuators.map((a) => ({ ref: innerName(ref, a), ...other }));
    }),
    leds: insides.flatMap(({ ref, lamps }) => lamps.map(({ name }) => ({ ref: innerName(ref, name) }))),
  };
}
