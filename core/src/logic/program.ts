import type { GateKind } from './expression';

/**
 * What a compiled program can compute: gates, and `wire`, a net that three-state outputs share. A wire's
 * inputs are pairs of a value and whether it is driven.
 */
export type Operation = GateKind | 'wire';

/** Numbers that operations have in a compiled program. */
export const opcode: Readonly<Record<Operation, number>> = {
  not: 0,
  and: 1,
  or: 2,
  xor: 3,
  nand: 4,
  nor: 5,
  xnor: 6,
  wire: 7,
};

/**
 * A combinational network lowered to flat arrays. Values live in slots: slot 0 is constant 0, slot 1
 * constant 1, slots 2 to 2 + inputs - 1 the inputs, and then one slot a gate in the order of `code`.
 * `code` holds, gate after gate: opcode, number of inputs, then the slot of each input, all of them
 * slots filled before. `outputs` lists the slot of each output.
 */
export interface Program {
  readonly inputs: number;
  readonly gates: number;
  readonly code: Int32Array;
  readonly outputs: Int32Array;
}

/** A network by names, gates in topological order; the nets `0` and `1` are the constants. */
export interface Network {
  readonly inputs: readonly string[];
  readonly gates: readonly { readonly output: string; readonly kind: Operation; readonly inputs: readonly string[] }[];
  readonly outputs: readonly string[];
}

/**
 * Lowers a network. Throws if a gate reads a net that is neither an input nor the output of an
 * earlier gate: networks come checked.
 */
export function compile(network: Network): Program {
  const slots = new Map<string, number>([
    ['0', 0],
    ['1', 1],
  ]);
  for (const name of network.inputs) slots.set(name, slots.size);
  const slotOf = (name: string): number => {
    const slot = slots.get(name);
    if (slot === undefined) throw new Error(`net ${name} is read before it is made`);
    return slot;
  };
  const code: number[] = [];
  for (const gate of network.gates) {
    code.push(opcode[gate.kind], gate.inputs.length, ...gate.inputs.map(slotOf));
    slots.set(gate.output, slots.size);
  }
  return {
    inputs: network.inputs.length,
    gates: network.gates.length,
    code: Int32Array.from(code),
    outputs: Int32Array.from(network.outputs.map(slotOf)),
  };
}

/** Slots a program needs for its values. */
export function slotCount(program: Program): number {
  return 2 + program.inputs + program.gates;
}

/**
 * Evaluates many rows at once: each slot is an array of words, bit k of word w its value in row 32w + k.
 * The caller has filled the constants and inputs; the gates are filled here. A wire is high where an
 * output drives it high; where none drives it, or two disagree, `evaluateLevels` knows more.
 */
export function evaluateBlock({ code, inputs }: Program, slots: readonly Int32Array[]): void {
  let out = 2 + inputs;
  for (let p = 0; p < code.length; out++) {
    const op = code[p] as number;
    const first = p + 2;
    p = first + (code[p + 1] as number);
    const v = slots[out] as Int32Array;
    const at = (q: number): Int32Array => slots[code[q] as number] as Int32Array;
    if (op === 7) wiredBlock(code, slots, v, first, p);
    else {
      const gather = gathering[op] as Gathering;
      let q = first + 1;
      if (p - first === 1) v.set(at(first));
      else if (p - first === 2) gather.two(v, at(first), at(q++));
      else if (p - first === 3) gather.two(v, at(first), at(q++));
      else gather.four(v, at(first), at(q++), at(q++), at(q++));
      for (; p - q > 2; q += 3) gather.four(v, v, at(q), at(q + 1), at(q + 2));
      for (; q < p; q++) gather.two(v, v, at(q));
      if (op === 0 || op > 3) rotation(v);
    }
  }
}

/** Loops over words that gather two inputs, or four, into a gate: one function each, so that each is compiled for what it does. */
interface Gathering {
  readonly two: (v: Int32Array, a: Int32Array, b: Int32Array) => void;
  readonly four: (v: Int32Array, a: Int32Array, b: Int32Array, c: Int32Array, d: Int32Array) => void;
}

