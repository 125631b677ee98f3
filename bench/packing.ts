/** Packing by functions against one to one, on seeded random networks and on the classic small designs, in one run. */
import { anySupplies, type Netlist, packWay, readDesign } from '@saddlebag/core';
import { highsSolver } from '@saddlebag/core/solver';

const solve = highsSolver();

/** A random network: gates that read mostly what was made last; what nothing reads is an output. */
export function randomNetwork(gates: number, inputs: number, seed: number): string {
  let state = Math.imul(seed, 0x9e3779b1) >>> 0 || 1;
  const draw = (n: number): number => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    state >>>= 0;
    return state % n;
  };
  const names = Array.from({ length: inputs }, (_, i) => `I${i}`);
  const read = new Set<string>();
  const kinds = ['and', 'or', 'nand', 'nor', 'xor', 'not', 'and', 'nand'];
  const lines = Array.from({ length: gates }, (_, g) => {
    const kind = kinds[draw(kinds.length)] as string;
    const width = kind === 'not' ? 1 : kind === 'xor' ? 2 : 2 + (draw(3) === 0 ? 1 : 0);
    const of = new Set<string>();
    while (of.size < width) of.add(names[Math.max(0, names.length - 1 - draw(Math.min(names.length, 14)))] as string);
    for (const x of of) read.add(x);
    names.push(`g${g}`);
    return `g${g} = ${kind}(${[...of].join(', ')})`;
  });
  const outputs = names.slice(inputs).filter((n) => !read.has(n));
  return `in ${names.slice(0, inputs).join(' ')}\nout ${outputs.join(' ')}\n${lines.join('\n')}`;
}

const netlistOf = (text: string): Netlist => readDesign(text).design.netlist as Netlist;

/** One to one and by functions: packages of both, how sure, seconds of both. */
async function compare(name: string, text: string, seconds: number): Promise<void> {
  const netlist = netlistOf(text);
  const start = performance.now();
  const plain = (await packWay(netlist, 'HC', 'written', anySupplies, solve)).packing;
  const middle = performance.now();
  const fewest = (await packWay(netlist, 'HC', 'fewest', anySupplies, solve, seconds)).packing;
  const end = performance.now();
  const [a, b] = [plain?.packages.length ?? 0, fewest?.packages.length ?? 0];
  const took = `${((middle - start) / 1000).toFixed(2)} s and ${((end - middle) / 1000).toFixed(1)} s`;
  console.log(
    `${name}: ${b} of ${a} packages, ${(b / a).toFixed(2)} x; ${fewest?.sure}, bound ${fewest?.bound}; ${took}`,
  );
}

export async function benchPacking(): Promise<void> {
  console.log('packing by functions against one to one');
  const adder = 'in A B C D\nout S T U\nT = B ^ D\nc = B & D\nS = A ^ C ^ c\nU = A & C | c & (A | C)';
  const product = 'in A B C D\nout P Q R S\nS = B & D\nR = (A & D) ^ (B & C)\nQ = A & C & ~(B & D)\nP = A & B & C & D';
  await compare('2-bit adder', adder, 5);
  await compare('2x2-bit multiplier', product, 5);
  for (const [gates, inputs, seconds] of [
    [20, 7, 4],
    [40, 9, 8],
    [80, 10, 15],
    [160, 10, 15],
  ] as const)
    for (const seed of gates > 40 ? [1] : [1, 2, 3])
      await compare(`${gates} gates, seed ${seed}`, randomNetwork(gates, inputs, seed), seconds);
}
