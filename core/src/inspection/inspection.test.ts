import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Board, extractNets, type SeatedPart } from '../board';
import { printSheet } from '../design';
import { elementAt } from '../element-at';
import type { FindingCode } from '../finding';
import { isError, remedy, says, sentences } from '../finding';
import { applyEdit, type Edit, type Job, readCommand } from '../job';
import { readJobFile } from '../job/file';
import type { Packing } from '../packing';
import { plan, sourcesOf } from '../planning';
import { interlockSheet, laidOut } from '../testing/interlock';
import { arbitrarySheet } from '../testing/random';
import { MINUS, PLUS, switches, wired } from '../testing/wired';
import { inspectJob } from '../workflow';
import { inspect, rules } from '.';

const { job, packing } = await laidOut(interlockSheet);
/** Boards that are held to another packing than the interlock's. */
const packingOf = new Map<Board, Packing>();
const found = (board: Board) => inspect(board, extractNets(board), packingOf.get(board) ?? packing, 'HC');

/** The interlock's board after some typed commands, each of which must work. */
function following(...commands: string[]): Board {
  return commands.reduce((current: Job, text) => {
    const command = readCommand(current.board, text);
    const applied = command.ok ? applyEdit(current, command.edit) : null;
    return applied?.ok ? applied.job : expect.fail(`${text}: ${JSON.stringify(command)} ${JSON.stringify(applied)}`);
  }, job).board;
}

/** A board changed as only a file could be, without the hands' checks. */
function forced(
  change: (board: {
    parts: Record<string, SeatedPart>;
    jumpers: Record<string, { id: string; from: string; to: string }>;
  }) => void,
): Board {
  const board = structuredClone(job.board) as Board & {
    parts: Record<string, SeatedPart>;
    jumpers: Record<string, { id: string; from: string; to: string }>;
  };
  change(board);
  return board;
}

/** The jumper with an end in the strip of a pin. */
function jumperAt(pin: string): string {
  const { nets, ofPin, leads } = extractNets(job.board);
  const hole = leads.get(pin)?.hole;
  const net = nets[ofPin.get(pin) ?? -1];
  const near = net?.jumpers.find((id) =>
    [job.board.jumpers[id]?.from, job.board.jumpers[id]?.to].some(
      (h) => h?.replace(/[a-j]/, '') === `b1.${hole?.column}`.replace('b1', '1'),
    ),
  );
  const column = String(hole?.column);
  const lower = 'abcde'.includes(hole?.row ?? '');
  const at = (text: string | undefined): boolean => {
    const m = /^b1\.([a-j])(\d+)$/.exec(text ?? '');
    return m !== null && m[2] === column && 'abcde'.includes(elementAt(m, 1)) === lower;
  };
  const exact = Object.values(job.board.jumpers).find((j) => at(j.from) || at(j.to));
  return exact?.id ?? near ?? expect.fail(`no jumper at ${pin}`);
}

/** The jumper to pin 1 of U1 moved into the empty strip beside it. */
const besidePinOne = forced((b) => {
  const jumper = b.jumpers[jumperAt('U1.1')] ?? expect.fail();
  const column = extractNets(job.board).leads.get('U1.1')?.hole?.column ?? 0;
  const moved = (hole: string): string => hole.replace(new RegExp(`^(b1\\.[a-e])${column}$`), `$1${column - 1}`);
  b.jumpers[jumper.id] = { ...jumper, from: moved(jumper.from), to: moved(jumper.to) };
});

