import type { Unit } from '../catalogue';
import { elementAt } from '../element-at';
import type { Network } from '../logic';

/** A gate of a network whose inputs and output are named nets. */
export type PlainGate = Network['gates'][number];

/** Whether a unit is logic alone with one output that always drives it: what a packing chooses by itself. */
export function isPlain(unit: Unit): boolean {
  return unit.behaviour.stored.length === 0 && unit.outputs.length === 1 && unit.drives[0] === 'push-pull';
}

/** The nets of all that a unit's behaviour reads: of its pins, then low for what ends the pulses of its one-shots and is no pin. */
export function netsRead({ behaviour }: Unit, { inputs }: { readonly inputs: readonly string[] }): string[] {
  return behaviour.inputs.map((_, i) => inputs[i] ?? '0');
}

/** A unit's own gates between given nets; nets inside it are named with a prefix. */
export function gatesOfUnit(
  unit: Unit,
  inputs: readonly string[],
  outputs: readonly string[],
  prefix: string,
): PlainGate[] {
  const { behaviour } = unit;
  const nets = new Map<string, string>([
    ['0', '0'],
    ['1', '1'],
    ...behaviour.inputs.map((n, i): [string, string] => [n, elementAt(inputs, i)]),
  ]);
  const of = (net: string): string => nets.get(net) ?? prefix + net;
  const gates: PlainGate[] = behaviour.gates.map((g) => ({ ...g, output: of(g.output), inputs: g.inputs.map(of) }));
  const ends = behaviour.outputs.map(
    (o, k): PlainGate => ({
      output: elementAt(outputs, k),
      // A single-input OR is a wire.
      kind: 'or',
      inputs: [of(o.net), of(o.net)],
    }),
  );
  return [...gates, ...ends];
}
