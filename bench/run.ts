/**
 * Speeds as ratios, both sides measured in this one run, turn about. `npm run bench` prints them;
 * docs/performance.md keeps the figures. Nothing here asserts a time. `npm run bench packing` measures one part alone.
 */
import {
  compile,
  compileCircuit,
  compileSweep,
  elementAt,
  extractNets,
  type Netlist,
  networkOf,
  newJob,
  PoweredBoard,
  packJob,
  panelOf,
  plan,
  runRow,
  sweep,
  walkTable,
} from '@saddlebag/core';
import { highsSolver } from '@saddlebag/core/solver';
import { measureBoard } from './board';
import { measureLogic } from './logic';
import { benchPacking } from './packing';
import { measureFelt, measureFrames, measureScreen } from './screen';
import { measureTime } from './time';

/** A small generator of pseudo-random numbers (xorshift32), so that every run measures the same board. */
function random(seed: number): (below: number) => number {
  let x = seed;
  return (below) => {
    x ^= x << 13;
    x ^= x >>> 17;
    x ^= x << 5;
    return (x >>> 0) % below;
  };
}

/** A sheet of `gates` two-input gates over ten inputs, as many as fill about a quarter as many chips. */
function sheetOf(gates: number, seed: number): string {
  const next = random(seed);
  const nets = Array.from({ length: 10 }, (_, i) => `F${i}`);
  const lines: string[] = [];
  const unread = new Set<string>();
  for (let i = 0; i < gates; i++) {
    const pick = (): string => elementAt(nets, Math.max(0, nets.length - 1 - next(24)));
    const [a, b] = [pick(), pick()];
    const kind = elementAt(['nand', 'nor', 'and', 'or', 'xor'], next(5));
    lines.push(`g${i} = ${kind}(${a}, ${a === b ? nets[0] : b})`);
    for (const read of [a, b]) unread.delete(read);
    nets.push(`g${i}`);
    unread.add(`g${i}`);
  }
  return [`in ${nets.slice(0, 10).join(' ')}`, `out ${[...unread].join(' ')}`, ...lines].join('\n');
}

/** The same gates as a person would write them by hand in JavaScript: one closure, one row at a time. */
function byHand(netlist: Netlist): (row: number) => number {
  const index = new Map<string, number>();
  for (const name of netlist.inputs) index.set(name, index.size);
  const operators = {
    and: ['&', 0],
    nand: ['&', 1],
    or: ['|', 0],
    nor: ['|', 1],
    xor: ['^', 0],
    xnor: ['^', 1],
    not: ['&', 1],
  } as const;
  const body = netlist.gates.map(({ output, kind, inputs }) => {
    index.set(output, index.size);
    const [operator, inverted] = operators[kind];
    const expression = inputs.map((i) => `v${index.get(i)}`).join(operator);
    return `const v${index.get(output)} = (${expression})${inverted ? '^1' : ''};`;
  });
  const given = netlist.inputs.map((_, i) => `const v${i} = (row >>> ${netlist.inputs.length - 1 - i}) & 1;`);
  const result = netlist.outputs.map(({ net }) => `v${index.get(net)}`).join('+');
  return new Function('row', [...given, ...body, `return ${result};`].join('\n')) as (row: number) => number;
}

/** The nets of a netlist by number, those of inputs first and then those of gates in their order, with the gates that read each. */
function netsOf(netlist: Netlist): { readonly at: (name: string) => number; readonly readers: readonly number[][] } {
  const index = new Map<string, number>(netlist.inputs.map((name, i) => [name, i]));
  for (const { output } of netlist.gates) index.set(output, index.size);
  const at = (name: string): number => index.get(name) ?? 0;
  const readers: number[][] = Array.from({ length: index.size }, () => []);
  netlist.gates.forEach(({ inputs }, g) => {
    for (const name of inputs) readers[at(name)]?.push(g);
  });
  return { at, readers };
}

/**
 * The same gates as a plain event loop, as a person would write it: a gate that changes wakes those that read it, in the order of arrival, until
 * nothing changes. Gives the level of the first output in a row.
 */