/** One gate that drives twelve, of a hungry family. */
const six = ['C', 'D', 'E', 'F', 'G', 'H'];
const outs = six.flatMap((x) => [`Y${x} = nand(Q, ${x})`, `Z${x} = Q & ${x}`]);
const crowd = await laidOut(
  `in A B ${six.join(' ')}\nout ${outs.map((o) => o.slice(0, 2)).join(' ')}\nQ = nand(A, B)\n${outs.join('\n')}`,
);
const memory = await laidOut(
  'in A\nout Y\npart MAP of 74288\nholds 0 1\nend\nuse MAP as M (A0 = A, A1 = 0, A2 = 0, A3 = 0, A4 = 0, Gn = 0, Q0 = Y)',
);
const clocked = await laidOut('in D CK\nout Q\nQ = D at rise CK');
const loaded: Board = {
  ...crowd.job.board,
  parts: Object.fromEntries(
    Object.entries(crowd.job.board.parts).map(([ref, p]) => [ref, { ...p, part: p.part.replace('74HC', '74S') }]),
  ),
};

/** The board of the memory, which holds something else than its sheet has it hold. */
function programmedAnew(): Board {
  const { parts } = memory.job.board;
  const own = parts.U1?.own?.replace('holds 0 1', 'holds 1 0');
  const board = { ...memory.job.board, parts: { ...parts, U1: { ...(parts.U1 as SeatedPart), own: own ?? '' } } };
  packingOf.set(board, memory.packing);
  return board;
}

/** The board with another supply voltage. */
const supplied = (volts: number): Board =>
  forced((b) => {
    b.parts.P1 = { ...(b.parts.P1 as SeatedPart), value: volts };
  });

/** The board with chips of other families. */
const family = (parts: Record<string, string>): Board =>
  forced((b) => {
    for (const [ref, part] of Object.entries(parts)) b.parts[ref] = { ...(b.parts[ref] as SeatedPart), part };
  });

/** The same job on a board with broken rails, one break not bridged. */
const split = plan(packing, { kind: 'split' }).board ?? expect.fail();
const bridge =
  Object.values(split.jumpers).find((j) => j.from.startsWith('bs1.top+') && j.to.startsWith('bs1.top+')) ??
  expect.fail('no bridge');
const onSplit: Board = {
  ...split,
  jumpers: {
    ...Object.fromEntries(Object.entries(split.jumpers).filter(([id]) => id !== bridge.id)),
    w90: { id: 'w90', from: 'bs1.j60', to: 'bs1.top+60' },
  },
};

/** The board with another value of a resistor, as only a file can say it. */
const valued = (ref: string, value: number): Board =>
  forced((b) => {
    b.parts[ref] = { ...(b.parts[ref] as SeatedPart), value };
  });

/** S1 to ground, its resistor to supply. */
const inverted = following(
  ...['board', 'seat resistor b2.a21', 'rotate R8', 'pull R1', 'R8.1 > S1.2', 'R8.2 > b1.top+'],
  ...[`pull ${jumperAt('S1.1')}`, 'S1.1 > b1.bottom-'],
);

const withoutPart = (ref: string) => following(`pull ${ref}`);
const pins = (code: FindingCode, board: Board) =>
  found(board)
    .filter((f) => f.code === code)
    .flatMap((f) => f.places.map((p) => Object.values(p)[1]));

