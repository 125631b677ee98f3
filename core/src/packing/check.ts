import { benchParts, typeOf } from '../catalogue';
import { type Netlist, networkOf } from '../design';
import { elementAt } from '../element-at';
import { addRow, compile, evaluateBlock, type Program, slotCount, sweep } from '../logic';
import { type End, gatesBesideStored, storedEnds } from './check-stored';
import { withDriversLowered } from './lower';
import { drivenBy, isLogic, type Packing } from './packing';
import { gatesOfUnit, type PlainGate } from './unit-gates';

/** Up to so many sources a packing is checked in all rows; beyond, in ROWS rows drawn by a seed. */
const MAX_ALL_ROWS = 20;
const ROWS = 1 << 17;

/**
 * Whether a packing computes the design: every output, everything that a shared wire or a used part reads, and of what is stored the clock, the forces and
 * the value taken, in all rows of up to `maxAllRows` sources, and beyond in 131,072 rows drawn by a seed. What cells
 * make counts as a source on both sides; rows that matter to no output are left out. Gives what is wrong, in words for a programmer; null when all is well.
 */
export function whatIsWrong(design: Netlist, packing: Packing, maxAllRows = MAX_ALL_ROWS): string | null {
  const netlist = withDriversLowered(design);
  const wanted = networkOf(netlist);
  const gates = gatesOf(packing, new Set(wanted.inputs), storedNets(netlist));
  if (typeof gates === 'string') return gates;
  const stored = storedEnds(netlist, packing);
  if (typeof stored === 'string') return stored;
  const ends: End[] = netlist.outputs.map(({ name, net }) => ({
    what: `output ${name}`,
    wanted: net,
    made: packing.outputs.find((o) => o.name === name)?.net,
  }));
  for (const cell of netlist.cells) {
    if (cell.kind !== 'part') continue;
    const pack = packing.packages.find((p) => p.units.some((u) => u?.gate === cell.ref));
    const type = pack && typeOf(pack);
    for (const { pin, net } of cell.inputs) {
      const id = type?.pins.find((p) => p.name === pin)?.id;
      const made = pack?.units.flatMap((use, u) => {
        const k = type?.units[u]?.inputs.indexOf(id ?? '') ?? -1;
        return use && k >= 0 ? [use.inputs[k]] : [];
      })[0];
      ends.push({ what: `${cell.ref}.${pin}`, wanted: net, made });
    }
  }
  ends.push(...stored.ends);
  const missing = ends.find((e) => e.made === undefined);
  if (missing) return `${missing.what} is not made`;
  const made = [...gates, ...stored.ofPacking];
  const unknown = unmade(
    made,
    wanted.inputs,
    ends.map((e) => e.made as string),
  );
  if (unknown !== null) return `${unknown} is read and not made`;
  const networks = [
    { ...wanted, gates: [...wanted.gates, ...stored.ofDesign], outputs: ends.map((e) => e.wanted) },
    { inputs: wanted.inputs, gates: made, outputs: ends.map((e) => e.made as string) },
  ];
  const [a, b] = networks.map((n) => columnsOf(compile(n), wanted.inputs.length, maxAllRows)) as [
    Int32Array[],
    Int32Array[],
  ];
  const free = new Int32Array(a[0]?.length ?? 0);
  for (const row of netlist.unused?.rows ?? []) addRow(free, row);
  const differs = (i: number): boolean =>
    elementAt(a, i).some((w, k) => ((w ^ elementAt(elementAt(b, i), k)) & ~elementAt(free, k)) !== 0);
  const wrong = ends.findIndex((_, i) => differs(i));
  return wrong < 0 ? null : `${ends[wrong]?.what} has another function`;
}

/**
 * Whether a packing holds together by itself, whatever the design: parts that are known, each reference, input and output once, units with
 * the pins of their parts, each net made once, none depending on itself, and nothing read that is not made. Gives what is wrong, in words
 * that complete "the packing is left out, because"; null when all is well.
 */
export function whatIsUnsound(packing: Packing): string | null {
  const again = [
    repeated(packing.packages.map((p) => p.ref)),
    repeated(packing.inputs),
    repeated(packing.outputs.map((o) => o.name)),
  ].find((name) => name !== undefined);
  if (again !== undefined) return `${again} stands in it twice`;
  const taken = packing.packages.find(({ ref }) => otherPrefixes.has(ref.replace(/\d+$/, '')));
  if (taken) return `a package is called ${taken.ref}, as parts are that are no chips`;
  const sources = new Set(packing.inputs);
  for (const { units, ...named } of packing.packages)
    for (const [u, use] of units.entries()) {
      const unit = typeOf(named)?.units[u];
      if (!unit || !use) continue;
      const own = drivenBy(use);
      if (own.some((net) => sources.has(net) && packing.inputs.includes(net))) return `${use.output} is an input`;
      if (!isLogic(unit, use)) for (const net of own) sources.add(net);
    }
  const gates = gatesOf(packing, sources);
  if (typeof gates === 'string') return gates;
  const read = packing.packages.flatMap((p) => p.units.flatMap((use) => use?.inputs ?? []));
  const ends = [...read, ...packing.outputs.map((o) => o.net)];
  const lost = unmade(gates, [...sources], ends);
  return lost === null ? null : `${lost} is read and not made`;
}

