import { describe, expect, it } from 'vitest';
import { colour, colours } from '../../base/colours';
import { palette } from '../../base/palette';
import { contrast, over } from '../../testing/contrast';
import { FILL } from './StripFill';
import { edgeOf, insulation, UNNAMED } from './Wire';

describe.each([
  ['by day', 0],
  ['dim', 1],
] as const)('%s', (_, theme) => {
  const of = (name: keyof typeof colours): string => colours[name][theme];
  const signals = [...palette, of('supplyWire')];
  const empty = { strip: of('strip'), 'plus rail': of('railPlus'), 'minus rail': of('railMinus') };
  const filled = (own: string): string[] => [FILL.atRest, FILL.lit].map((opacity) => over(own, of('strip'), opacity));
  const carrying = signals.flatMap(filled);
  const ground = filled(of('groundWire'));

  it('every hole keeps 3:1 against its strip or rail; on ground, by the ring about it', () => {
    for (const below of [...Object.values(empty), ...carrying])
      expect([below, contrast(of('hole'), below) >= 3]).toEqual([below, true]);
    for (const below of ground) expect(contrast(of('wireEdgeLight'), below)).toBeGreaterThanOrEqual(3);
  });

  it('every wire keeps 3:1 against mat, strips, rails and chips, by itself or by its edge', () => {
    const below = [of('mat'), of('bone'), ...Object.values(empty), ...carrying, ...ground];
    const wires = [
      ...[...signals, UNNAMED, ...Object.values(insulation)].map((own) => ({ own, edge: of(edgeOf(own)) })),
      { own: of('groundWire'), edge: of(edgeOf(colour('groundWire'))) },
    ];
    for (const { own, edge } of wires)
      for (const under of below) {
        const seen = Math.max(contrast(own, under), contrast(edge, under));
        expect([own, under, seen >= 3]).toEqual([own, under, true]);
      }
    expect(wires.length * below.length).toBeGreaterThan(500);
  });
});
