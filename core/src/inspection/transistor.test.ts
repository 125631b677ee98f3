import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { applyEdit, newJob, readCommand } from '../job';
import { laidOut } from '../testing/interlock';
import { MINUS, PLUS, resistor, switches, wired } from '../testing/wired';
import { inspect, isBuiltOtherwise } from '.';

const found = (board: Board) => inspect(board, extractNets(board), null, 'HC').filter((f) => f.severity !== 'note');
const codes = (board: Board): string[] => found(board).map((f) => f.code);

/** An NPN that lights a lamp: its base resistor, its lamp's resistor, and how its legs are joined. */
const npn = (base: string, lamp: string, [emitter, collector] = ['1', '3']): Board =>
  wired(
    ...switches(1),
    'seat npn',
    `Q1.${emitter} > ${MINUS}`,
    ...resistor(2, base, 'S1.2', 'Q1.2'),
    'seat led',
    `D1.K > Q1.${collector}`,
    ...resistor(3, lamp, 'D1.A', PLUS),
  );

describe('a board of transistors in place of the chips of its design', () => {
  it('is not held to pins that are not there, and says so; with one of the chips on it it is', async () => {
    const { packing } = await laidOut('in A\nout Y\nY = ~A');
    const board = npn('4k7', '330');
    const all = (b: Board): string[] => inspect(b, extractNets(b), packing, 'HC').map((f) => f.code);
    expect(all(board)).toEqual(['built-otherwise']);
    const chip = { ref: 'U1', part: '74HC04', at: 'b1.e50', rotation: 0 } as const;
    expect(all({ ...board, parts: { ...board.parts, U1: chip } })).toContain('signal-has-no-switch');
    expect(isBuiltOtherwise(board, null)).toBe(false);
  });
});

describe('a lamp behind a transistor', () => {
  it('is left in peace when it is right: NPN, PNP and MOSFET', () => {
    expect(codes(npn('4k7', '330'))).toEqual([]);
    const pnp = wired(
      ...switches(1),
      'seat pnp',
      `Q1.1 > ${PLUS}`,
      ...resistor(2, '4k7', 'S1.2', 'Q1.2'),
      'seat led',
      'D1.A > Q1.3',
      ...resistor(3, '330', 'D1.K', MINUS),
    );
    expect(codes(pnp)).toEqual([]);
    const nmos = wired(
      ...switches(1),
      'seat nmos',
      `Q1.1 > ${MINUS}`,
      'Q1.2 > S1.2',
      'seat led',
      'D1.K > Q1.3',
      ...resistor(2, '330', 'D1.A', PLUS),
    );
    expect(codes(nmos)).toEqual([]);
  });

  it('is followed through an emitter resistor and a diode as well', () => {
    const follower = wired(
      ...switches(1),
      'seat npn',
      `Q1.3 > ${PLUS}`,
      'Q1.2 > S1.2',
      'seat led',
      'D1.A > Q1.1',
      ...resistor(2, '330', 'D1.K', MINUS),
    );
    expect(codes(follower)).toEqual([]);
    const diode = wired(
      ...switches(1),
      'seat diode',
      'D1.A > S1.2',
      'seat led',
      'D2.A > D1.K',
      ...resistor(2, '330', 'D2.K', MINUS),
    );
    expect(codes(diode)).toEqual([]);
  });

  it('burns without a resistor, dims with a weak base, and is told when the transistor is the wrong way round', () => {
    const bare = wired(
      ...switches(1),
      'seat npn',
      `Q1.1 > ${MINUS}`,
      ...resistor(2, '4k7', 'S1.2', 'Q1.2'),
      'seat led',
      'D1.K > Q1.3',
      `D1.A > ${PLUS}`,
    );
    expect(codes(bare)).toEqual(['led-no-resistor']);
    const [weak] = found(npn('470k', '330'));
    // 9.4 mA need a hundredth of it, and 470 kΩ give 9 µA; 22 kΩ give twice what is needed.
    expect(weak).toMatchObject({ code: 'base-too-weak', facts: { given: '0.0092', needed: '0.094', ohms: 23_000 } });
    expect(codes(npn('22k', '330'))).toEqual([]);
    const reversed = npn('4k7', '330', ['3', '1']);
    expect(codes(reversed)).toEqual(['transistor-reversed']);
    const command = readCommand(reversed, found(reversed)[0]?.fix ?? '');
    const mended = command.ok ? applyEdit({ ...newJob('x'), board: reversed }, command.edit) : null;
    expect(mended?.ok && codes(mended.job.board)).toEqual([]);
  });

  it('has a base of its own resistor, whatever switches it; a follower needs none', () => {
    const direct = wired(
      ...switches(1),
      'seat npn',
      `Q1.1 > ${MINUS}`,
      'Q1.2 > S1.2',
      ...resistor(2, '1k', 'Q1.3', PLUS),
    );
    expect(codes(direct)).toEqual(['base-no-resistor']);
    const low = wired('seat pnp', `Q1.1 > ${PLUS}`, `Q1.2 > ${MINUS}`, ...resistor(1, '1k', 'Q1.3', MINUS));
    expect(codes(low)).toContain('base-no-resistor');
    // A base at its own rail keeps the transistor open and does no harm.
    const off = wired('seat npn', `Q1.1 > ${MINUS}`, `Q1.2 > ${MINUS}`, ...resistor(1, '1k', 'Q1.3', PLUS));
    expect(codes(off)).not.toContain('base-no-resistor');
  });

  it('has a gate that something reaches even while its switch is off', () => {
    const load = ['seat nmos', `Q1.1 > ${MINUS}`, ...resistor(1, '1k', 'Q1.3', PLUS)];
    expect(codes(wired(...load))).toEqual(['gate-left-open']);
    // With a switch on it that is the one thing said.
    expect(codes(wired(...load, 'seat switch', `S1.1 > ${PLUS}`, 'Q1.2 > S1.2'))).toEqual(['switch-floats']);
  });
});
