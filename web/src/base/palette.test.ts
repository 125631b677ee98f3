import { elementAt } from '@saddlebag/core';
import { describe, expect, it } from 'vitest';
import { TAG_INK } from '../kit/Tag';
import { contrast, linear } from '../testing/contrast';
import { colours as themed } from './colours';
import { Colours, palette } from './palette';

const MAT = '#24352F';
type Rgb = readonly [number, number, number];

/** CIE L*a*b* of linear sRGB, D65. */
function lab([r, g, b]: Rgb): Rgb {
  const f = (t: number): number => (t > 0.008856 ? Math.cbrt(t) : 7.787 * t + 16 / 116);
  const x = f((0.4124 * r + 0.3576 * g + 0.1805 * b) / 0.9505);
  const y = f(0.2126 * r + 0.7152 * g + 0.0722 * b);
  const z = f((0.0193 * r + 0.1192 * g + 0.9505 * b) / 1.089);
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}

/** Colour blindness, complete: Machado, Oliveira and Fernandes 2009. */
const eyes = {
  usual: [1, 0, 0, 0, 1, 0, 0, 0, 1],
  deuteranope: [0.367322, 0.860646, -0.227968, 0.280085, 0.672501, 0.047413, -0.01182, 0.04294, 0.968881],
  protanope: [0.152286, 1.052583, -0.204868, 0.114503, 0.786281, 0.099216, -0.003882, -0.048116, 1.051998],
} as const;

function seen(hex: string, m: readonly number[]): Rgb {
  const c = linear(hex);
  const row = (i: number): number => Math.max(0, (m[i] ?? 0) * c[0] + (m[i + 1] ?? 0) * c[1] + (m[i + 2] ?? 0) * c[2]);
  return lab([row(0), row(3), row(6)]);
}

/** How far apart two colours look. */
function apart(a: string, b: string, eye: readonly number[]): number {
  const [p, q] = [seen(a, eye), seen(b, eye)];
  return Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);
}

describe('the palette of signals', () => {
  it.each(palette)('%s keeps 3:1 on the mat, and its tag 4.5:1 to the name on it', (colour) => {
    expect(contrast(colour, MAT)).toBeGreaterThanOrEqual(3);
    expect(contrast(colour, TAG_INK)).toBeGreaterThanOrEqual(4.5);
  });

  it.each(Object.entries(eyes))('differs pair by pair for the %s eye', (_, matrix) => {
    for (const [i, a] of palette.entries())
      for (const b of palette.slice(i + 1)) expect(apart(a, b, matrix), `${a} ${b}`).toBeGreaterThan(15);
  });

  it('has nothing like the red of supply wires', () => {
    const supply = elementAt(themed.supplyWire, 0);
    for (const [eye, matrix] of Object.entries(eyes))
      for (const own of palette)
        expect([own, eye, apart(own, supply, matrix) > (eye === 'usual' ? 40 : 17)]).toEqual([own, eye, true]);
  });

  it('gives each signal one colour, rails their own, and a piece of a gate another than the gate', () => {
    const colours = new Colours(['K', 'E', '0', '1', 'G']);
    expect(new Set(['K', 'E', 'G'].map((s) => colours.of(s))).size).toBe(3);
    expect(colours.of('1')).toContain('supply');
    const pieces = new Colours(['G', 'G.1'], new Map([['G.1', new Map([['G', 1]])]]));
    expect(pieces.of('G.1')).not.toBe(pieces.of('G'));
    expect(colours.of('nobody')).toBeNull();
  });
});
