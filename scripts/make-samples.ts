/** Lays out every sheet of samples/ and writes the job beside it. */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import {
  anySupplies,
  applyEdit,
  asInDrawer,
  drawerFromCsv,
  extractNets,
  isError,
  type Job,
  layOut,
  newJob,
  noExtras,
  type Packing,
  packByStrategy,
  packJob,
  parseHole,
  type Reading,
  readCommand,
  says,
  stockOf,
  stripOf,
  writeJobFile,
} from '@saddlebag/core';
import { highsSolver } from '@saddlebag/core/solver';

const names: Record<string, string> = {
  'lock-interlock': 'Lock interlock',
  'boat-tally': 'Boat tally',
  'towpath-lamp': 'Towpath lamp',
  'flood-watch': 'Flood watch',
  'level-dial': 'Level dial',
  'boat-counter': 'Boat counter',
  'keepers-vote': 'Keepers vote',
  'keepers-clock': 'Keepers clock',
  'lamp-relay': 'Lamp relay',
  'gate-votes': 'Gate votes',
  'stile-lamps': 'Stile lamps',
  'transistor-bell': 'Transistor bell',
  'fog-beacon': 'Fog beacon',
  'steady-button': 'Steady button',
  'ropes-by-tens': 'Ropes by tens',
  'seconds-digit': 'Seconds on a digit',
  'paddle-panel': 'Paddle panel',
  'up-and-down': 'Up and down',
  'false-alarm': 'False alarm',
  'diode-gates': 'Gates of diodes',
  'rtl-gates': 'Gates of resistors and transistors',
  'two-highs': 'Two kinds of high',
  'dtl-gate': 'A gate of diodes and a transistor',
  'ttl-gate': 'A gate of transistors alone',
  'nmos-gates': 'Gates of NMOS transistors',
  'cmos-gates': 'Gates of CMOS pairs',
  'gauge-selector': 'Gauge selector',
  'apprentice-bench': 'Apprentice bench',
};
/** The supply, with both pairs of rails joined. */
const rails = ['seat supply b1.top+3', 'b1.top-61 > b1.bottom-61', 'b1.top+60 > b1.bottom+60'];
/** Two switches, A and B, each with a pull-down: R1 and R2. */
const inputs = (ohms: string): string[] => [
  ...['seat switch b1.f5', 'label S1 A', 'b1.j5 > b1.top+5', 'seat resistor b1.a5', `value R1 ${ohms}`],
  ...['seat switch b1.f9', 'label S2 B', 'b1.j9 > b1.top+9', 'seat resistor b1.a9', `value R2 ${ohms}`],
];
/** A lamp in columns from `column`, with its resistor to ground; `d` and `r` are their numbers. */
const lamp = (column: number, [d, r]: readonly [number, number], signal: string, from: string): string[] => [
  ...[`seat led b1.c${column}`, `label D${d} ${signal}`, `${from} > D${d}.A`],
  ...[`seat resistor b1.a${column + 1}`, `value R${r} 1k`],
];
/** A resistor from the upper supply rail to the upper strip of a column. */
const fromSupply = (column: number, r: number, ohms: string): string[] => [
  `seat resistor b1.top+${column}`,
  `value R${r} ${ohms}`,
];
/** A transistor in the upper half, its emitter or source first; and a resistor that lies from three columns before to its base. */
const upper = (kind: string, column: number): string => `seat ${kind} b1.h${column}`;
const base = (column: number, r: number, from: string): string[] => [
  ...[`seat resistor b1.i${column + 1}`, `rotate R${r}`, `value R${r} 10k`, `${from} > R${r}.2`],
];

