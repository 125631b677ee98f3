/**
 * Speeds of the design desk as ratios, both sides in one run: filling a table of 20 inputs against a
 * compiled loop over the same expression and against copying the same bytes; minimising classic
 * functions against the plain irredundant cover of the same.
 */
import {
  compareDesigns,
  compile,
  elementAt,
  type Functions,
  functionsOf,
  irredundantCover,
  minimise,
  networkOf,
  type Rows,
  readDesign,
  sweep,
  tableOf,
} from '@saddlebag/core';
import { highsSolver } from '@saddlebag/core/solver';

const names = Array.from({ length: 20 }, (_, i) => `a${i}`);
const pairs = names.map((n, i) => `${n} & ~${names[(i + 7) % 20]}`).join(' | ');
const wide = `in ${names.join(' ')}\nout Y Z\nY = (${pairs}) ^ a3 & a11\nZ = xor(${names.join(', ')}) | a0 & a19`;

/** The classic functions that people minimise: their cells as a person writes them, rows 0 up. */
const classics: readonly [string, string][] = [
  ['digit on seven segments', segments()],
  ['2 by 2 bit multiplier', words(4, (r) => (r >> 2) * (r & 3), 4)],
  ['3 bit adder', words(6, (r) => (r >> 3) + (r & 7), 4)],
  ['count of ones of seven', words(7, (r) => ones(r), 3)],
  ['square of five bits', words(5, (r) => r * r, 10)],
  ['majority of nine', words(9, (r) => (ones(r) > 4 ? 1 : 0), 1)],
];

function ones(r: number): number {
  return r.toString(2).replaceAll('0', '').length;
}

function words(inputs: number, value: (row: number) => number, outputs: number): string {
  const own = Array.from({ length: inputs }, (_, i) => `i${i}`);
  const tables = Array.from({ length: outputs }, (_, o) => {
    const cells = Array.from({ length: 2 ** inputs }, (_, r) => (value(r) >> o) & 1).join('');
    return `table y${o} of ${own.join(' ')} : ${cells}`;
  });
  return `in ${own.join(' ')}\nout ${tables.map((_, o) => `y${o}`).join(' ')}\n${tables.join('\n')}`;
}

function segments(): string {
  const lit = 'abcdef bc abdeg abcdg bcfg acdfg acdefg abc abcdefg abcdfg'.split(' ');
  const tables = [...'abcdefg'].map((s) => {
    const cells = `${lit.map((d) => (d.includes(s) ? '1' : '0')).join('')}------`;
    return `table s${s} of D C B A : ${cells}`;
  });
  return `in D C B A\nout ${[...'abcdefg'].map((s) => `s${s}`).join(' ')}\n${tables.join('\n')}`;
}

/** The loop a person would write over all rows, compiled by the engine: a word of outputs a row. */
function byHand(): (bits: Uint8Array) => void {
  const value = names.map((n, i) => `const ${n} = (r >>> ${19 - i}) & 1;`).join('');
  const y = `((${pairs.replaceAll('~', '1 ^ ').replaceAll(/(\w+) & 1 \^ (\w+)/g, '($1 & ($2 ^ 1))')}) ^ (a3 & a11))`;
  const z = `((${names.join(' ^ ')}) | (a0 & a19))`;
  return new Function('out', `for (let r = 0; r < ${2 ** 20}; r++) { ${value} out[r] = ${y} | ${z} << 1; }`) as never;
}

/** Prints a line for each pair measured. */
export async function measureLogic(
  median: (task: () => void, times?: number) => number,
  line: (what: string, ms: number, times: number) => void,
): Promise<void> {
  const { netlist, behaviour } = readDesign(wide).design;
  if (!netlist || !behaviour) throw new Error('the wide design is not read');
  const program = compile(networkOf(netlist));
  const out = new Uint8Array(2 ** 20);
  const loop = byHand();
  const table = sweep(program);
  const copies = table.columns.map((c) => new Int32Array(c.length));
  loop(out);
  const same = [0, 1, 12345, 2 ** 20 - 1].every(
    (r) =>
      out[r] ===
      ((elementAt(table.columns[0] as Rows, r >>> 5) >>> (r & 31)) & 1) +
        2 * ((elementAt(table.columns[1] as Rows, r >>> 5) >>> (r & 31)) & 1),
  );
  const loopMs = median(() => loop(out), 5);
  const fillMs = median(() => void sweep(program), 9);
  const copyMs = median(() => {
    for (const [i, c] of table.columns.entries()) copies[i]?.set(c);
  }, 51);
  console.log(`20 inputs, ${netlist.gates.length} gates, 2 outputs (${same ? 'both agree' : 'THEY DIFFER'})`);
  line('plain compiled loop in JavaScript over the same rows', loopMs, 1);
  line('table of 20 inputs', fillMs, fillMs / loopMs);
  line('the same bytes copied, against the table', copyMs, copyMs / fillMs);
  const compareMs = median(() => void compareDesigns({ behaviour }, { behaviour }), 5);
  line('two such designs compared, against a second', compareMs, compareMs / 1000);
  const solve = highsSolver();
  await solve('Minimize\n obj: x\nSubject To\n c: x >= 1\nBinaries\n x\nEnd', { effort: 1 });
  for (const [what, text] of classics) {
    const classic = readDesign(text).design.behaviour;
    if (!classic) throw new Error(what);
    const f = functionsOf(
      tableOf(classic),
      classic.outputs.map((_, o) => o),
    );
    const plainMs = median(() => void coverEach(f), 9);
    const start = performance.now();
    const { products, proved } = await minimise(f, solve);
    const taken = performance.now() - start;
    const plain = new Set(coverEach(f).map((c) => `${c.care} ${c.value}`)).size;
    line(`${what}: ${products.length} of ${plain} products${proved ? ', proved' : ''}`, taken, taken / plainMs);
  }
}

function coverEach({ inputs, on, free }: Functions) {
  return on.flatMap((rows, o) =>
    irredundantCover(
      rows,
      rows.map((w, i) => w | (free[o]?.[i] as number)),
      inputs,
    ),
  );
}
