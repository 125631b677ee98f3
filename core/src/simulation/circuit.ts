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
  /** Actuators of switches, buttons and clocks, by name (`S1`, `S2.3`); of clocks with their rate. */
  readonly switches: readonly { readonly ref: string; readonly hertz: number | null }[];
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
  const insides = parts.map((part) => ({ ref: part.ref, hertz: clockHertz(part), ...innerOf(typeOf(part)) }));
  return {
    parts,
    chips,
    units,
    driverPin,
    driverChip: Int32Array.from(driverChip),
    driverDelays,
    switches: insides.flatMap(({ ref, contacts, hertz }) =>
      [...new Set(contacts.map((c) => c.actuator))].map((actuator) => ({ ref: innerName(ref, actuator), hertz })),
    ),
    leds: insides.flatMap(({ ref, lamps }) => lamps.map(({ name }) => ({ ref: innerName(ref, name) }))),
  };
}