/** What references of parts begin with that are no chips: a plan seats such parts by these, beside the packages. */
const otherPrefixes: ReadonlySet<string> = new Set(benchParts.map((part) => part.prefix));

function repeated(names: readonly string[]): string | undefined {
  const seen = new Set<string>();
  return names.find((name) => seen.size === seen.add(name).size);
}

const storedNets = ({ cells }: Netlist): ReadonlySet<string> =>
  new Set(cells.flatMap((cell) => (cell.kind === 'stored' ? [cell.output] : [])));

/**
 * The gates of all units without memory, and those inside units that store signals of `stored`, sorted; a sentence when they form a loop or break a law of
 * packages.
 */
export function gatesOf(
  packing: Packing,
  sources: ReadonlySet<string>,
  stored: ReadonlySet<string> = new Set(),
): PlainGate[] | string {
  const waiting: PlainGate[] = [];
  const driven = new Set<string>();
  for (const { units, ...named } of packing.packages) {
    const type = typeOf(named);
    if (!type) return `there is no part ${named.part}`;
    if (units.length !== type.units.length) return `${named.ref} has not ${units.length} units`;
    for (const [u, use] of units.entries()) {
      const unit = elementAt(type.units, u);
      if (!use) continue;
      if (use.inputs.length !== unit.inputs.length || drivenBy(use).length !== unit.outputs.length)
        return `unit ${unit.name} of ${named.ref} has other pins`;
      for (const [k, net] of drivenBy(use).entries()) {
        const shared = unit.drives[k] !== 'push-pull';
        if (net === '0' || net === '1' || (driven.has(net) && !shared)) return `${net} is driven twice`;
        driven.add(net);
      }
      const prefix = `${named.ref}.${unit.name}/`;
      if (drivenBy(use).some((net) => stored.has(net))) waiting.push(...gatesBesideStored(unit, use, prefix, stored));
      if (drivenBy(use).some((net) => sources.has(net))) continue;
      if (unit.behaviour.stored.length > 0) return `${named.ref} unit ${unit.name} stores what the design does not`;
      waiting.push(...gatesOfUnit(unit, use.inputs, drivenBy(use), prefix));
    }
  }
  return sorted(waiting, sources);
}

function sorted(gates: readonly PlainGate[], sources: ReadonlySet<string>): PlainGate[] | string {
  const maker = new Map(gates.map((g) => [g.output, g]));
  const done = new Set<string>(['0', '1', ...sources]);
  const list: PlainGate[] = [];
  for (const start of gates) {
    const todo: { gate: PlainGate; next: number }[] = done.has(start.output) ? [] : [{ gate: start, next: 0 }];
    const onPath = new Set([start.output]);
    while (todo.length > 0) {
      const top = elementAt(todo, todo.length - 1);
      const input = top.gate.inputs[top.next++];
      if (input === undefined) {
        todo.pop();
        onPath.delete(top.gate.output);
        if (!done.has(top.gate.output)) list.push(top.gate);
        done.add(top.gate.output);
        continue;
      }
      const below = maker.get(input);
      if (done.has(input) || !below) continue;
      if (onPath.has(input)) return `${input} depends on itself`;
      onPath.add(input);
      todo.push({ gate: below, next: 0 });
    }
  }
  return list;
}

function unmade(gates: readonly PlainGate[], inputs: readonly string[], ends: readonly string[]): string | null {
  const known = new Set(['0', '1', ...inputs, ...gates.map((g) => g.output)]);
  return [...gates.flatMap((g) => g.inputs), ...ends].find((n) => !known.has(n)) ?? null;
}

/** The columns of a program's outputs: all rows, or as many drawn ones as are checked. */
function columnsOf(program: Program, inputs: number, maxAllRows: number): Int32Array[] {
  if (inputs <= maxAllRows) return [...sweep(program).columns];
  const words = 512;
  const slots = Array.from({ length: slotCount(program) }, () => new Int32Array(words));
  elementAt(slots, 1).fill(-1);
  const columns = [...program.outputs].map(() => new Int32Array(ROWS >> 5));
  let seed = 0x2545f491;
  for (let at = 0; at < ROWS >> 5; at += words) {
    for (let i = 0; i < inputs; i++) {
      const slot = elementAt(slots, 2 + i);
      for (let w = 0; w < words; w++) {
        seed ^= seed << 13;
        seed ^= seed >>> 17;
        seed ^= seed << 5;
        slot[w] = seed;
      }
    }
    evaluateBlock(program, slots);
    for (const [o, slot] of program.outputs.entries()) columns[o]?.set(elementAt(slots, slot), at);
  }
  return columns;
}