describe('every rule finds the board that breaks it, at its place, and nothing else is the first thing said', () => {
  const cases: readonly [code: FindingCode, board: Board, place: string][] = [
    [
      'unknown-part',
      forced((b) => {
        b.parts.U1 = { ...(b.parts.U1 as SeatedPart), part: '74HC999' };
      }),
      'U1',
    ],
    [
      'lead-off-board',
      forced((b) => {
        b.parts.U1 = { ...(b.parts.U1 as SeatedPart), at: 'b1.e60' };
      }),
      'U1',
    ],
    [
      'two-leads-in-a-hole',
      forced((b) => {
        b.jumpers.w99 = { id: 'w99', from: 'b1.e18', to: 'b1.a60' };
      }),
      'b1.e18',
    ],
    [
      'hole-covered',
      forced((b) => {
        b.jumpers.w99 = { id: 'w99', from: 'b1.bottom+43', to: 'b1.a60' };
      }),
      'b1.bottom+43',
    ],
    [
      'pins-in-one-strip',
      forced((b) => {
        b.parts.U9 = { ref: 'U9', part: '74HC00', at: 'b1.a55', rotation: 0 };
      }),
      'U9',
    ],
    ['built-otherwise', following('pull U1', 'pull U2', 'board', 'seat npn b2.c10'), ''],
    ['transistor-reversed', following('board', 'seat npn b2.c10', 'Q1.3 > b1.bottom-'), 'Q1'],
    ['base-no-resistor', following('board', 'seat npn b2.c10', 'Q1.1 > b1.bottom-', 'Q1.2 > S1.2'), 'Q1.2'],
    ['gate-left-open', following('board', 'seat nmos b2.c10'), 'Q1.2'],
    [
      'base-too-weak',
      following(
        'board',
        'seat npn b2.c10',
        'Q1.1 > b1.bottom-',
        ...['seat resistor b2.a21', 'rotate R8', 'value R8 1M', 'R8.1 > S1.2', 'R8.2 > Q1.2'],
        ...['seat resistor b2.a29', 'rotate R9', 'value R9 330', 'R9.1 > b1.top+', 'R9.2 > Q1.3'],
      ),
      'Q1',
    ],
    [
      'one-shot-no-time',
      following('board', 'seat 74HC123 b2.e10', 'U3.16 > b1.top+', 'U3.8 > b1.bottom-', 'U3.13 > U3.10'),
      'U3.15',
    ],
    ['control-left-open', following('board', 'seat 74HC74 b2.e10', 'U3.5 > U3.12', 'U3.2 > b1.top+'), 'U3.1'],
    ['colour-lies', following('colour w20 red'), 'w20'],
    ['supply-not-in-corners', following('board', 'seat 74LS93 b2.e10'), 'U3'],
    ['capacitor-far', following('pull C2', 'seat capacitor b1.top+40'), 'U2'],
    ['capacitor-reversed', following('seat electrolytic b1.c60', 'b1.a60 > b1.top-', 'b1.a61 > b1.top+'), 'C3'],
    [
      'spare-gates-suffice',
      following('board', 'seat 74HC04 b2.e10', 'seat 74HC00 b2.e20', 'U3.2 > b2.a40', 'U3.2 > U4.4'),
      'U3',
    ],
    [
      'spare-gates-suffice',
      // A NAND of two, on a chip of its own, that a NAND of three on another one could be.
      following('board', 'seat 74HC00 b2.e10', 'seat 74HC10 b2.e20', 'U3.3 > U4.1', 'U4.12 > b2.a40'),
      'U3',
    ],
    [
      'decoded-reset',
      following('board', 'seat 74LS93 b2.e10', 'seat 74HC08 b2.e20', 'U3.12 > U4.1', 'U3.9 > U4.2', 'U4.3 > U3.2'),
      'U3.2',
    ],
    ['button-always-closed', following('board', 'seat push-button b2.e10', 'rotate S5'), 'S5'],
    [
      'chips-in-one-strip',
      forced((b) => {
        b.parts.U9 = { ref: 'U9', part: '74HC154', at: b.parts.U1?.at.replace('.e', '.d') ?? '', rotation: 0 };
      }),
      'U9',
    ],
    ['display-polarity', following('board', 'seat display-anode b2.e10', 'H1.3 > b1.bottom-'), 'H1'],
    [
      'display-shared-resistor',
      following(
        'board',
        'seat display-cathode b2.e10',
        'seat resistor b2.f20',
        'H1.3 > R8.1',
        'R8.2 > b1.bottom-',
        'H1.1 > U1.6',
        'H1.2 > U1.8',
      ),
      'H1',
    ],
    ['no-supply-source', withoutPart('P1'), ''],
    ['supply-shorted', following('b1.top+55 > b1.top-55'), 'w29'],
    ['switch-shorts-supply', following('S1.2 > b1.bottom-'), 'S1'],
    ['rail-not-fed', following('pull w1'), ''],
    ['rail-half-dead', onSplit, 'bs1.top+60'],
    ['chip-turned-round', following('rotate U2'), 'U2'],
    ['chip-no-supply', following(`pull ${jumperAt('U1.14')}`), 'U1.14'],
    ['chip-no-ground', following(`pull ${jumperAt('U1.7')}`), 'U1.7'],
    ['no-capacitor', withoutPart('C1'), 'U1'],
    ['outputs-joined', following('U1.6 > U1.8'), 'U1.6'],
    ['output-on-rail', following('U2.10 > b1.top+'), 'U2.10'],
    ['signals-joined', following('S1.2 > S2.2'), 'S1.2'],
    ['switch-bypassed', following('S1.2 > b1.top+'), 'S1'],
    ['part-missing', withoutPart('U2'), 'U2'],
    [
      'part-differs',
      forced((b) => {
        b.parts.U2 = { ...(b.parts.U2 as SeatedPart), part: '74HC00' };
      }),
      'U2',
    ],
    ['signal-has-no-switch', following('label S1 Z'), 'K'],
    ['label-answers-nothing', following('label S1 Z'), 'S1'],
    [
      'label-answers-nothing',
      forced((b) => {
        b.parts.H1 = {
          ref: 'H1',
          part: 'display-cathode',
          at: 'b1.e58',
          rotation: 0,
          labels: [{ of: 'dp', signal: 'G' }],
        } as SeatedPart;
      }),
      'H1',
    ],
    ['signal-has-no-led', following('label D1 Z'), 'G'],
    ['led-reversed', following('rotate D1'), 'D1'],
    ['led-no-resistor', following('pull R5', 'D1.K > b1.bottom-'), 'D1'],
    ['led-no-return', withoutPart('R5'), 'D1.K'],
    ['wiring-wrong', following(`pull ${jumperAt('U1.10')}`, 'U1.10 > S2.2'), 'U1.10'],
    ['wiring-missing', following(`pull ${jumperAt('D1.A')}`), 'D1.A'],
    ['floating-input', following(`pull ${jumperAt('U1.10')}`), 'U1.10'],
    ['unused-input-open', following(`pull ${jumperAt('U2.8')}`), 'U2.8'],
    ['switch-floats', withoutPart('R1'), 'S1.2'],
    ['wiring-beside', besidePinOne, 'U1.1'],
    ['jumper-in-one-strip', following('b1.a58 > b1.c58'), 'w29'],
    ['jumper-leads-nowhere', following('U1.10 > b1.a58'), 'w29'],
    ['jumper-redundant', following('U1.7 > b1.bottom-'), ''],
    ['clock-from-switch', clocked.job.board, 'U1.3'],
    [
      'supply-current',
      following(
        ...[5, 6, 7].map((r) => `value R${r} 10`),
        ...[1, 2, 3].flatMap((d) => [`pull ${jumperAt(`D${d}.A`)}`, `D${d}.A > b1.top+`]),
      ),
      'P1',
    ],
    [
      'idle-output-wired',
      // A spare NOR, its inputs at ground as planned, gives an input of a chip that nobody asked for.
      following('board', 'seat 74HC04 b2.e10', 'U2.10 > U3.1'),
      'U2.10',
    ],
    [
      'open-collector-no-pull-up',
      following('board', 'seat 74LS05 b2.e10', 'U3.14 > b1.top+', 'U3.7 > b1.bottom-', 'S1.2 > U3.1', 'U3.2 > U2.12'),
      'U3.2',
    ],
    ['supply-out-of-range', supplied(1.5), 'P1'],
    ['supply-over-maximum', supplied(9), 'P1'],
    [
      'supplies-joined',
      forced((b) => {
        b.parts.P2 = { ref: 'P2', part: 'supply', at: 'b1.top+60', rotation: 0, value: 5 };
      }),
      'P2',
    ],
    ['fan-out', loaded, ''],
    ['levels-do-not-meet', family({ U2: '74LS02' }), 'U1.10'],
    [
      'level-between',
      following('board', 'seat resistor b2.a40', 'R8.1 > S1.2', 'R8.2 > b1.top+', 'value R8 10k'),
      'U1.1',
    ],
    [
      'released-by-analogue-switches',
      wired(
        ...[
          'seat 74HC4066 b1.e20',
          `U1.14 > ${PLUS}`,
          `U1.7 > ${MINUS}`,
          ...switches(2),
          'S1.2 > U1.13',
          'S2.2 > U1.1',
        ],
        ...[
          'seat 74HC04 b1.e35',
          `U2.14 > ${PLUS}`,
          `U2.7 > ${MINUS}`,
          'U1.2 > U2.1',
          'seat led b1.a50',
          'U2.2 > D1.A',
        ],
      ),
      'U2.1',
    ],
    [
      'output-over-maximum',
      following('board', 'seat resistor b2.a40', 'R8.1 > U1.6', 'R8.2 > b1.bottom-', 'value R8 47'),
      'U1.6',
    ],
    [
      'led-current',
      forced((b) => {
        b.parts.R5 = { ...(b.parts.R5 as SeatedPart), value: 330 };
      }),
      'D1',
    ],
    ['pull-too-weak', family({ U1: '74LS21' }), 'R1'],
    ['led-no-resistor', valued('R5', 0), 'D1'],
    ['led-no-resistor', following('pull R5', 'D1.K > b1.bottom-', `pull ${jumperAt('D1.A')}`, 'D1.A > b1.top+'), 'D1'],
    ['led-no-resistor', following('pull R5', 'D1.K > b1.bottom-', `pull ${jumperAt('D1.A')}`, 'D1.A > S1.2'), 'D1'],
    ['led-shorted', following('D1.A > D1.K'), 'D1'],
    ['led-between-signals', following('D1.K > S2.2'), 'w29'],
    ['led-resistor-bridged', following('R5.1 > b1.bottom-'), 'w29'],
    ['led-over-maximum', following('value R5 10'), 'D1'],
    ['led-over-maximum', following('value R5 10', `pull ${jumperAt('D1.A')}`, 'D1.A > b1.top+'), 'D1'],
    ['led-over-maximum', following('value R5 10', `pull ${jumperAt('D1.A')}`, 'D1.A > S1.2'), 'D1'],
    ['led-cathode-on-supply', following('pull R5', 'D1.K > b1.top+'), 'D1'],
    ['switch-one-level', following(`pull ${jumperAt('S1.1')}`, 'S1.1 > b1.bottom-'), 'S1'],
    ['switch-inverted', inverted, 'S1'],
    ['contents-differ', programmedAnew(), 'U1'],
    ['part-stands-in', family({ U1: '74LS21' }), 'U1'],
    ['switch-no-feed', following(`pull ${jumperAt('S1.1')}`), 'S1.1'],
  ];

  it.each(cases)('%s', (code, board, place) => {
    expect(
      found(board).map((f) => f.code),
      found(board).map(says).join(),
    ).toContain(code);
    if (place !== '') expect(pins(code, board)).toContain(place);
  });

  it('no rule is left without such a board', () => {
    expect([...new Set(cases.map(([code]) => code))].sort()).toEqual(rules.map((r) => r.id).sort());
  });

  it('every rule is explained in docs/inspection.md, with its own sentences', () => {
    const doc = readFileSync(`${import.meta.dirname}/../../../docs/inspection.md`, 'utf8');
    for (const { id } of rules) {
      const { severity, says: what, todo } = sentences[id];
      const row = doc.split('\n').find((l) => l.startsWith(`| \`${id}\` | ${severity} | ${what} | `));
      expect(row?.endsWith(` | ${todo} |`), id).toBe(true);
    }
  });

  it.each(rules)('$id leaves the planned board in peace', ({ id }) => {
    expect(found(job.board).map((f) => f.code)).not.toContain(id);
  });
});

