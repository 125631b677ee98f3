import { CompletionContext } from '@codemirror/autocomplete';
import { EditorState } from '@codemirror/state';
import { elementAt, findChip, isError, readDesign, readSheet } from '@saddlebag/core';
import ELK from 'elkjs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { diagramOf, graphOf } from './layout';
import { nameAt, smallestChange } from './SheetEditor';
import { afterUse, completeNames, diagnostics } from './sheet-language';
import { dropAt, sourceAt } from './wire-drag';

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

describe('completion', () => {
  /** What is offered where a text ends, and the text that it takes the place of. */
  const offered = (doc: string): { readonly labels: readonly string[]; readonly of: string } => {
    const result = completeNames(new CompletionContext(EditorState.create({ doc }), doc.length, false));
    return { labels: result?.options.map((o) => o.label) ?? [], of: doc.slice(result?.from ?? doc.length) };
  };

  it('behind from and on offers what inputs come from and outputs are shown on, and nothing else', () => {
    const inputs = ['switch', 'button', 'clock', 'timer'];
    const outputs = ['lamp', 'bar', 'display', 'buzzer'];
    expect(offered('in A from ')).toEqual({ labels: inputs, of: '' });
    expect(offered('in A from button, B from cl')).toEqual({ labels: inputs, of: 'cl' });
    expect(offered('in A\nout Y[3:0] on ')).toEqual({ labels: outputs, of: '' });
    for (const other of ['in A on ', 'out Y from ', 'Y = A & from ']) expect(offered(other).labels).toEqual([]);
  });

  it('within a word offers names of the sheet and words of the language', () => {
    const { labels, of } = offered('in Sluice Weir\nout Y\nY = Sl');
    expect(of).toBe('Sl');
    expect(labels).toEqual(expect.arrayContaining(['Sluice', 'Weir', 'table', 'on lamp', 'from button']));
    expect(labels).not.toContain('Sl');
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
      expect(xs[0], line.id).toBeLessThan(elementAt(xs, xs.length - 1));
    }
    for (const n of nodes) expect(n.x + n.width).toBeLessThanOrEqual(width);
  });

  it('draws flip-flops and used parts as boxes with their pins, joined both ways round', async () => {
    const sheet =
      'in CK R\nout Q0 q\nuse 7493 as C1 (CKA = CK, CKB = Q0, R01 = R, R02 = 1, QA = Q0)\nq = ~q at fall Q0 clear R';
    const { netlist } = readDesign(sheet).design;
    if (!netlist) return expect.fail('no netlist');
    const { nodes, lines } = diagramOf(await new ELK().layout(graphOf(netlist)));
    const cells = nodes.filter((n) => n.kind === 'cell');
    expect(cells.map((n) => n.label).sort()).toEqual(['C1 7493', 'q']);
    const flop = cells.find((n) => n.label === 'q');
    expect(flop?.pins?.left.map((p) => [p.name, p.clock === true, p.ring === true])).toEqual([
      ['D', false, false],
      ['', true, true],
      ['R', false, false],
    ]);
    // Every input pin of every box has a line, and so have the outputs and the inverter.
    expect(lines).toHaveLength(4 + 3 + 1 + 2);
  });
});

describe('a line drawn in the diagram', () => {
  it('takes the place of the input it ends at, else comes to the others; an inverter has one input alone', async () => {
    const { netlist } = readDesign('in A B C\nout Y Z\nY = A & B & ~C\nZ = Y | C').design;
    if (!netlist) return expect.fail('no netlist');
    const { nodes } = diagramOf(await new ELK().layout(graphOf(netlist)));
    const node = (id: string) => nodes.find((n) => n.id === id) ?? expect.fail(id);
    const gate = node('gate Z');
    const [, , second] = gate.ports;
    const middle = { x: gate.x + 2, y: gate.y + gate.height / 2 };
    expect(dropAt(nodes, 'A', second ?? middle)?.edit).toEqual({ act: 'rewire', gate: 'Z', input: 1, signal: 'A' });
    expect(dropAt(nodes, 'A', middle)?.edit).toEqual({ act: 'connect', gate: 'Z', signal: 'A' });
    const inverter = node("gate C'");
    const there = { x: inverter.x + inverter.width / 2, y: inverter.y + 3 };
    expect(dropAt(nodes, 'A', there)?.edit).toMatchObject({ act: 'rewire', gate: "C'", input: 0 });
    expect(dropAt(nodes, 'Z', middle)).toBeNull();
    expect(dropAt(nodes, 'A', { x: -50, y: -50 })).toBeNull();
    for (const n of nodes) expect(sourceAt(n, n)?.net ?? null).toBe(n.kind === 'output' ? null : n.net);
  });
});

describe('behind use', () => {
  it('a part comes with its pins, each to be joined', () => {
    const joined = afterUse(findChip('7400') ?? expect.fail());
    expect(joined).toMatch(/^7400 as \$\{C1\} \(1A = \$\{1A\}, 1B = /);
    const filled = `in A\nout B\nuse ${joined.replace(/\$\{(\d?[AB])\}/g, 'A').replace(/\$\{(\w+)\}/g, '$1')}\nB = C1.1Y`;
    expect(readDesign(filled).findings.filter(isError)).toEqual([]);
  });
});

describe('names in the editor', () => {
  it('are found where the cursor touches them, pins of used parts whole', () => {
    const text = 'Y = C1.QB & ~1A';
    expect([0, 1, 2, 5, 9, 12, 13, 15].map((at) => nameAt(text, at))).toEqual([
      'Y',
      'Y',
      null,
      'C1.QB',
      'C1.QB',
      null,
      '1A',
      '1A',
    ]);
  });
});
