/** Packing by functions against one to one, on seeded random networks and on the classic small designs, in one run. */
import {
  anySupplies,
  blockNumbers,
  choosable,
  elementAt,
  type Netlist,
  type PackProgress,
  packByStrategy,
  readDesign,
  type Supplies,
} from '@saddlebag/core';
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
    const kind = elementAt(kinds, draw(kinds.length));
    const width = kind === 'not' ? 1 : kind === 'xor' ? 2 : 2 + (draw(3) === 0 ? 1 : 0);
    const of = new Set<string>();
    while (of.size < width) of.add(elementAt(names, Math.max(0, names.length - 1 - draw(Math.min(names.length, 14)))));
    for (const x of of) read.add(x);
    names.push(`g${g}`);
    return `g${g} = ${kind}(${[...of].join(', ')})`;
  });
  const outputs = names.slice(inputs).filter((n) => !read.has(n));
  return `in ${names.slice(0, inputs).join(' ')}\nout ${outputs.join(' ')}\n${lines.join('\n')}`;
}

const netlistOf = (text: string): Netlist => readDesign(text).design.netlist as Netlist;

/** The gate chips with which true minima are known. */
const classic = '7400 7402 7404 7408 7410 7411 7420 7427 7432 7451 7486'.split(' ');
const classicOnly: Supplies = {
  ...anySupplies,
  excluded: [...choosable, ...blockNumbers].filter((n) => !classic.includes(n)),
};

/** Two numbers of some bits added, carry by carry. */
function adder(bits: number): string {
  const each = (name: string): string => Array.from({ length: bits }, (_, i) => `${name}${i}`).join(' ');
  const lines = Array.from({ length: bits }, (_, i) =>
    i === 0
      ? 'S0 = A0 ^ B0\nc1 = A0 & B0'
      : `S${i} = A${i} ^ B${i} ^ c${i}\nc${i + 1} = A${i} & B${i} | c${i} & (A${i} ^ B${i})`,
  );
  return `in ${each('A')} ${each('B')}\nout ${each('S')} C\n${lines.join('\n')}\nC = c${bits}`;
}

const segments = '1011011111 1111100111 1101111111 1011011011 1010001010 1000111011 0011111011'.split(' ');
const designs: Readonly<Record<string, string>> = {
  'half adder': 'in A B\nout S C\nS = A ^ B\nC = A & B',
  '1-bit comparator': 'in A B\nout G E L\nG = A & ~B\nE = ~(A ^ B)\nL = ~A & B',
  'full adder': 'in A B C\nout S D\nS = A ^ B ^ C\nD = A & B | A & C | B & C',
  '2-bit adder': 'in A B C D\nout S T U\nT = B ^ D\nc = B & D\nS = A ^ C ^ c\nU = A & C | c & (A | C)',
  '2-bit comparator': 'in A B C D\nout G E L\nG = A & ~C | ~(A ^ C) & B & ~D\nE = ~(A ^ C) & ~(B ^ D)\nL = ~(G | E)',
  '2x2-bit multiplier':
    'in A B C D\nout P Q R S\nS = B & D\nR = (A & D) ^ (B & C)\nQ = A & C & ~(B & D)\nP = A & B & C & D',
  'majority of five, from its ten products':
    'in A B C D E\nout Y\nY = A&B&C | A&B&D | A&B&E | A&C&D | A&C&E | A&D&E | B&C&D | B&C&E | B&D&E | C&D&E',
  '4-bit adder': adder(4),
  '3x3-bit multiplier': [
    'in A2 A1 A0 B2 B1 B0',
    'out P5 P4 P3 P2 P1 P0',
    'P0 = A0 & B0',
    'P1 = (A1 & B0) ^ (A0 & B1)',
    'c1 = A1 & B0 & A0 & B1',
    's2 = (A2 & B0) ^ (A1 & B1)',
    'd2 = A2 & B0 & A1 & B1',
    'P2 = s2 ^ (A0 & B2) ^ c1',
    'c2 = (s2 & A0 & B2) | c1 & (s2 ^ (A0 & B2))',
    'q = (A2 & B1) ^ (A1 & B2)',
    'P3 = q ^ d2 ^ c2',
    'c3 = d2 & c2 | q & (d2 ^ c2)',
    'e = A2 & B1 & A1 & B2',
    'P4 = (A2 & B2) ^ e ^ c3',
    'P5 = A2 & B2 & (e | c3) | e & c3',
  ].join('\n'),
  'digit on seven segments': [
    'in D C B A',
    'out sa sb sc sd se sf sg',
    ...segments.map((rows, i) => `table s${'abcdefg'[i]} of D C B A : ${rows}------`),
  ].join('\n'),
};