function byPlainEvents(netlist: Netlist): (row: number) => number {
  const { at, readers } = netsOf(netlist);
  const [a, b] = [0, 1].map((k) => Int32Array.from(netlist.gates, ({ inputs }) => at(inputs[k] ?? inputs[0] ?? '')));
  const kinds = ['and', 'nand', 'or', 'nor', 'xor', 'xnor', 'not'];
  const kind = Uint8Array.from(netlist.gates, (g) => kinds.indexOf(g.kind));
  const out = Int32Array.from(netlist.gates, ({ output }) => at(output));
  const level = new Uint8Array(readers.length);
  const queue: number[] = netlist.gates.map((_, g) => g);
  const first = at(netlist.outputs[0]?.net ?? '');
  const width = netlist.inputs.length;
  const run = (): void => {
    for (let n = 0; n < queue.length; n++) {
      const g = queue[n] as number;
      const [x, y] = [level[a?.[g] as number] as number, level[b?.[g] as number] as number];
      const k = kind[g] as number;
      const value = k < 2 ? (x & y) ^ k : k < 4 ? (x | y) ^ (k - 2) : k < 6 ? x ^ y ^ (k - 4) : 1 - x;
      const net = out[g] as number;
      if (level[net] === value) continue;
      level[net] = value;
      for (const reader of readers[net] as number[]) queue.push(reader);
    }
    queue.length = 0;
  };
  return (row) => {
    for (let i = 0; i < width; i++) {
      const value = (row >>> (width - 1 - i)) & 1;
      if (level[i] === value) continue;
      level[i] = value;
      for (const reader of readers[i] as number[]) queue.push(reader);
    }
    run();
    return level[first] as number;
  };
}

/**
 * The same again with a delay for each gate: a binary heap of gates by their time, of those that changed their mind the last one counting. Still one level a
 * net, no volts, no wires.
 */
function byTimedEvents(netlist: Netlist): (row: number) => number {
  const { at, readers } = netsOf(netlist);
  const width = netlist.inputs.length;
  const level = new Uint8Array(readers.length);
  const pending = new Uint8Array(netlist.gates.length);
  const due = new Float64Array(netlist.gates.length).fill(Infinity);
  const heap: { time: number; gate: number }[] = [];
  const swap = (i: number, j: number): void => {
    [heap[i], heap[j]] = [heap[j] as (typeof heap)[0], heap[i] as (typeof heap)[0]];
  };
  const timeAt = (i: number): number => heap[i]?.time ?? Infinity;
  const push = (time: number, gate: number): void => {
    let i = heap.push({ time, gate }) - 1;
    for (let up = (i - 1) >> 1; i > 0 && timeAt(up) > time; i = up, up = (i - 1) >> 1) swap(i, up);
  };
  const pop = (): { time: number; gate: number } => {
    const [top = { time: 0, gate: 0 }] = heap;
    const last = heap.pop() as (typeof heap)[0];
    if (heap.length === 0) return top;
    heap[0] = last;
    for (let i = 0, down = 1; down < heap.length; i = down, down = 2 * i + 1) {
      if (timeAt(down + 1) < timeAt(down)) down++;
      if (timeAt(down) >= last.time) break;
      swap(i, down);
    }
    return top;
  };
  const gates = netlist.gates.map(({ kind, inputs: [a = '', b = a] }) => ({ kind, a: at(a), b: at(b) }));
  const first = at(netlist.outputs[0]?.net ?? '');
  const computed = (g: number): number => {
    const { kind, a, b } = gates[g] as (typeof gates)[0];
    const [x, y] = [level[a] as number, level[b] as number];
    if (kind === 'and' || kind === 'nand') return (x & y) ^ (kind === 'nand' ? 1 : 0);
    if (kind === 'or' || kind === 'nor') return (x | y) ^ (kind === 'nor' ? 1 : 0);
    return kind === 'not' ? 1 - x : x ^ y ^ (kind === 'xnor' ? 1 : 0);
  };
  let now = 0;
  const wake = (net: number): void => {
    for (const g of readers[net] as number[]) {
      const value = computed(g);
      if (value === (due[g] === Infinity ? level[width + g] : pending[g])) continue;
      pending[g] = value;
      due[g] = value === level[width + g] ? Infinity : now + 90 + value;
      if (due[g] !== Infinity) push(due[g] as number, g);
    }
  };
  const run = (): void => {
    while (heap.length > 0) {
      const { time, gate } = pop();
      now = time;
      if (due[gate] !== time) continue;
      due[gate] = Infinity;
      level[width + gate] = pending[gate] as number;
      wake(width + gate);
    }
  };
  netlist.gates.forEach((_, g) => {
    pending[g] = computed(g);
    level[width + g] = pending[g] as number;
  });
  return (row) => {
    for (let i = 0; i < width; i++) {
      const value = (row >>> (width - 1 - i)) & 1;
      if (level[i] === value) continue;
      level[i] = value;
      wake(i);
    }
    run();
    return level[first] as number;
  };
}

