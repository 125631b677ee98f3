import { chips, findChip, type PartType, type Unit } from '@saddlebag/core';
import { describe, expect, it } from 'vitest';
import { boxLeads, looksLeft, unitLeads } from './unit-leads';

const units = chips.flatMap(({ base }): [string, PartType, Unit][] => {
  const type = findChip(base) ?? expect.fail(base);
  return type.units.flatMap((unit): [string, PartType, Unit][] =>
    unit.symbol ? [[`${base} ${unit.name}`, type, unit]] : [],
  );
});

const boxed = chips.flatMap(({ base }): [string, PartType, Unit][] => {
  const type = findChip(base) ?? expect.fail(base);
  return type.units.length < 2
    ? []
    : type.units.flatMap((unit): [string, PartType, Unit][] =>
        unit.symbol ? [] : [[`${base} ${unit.name}`, type, unit]],
      );
});

describe('gates inside chips', () => {
  it('look the way their pins lie: of a 7402 to the left below, of a 7400 to the right', () => {
    const of = (base: string) => {
      const type = findChip(base) ?? expect.fail(base);
      return type.units.map((unit) => looksLeft(type, unit));
    };
    expect(of('7400')).toEqual([false, false, false, false]);
    expect(of('7402')).toEqual([true, true, true, true]);
    expect(of('7404')).toEqual([false, false, false, false, false, false]);
  });

  it.each(units)(
    '%s: a line from each input and the output ends at its own pin, the output on its side',
    (_, type, unit) => {
      const at = (id: string) => {
        const pin = type.pins.find((p) => p.id === id) ?? expect.fail(id);
        return { x: 46 * pin.dx, y: pin.dy === 0 ? 60 : -60 };
      };
      const inputs = unit.inputs.map(at);
      const output = at(unit.outputs[0] ?? '');
      const mirrored = looksLeft(type, unit);
      const x = inputs.concat(output).reduce((sum, p) => sum + p.x, 0) / (inputs.length + 1) - 20;
      const leads = unitLeads(
        unit.symbol ?? expect.fail(),
        'distinctive',
        { x, y: -16, scale: 1, mirrored },
        { inputs, output, gap: 4 },
      );
      const ends = leads.map(({ d }) => /H(-?[\d.]+) V(-?[\d.]+)$/.exec(d)?.slice(1).map(Number));
      const sorted = (list: unknown[]) => list.map((e) => JSON.stringify(e)).sort();
      expect(sorted(ends)).toEqual(sorted([...inputs, output].map((p) => [p.x, p.y])));
      const starts = leads.map(({ d }) => Number(/^M(-?[\d.]+)/.exec(d)?.[1]));
      const out = starts.at(-1) as number;
      for (const start of starts.slice(0, -1)) expect(Math.sign(out - start)).toBe(mirrored ? -1 : 1);
    },
  );

  it.each(boxed)('%s: its box is led to each of its pins, and no two of its lines cross', (_, type, unit) => {
    const ends = [...new Set([...unit.inputs, ...unit.outputs])].map((id) => {
      const pin = type.pins.find((p) => p.id === id) ?? expect.fail(id);
      return { x: 46 * pin.dx, y: pin.dy === 0 ? 60 : -60 };
    });
    const x = ends.reduce((sum, p) => sum + p.x, 0) / ends.length;
    const leads = boxLeads({ x, y: 10, halfWidth: 24, halfHeight: 15 }, ends, 3);
    const lines = leads.map(({ d }) => {
      const [, x1, y1, level, x2, y2] = (/^M(\S+),(\S+) V(\S+) H(\S+) V(\S+)$/.exec(d) ?? []).map(Number) as number[];
      return { x1, y1, level, x2, y2 } as Record<'x1' | 'y1' | 'level' | 'x2' | 'y2', number>;
    });
    expect(lines.map((l) => `${l.x2},${l.y2}`).sort()).toEqual(ends.map((p) => `${p.x},${p.y}`).sort());
    for (const a of lines)
      for (const b of lines) {
        if (a === b || Math.sign(a.y2) !== Math.sign(b.y2)) continue;
        // The level stretch of one against the upright ones of the other.
        const [from, to] = [Math.min(a.x1, a.x2), Math.max(a.x1, a.x2)];
        const passes = (at: number, y1: number, y2: number) =>
          at > from && at < to && (a.level - y1) * (a.level - y2) < 0;
        expect(passes(b.x1, b.y1, b.level) || passes(b.x2, b.level, b.y2)).toBe(false);
      }
  });
});