const both: Gathering = {
  two: (v, a, b) => {
    const n = v.length;
    for (let w = 0; w < n; w++) v[w] = (a[w] as number) & (b[w] as number);
  },
  four: (v, a, b, c, d) => {
    const n = v.length;
    for (let w = 0; w < n; w++) v[w] = (a[w] as number) & (b[w] as number) & (c[w] as number) & (d[w] as number);
  },
};

const either: Gathering = {
  two: (v, a, b) => {
    const n = v.length;
    for (let w = 0; w < n; w++) v[w] = (a[w] as number) | (b[w] as number);
  },
  four: (v, a, b, c, d) => {
    const n = v.length;
    for (let w = 0; w < n; w++) v[w] = (a[w] as number) | (b[w] as number) | (c[w] as number) | (d[w] as number);
  },
};

const odd: Gathering = {
  two: (v, a, b) => {
    const n = v.length;
    for (let w = 0; w < n; w++) v[w] = (a[w] as number) ^ (b[w] as number);
  },
  four: (v, a, b, c, d) => {
    const n = v.length;
    for (let w = 0; w < n; w++) v[w] = (a[w] as number) ^ (b[w] as number) ^ (c[w] as number) ^ (d[w] as number);
  },
};

function rotation(v: Int32Array): void {
  const n = v.length;
  for (let w = 0; w < n; w++) v[w] = ~(v[w] as number);
}

/** How inputs are gathered, by opcode. */
const gathering = [both, both, either, odd, both, either, odd];

function wiredBlock(code: Int32Array, slots: readonly Int32Array[], v: Int32Array, from: number, end: number): void {
  v.fill(0);
  for (let q = from; q < end; q += 2) {
    const [value, drives] = [slots[code[q] as number] as Int32Array, slots[code[q + 1] as number] as Int32Array];
    for (let w = 0; w < v.length; w++) (v[w] as number) |= (value[w] as number) & (drives[w] as number);
  }
}

/** Levels as numbers: low, high, unknown. */
export const LOW = 0;
/** The level high. */
export const HIGH = 1;
/** The level of a net of which nobody knows which of the two it has. */
export const UNKNOWN = 2;

/**
 * Evaluates one row with unknowns (Kleene's strong three-valued logic: an AND with a low input is low
 * whatever the others are). Slots hold LOW, HIGH or UNKNOWN; input slots are filled by the caller.
 */
export function evaluateLevels(program: Program, slots: Uint8Array): void {
  const { code } = program;
  slots[0] = LOW;
  slots[1] = HIGH;
  let out = 2 + program.inputs;
  for (let p = 0; p < code.length; out++) {
    const op = code[p] as number;
    const end = p + 2 + (code[p + 1] as number);
    let v: number;
    if (op === 7) v = wired(code, slots, p + 2, end);
    else {
      v = op === 3 || op === 6 ? parity(code, slots, p + 2, end) : gathered(code, slots, p + 2, end, op);
      if ((op === 0 || op > 3) && v !== UNKNOWN) v = 1 - v;
    }
    slots[out] = v;
    p = end;
  }
}

/** Kleene conjunction for AND and NAND, disjunction for OR, NOR and (of one input) NOT. */
function gathered(code: Int32Array, slots: Uint8Array, from: number, end: number, op: number): number {
  const forcing = op === 1 || op === 4 ? LOW : HIGH;
  let v = 1 - forcing;
  for (let q = from; q < end; q++) {
    const x = slots[code[q] as number] as number;
    if (x === forcing) return forcing;
    if (x === UNKNOWN) v = UNKNOWN;
  }
  return v;
}

function parity(code: Int32Array, slots: Uint8Array, from: number, end: number): number {
  let v = 0;
  for (let q = from; q < end; q++) {
    const x = slots[code[q] as number] as number;
    if (x === UNKNOWN) return UNKNOWN;
    v ^= x;
  }
  return v;
}

/** The level of a shared net: unknown where nothing drives it, where that is unknown, or where two disagree. */
function wired(code: Int32Array, slots: Uint8Array, from: number, end: number): number {
  let v = -1;
  for (let q = from; q < end; q += 2) {
    const drives = slots[code[q + 1] as number] as number;
    if (drives === LOW) continue;
    const level = drives === HIGH ? (slots[code[q] as number] as number) : UNKNOWN;
    v = v === -1 || v === level ? level : UNKNOWN;
  }
  return v === -1 ? UNKNOWN : v;
}