describe('what is said', () => {
  it('names the pin, what it should carry and what it carries', () => {
    const board = following(`pull ${jumperAt('U1.10')}`, 'U1.10 > S2.2');
    expect(found(board).map(says)).toEqual(["U1 pin 10 should carry E', it carries E."]);
  });

  it('an unpowered chip, a dead rail or a turned chip is one finding, not ten', () => {
    expect(found(following(`pull ${jumperAt('U1.7')}`)).map((f) => f.code)).toEqual(['chip-no-ground']);
    expect(
      found(following('rotate U2'))
        .filter((f) => f.severity === 'error')
        .map((f) => f.code),
    ).toContain('chip-turned-round');
    expect(found(following('rotate D1')).map((f) => f.code)).toEqual(['led-reversed']);
  });

  it('a fix, where one is offered, mends its finding', () => {
    const broken = [
      `pull ${jumperAt('U1.14')}`,
      `pull ${jumperAt('U1.7')}`,
      `pull ${jumperAt('U1.10')}`,
      `pull ${jumperAt('U2.8')}`,
      `pull ${jumperAt('D1.A')}`,
      `pull ${jumperAt('S1.1')}`,
      'rotate D1',
      'rotate U1',
      'b1.top+55 > b1.top-55',
      'pull w1',
    ];
    for (const command of broken) {
      const board = following(command);
      const [first] = found(board);
      const again = readCommand(board, first?.fix ?? expect.fail(`no fix after ${command}`));
      const applied = again.ok ? applyEdit({ ...job, board }, again.edit) : expect.fail(first?.fix);
      expect(applied.ok && found(applied.job.board).map((f) => f.code), command).not.toContain(first?.code);
    }
  });

  it('a clock module has no contacts that bounce, and a button has', async () => {
    for (const [from, found] of [
      ['clock 1 Hz', []],
      ['button', ['clock-from-switch']],
    ] as const) {
      const made = await laidOut(`in D\nin CK from ${from}\nout Q\nQ = D at rise CK`);
      const { board } = made.job;
      const codes = inspect(board, extractNets(board), made.packing, 'HC').map((f) => f.code);
      expect(codes.filter((code) => code === 'clock-from-switch')).toEqual(found);
    }
  });

  it('works without a design: supply, inputs and LEDs are inspected all the same', () => {
    const board = following(`pull ${jumperAt('U1.7')}`);
    expect(inspect(board, extractNets(board), null, 'HC').map((f) => f.code)).toEqual(['chip-no-ground']);
  });

  it('every code has a sentence and a remedy with nothing left open', () => {
    const boards = [following('rotate U2'), withoutPart('U2'), following('U1.6 > U1.8')];
    for (const f of boards.flatMap(found)) expect(`${says(f)} ${remedy(f)}`).not.toMatch(/[{}]|undefined/);
    for (const { says: text, todo } of Object.values(sentences)) expect(text.length * todo.length).toBeGreaterThan(0);
  });
});