/** Samples whose boards are built by hand, as typed at an empty board. */
const byHand: Record<string, readonly string[]> = {
  'steady-button': [
    ...rails,
    // A change-over switch to ground, each end pulled up: whichever it touches is low.
    ...['seat change-over b1.h5', 'S1.2 > b1.top-'],
    ...['seat resistor b1.top+5', 'value R1 10k', 'seat resistor b1.top+7', 'value R2 10k'],
    // Two NANDs that hold each other: the first touch sets them, and bounces change nothing.
    ...['seat 74HC00 b1.e12', 'U1.14 > b1.top+', 'U1.7 > b1.bottom-', 'S1.1 > U1.1', 'S1.3 > U1.5'],
    ...['U1.3 > U1.4', 'U1.6 > U1.2', ...[9, 10, 12, 13].map((pin) => `U1.${pin} > b1.top-`)],
    // One counter counts what is held steady, the other the bare contact; a capacitor clears both while the power comes on.
    ...['seat 74HC393 b1.e26', 'U2.14 > b1.top+', 'U2.7 > b1.bottom-', 'U1.3 > U2.1', 'S1.1 > U2.13', 'U2.12 > U2.2'],
    ...['seat resistor b1.b23', 'rotate R3', 'value R3 100k', 'R3.1 > U2.2', 'R3.2 > b1.bottom-'],
    ...['seat capacitor b1.d6', 'rotate C1', 'value C1 100n', 'C1.1 > U2.2', 'C1.2 > b1.bottom+'],
    ...[...lamp(40, [1, 4], 'K1', 'U2.4'), ...lamp(44, [2, 5], 'K0', 'U2.3')],
    ...[...lamp(48, [3, 6], 'B1', 'U2.10'), ...lamp(52, [4, 7], 'B0', 'U2.11')],
    // A capacitor beside each chip.
    ...['seat capacitor b1.top+10', 'seat capacitor b1.top+24'],
    'note b1.j32 contacts bounce: K counts the presses, B the bounces',
  ],
  'seconds-digit': [
    ...rails,
    // The keeper's reset, held low until it is pressed.
    ...['seat switch b1.f5', 'label S1 R', 'b1.j5 > b1.top+5', 'seat resistor b1.a5', 'value R1 470'],
    // A timer that ticks once a second.
    ...['seat 555 b1.e10', 'U1.8 > b1.top+', 'U1.1 > b1.bottom-', 'U1.4 > b1.bottom+', 'U1.2 > U1.6'],
    ...['seat resistor b1.top+11', 'value R2 10k', 'seat resistor b1.j17', 'rotate R3', 'value R3 68k'],
    ...[
      'R3.1 > U1.6',
      'R3.2 > U1.7',
      'seat capacitor b1.h22',
      'rotate C1',
      'value C1 10u',
      'C1.1 > U1.6',
      'C1.2 > b1.top-',
    ],
    // A decade counter, and a decoder that pulls the segments of its number low.
    ...['seat 74LS90 b1.e27', 'U2.5 > b1.bottom+', 'U2.10 > b1.top-', 'U1.3 > U2.14', 'U2.12 > U2.1'],
    ...['S1.2 > U2.2', 'U2.2 > U2.3', 'U2.6 > b1.bottom-', 'U2.7 > b1.bottom-'],
    ...['seat 74LS47 b1.e40', 'U3.16 > b1.top+', 'U3.8 > b1.bottom-', 'U3.3 > b1.bottom+', 'U3.5 > b1.bottom+'],
    ...['U2.12 > U3.7', 'U2.9 > U3.1', 'U2.8 > U3.2', 'U2.11 > U3.6'],
    // The digit on a board of its own, a resistor in each segment.
    ...[
      'board full',
      'b1.bottom+58 > b2.top+58',
      'b1.bottom-59 > b2.top-59',
      'seat display-anode b2.e45',
      'H1.3 > b2.top+',
    ],
    ...[13, 12, 11, 10, 9, 15, 14].flatMap((pin, i) => [
      `seat resistor b2.d${10 + 5 * i}`,
      `rotate R${4 + i}`,
      `value R${4 + i} 330`,
      `U3.${pin} > R${4 + i}.2`,
      `R${4 + i}.1 > H1.${[7, 6, 4, 2, 1, 9, 10][i]}`,
    ]),
    ...['seat capacitor b1.top+9', 'seat capacitor b1.top+30', 'seat capacitor b1.top+39'],
  ],
  'fog-beacon': [
    ...rails,
    // A timer that flashes twice a second.
    ...[
      'seat 555 b1.e10',
      'U1.8 > b1.top+',
      'U1.1 > b1.bottom-',
      'U1.4 > b1.bottom+',
      'U1.2 > U1.6',
      'seat resistor b1.top+11',
      'value R1 10k',
      'seat resistor b1.j17',
      'rotate R2',
      'value R2 68k',
      'R2.1 > U1.6',
      'R2.2 > U1.7',
      'seat capacitor b1.h22',
      'rotate C1',
      'value C1 4.7u',
      'C1.1 > U1.6',
      'C1.2 > b1.top-',
    ],
    // A counter, which a capacitor clears while the power comes on.
    ...[
      'seat 74HC393 b1.e26',
      'U2.14 > b1.top+',
      'U2.7 > b1.bottom-',
      'U1.3 > U2.1',
      'seat resistor b1.b19',
      'rotate R3',
      'value R3 100k',
      'R3.1 > U2.2',
      'R3.2 > b1.bottom-',
      'seat capacitor b1.d6',
      'rotate C2',
      'value C2 100n',
      'C2.1 > U2.2',
      'C2.2 > b1.bottom+',
    ],
    // Four lamps that count the flashes.
    ...[
      'seat led b1.c40',
      'label D1 Q0',
      'U2.3 > D1.A',
      'seat resistor b1.a41',
      'value R4 1k',
      'seat led b1.c44',
      'label D2 Q1',
      'U2.4 > D2.A',
      'seat resistor b1.a45',
      'value R5 1k',
      'seat led b1.c48',
      'label D3 Q2',
      'U2.5 > D3.A',
      'seat resistor b1.a49',
      'value R6 1k',
      'seat led b1.c52',
      'label D4 Q3',
      'U2.6 > D4.A',
      'seat resistor b1.a53',
      'value R7 1k',
    ],
    // The unused half, and a capacitor beside each chip.
    ...['U2.12 > b1.top-', 'U2.13 > b1.top-', 'seat capacitor b1.top+12', 'seat capacitor b1.top+29'],
  ],
  'diode-gates': [
    ...[...rails, ...inputs('220')],
    // OR: the higher of the two, less a junction.
    ...['seat diode b1.f14', 'seat diode b1.f17', 'S1.2 > D1.A', 'S2.2 > D2.A', 'D1.K > D2.K'],
    ...lamp(21, [3, 3], 'O', 'D2.K'),
    // AND: the lower of the two, and a junction.
    ...['seat diode b1.f33', 'seat diode b1.f36', 'b1.j14 > b1.d33', 'b1.i17 > b1.d36', 'D4.A > D5.A'],
    ...[...fromSupply(33, 4, '2k2'), ...lamp(39, [6, 5], 'P', 'D5.A')],
  ],
  'rtl-gates': [
    ...[...rails, ...inputs('10k')],
    // NOT.
    ...[...base(16, 3, 'S1.2'), upper('npn', 16), 'Q1.1 > b1.top-', ...fromSupply(18, 4, '1k')],
    ...lamp(18, [1, 5], 'N', 'Q1.3'),
    // NOR: either transistor pulls the common load down.
    ...[...base(31, 6, 'S1.2'), upper('npn', 31), 'Q2.1 > b1.top-', ...fromSupply(33, 7, '1k')],
    ...[...base(39, 8, 'S2.2'), upper('npn', 39), 'Q3.1 > b1.top-', 'Q3.3 > Q2.3'],
    ...lamp(42, [2, 9], 'R', 'Q3.3'),
  ],
  'two-highs': [
    ...[...rails, 'seat switch b1.f5', 'label S1 A', 'b1.j5 > b1.top+5', 'seat resistor b1.a5', 'value R1 10k'],
    // An inverter that nothing hangs on.
    ...[...base(14, 2, 'S1.2'), upper('npn', 14), 'Q1.1 > b1.top-', ...fromSupply(16, 3, '10k')],
    'note b1.d16 high: all of the supply',
    // The same with the base of another on it.
    ...[...base(28, 4, 'R2.2'), upper('npn', 28), 'Q2.1 > b1.top-', ...fromSupply(30, 5, '10k')],
    'note b1.d30 high: shared with the next base',
    ...[...base(43, 6, 'Q2.3'), upper('npn', 43), 'Q3.1 > b1.top-', ...fromSupply(45, 7, '1k')],
    ...lamp(48, [1, 8], 'Y', 'Q3.3'),
  ],
  'dtl-gate': [
    // The pull-downs carry what the diodes give.
    ...[...rails, ...inputs('220')],
    ...[
      'seat diode b1.f15',
      'seat diode b1.f18',
      'S1.2 > D1.K',
      'S2.2 > D2.K',
      'D1.A > D2.A',
      ...fromSupply(15, 3, '4k7'),
    ],
    // Two diodes more hold the transistor off.
    ...['seat diode b1.f22', 'seat diode b1.f25', 'D2.A > D3.A', 'D3.K > D4.A'],
    ...['seat npn b1.c32', 'Q1.1 > b1.bottom-', 'D4.K > Q1.2', 'seat resistor b1.a33', 'value R4 10k'],
    ...[...fromSupply(36, 5, '1k'), 'R5.2 > Q1.3', ...lamp(40, [5, 6], 'D', 'Q1.3')],
  ],
  'ttl-gate': [
    ...[...rails, ...inputs('220')],
    // The input transistor of two emitters, as two.
    ...[upper('npn', 14), upper('npn', 18), 'S1.2 > Q1.1', 'S2.2 > Q2.1', 'Q1.2 > Q2.2', 'Q1.3 > Q2.3'],
    ...fromSupply(15, 3, '4k7'),
    // The phase splitter.
    ...[
      upper('npn', 26),
      'Q2.3 > Q3.2',
      ...fromSupply(28, 4, '1k5'),
      'seat resistor b1.a27',
      'value R5 1k',
      'Q3.1 > R5.1',
    ],
    // The totem pole.
    ...[upper('npn', 37), 'Q3.3 > Q4.2', ...fromSupply(39, 6, '120')],
    ...['seat diode b1.f43', 'Q4.1 > D1.A', 'seat npn b1.c34', 'R5.1 > Q5.2', 'Q5.1 > b1.bottom-', 'D1.K > Q5.3'],
    ...lamp(48, [2, 7], 'T', 'D1.K'),
  ],
  'nmos-gates': [
    ...[...rails, ...inputs('10k')],
    ...[
      upper('nmos', 14),
      'Q1.1 > b1.top-',
      'S1.2 > Q1.2',
      ...fromSupply(16, 3, '1k'),
      ...lamp(16, [1, 4], 'N', 'Q1.3'),
    ],
    // NAND: in series.
    ...[upper('nmos', 24), 'Q2.1 > b1.top-', 'Q1.2 > Q2.2', upper('nmos', 28), 'Q2.3 > Q3.1', 'S2.2 > Q3.2'],
    ...[...fromSupply(30, 5, '1k'), ...lamp(30, [2, 6], 'D', 'Q3.3')],
    // NOR: side by side.
    ...[upper('nmos', 40), 'Q4.1 > b1.top-', 'b1.f25 > b1.f41', upper('nmos', 44), 'Q5.1 > b1.top-', 'Q3.2 > Q5.2'],
    ...['Q4.3 > Q5.3', ...fromSupply(46, 7, '1k'), ...lamp(48, [3, 8], 'R', 'Q5.3')],
  ],
  'cmos-gates': [
    ...[...rails, ...inputs('10k')],
    // NOT: P above, N below.
    ...[upper('nmos', 14), 'Q1.1 > b1.top-', upper('pmos', 18), 'Q2.3 > b1.top+', 'Q1.3 > Q2.1', 'S1.2 > Q1.2'],
    ...['Q1.2 > Q2.2', ...lamp(16, [1, 3], 'N', 'Q1.3')],
    // NAND: N in series, P side by side.
    ...[upper('nmos', 24), 'Q3.1 > b1.top-', upper('nmos', 28), 'Q3.3 > Q4.1', 'Q2.2 > Q3.2', 'S2.2 > Q4.2'],
    ...[upper('pmos', 32), upper('pmos', 36), 'Q5.3 > b1.top+', 'Q6.3 > b1.top+', 'Q5.1 > Q6.1', 'Q4.3 > Q5.1'],
    ...['Q3.2 > Q5.2', 'Q4.2 > Q6.2', ...lamp(30, [2, 4], 'D', 'Q4.3')],
    // NOR: N side by side, P in series.
    ...[upper('nmos', 42), 'Q7.1 > b1.top-', upper('nmos', 46), 'Q8.1 > b1.top-', 'Q7.3 > Q8.3', 'Q5.2 > Q7.2'],
    ...['Q6.2 > Q8.2', upper('pmos', 50), upper('pmos', 54), 'Q10.3 > b1.top+', 'Q9.3 > Q10.1', 'Q9.1 > Q8.3'],
    ...['Q7.2 > Q9.2', 'Q8.2 > Q10.2', ...lamp(48, [3, 5], 'R', 'Q8.3')],
  ],
  'gauge-selector': [
    ...[...rails, ...inputs('10k')],
    // Four floats, each with its pull-down.
    ...[13, 17, 21, 25].flatMap((column, k) => [
      ...[`seat switch b1.f${column}`, `label S${k + 3} G${k}`, `b1.j${column} > b1.top+${column}`],
      ...[`seat resistor b1.a${column}`, `value R${k + 3} 10k`],
    ]),
    // The selector: its third select line, its enable and its negative supply lie at ground.
    ...['seat 74HC4051 b1.e31', 'U1.16 > b1.top+', 'U1.8 > b1.bottom-', 'U1.7 > b1.bottom-', 'U1.6 > b1.bottom-'],
    ...[
      'U1.9 > b1.top-',
      'S1.2 > U1.10',
      'S2.2 > U1.11',
      'S3.2 > U1.13',
      'S4.2 > U1.14',
      'S5.2 > U1.15',
      'S6.2 > U1.12',
    ],
    ...['seat capacitor b1.top+29', ...lamp(48, [1, 7], 'Y', 'U1.3')],
    'note b1.j42 the chosen float is joined to the lamp, not copied: its switch feeds it through 70 Ω',
  ],
  'transistor-bell': [
    ...rails,
    // Switches, each with its pull-down.
    ...['seat switch b1.f5', 'label S1 K', 'b1.j5 > b1.top+5', 'seat resistor b1.a5', 'value R1 10k'],
    ...['seat switch b1.f9', 'label S2 T', 'b1.j9 > b1.top+9', 'seat resistor b1.a9', 'value R2 10k'],
    // The OR: either diode lights the lamp.
    ...['seat diode b1.f13', 'seat diode b1.f15', 'S1.2 > D1.A', 'S2.2 > D2.A', 'D1.K > D2.K'],
    ...['seat led b1.c17', 'label D3 W', 'D2.K > D3.A', 'seat resistor b1.a18', 'value R3 330'],
    // The NAND: both transistors must conduct for its output, the collector of the first, to be low.
    ...['seat npn b1.c31', 'seat npn b1.c36', 'b1.e31 > b1.e38', 'Q2.1 > b1.bottom-'],
    ...['seat resistor b1.b28', 'rotate R4', 'value R4 10k', 'S1.2 > R4.2', 'R4.1 > Q1.2'],
    ...['seat resistor b1.b45', 'rotate R5', 'value R5 10k', 'S2.2 > R5.1', 'R5.2 > Q2.2'],
    ...['seat resistor b1.top+33', 'value R6 330', 'R6.2 > Q1.3'],
    ...['seat led b1.c54', 'label D4 B', 'Q1.3 > D4.A', 'seat resistor b1.a55', 'value R7 330'],
  ],
};

