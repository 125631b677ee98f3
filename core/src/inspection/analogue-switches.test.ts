import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { MINUS, PLUS, resistor, switches, wired } from '../testing/wired';
import { inspect } from '.';
import { recover } from './recover';

const power = (ref: string, plus: number, minus: number): string[] => [
  `${ref}.${plus} > ${PLUS}`,
  `${ref}.${minus} > ${MINUS}`,
];
const CHANNELS = [13, 14, 15, 12, 1, 5, 2, 4];
/** A 4051 that picks one of six gates' outputs, or of two rails, and gives it to an input. */
const selector = [
  ...['seat 74HC4051 b1.e30', ...power('U1', 16, 8), `U1.6 > ${MINUS}`, `U1.7 > ${MINUS}`, ...switches(4)],
  ...['S1.2 > U1.11', 'S2.2 > U1.10', 'S3.2 > U1.9', 'seat 74HC04 b1.e42', ...power('U2', 14, 7)],
  ...['S4.2 > U2.1', 'U2.1 > U2.3', 'U2.3 > U2.5', 'U2.5 > U2.9', 'U2.9 > U2.11', 'U2.11 > U2.13'],
  ...[2, 4, 6, 8, 10, 12].map((pin, k) => `U2.${pin} > U1.${CHANNELS[k]}`),
  ...[`U1.2 > ${PLUS}`, `U1.4 > ${MINUS}`],
  ...['seat 74HC00 b1.e52', ...power('U3', 14, 7), 'U1.3 > U3.1', 'U1.3 > U3.2'],
  ...[4, 5, 9, 10, 12, 13].map((pin) => `U3.${pin} > ${MINUS}`),
  ...['seat led', 'U3.3 > D1.A', ...resistor(5, '1k', 'D1.K', MINUS)],
];

const codes = (board: Board): string[] =>
  inspect(board, extractNets(board), null, 'HC')
    .map((f) => f.code)
    .filter((code) => !['no-capacitor', 'capacitor-far', 'supply-not-in-corners'].includes(code));

describe('boards with analogue switches', () => {
  it('have no findings where one pin is chosen at any time, whatever it carries', () => {
    expect(codes(wired(...selector))).toEqual([]);
  });

  it('have one where the chip can open all of them, and none again with a resistor that holds the input', () => {
    const opened = selector
      .map((line) => (line === `U1.6 > ${MINUS}` ? 'S4.2 > U1.6' : line))
      .toSorted((a, b) => {
        const late = (line: string): number => Number(line === 'S4.2 > U1.6');
        return late(a) - late(b);
      });
    expect(codes(wired(...opened))).toEqual(['released-by-analogue-switches']);
    expect(codes(wired(...opened, ...resistor(6, '100k', 'U3.1', MINUS)))).toEqual([]);
  });

  it('are asked for what is open of the chip itself: select, enable and the negative supply', () => {
    const without = (line: string): Board => wired(...selector.filter((l) => l !== line));
    expect(codes(without('S1.2 > U1.11'))).toContain('floating-input');
    expect(codes(without(`U1.6 > ${MINUS}`))).toContain('control-left-open');
    expect(codes(without(`U1.7 > ${MINUS}`))).toContain('floating-input');
  });

  it('are not read back as a sheet, and it is said why', () => {
    const board = wired(...selector);
    expect(recover(board, extractNets(board)).findings.map((f) => f.code)).toContain('recover/switching-device');
  });
});