/** The median time of a task in ms, after a warm-up. */
function median(task: () => void, times = 15): number {
  for (let i = 0; i < 3; i++) task();
  const taken = Array.from({ length: times }, () => {
    const start = performance.now();
    task();
    return performance.now() - start;
  });
  return elementAt(
    taken.sort((a, b) => a - b),
    times >> 1,
  );
}

const perSecond = (count: number, ms: number): string => Math.round((1000 * count) / ms).toLocaleString('en');
const line = (what: string, ms: number, times: number): void =>
  console.log(`${what.padEnd(58)} ${ms.toFixed(3).padStart(9)} ms  ${times.toFixed(times < 10 ? 2 : 0).padStart(7)} ×`);

/** The board of a seeded design, laid out: 20 chips, or as many as so many gates take. */
async function laidOut(gates = 74) {
  const job = newJob('bench', sheetOf(gates, 20));
  const { packing, reading } = await packJob(job, highsSolver());
  const { netlist } = reading.design;
  if (!packing || !netlist) throw new Error('the bench design does not pack');
  const { board } = plan(packing);
  if (!board) throw new Error('the bench design does not fit');
  return { job, packing, netlist, board };
}

async function measurePower(): Promise<void> {
  const { packing, netlist, board } = await laidOut();
  const nets = extractNets(board);
  const circuit = compileCircuit(board);
  const panel = panelOf(
    board,
    circuit,
    netlist.inputs,
    netlist.outputs.map((o) => o.name),
  );
  const simulator = new PoweredBoard(board, nets, { circuit });
  const rows = 2 ** netlist.inputs.length;
  const hand = byHand(netlist);
  let sink = 0;

  const handMs = median(() => {
    for (let row = 0; row < rows; row++) sink += hand(row);
  });
  const plain = byPlainEvents(netlist);
  const plainMs = median(() => {
    for (let row = 0; row < rows; row++) sink += plain(row);
  });
  const timed = byTimedEvents(netlist);
  const timedMs = median(() => {
    for (let row = 0; row < rows; row++) sink += timed(row);
  });
  const isSame = Array.from({ length: rows }, (_, row) => row).every((row) => timed(row) === plain(row));
  const sweepMs = median(() => {
    sink += sweep(compile(networkOf(netlist))).rows;
  });
  const subject = { inputs: netlist.inputs, outputs: netlist.outputs.map((o) => o.name) };
  const walkMs = median(() => {
    for (const { seen } of walkTable(board, nets, subject)) sink += seen[0] ?? 0;
  }, 61);
  const swept = compileSweep(board, nets, { circuit, panel });
  const sweptMs = median(() => {
    for (const seen of swept?.sweep() ?? []) sink += seen[0] ?? 0;
  });
  const compileSweepMs = median(() => {
    sink += compileSweep(board, nets, { circuit, panel }) ? 1 : 0;
  }, 61);
  const eventsMs = median(() => {
    for (let row = 0; row < rows; row++) sink += runRow(simulator, panel, row).seen[0] ?? 0;
  }, 31);
  const extractMs = median(() => {
    sink += extractNets(board).nets.length;
  });
  const compileMs = median(() => {
    sink += compileCircuit(board).units.length;
  });
  let on = false;
  const flipMs = median(() => {
    on = !on;
    simulator.setSwitch(0, on);
    simulator.settle();
  }, 201);

  const chips = packing.packages.length;
  const jumpers = Object.keys(board.jumpers).length;
  console.log(
    `${chips} chips, ${netlist.gates.length} gates, ${jumpers} jumpers, ${board.breadboards.length} boards, ${rows} rows (${sink > 0 ? 'ok' : ''})`,
  );
  line('hand-written loop over the same gates, all rows', handMs, 1);
  line('plain event loop over the same gates, no delays or volts', plainMs, plainMs / handMs);
  line(`the same with delays, in a heap (${isSame ? 'both agree' : 'THEY DIFFER'})`, timedMs, timedMs / handMs);
  line('table of the design, 32 rows a word, compiling included', sweepMs, sweepMs / handMs);
  line('walk of the board by the sweep, all rows, compiling included', walkMs, walkMs / handMs);
  line('compiling the board to the sweep, of that', compileSweepMs, compileSweepMs / handMs);
  line('the rows alone, once compiled', sweptMs, sweptMs / handMs);
  line('walk of the board by events, pin by pin with delays, all rows', eventsMs, eventsMs / handMs);
  console.log(
    `rows a second: ${perSecond(rows, handMs)} by hand, ${perSecond(rows, plainMs)} by a plain event loop, ${perSecond(rows, timedMs)} with delays, ${perSecond(rows, sweptMs)} swept, ${perSecond(rows, eventsMs)} by events: ${(timedMs / eventsMs).toFixed(2)} of the loop with delays`,
  );
  line('extraction of the nets, against the loop over all rows', extractMs, extractMs / handMs);
  line('lowering the board to a circuit', compileMs, compileMs / handMs);
  line('one switch flipped and settled, against a 16.7 ms frame', flipMs, flipMs / 16.7);
}