describe('what is joined that should be apart', () => {
  it('is told with the jumper that joins it first, whichever of two signals it joins', async () => {
    await fc.assert(
      fc.asyncProperty(arbitrarySheet, fc.nat(), fc.nat(), async (sheet, m, n) => {
        const { job: made, packing: locks } = await laidOut(printSheet(sheet));
        const { ofPin } = extractNets(made.board);
        const pins = [...sourcesOf(locks, made.board).values()].filter((pin) => ofPin.has(pin));
        const [from, to] = [pins[m % pins.length], pins[n % pins.length]];
        if (from === undefined || to === undefined || ofPin.get(from) === ofPin.get(to)) return;
        const command = readCommand(made.board, `${from} > ${to}`);
        if (!command.ok || command.edit.kind !== 'lay-jumper') return;
        const applied = applyEdit(made, command.edit);
        if (!applied.ok) return;
        const { id } = command.edit.jumper;
        const [first] = inspect(applied.job.board, extractNets(applied.job.board), locks, 'HC');
        expect(first?.places[0], `${from} > ${to}`).toEqual({ kind: 'jumper', id });
        expect(says(first ?? expect.fail())).toContain(id);
      }),
      { numRuns: 60 },
    );
  });
});

describe('references', () => {
  it('may be any: a board whose chips are named in another order is as right as before', async () => {
    await fc.assert(
      fc.asyncProperty(
        arbitrarySheet,
        fc.array(fc.nat({ max: 97 }), { minLength: 12, maxLength: 12 }),
        async (sheet, keys) => {
          const { job: made, packing: locks } = await laidOut(printSheet(sheet));
          const renamed = withChipsRenamed(made.board, keys);
          const told = (board: Board) => inspect(board, extractNets(board), locks, 'HC').map((f) => f.code);
          expect(told(renamed).sort()).toEqual(told(made.board).sort());
        },
      ),
      { numRuns: 60 },
    );
  });

  it('are free for blocks and parts used by number too', async () => {
    const text =
      'in CK A B\nout Q Y\nuse 74161 as C1 (CLK = CK, CLRn = 1, LDn = 1, ENP = 1, ENT = 1, A = 0, B = 0, C = 0, D = 0, QA = Q)\nY = nand(A, B)';
    const { job: made, packing: locks } = await laidOut(text);
    const [one, two] = [made.board.parts.U1, made.board.parts.U2].map((p) => p ?? expect.fail());
    const parts = { ...made.board.parts, U1: { ...two, ref: 'U1' }, U2: { ...one, ref: 'U2' } } as Board['parts'];
    const board = { ...made.board, parts };
    expect(inspect(board, extractNets(board), locks, 'HC').filter(isError).map(says)).toEqual([]);
  });
});

