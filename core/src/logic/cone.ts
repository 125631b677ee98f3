/** All nets that some nets hang on through gates, these nets included: the cones of logic behind them. */
export function coneOf(
  gates: readonly { readonly output: string; readonly inputs: readonly string[] }[],
  nets: Iterable<string>,
): ReadonlySet<string> {
  const sources = new Map(gates.map((gate) => [gate.output, gate.inputs]));
  const cone = new Set(nets);
  // A set is gone through in the order in which it grows.
  for (const net of cone) for (const source of sources.get(net) ?? []) cone.add(source);
  return cone;
}
