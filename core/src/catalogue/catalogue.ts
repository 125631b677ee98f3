import { readSheet } from '../design';
import { compile } from '../logic';
import { type ChipData, chips } from './chips';
import { readPartNumber } from './family';
import type { PartType, Pin, PinRole, Unit } from './part';

const supplyRoles: Readonly<Record<string, PinRole>> = { VCC: 'supply', GND: 'ground', NC: 'none' };

/**
 * Makes a chip from its data sheet: pins of a dual-in-line package laid out from pin 1 (anchor, lower
 * row, notch to the left), and units taken from the behaviour, one for each group of equations that
 * share an input. Throws on a behaviour that is not a faultless sheet: the catalogue is our own data.
 */
export function chipOf(data: ChipData): PartType {
  const { design, findings } = readSheet(data.behaviour);
  if (!design.netlist || findings.length > 0) throw new Error(`${data.base}: the behaviour has findings`);
  const names = data.pins.split(' ');
  const half = names.length / 2;
  const roles = new Map<string, PinRole>(Object.entries(supplyRoles));
  for (const { name } of design.inputs) roles.set(name, 'input');
  for (const { name } of design.outputs) roles.set(name, 'output');
  const pins = names.map((name, i): Pin => {
    const role = roles.get(name);
    if (!role) throw new Error(`${data.base}: pin ${name} is not in the behaviour`);
    const lower = i < half;
    return { id: String(i + 1), name, role, dx: lower ? i : names.length - 1 - i, dy: lower ? 0 : -3 };
  });
  const idOf = new Map(pins.map((p) => [p.name, p.id]));
  const pinId = (name: string): string => {
    const id = idOf.get(name);
    if (id === undefined) throw new Error(`${data.base}: the behaviour names ${name}, no pin does`);
    return id;
  };
  return {
    id: data.base,
    kind: 'chip',
    title: data.title,
    prefix: 'U',
    pins,
    units: unitsOf(data.behaviour, pinId),
    body: { x: -0.5, y: -2.62, width: half, height: 2.24 },
    behaviour: data.behaviour,
    catch: data.catch,
  };
}

/** One unit for each output of a behaviour in which no gate serves two outputs. */
function unitsOf(behaviour: string, pinId: (name: string) => string): Unit[] {
  const { netlist } = readSheet(behaviour).design;
  if (!netlist) throw new Error('the behaviour has findings');
  const maker = new Map(netlist.gates.map((g) => [g.output, g]));
  return netlist.outputs.map(({ net }, i) => {
    const gate = maker.get(net);
    if (!gate || gate.inputs.some((input) => maker.has(input))) throw new Error(`${net} is not one gate of pins`);
    const network = { inputs: gate.inputs, gates: [gate], outputs: [net] };
    return {
      name: String(i + 1),
      inputs: gate.inputs.map(pinId),
      outputs: [pinId(net)],
      gate: { kind: gate.kind, width: gate.inputs.length },
      program: compile(network),
    };
  });
}

const lead = (id: string, name: string, dx: number, dy: number): Pin => ({ id, name, role: 'lead', dx, dy });
const simple = { units: [], behaviour: '' } as const;

/** The parts on a bench that are no chips. */
const bench: readonly PartType[] = [
  {
    ...simple,
    id: 'switch',
    kind: 'switch',
    title: 'slide switch, one pole',
    prefix: 'S',
    pins: [lead('1', 'feed', 0, 0), lead('2', 'signal', 0, 3)],
    body: { x: -0.45, y: 0.5, width: 0.9, height: 2 },
    catch: 'Open, it drives nothing: its signal needs a pull-down resistor.',
  },
  {
    ...simple,
    id: 'led',
    kind: 'led',
    title: 'LED, 5 mm, red',
    prefix: 'D',
    pins: [lead('A', 'anode', 0, 0), lead('K', 'cathode', 1, 0)],
    body: { x: -0.45, y: -0.95, width: 1.9, height: 1.9 },
    catch: 'The longer lead is the anode; the flat of the rim marks the cathode.',
  },
  {
    ...simple,
    id: 'resistor',
    kind: 'resistor',
    title: 'resistor, axial',
    prefix: 'R',
    pins: [lead('1', 'one end', 0, 0), lead('2', 'other end', 0, 3)],
    body: { x: -0.28, y: 0.6, width: 0.56, height: 1.8 },
    catch: 'Either way round. 1 kΩ reads brown black red, 10 kΩ brown black orange.',
  },
  {
    ...simple,
    id: 'capacitor',
    kind: 'capacitor',
    title: 'capacitor, ceramic',
    prefix: 'C',
    pins: [lead('1', 'one end', 0, 0), lead('2', 'other end', 0, 1)],
    body: { x: -0.4, y: 0.1, width: 0.8, height: 0.8 },
    catch: 'As close to the chip as it goes; 100 nF is marked 104.',
  },
  {
    ...simple,
    id: 'supply',
    kind: 'supply',
    title: 'bench supply, 5 V',
    prefix: 'P',
    pins: [lead('+', 'positive', 0, 0), lead('-', 'negative', 0, 1)],
    body: { x: -0.9, y: -0.35, width: 1.3, height: 1.7 },
    catch: 'Red lead to the + rail, black to the − rail; switch on last.',
  },
];

const byId: ReadonlyMap<string, PartType> = new Map(
  [...chips.map(chipOf), ...bench].map((part) => [part.id, part] as const),
);

/** Every part type, chips first in numeric order. */
export const catalogue: readonly PartType[] = [...byId.values()];

/** The part type that a job file's `part` names: `74HC00`, `led`, …; null when it is not known. */
export function partType(part: string): PartType | null {
  const number = readPartNumber(part);
  return byId.get(number ? number.base : part) ?? null;
}