/**
 * Mistakes made on purpose, as typed at the board; `{U1.7}` stands for the jumper in the strip of that pin. Each breaks
 * another rule.
 */
const mistakes: Record<string, readonly string[]> = {
  'apprentice-bench': [
    'pull {U2.7}',
    'rotate D1',
    'pull C1',
    'pull R2',
    'colour {S1.1} black',
    'pull {D3.A}',
    'b1.a60 > b1.c60',
    'note b1.a56 seven mistakes: find them at Inspect',
  ],
};
/** Samples that are built from samples/drawer.csv. */
const fromDrawer = ['stile-lamps'];
const folder = new URL('../samples/', import.meta.url);
const solve = highsSolver();

async function made(id: string): Promise<string> {
  const job = newJob(names[id] ?? id, readFileSync(new URL(`${id}.sheet`, folder), 'utf8'));
  const hand = byHand[id];
  if (hand) return writeJobFile(hand.reduce(typed, job));
  const { reading, packing: written } = await packJob(job, solve);
  const packing = fromDrawer.includes(id) ? await packedFromDrawer(reading) : written;
  const wrong = reading.findings.find(isError);
  if (wrong || !packing) throw new Error(`${id}: ${wrong ? says(wrong) : 'no packing'}`);
  const { edit } = layOut(packing, reading.design.netlist ?? noExtras);
  const applied = edit && applyEdit(job, edit);
  if (!applied?.ok) throw new Error(`${id}: not laid out`);
  return writeJobFile((mistakes[id] ?? []).reduce(typed, applied.job));
}