/** One to one and by functions: packages of both, how sure, seconds of both; the share of packages that is left. */
async function compare(name: string, text: string, seconds: number, supplies = anySupplies): Promise<number> {
  const netlist = netlistOf(text);
  const start = performance.now();
  const plain = (await packByStrategy(netlist, { family: 'HC', strategy: 'written', supplies }, solve)).packing;
  const middle = performance.now();
  let provedAt: number | null = null;
  const told = ({ bound, best }: PackProgress): void => {
    if (provedAt === null && bound !== null && best !== null && bound >= best) provedAt = performance.now();
  };
  const fewest = (
    await packByStrategy(netlist, { family: 'HC', strategy: 'fewest', supplies }, solve, {
      limits: { effort: seconds },
      tell: told,
    })
  ).packing;
  const end = performance.now();
  const [a, b] = [plain?.packages.length ?? 0, fewest?.packages.length ?? 0];
  const took = `${((middle - start) / 1000).toFixed(2)} s and ${((end - middle) / 1000).toFixed(1)} s`;
  const proof = provedAt === null ? '' : `, known as least after ${((provedAt - middle) / 1000).toFixed(1)} s`;
  const what = `${b} of ${a} packages, ${(b / a).toFixed(2)} x; ${fewest?.proof}, bound ${fewest?.bound}`;
  console.log(`${name}: ${what}; ${took}${proof}`);
  return b / a;
}

/** Fewest packages without larger blocks and with them, of one random network; the share that is left. */
async function compareBlocks(gates: number, inputs: number, seed: number, seconds: number): Promise<number> {
  const netlist = netlistOf(randomNetwork(gates, inputs, seed));
  const counts: number[] = [];
  const times: string[] = [];
  for (const strategy of ['fewest', 'blocks'] as const) {
    const start = performance.now();
    const limits = { effort: seconds };
    const { packing } = await packByStrategy(netlist, { family: 'HC', strategy, supplies: anySupplies }, solve, {
      limits,
    });
    counts.push(packing?.packages.length ?? 0);
    times.push(((performance.now() - start) / 1000).toFixed(1));
  }
  const [a = 0, b = 0] = counts;
  console.log(`  seed ${seed}: ${b} of ${a} packages; ${times.join(' s and ')} s`);
  return b / a;
}

export async function benchPacking(): Promise<void> {
  console.log('packing by functions against one to one');
  for (const [name, text] of Object.entries(designs)) await compare(name, text, 8, classicOnly);
  for (const [gates, inputs, seconds, seeds] of [
    [20, 14, 5, 4],
    [40, 9, 8, 2],
    [40, 16, 8, 3],
    [40, 20, 8, 3],
    [80, 20, 15, 3],
  ] as const) {
    const shares: number[] = [];
    for (let seed = 1; seed <= seeds; seed++)
      shares.push(
        await compare(`${gates} gates, ${inputs} inputs, seed ${seed}`, randomNetwork(gates, inputs, seed), seconds),
      );
    const mean = shares.reduce((sum, x) => sum + x, 0) / seeds;
    console.log(`${gates} gates, ${inputs} inputs, ${seeds} seeds: ${mean.toFixed(2)} x the packages of one to one`);
  }
  console.log('larger blocks as moves of the search against gates alone');
  for (const [gates, inputs, seconds, seeds] of [
    [40, 16, 8, 3],
    [80, 20, 15, 2],
  ] as const) {
    let sum = 0;
    for (let seed = 1; seed <= seeds; seed++) sum += await compareBlocks(gates, inputs, seed, seconds);
    console.log(`${gates} gates, ${inputs} inputs, ${seeds} seeds: ${(sum / seeds).toFixed(2)} x the packages without`);
  }
}
