import { opcode, type Program, slotCount } from './program';

/** What is used of WebAssembly, which is no part of the language's own library. */
interface Engine {
  readonly Module: new (bytes: Uint8Array) => object;
  readonly Instance: new (
    module: object,
  ) => { readonly exports: { readonly memory: { readonly buffer: ArrayBuffer }; run(from: number, to: number): void } };
}

/** Inputs from which a table is worth a module of its own, which takes some milliseconds to build. */
const LEAST_INPUTS = 15;
/** Values a module may hold: engines allow 50,000 locals in a function. */
const MOST_SLOTS = 40_000;
/** Blocks of 128 rows that are filled in one call: an engine goes over to its faster code between calls. */
const CALL = 64;
/** A memory grows by pages of so many bytes. */
const PAGE = 65_536;

/**
 * Fills the columns of a program's whole table by WebAssembly compiled for it: straight-line code over 128 rows at once. Null where the table
 * is too small to be worth it, the program too large, or the engine has no such instructions; then `sweep` does it word by word.
 */
export function compiledSweep(program: Program): readonly Int32Array[] | null {
  const engine = (globalThis as unknown as { readonly WebAssembly?: Engine }).WebAssembly;
  if (!engine || program.inputs < LEAST_INPUTS || slotCount(program) > MOST_SLOTS) return null;
  try {
    const { memory, run } = new engine.Instance(new engine.Module(moduleOf(program))).exports;
    const blocks = 2 ** (program.inputs - 7);
    for (let from = 0; from < blocks; from += CALL) run(from, Math.min(blocks, from + CALL));
    return Array.from(program.outputs, (_, o) => new Int32Array(memory.buffer, o * 16 * blocks, 4 * blocks));
  } catch {
    return null;
  }
}

/** Instructions and types by the numbers that they have in a module. Source: WebAssembly Core Specification 2.0, 5.4. */
const I32 = 0x7f;
const V128 = 0x7b;
const op = {
  loop: [0x03, 0x40],
  end: 0x0b,
  branchIf: [0x0d, 0],
  get: 0x20,
  set: 0x21,
  tee: 0x22,
  i32Const: 0x41,
  lessThan: 0x49,
  add: 0x6a,
  subtract: 0x6b,
  and: 0x71,
  shiftLeft: 0x74,
  shiftRight: 0x76,
} as const;
const vector = {
  store: [0xfd, 0x0b],
  constant: [0xfd, 0x0c],
  splat: [0xfd, 0x11],
  not: [0xfd, 0x4d],
  and: [0xfd, 0x4e],
  or: [0xfd, 0x50],
  xor: [0xfd, 0x51],
} as const;

/** A number as a module writes it: seven bits a byte, low ones first. */
function unsigned(value: number): number[] {
  const bytes: number[] = [];
  let rest = value;
  do {
    const low = rest & 127;
    rest >>>= 7;
    bytes.push(rest === 0 ? low : low | 128);
  } while (rest !== 0);
  return bytes;
}

/** A small number that is not negative, as a signed one is written: its last byte has bit 6 clear. */
function small(value: number): number[] {
  const bytes = unsigned(value);
  const last = bytes.length - 1;
  if (((bytes[last] as number) & 64) === 0) return bytes;
  bytes[last] = (bytes[last] as number) | 128;
  return [...bytes, 0];
}

const section = (id: number, content: readonly number[]): number[] => [id, ...unsigned(content.length), ...content];
const text = (name: string): number[] => [name.length, ...Array.from(name, (c) => c.charCodeAt(0))];

/** The rows of a block in which its `bit` is 1, as sixteen bytes. */
function pattern(bit: number): number[] {
  return Array.from({ length: 16 }, (_, byte) => {
    let bits = 0;
    for (let k = 0; k < 8; k++) bits |= (((8 * byte + k) >> bit) & 1) << k;
    return bits;
  });
}

