import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chipLibrary, readDesign } from '../catalogue';
import { isError } from '../finding';
import { compile, firstDifference, type GateKind, sweep } from '../logic';
import { arbitrarySheet } from '../testing/random';
import { editGate, type GateEdit } from './gate-edit';
import { networkOf } from './netlist';
import { printSheet } from './printer';

const text = `# lock
in  K E U L
out G P W

G = K & E              # a gate
P = K·E'·U·L
W = ~(U | L)           # bell`;

function edited(from: string, edit: GateEdit): string {
  const result = editGate(from, readDesign(from), edit, chipLibrary);
  return result.ok ? result.text : result.finding.code;
}
/** The one line that differs. */
function line(edit: GateEdit): string {
  const [before, now] = [text.split('\n'), edited(text, edit).split('\n')];
  const changed = now.filter((l) => !before.includes(l));
  expect(changed.length).toBeLessThanOrEqual(1);
  return changed[0] ?? `${before.length - now.length} gone`;
}

describe('a gate of the diagram edited', () => {
  it.each<[string, GateEdit, string]>([
    ['kind, as it was written', { act: 'change', gate: 'G', kind: 'or' }, 'G = K | E              # a gate'],
    ['kind, to an inverting one', { act: 'change', gate: 'P', kind: 'nand' }, "P = (K·E'·U·L)'"],
    [
      'kind, of a complement over a bracket',
      { act: 'change', gate: 'W', kind: 'and' },
      'W = U & L              # bell',
    ],
    ['one more input', { act: 'connect', gate: 'W', signal: 'K' }, 'W = ~(U | L | K)       # bell'],
    ['one input less', { act: 'cut', gate: 'P', input: 1 }, 'P = K·U·L'],
    ['down to one input', { act: 'cut', gate: 'W', input: 0 }, 'W = ~L                 # bell'],
    ['an inverter taken out', { act: 'remove', gate: "E'" }, 'P = K·E·U·L'],
    ['a gate taken out whole', { act: 'remove', gate: 'P' }, '1 gone'],
  ])('%s', (_, edit, wanted) => {
    expect(line(edit)).toBe(wanted);
  });

  it('named: its expression gets a line of its own, or its signal another name', () => {
    expect(edited(text, { act: 'name', gate: "E'", name: 'unequal' })).toContain("\nunequal = E'\nP = K·unequal·U·L\n");
    expect(edited(text, { act: 'name', gate: 'G', name: 'GO' })).toContain(
      'out GO P W\n\nGO = K & E              # a gate',
    );
  });

  it('added stands below the last statement', () => {
    expect(edited(text, { act: 'add', kind: 'nor', inputs: ['K', 'U'], name: 'X' })).toBe(`${text}\nX = nor(K, U)`);
  });

  it('written in several places changes in all of them', () => {
    const twice = 'in A B C\nout Y Z\nY = A & B | C\nZ = (B & A) ^ C';
    const gate = readDesign(twice).design.netlist?.gates[0]?.output ?? '';
    expect(edited(twice, { act: 'change', gate, kind: 'or' })).toBe(
      'in A B C\nout Y Z\nY = (A | B) | C\nZ = (B | A) ^ C',
    );
  });

  it('put to another net at one input: a signal, or what an unnamed gate makes', () => {
    expect(line({ act: 'rewire', gate: 'P', input: 1, signal: 'G' })).toBe('P = K·G·U·L');
    expect(line({ act: 'rewire', gate: "E'", input: 0, signal: 'W' })).toBe("P = K·W'·U·L");
    expect(line({ act: 'connect', gate: 'W', signal: "E'" })).toBe('W = ~(U | L | ~E)      # bell');
  });

  it('of a table: the table is written out as equations that do the same, and the gate among them edited', () => {
    const table =
      'in A B C\nout Y Z\n# lamps\ntable Y Z of A B C  # two\n000 : 1 0\n1-1 : 1 1\n01- : - 1\nothers : 0 0\n';
    expect(edited(table, { act: 'change', gate: 'Y', kind: 'nor' })).toBe(
      'in A B C\nout Y Z\n# lamps\nY = ~(~A & ~C | A & C) dc ~A & B  # two\nZ = ~A & B | A & C\n',
    );
    const gates = readDesign(table).design.netlist?.gates ?? [];
    for (const { output } of gates) expect(edited(table, { act: 'name', gate: output, name: 'N' })).toContain('N');
  });

  it('of a block changes wherever the block is used; of a clause or a pin, there', () => {
    const block = 'block b\nin P Q\nout R\nR = P & Q\nend\nin A B\nout Y\nuse b as H (P = A | B, Q = B, R = Y)';
    expect(edited(block, { act: 'change', gate: 'Y', kind: 'nor' })).toContain('\nR = ~(P | Q)\n');
    expect(edited(block, { act: 'connect', gate: 'Y', signal: 'A' })).toBe('gate/not-written');
    const or = readDesign(block).design.netlist?.gates.find((g) => g.kind === 'or')?.output ?? '';
    expect(edited(block, { act: 'change', gate: or, kind: 'xor' })).toContain('(P = A ^ B, Q = B, R = Y)');
    expect(edited(block, { act: 'remove', gate: or })).toBe('gate/needed');
    const stored = 'in A B CK\nout Q\nQ = A at rise CK & B clear ~(A | B)';
    const [clock, clear] = readDesign(stored).design.netlist?.gates ?? [];
    expect(edited(stored, { act: 'cut', gate: clock?.output ?? '', input: 1 })).toContain('at rise CK clear');
    expect(edited(stored, { act: 'change', gate: clear?.output ?? '', kind: 'or' })).toContain('clear A | B');
  });

  it.each<[GateEdit, string]>([
    [{ act: 'rewire', gate: 'G', input: 0, signal: 'G' }, 'gate/would-loop'],
    [{ act: 'connect', gate: 'G', signal: 'Q' }, 'gate/no-signal'],
    [{ act: 'connect', gate: "E'", signal: 'K' }, 'gate/one-input'],
    [{ act: 'connect', gate: 'G', signal: 'G' }, 'gate/would-loop'],
    [{ act: 'name', gate: 'G', name: 'K' }, 'gate/bad-name'],
    [{ act: 'add', kind: 'and', inputs: ['K'], name: 'X' }, 'gate/inputs'],
    [{ act: 'add', kind: 'and', inputs: ['K', 'Q'], name: 'X' }, 'gate/no-signal'],
    [{ act: 'change', gate: 'nothing', kind: 'or' }, 'gate/not-written'],
  ])('%j is refused', (edit, code) => {
    expect(edited(text, edit)).toBe(code);
  });

  it('of any sheet leaves a sheet without mistakes in which that gate has its new kind, and comments in place', () => {
    const kinds: GateKind[] = ['and', 'or', 'xor', 'nand', 'nor', 'xnor'];
    fc.assert(
      fc.property(arbitrarySheet, fc.nat(), fc.constantFrom(...kinds), (sheet, pick, kind) => {
        const before = printSheet(sheet);
        const gates = readDesign(before).design.netlist?.gates.filter((g) => g.kind !== 'not') ?? [];
        const gate = gates[pick % Math.max(1, gates.length)];
        if (!gate) return;
        const after = edited(before, { act: 'change', gate: gate.output, kind });
        const { design, findings } = readDesign(after);
        expect(findings.filter(isError)).toEqual([]);
        expect(after.split('\n').filter((l) => l.includes('#'))).toEqual(
          before.split('\n').filter((l) => l.includes('#')),
        );
        // The sheet now does what the old gates do with that one gate of the new kind.
        const old = readDesign(before).design.netlist ?? expect.fail('no gates');
        const network = networkOf(old);
        const swapped = network.gates.map((g) => (g.output === gate.output ? { ...g, kind } : g));
        const wanted = sweep(compile({ ...network, gates: swapped }));
        const made = sweep(compile(networkOf(design.netlist ?? expect.fail('no gates'))));
        expect(firstDifference(wanted, made)).toBeNull();
      }),
      { numRuns: 80 },
    );
  });
});
