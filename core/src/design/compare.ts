import { elementAt } from '../element-at';
import { type Finding, finding } from '../finding';
import {
  type Behaviour,
  type CellMark,
  cellAt,
  compile,
  evaluateLevels,
  firstDifference,
  inputAt,
  MAX_TABLE_INPUTS,
  slotCount,
  tableOf,
  UNKNOWN,
} from '../logic';

/** One row in which two designs differ: the level of each input, and for each output both cells. */
export interface DifferingRow {
  readonly row: number;
  readonly inputs: readonly number[];
  readonly cells: readonly { readonly output: string; readonly a: CellMark; readonly b: CellMark }[];
}

/**
 * Whether two designs are the same: `inputs` of both by name, the pairs of outputs compared, and the
 * first row that differs, null when none does. Where either does not care, they agree.
 */
export interface Comparison {
  readonly inputs: readonly string[];
  readonly pairs: readonly { readonly a: string; readonly b: string }[];
  readonly rows: number;
  readonly first: DifferingRow | null;
}

/** One side of a comparison: what a design does, and which output of it; all of them when none is named. */
export interface Side {
  readonly behaviour: Behaviour;
  readonly output?: string | undefined;
}

/** Compares two designs, or one output of each, row by row over all inputs of both (up to MAX_TABLE_INPUTS). */
export function compareDesigns(
  one: Side,
  other: Side,
): { comparison: Comparison | null; findings: readonly Finding[] } {
  const [a, b] = [withSignal(one), withSignal(other)];
  const pairs = pairsOf(a, b);
  if ('code' in pairs) return { comparison: null, findings: [pairs] };
  const [left, right] = [
    cut(
      a.behaviour,
      pairs.map((p) => p.a),
    ),
    cut(
      b.behaviour,
      pairs.map((p) => p.b),
    ),
  ];
  const stores = [left, right].find((x) => x.stored.length > 0);
  if (stores) return no(finding('same/stores', [], { name: stores.outputs.map((o) => o.name).join(', ') }));
  const inputs = [...left.inputs, ...right.inputs.filter((n) => !left.inputs.includes(n))];
  if (inputs.length > MAX_TABLE_INPUTS)
    return no(
      finding('same/too-wide', [], { inputs: inputs.length, rows: 2 ** inputs.length, limit: MAX_TABLE_INPUTS }),
    );
  const [x, y] = [tableOf({ ...left, inputs }), tableOf({ ...right, inputs })];
  const row = firstDifference(x, y);
  const first =
    row === null
      ? null
      : {
          row,
          inputs: inputs.map((_, i) => inputAt(inputs.length, i, row)),
          cells: pairs.map((p, o) => ({ output: p.a, a: cellAt(x, o, row), b: cellAt(y, o, row) })),
        };
  return { comparison: { inputs, pairs, rows: x.rows, first }, findings: [] };
}

/** A side whose named signal is an output, whether or not the sheet declares it as one. */
function withSignal(side: Side): Side {
  const alone = side.output === undefined ? null : behaviourOfSignal(side.behaviour, side.output);
  return alone ? { ...side, behaviour: alone } : side;
}

const no = (found: Finding) => ({ comparison: null, findings: [found] });

function pairsOf(a: Side, b: Side): { a: string; b: string }[] | Finding {
  const names = (s: Side): string[] => s.behaviour.outputs.map((o) => o.name);
  for (const side of [a, b])
    if (side.output !== undefined && !names(side).includes(side.output))
      return finding('same/no-signal', [], { name: side.output, names: names(side).join(', ') });
  if (a.output !== undefined || b.output !== undefined) {
    const [x, y] = [a.output ?? b.output, b.output ?? a.output] as [string, string];
    const missing = !names(a).includes(x) ? { side: a, name: x } : !names(b).includes(y) ? { side: b, name: y } : null;
    if (missing) return finding('same/no-signal', [], { name: missing.name, names: names(missing.side).join(', ') });
    return [{ a: x, b: y }];
  }
  const missing = names(a).find((n) => !names(b).includes(n)) ?? names(b).find((n) => !names(a).includes(n));
  if (missing !== undefined) {
    const other = names(a).includes(missing) ? b : a;
    return finding('same/no-signal', [], { name: missing, names: names(other).join(', ') });
  }
  return names(a).map((n) => ({ a: n, b: n }));
}

/** The part of a behaviour that some outputs need, with the inputs it reads. */
function cut(behaviour: Behaviour, outputs: readonly string[]): Behaviour {
  const kept = outputs.map((name) => behaviour.outputs.find((o) => o.name === name) as Behaviour['outputs'][number]);
  const needed = new Set(kept.flatMap((o) => [o.net, o.floats ?? '0', o.dontCare ?? '0']));
  const stored = new Set<string>();
  for (let size = -1; size !== needed.size; ) {
    size = needed.size;
    for (const g of [...behaviour.gates].reverse()) if (needed.has(g.output)) for (const n of g.inputs) needed.add(n);
    for (const s of behaviour.stored) {
      if (!needed.has(s.name)) continue;
      stored.add(s.name);
      for (const n of [s.data, s.control, ...s.forces.map((f) => f.net)]) needed.add(n);
    }
  }
  return {
    inputs: behaviour.inputs.filter((n) => needed.has(n)),
    gates: behaviour.gates.filter((g) => needed.has(g.output)),
    stored: behaviour.stored.filter((s) => stored.has(s.name)),
    outputs: kept,
  };
}

/** The behaviour with a named signal as its only output, for comparing signals that are none. */
export function behaviourOfSignal(behaviour: Behaviour, name: string): Behaviour | null {
  const output = behaviour.outputs.find((o) => o.name === name);
  if (output) return { ...behaviour, outputs: [output] };
  const made = behaviour.gates.some((g) => g.output === name) || behaviour.inputs.includes(name);
  if (!made) return null;
  return { ...behaviour, outputs: [{ name, net: name, floats: null, open: false, dontCare: null }] };
}

/** The levels of the nets in one row of a design that stores nothing, by net; a net that floats has none. */
export function levelsInRow(behaviour: Behaviour, row: number): ReadonlyMap<string, 0 | 1> {
  const { inputs, gates } = behaviour;
  const nets = gates.map((g) => g.output);
  const levels = new Map<string, 0 | 1>(inputs.map((n, i) => [n, inputAt(inputs.length, i, row)]));
  const program = compile({ inputs, gates, outputs: nets });
  const slots = new Uint8Array(slotCount(program));
  inputs.forEach((n, i) => {
    slots[2 + i] = levels.get(n) as number;
  });
  evaluateLevels(program, slots);
  nets.forEach((net, i) => {
    const level = elementAt(slots, elementAt(program.outputs, i));
    if (level !== UNKNOWN) levels.set(net, level as 0 | 1);
  });
  return levels;
}