/** A module that exports `memory`, which holds the columns one after the other, and `run(from, to)`, which fills blocks of 128 rows. */
function moduleOf(program: Program): Uint8Array {
  const blocks = 2 ** (program.inputs - 7);
  const pages = Math.ceil((program.outputs.length * 16 * blocks) / PAGE);
  const body = bodyOf(program, blocks);
  const code = [...unsigned(body.length)];
  const parts: (readonly number[])[] = [
    [0x00, 0x61, 0x73, 0x6d, 1, 0, 0, 0],
    section(1, [1, 0x60, 2, I32, I32, 0]),
    section(3, [1, 0]),
    section(5, [1, 0, ...unsigned(Math.max(1, pages))]),
    section(7, [2, ...text('memory'), 2, 0, ...text('run'), 0, 0]),
    [10, ...unsigned(1 + code.length + body.length), 1, ...code],
    body,
  ];
  return Uint8Array.from(parts.flat());
}

/** The function: its first two locals are where it begins and ends, the others the program's slots. */
function bodyOf(program: Program, blocks: number): number[] {
  const { inputs, code, outputs } = program;
  const local = (slot: number): number[] => unsigned(2 + slot);
  const bytes: number[] = [1, ...unsigned(slotCount(program)), V128];
  const emit = (...more: readonly number[]): void => {
    for (const byte of more) bytes.push(byte);
  };
  const get = (slot: number): void => emit(op.get, ...local(slot));
  const set = (slot: number): void => emit(op.set, ...local(slot));
  emit(...vector.constant, ...new Array<number>(16).fill(255));
  set(1);
  // The last seven inputs change within a block, each always in the same way.
  for (let bit = 0; bit < 7; bit++) {
    emit(...vector.constant, ...pattern(bit));
    set(2 + inputs - 1 - bit);
  }
  emit(...op.loop);
  for (let bit = 7; bit < inputs; bit++) {
    emit(op.i32Const, 0, op.get, 0, op.i32Const, ...small(bit - 7), op.shiftRight, op.i32Const, 1, op.and, op.subtract);
    emit(...vector.splat);
    set(2 + inputs - 1 - bit);
  }
  let out = 2 + inputs;
  for (let p = 0; p < code.length; out++) {
    const kind = code[p] as number;
    const end = p + 2 + (code[p + 1] as number);
    gate(
      kind,
      Array.from(code.subarray(p + 2, end), (slot) => [op.get, ...local(slot)]),
      emit,
    );
    set(out);
    p = end;
  }
  outputs.forEach((slot, o) => {
    emit(op.get, 0, op.i32Const, 4, op.shiftLeft);
    get(slot);
    emit(...vector.store, 4, ...unsigned(o * 16 * blocks));
  });
  emit(op.get, 0, op.i32Const, 1, op.add, op.tee, 0, op.get, 1, op.lessThan, ...op.branchIf, op.end, op.end);
  return bytes;
}

/** How two values are gathered, by opcode, and whether the whole is then turned over. */
const gathers: Readonly<Record<number, readonly number[]>> = {
  [opcode.not]: vector.and,
  [opcode.and]: vector.and,
  [opcode.nand]: vector.and,
  [opcode.or]: vector.or,
  [opcode.nor]: vector.or,
  [opcode.xor]: vector.xor,
  [opcode.xnor]: vector.xor,
};
const inverts: ReadonlySet<number> = new Set([opcode.not, opcode.nand, opcode.nor, opcode.xnor]);

function gate(kind: number, reads: readonly (readonly number[])[], emit: (...bytes: readonly number[]) => void): void {
  if (kind === opcode.wire) {
    // Pairs of a value and whether it is driven; high where one is driven high.
    reads.forEach((read, i) => {
      emit(...read);
      if (i % 2 === 1) emit(...vector.and);
      if (i % 2 === 1 && i > 1) emit(...vector.or);
    });
    return;
  }
  reads.forEach((read, i) => {
    emit(...read);
    if (i > 0) emit(...(gathers[kind] ?? vector.and));
  });
  if (inverts.has(kind)) emit(...vector.not);
}
