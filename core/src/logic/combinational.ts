import type { Behaviour, MachineOutput } from './machine';

/**
 * What of a design follows from its inputs alone: the outputs that nothing stored reaches, with the gates and inputs that they hang on. The design
 * itself where it stores nothing; null where every output hangs on what is stored.
 */
export function combinationalPart(behaviour: Behaviour): Behaviour | null {
  const { inputs, gates, stored, outputs } = behaviour;
  if (stored.length === 0) return behaviour;
  const sources = new Map(gates.map((gate) => [gate.output, gate.inputs]));
  const kept = new Set(stored.map((s) => s.name));
  const netsOf = ({ net, floats, dontCare }: MachineOutput): string[] =>
    [net, floats, dontCare].flatMap((n) => n ?? []);
  const coneOf = (roots: readonly string[]): ReadonlySet<string> => {
    const cone = new Set(roots);
    for (const net of cone) for (const source of sources.get(net) ?? []) cone.add(source);
    return cone;
  };
  const free = outputs.filter((output) => [...coneOf(netsOf(output))].every((net) => !kept.has(net)));
  if (free.length === 0) return null;
  const cone = coneOf(free.flatMap(netsOf));
  return {
    inputs: inputs.filter((name) => cone.has(name)),
    gates: gates.filter((gate) => cone.has(gate.output)),
    stored: [],
    outputs: free,
  };
}