function typed(job: Job, line: string): Job {
  const text = line.replace(/\{(\w+\.\w+)\}/, (_, pin: string) => jumperAt(job, pin));
  const command = readCommand(job.board, text);
  const applied = command.ok ? applyEdit(job, command.edit) : null;
  if (!applied?.ok) throw new Error(`${text}: ${JSON.stringify(command.ok ? applied : command.finding)}`);
  return applied.job;
}

/** The jumper with an end in the strip of a pin. */
function jumperAt({ board }: Job, pin: string): string {
  const hole = extractNets(board).leads.get(pin)?.hole;
  const strip = hole && stripOf(hole);
  const at = (end: string): boolean => {
    const there = parseHole(end);
    return there !== null && stripOf(there) === strip;
  };
  const found = Object.values(board.jumpers).find((j) => at(j.from) || at(j.to));
  if (!found) throw new Error(`no jumper at ${pin}`);
  return found.id;
}

async function packedFromDrawer({ design }: Reading): Promise<Packing | null> {
  const { entries } = drawerFromCsv(readFileSync(new URL('drawer.csv', folder), 'utf8'));
  const supplies = { ...anySupplies, drawer: stockOf(entries, 'HC') };
  const made =
    design.netlist && (await packByStrategy(design.netlist, { family: 'HC', strategy: 'drawer', supplies }, solve));
  return made?.packing ? asInDrawer(made.packing, entries, 'HC') : null;
}

for (const file of readdirSync(folder).filter((f) => f.endsWith('.sheet'))) {
  const id = file.replace('.sheet', '');
  const at = new URL(`${id}.saddlebag.json`, folder);
  writeFileSync(at, await made(id));
  console.log(`samples/${id}.saddlebag.json`);
}
