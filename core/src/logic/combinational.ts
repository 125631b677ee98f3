import { coneOf } from './cone';
import type { Behaviour, MachineOutput } from './machine';

/**
 * What of a design follows from its inputs alone: the outputs that nothing stored reaches, with the gates and inputs that they hang on. The design
 * itself where it stores nothing; null where every output hangs on what is stored.
 */
export function combinationalPart(behaviour: Behaviour): Behaviour | null {
  const { inputs, gates, stored, outputs } = behaviour;
  if (stored.length === 0) return behaviour;
  const kept = new Set(stored.map((s) => s.name));
  const netsOf = ({ net, floats, dontCare }: MachineOutput): string[] =>
    [net, floats, dontCare].flatMap((n) => n ?? []);
  const free = outputs.filter((output) => [...coneOf(gates, netsOf(output))].every((net) => !kept.has(net)));
  if (free.length === 0) return null;
  const cone = coneOf(gates, free.flatMap(netsOf));
  return {
    inputs: inputs.filter((name) => cone.has(name)),
    gates: gates.filter((gate) => cone.has(gate.output)),
    stored: [],
    outputs: free,
  };
}
