import { type Behaviour, compileMachine, type GateKind, HIGH, LOW, type MachineOutput, MachineRun } from '../logic';
import { onceFor } from '../memo';
import type { ChipData } from './chips';
import type { Drive, PartType, Unit } from './part';

/**
 * Takes a chip's behaviour apart into units: outputs that share anything but constants belong to one.
 * `pinId` gives the id of a named pin, null for names that are no pins; `data` has
 * the chip's timers and analogue switches.
 */
export function unitsOf(
  behaviour: Behaviour,
  data: Pick<ChipData, 'timers' | 'contacts'>,
  pinId: (name: string) => string | null,
): Unit[] {
  const groups = new Map<string, MachineOutput[]>();
  const find = joinedNets(behaviour);
  for (const output of behaviour.outputs) {
    const root = find(output.net);
    groups.set(root, [...(groups.get(root) ?? []), output]);
  }
  return [...groups].map(([root, outputs], i) => {
    const inputs = behaviour.inputs.filter((name) => find(name) === root);
    // Inputs that are no pins come last, where the simulator finds them.
    inputs.sort((a, b) => Number(pinId(a) === null) - Number(pinId(b) === null));
    const own: Behaviour = {
      inputs,
      outputs,
      stored: behaviour.stored.filter((s) => find(s.name) === root),
      gates: behaviour.gates.filter((g) => find(g.output) === root),
    };
    return unitOf(String(i + 1), own, data, pinId);
  });
}

function unitOf(
  name: string,
  behaviour: Behaviour,
  { timers = [], contacts }: Pick<ChipData, 'timers' | 'contacts'>,
  pinId: (name: string) => string | null,
): Unit {
  const { inputs, outputs, gates, stored } = behaviour;
  const drives = outputs.map((output): Drive => (contacts ? 'analogue-switch' : driveOf(output)));
  const symbol = stored.length === 0 && outputs.length === 1 && !contacts ? symbolOf(behaviour) : null;
  const [gate] = gates;
  const plain = symbol !== null && symbol !== 'buffer' && drives[0] === 'push-pull' && gate;
  const machine = compileMachine(behaviour);
  return {
    name,
    // A gate's inputs keep the order in which it reads them.
    inputs: inputs.flatMap((n) => pinId(n) ?? []),
    outputs: outputs.map((o) => pinId(o.name) as string),
    drives,
    gate: plain ? { kind: symbol, width: inputs.length } : null,
    symbol,
    behaviour,
    machine,
    timers: timers.flatMap((t) => {
      const [input, output] = [inputs.indexOf(t.input), outputs.findIndex((o) => o.name === t.output)];
      return input >= 0 && output >= 0 ? [{ input, output, law: t }] : [];
    }),
    like: JSON.stringify([inputs.length, [...machine.program.code], machine.stored, machine.outputs]),
  };
}

function driveOf({ open, floats }: MachineOutput): Drive {
  return open ? 'open-collector' : floats !== null ? 'three-state' : 'push-pull';
}

/** The one gate that a unit is, seen through what makes its output three-state or open-collector. */
function symbolOf({ inputs, gates, outputs }: Behaviour): GateKind | 'buffer' | null {
  const gateOf = (net: string) => gates.find((g) => g.output === net);
  const [output] = outputs;
  if (!output) return null;
  const last = gateOf(output.net);
  const through = output.open || last?.kind === 'wire';
  if (through && (last?.inputs.length ?? 0) > (output.open ? 1 : 2)) return null;
  const value = through ? (last?.inputs[0] ?? null) : output.net;
  if (value === null) return null;
  const gate = gateOf(value);
  if (!gate) return inputs.includes(value) ? 'buffer' : null;
  return gate.inputs.every((n) => inputs.includes(n)) ? (gate.kind as GateKind) : null;
}

/** Nets joined by what computes one from another; gives each its root. */
function joinedNets({ inputs, gates, stored, outputs }: Behaviour): (net: string) => string {
  const parent = new Map<string, string>();
  const find = (net: string): string => {
    let at = net;
    // Each net on the way is hung one further up, so that long ways are gone once.
    for (let up = parent.get(at); up !== undefined; up = parent.get(at)) {
      const next = parent.get(up);
      if (next !== undefined) parent.set(at, next);
      at = up;
    }
    return at;
  };
  const join = (a: string, b: string): void => {
    if (a === '0' || a === '1' || b === '0' || b === '1') return;
    const [x, y] = [find(a), find(b)];
    if (x !== y) parent.set(y, x);
  };
  for (const g of gates) for (const net of g.inputs) join(g.output, net);
  for (const s of stored) for (const net of [s.data, s.control, ...s.forces.map((f) => f.net)]) join(s.name, net);
  for (const o of outputs) if (o.floats !== null) join(o.net, o.floats);
  return inputs.length === 0 ? (net) => net : find;
}

/**
 * Whether one part serves in place of another: the same pins at the same places, and units that compute and drive the same. Thresholds,
 * delays and strengths are not compared: those of a 7414 are not a 7404's, and yet it inverts.
 */
export function standsIn(a: PartType, b: PartType): boolean {
  const pins = (type: PartType): string => JSON.stringify(type.pins.map((p) => [p.id, p.role, p.dx, p.dy]));
  const units = (type: PartType): string =>
    JSON.stringify(type.units.map((u) => [u.inputs, u.outputs, u.drives, u.like]));
  return a === b || (pins(a) === pins(b) && units(a) === units(b));
}

/** Which of a unit's analogue switches are closed, row by row of its inputs, the first of them the lowest bit. */
const closedInRows: (unit: Unit) => readonly (readonly boolean[])[] = onceFor(({ machine }: Unit) => {
  const run = new MachineRun(machine);
  return Array.from({ length: 2 ** machine.inputs }, (_, row) => {
    for (let i = 0; i < machine.inputs; i++) run.setInput(i, (row >> i) & 1 ? HIGH : LOW);
    run.settle();
    return machine.outputs.map((_o, o) => run.outputLevel(o) === HIGH);
  });
});

/**
 * The ways in which the analogue switches of a unit can stand together: for each which of its outputs are closed; those with fewer closed first.
 * `tied` has the levels of inputs that never change, by their places; null for others.
 */
export function closingsOf(unit: Unit, tied: readonly (0 | 1 | null)[]): readonly (readonly boolean[])[] {
  const rows = closedInRows(unit).filter((_, row) =>
    tied.every((level, i) => level === null || ((row >> i) & 1) === level),
  );
  const closed = (way: readonly boolean[]): number => way.filter(Boolean).length;
  return [...new Map(rows.map((way) => [way.join(), way])).values()].sort((a, b) => closed(a) - closed(b));
}
