/** Boards in time: a day of ticks into six counters, with a timer, decoders and displays too; a long chain of transistors. */
import {
  applyEdit,
  type Board,
  type Edit,
  extractNets,
  type Job,
  newJob,
  PoweredBoard,
  readCommand,
} from '@saddlebag/core';

type Median = (task: () => void, times?: number) => number;
type Line = (what: string, ms: number, times: number) => void;

const DAY_S = 86_400;
const DIGITS = [1, 2, 3, 4, 5, 6] as const;

/** A board wired as typed, with edits between. */
function typed(lines: readonly (string | Edit)[]): Board {
  return lines.reduce<Job>((job, line) => {
    const command = typeof line === 'string' ? readCommand(job.board, line) : { ok: true as const, edit: line };
    const applied = command.ok ? applyEdit(job, command.edit) : null;
    if (!applied?.ok) throw new Error(`${JSON.stringify(line)}: ${JSON.stringify([command, applied])}`);
    return applied.job;
  }, newJob('bench')).board;
}

const boards = (count: number): Edit[] =>
  Array.from({ length: count - 1 }, (_, i) => ({ kind: 'add-breadboard', id: `b${i + 2}` }));

/** Supply and ground of chip `n`, from the chip before it; of the first from the rails. */
const power = (n: number, [plus, minus]: readonly [number, number], before: readonly [number, number]): string[] =>
  n === 1
    ? [`U1.${plus} > b1.top+`, `U1.${minus} > b1.top-`]
    : [`U${n}.${plus} > U${n - 1}.${before[0]}`, `U${n}.${minus} > U${n - 1}.${before[1]}`];

const counterPins = [5, 10] as const;
const decoderPins = [16, 8] as const;

/** A decade counter, chip `n`, clocked by `from`, its resets at ground. */
const decade = (n: number, from: string, before: readonly [number, number]): string[] => [
  'seat 7490',
  ...power(n, counterPins, before),
  `U${n}.2 > U${n}.10`,
  `U${n}.3 > U${n}.2`,
  `U${n}.6 > U${n}.3`,
  `U${n}.7 > U${n}.6`,
  `U${n}.12 > U${n}.1`,
  `${from} > U${n}.14`,
];

/** A decoder, chip `n`, for the counter before it, with a display behind resistors. */
function shown(digit: number, n: number): string[] {
  const [first, second] = [`RN${2 * digit - 1}`, `RN${2 * digit}`];
  const display = `H${digit}`;
  // Segments a to g: pins of the decoder and of the display.
  const segments = [
    [13, 7],
    [12, 6],
    [11, 4],
    [10, 2],
    [9, 1],
    [15, 9],
    [14, 10],
  ] as const;
  return [
    'seat 7447',
    ...power(n, decoderPins, counterPins),
    `U${n}.3 > U${n}.16`,
    `U${n}.5 > U${n}.3`,
    ...[
      [12, 7],
      [9, 1],
      [8, 2],
      [11, 6],
    ].map(([q, input]) => `U${n - 1}.${q} > U${n}.${input}`),
    'seat display-anode',
    `${display}.3 > U${n}.5`,
    'seat network-separate',
    `value ${first} 330`,
    'seat network-separate',
    `value ${second} 330`,
    ...segments.flatMap(([out, lead], i) => {
      const network = i < 4 ? first : second;
      const pin = 2 * (i % 4) + 1;
      return [`U${n}.${out} > ${network}.${pin}`, `${network}.${pin + 1} > ${display}.${lead}`];
    }),
  ];
}

/** Six digits that a clock module counts up. */
const clocked = (): Board =>
  typed([
    ...boards(3),
    'seat supply b1.top+3',
    ...['seat clock', 'X1.1 > b1.top+', 'X1.2 > b1.top-'],
    ...DIGITS.flatMap((n) => decade(n, n === 1 ? 'X1.3' : `U${n - 1}.11`, counterPins)),
  ]);

