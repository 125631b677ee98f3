import { readSheet } from '@saddlebag/core';
import ELK from 'elkjs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { diagramOf, graphOf } from './layout';
import { smallestChange } from './SheetEditor';
import { diagnostics } from './sheet-language';

describe('the smallest change between two texts', () => {
  it('turns one into the other, and touches only what differs', () => {
    fc.assert(
      fc.property(fc.string(), fc.string(), fc.string(), fc.string(), (head, tail, a, b) => {
        const [from, to] = [head + a + tail, head + b + tail];
        const change = smallestChange(from, to);
        expect(from.slice(0, change.from) + change.insert + from.slice(change.to)).toBe(to);
        expect(change.from).toBeGreaterThanOrEqual(Math.min(head.length, change.from));
        expect(change.to - change.from).toBeLessThanOrEqual(a.length);
      }),
    );
  });
});

describe('underlines', () => {
  it('lie within the text, whatever the text', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        for (const d of diagnostics(readSheet(text).findings, text.length)) {
          expect(d.from).toBeGreaterThanOrEqual(0);
          expect(d.to).toBeGreaterThanOrEqual(d.from);
          expect(d.to).toBeLessThanOrEqual(text.length);
        }
      }),
    );
  });

  it('say what to do', () => {
    const text = 'in A\nout Y\nY = A & foo';
    const [first] = diagnostics(readSheet(text).findings, text.length);
    expect(text.slice(first?.from, first?.to)).toBe('foo');
    expect(first?.message).toContain('Declare it with in foo');
  });
});

describe('the gate diagram', () => {
  it('draws every gate, tag and connection, lines from the source to the place', async () => {
    const sheet = "in A B\nout S C N Z\nS = A ^ B\nC = A·B\nN = C'\nZ = A & 1";
    const { netlist } = readSheet(sheet).design;
    if (!netlist) return expect.fail('no gates');
    const { nodes, lines, width } = diagramOf(await new ELK().layout(graphOf(netlist)));
    expect(nodes.map((n) => n.id).sort()).toEqual([
      'gate C',
      'gate N',
      'gate S',
      'gate Z',
      'in 1',
      'in A',
      'in B',
      'out C',
      'out N',
      'out S',
      'out Z',
    ]);
    expect(lines).toHaveLength(7 + 4);
    for (const line of lines) {
      const xs = line.corners.map((c) => c.x);
      expect(xs[0], line.id).toBeLessThan(xs[xs.length - 1] as number);
    }
    for (const n of nodes) expect(n.x + n.width).toBeLessThanOrEqual(width);
  });
});