/** The same board with the references of its chips dealt out in another order. */
function withChipsRenamed(board: Board, keys: readonly number[]): Board {
  const chips = Object.keys(board.parts).filter((ref) => /^U/.test(ref));
  const dealt = chips.map((ref, i) => [keys[i % keys.length] ?? 0, ref] as const).sort(([a], [b]) => a - b);
  const parts = Object.fromEntries(Object.entries(board.parts).filter(([ref]) => !chips.includes(ref)));
  for (const [i, [, ref]] of dealt.entries()) {
    const name = elementAt(chips, i);
    parts[name] = { ...(board.parts[ref] as SeatedPart), ref: name };
  }
  return { ...board, parts };
}

describe('edits of the board', () => {
  it('never make the inspector throw, whatever is pulled', () => {
    for (const id of [...Object.keys(job.board.parts), ...Object.keys(job.board.jumpers)]) {
      const edit: Edit = id.startsWith('w') ? { kind: 'pull-jumper', id } : { kind: 'pull-part', ref: id };
      const applied = applyEdit(job, edit);
      expect(applied.ok && found(applied.job.board).length, id).toBeGreaterThan(0);
    }
  });
});

describe('the samples of Barrowmere', () => {
  const samples = `${import.meta.dirname}/../../../samples`;
  const codesIn = (file: string): string[] => {
    const read = readJobFile(readFileSync(`${samples}/${file}`, 'utf8'));
    if (!read.ok) return expect.fail(file);
    return inspectJob(read.job, read.job.packing)
      .filter((f) => f.severity !== 'note')
      .map((f) => f.code);
  };
  const planned = readdirSync(samples).filter((f) => f.endsWith('.json') && !f.startsWith('apprentice'));

  // What the false alarm is there to show.
  const shown: Readonly<Record<string, readonly string[]>> = { 'false-alarm.saddlebag.json': ['hazard-steers'] };

  it.each(planned)('%s has nothing to mend, but for what it shows', (file) => {
    expect(codesIn(file)).toEqual(shown[file] ?? []);
  });

  it('the apprentice’s bench has its seven mistakes, each said once', () => {
    expect(codesIn('apprentice-bench.saddlebag.json')).toEqual([
      'chip-no-ground',
      'led-reversed',
      'wiring-missing',
      'switch-floats',
      'no-capacitor',
      'jumper-in-one-strip',
      'colour-lies',
    ]);
  });
});