/** Six digits, decoded and shown, that a 555 at 1 Hz counts up. */
function withDisplays(): Board {
  const timer = 2 * DIGITS.length + 1;
  return typed([
    ...boards(8),
    'seat supply b1.top+3',
    ...DIGITS.flatMap((digit) => {
      const n = 2 * digit - 1;
      return [
        ...decade(n, digit === 1 ? `U${n}.13` : `U${n - 2}.11`, decoderPins).slice(0, -1),
        ...(digit === 1 ? [] : [`U${n - 2}.11 > U${n}.14`]),
        ...shown(digit, n + 1),
      ];
    }),
    'seat 555',
    ...power(timer, [8, 1], decoderPins),
    `U${timer}.4 > U${timer}.8`,
    `U${timer}.2 > U${timer}.6`,
    `U${timer}.3 > U1.14`,
    'seat network-separate',
    'value RN13 480k',
    `RN13.1 > U${timer}.8`,
    `RN13.2 > U${timer}.7`,
    `RN13.3 > U${timer}.7`,
    `RN13.4 > U${timer}.6`,
    { kind: 'seat', part: { ref: 'C1', part: 'capacitor', at: 'b8.c60', rotation: 90, value: 1000 } },
    `C1.1 > U${timer}.6`,
    `C1.2 > U${timer}.1`,
  ]);
}

/** A chain of transistor inverters, five to a breadboard, behind a switch. */
function chain(count: number): Board {
  const perBoard = 5;
  const lines: (string | Edit)[] = [
    ...boards(Math.ceil(count / perBoard)),
    'seat supply b1.bottom+57',
    // Two hundred of them take more than a supply usually gives.
    'limit P1 5000',
    'seat switch b1.f2',
    'b1.j2 > b1.top+3',
    'b1.top+4 > b1.bottom+4',
  ];
  for (let i = 0; i < count; i++) {
    const [b, c] = [`b${Math.floor(i / perBoard) + 1}`, 4 + 12 * (i % perBoard)];
    const lying = (n: number, at: string, value: number): Edit => ({
      kind: 'seat',
      part: { ref: `R${n}`, part: 'resistor', at, rotation: 90, value },
    });
    if (i > 0 && i % perBoard === 0) {
      const before = `b${Math.floor(i / perBoard)}`;
      lines.push(`${before}.bottom+60 > ${b}.bottom+3`, `${before}.bottom-60 > ${b}.bottom-3`);
    }
    lines.push(
      { kind: 'seat', part: { ref: `Q${i + 1}`, part: 'npn', at: `${b}.d${c + 4}`, rotation: 0 } },
      lying(2 * i + 1, `${b}.b${c + 5}`, 10_000),
      lying(2 * i + 2, `${b}.a${c + 9}`, 1000),
      `${b}.e${c + 4} > ${b}.bottom-`,
      `${b}.e${c + 9} > ${b}.bottom+`,
      i === 0 ? `S1.2 > ${b}.e${c + 2}` : `Q${i}.3 > ${b}.e${c + 2}`,
    );
  }
  return typed(lines);
}

/** The same count as a plain loop keeps it: six digits, each tick by hand. */
function plainDay(): number {
  const digits = new Uint8Array(6);
  for (let tick = 0; tick < DAY_S; tick++)
    for (let d = 0; d < 6; d++) {
      digits[d] = ((digits[d] as number) + 1) % 10;
      if (digits[d] !== 0) break;
    }
  return digits.reduce((sum, d, i) => sum + d * 10 ** i, 0);
}

/** Prints what time costs. */
export function measureTime(median: Median, line: Line): void {
  let sink = 0;
  const dayMs = median(() => {
    sink += plainDay();
  }, 5);
  line('a day of ticks into six digits, plain loop', dayMs, 1);
  for (const [what, board] of [
    ['a day of a 1 Hz clock into six 7490s', clocked()],
    ['the same from a 1 Hz 555, with decoders and displays', withDisplays()],
  ] as const) {
    const nets = extractNets(board);
    let [events, heap] = [0, 0];
    const ms = median(() => {
      const live = new PoweredBoard(board, nets, { clocksRun: true, start: 'clear' });
      live.runUntil(DAY_S * 1e9);
      events = live.events;
      heap = process.memoryUsage().heapUsed;
      sink += events;
    }, 3);
    line(what, ms, ms / dayMs);
    console.log(`  ${events.toLocaleString('en')} events, ${Math.round(heap / 1e6)} MB of heap in use at the end`);
  }
  for (const count of [50, 200]) {
    const board = chain(count);
    const nets = extractNets(board);
    // A flip that was seen before is looked up; the first one of each board has to be found.
    const fresh = Array.from({ length: 8 }, () => new PoweredBoard(board, nets));
    const flipMs = median(() => {
      const live = fresh.pop();
      live?.setSwitch(0, true);
      sink += live?.settle().events ?? 0;
    }, 5);
    line(`the switch before ${count} transistor inverters flipped for the first time`, flipMs, flipMs / 16.7);
  }
  if (sink === 0) throw new Error('nothing happened');
}