/** A switch flipped on some 60 chips with their LEDs: settled, and all levels, volts and currents read; other switches each time. */
async function measureFlip(): Promise<void> {
  const { packing, board } = await laidOut(240);
  const live = new PoweredBoard(board, extractNets(board));
  const switches = live.circuit.switches.length;
  let [flips, sink] = [0, 0];
  const flipMs = median(() => {
    const i = (flips++ * 7) % switches;
    live.setSwitch(i, !live.isOn(i));
    live.settle();
    for (let net = 0; net < live.nets.nets.length; net++) sink += live.levelOf(net) + (live.voltsOf(net) ?? 0);
    live.circuit.leds.forEach((_, led) => {
      sink += live.lamp(led).ma;
    });
    sink += live.supplyMa;
  }, 401);
  line(
    `a switch flipped, ${packing.packages.length} chips and ${live.circuit.leds.length} LEDs, all of it read (${sink > 0 ? 'ok' : ''}), against 4 ms`,
    flipMs,
    flipMs / 4,
  );
}

async function measureShown(): Promise<void> {
  const { job, packing, board } = await laidOut();
  const screen = await measureScreen({ ...job, packing, board });
  if (!screen) {
    console.log('on screen: not measured; it takes the built application and Chromium');
    return;
  }
  line('on screen: key to changed drawing, against a frame', screen.flipMs, screen.flipMs / 16.7);
  line('on screen: key to painted frame, against a frame', screen.paintMs, screen.paintMs / 16.7);
  line('on screen: opening the application, against a second', screen.openMs, screen.openMs / 1000);
}

async function measureLarge(): Promise<void> {
  const { job, packing, board } = await laidOut(320);
  const frames = await measureFrames({ ...job, packing, board });
  if (!frames) return;
  const size = `${packing.packages.length} chips, ${Object.keys(board.jumpers).length} jumpers`;
  for (const [what, { median: middle, ninthDecile }] of Object.entries(frames)) {
    line(`${size}, ${what}: frame to frame, against a frame`, middle, middle / 16.7);
    line(`${size}, ${what}: the same, ninth decile`, ninthDecile, ninthDecile / 16.7);
  }
}

async function measureTyped(): Promise<void> {
  const { job, packing, board } = await laidOut(228);
  const felt = await measureFelt({ ...job, packing, board });
  if (!felt) return;
  const size = `228 gates, ${packing.packages.length} chips`;
  line(`${size}: the thread's work for a key in the sheet, against a frame`, felt.key, felt.key / 16.7);
  line(`${size}: the same for a key in a comment`, felt.comment, felt.comment / 16.7);
  line(`${size}: longest task while typing, against a frame`, felt.longest, felt.longest / 16.7);
  line(`${size}: gate diagram in sight, against a second`, felt.diagram, felt.diagram / 1000);
  for (const [step, ms] of Object.entries(felt.steps))
    line(`${size}: turned to ${step}, against a tenth of a second`, ms, ms / 100);
}

const parts: Readonly<Record<string, () => Promise<void> | void>> = {
  power: async () => {
    await measurePower();
    await measureFlip();
  },
  board: () => measureBoard(median, line, sheetOf),
  time: () => measureTime(median, line),
  logic: () => measureLogic(median, line),
  packing: benchPacking,
  screen: measureShown,
  frames: measureLarge,
  felt: measureTyped,
};
const asked = process.argv.slice(2);
for (const name of asked.length > 0 ? asked : Object.keys(parts)) {
  const part = parts[name];
  if (!part) throw new Error(`bench has no part ${name}; it has ${Object.keys(parts).join(', ')}`);
  await part();
}
