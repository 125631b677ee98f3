import { describe, expect, it } from 'vitest';
import { elementAt } from '../element-at';
import { HIGH, LOW, MachineRun } from '../logic';
import { findChip } from './catalogue';
import { chips } from './chips';
import { kindsOfUnit } from './datasheet';
import { mastersOf, printedTableIn, printedTableOf } from './function-table';
import type { Unit } from './part';

const unitsOf = (base: string): Unit[] => kindsOfUnit(findChip(base) ?? expect.fail(base)).map((kind) => kind.unit);
const printed = (base: string): string[] => {
  const table = printedTableOf(elementAt(unitsOf(base), 0)) ?? expect.fail(base);
  return [
    `${table.inputs.join(' ')} | ${table.outputs.join(' ')}`,
    ...table.rows.map((row) => `${row.inputs.join(' ')} | ${row.outputs.join(', ')}`),
  ];
};

describe('function tables as data sheets print them', () => {
  it('are found by the base number of any chip, the 4000 series and older parts of a shared number too', () => {
    for (const { base } of chips)
      for (const unit of unitsOf(base))
        expect(printedTableIn({ part: base }, unit.name), base).toBe(printedTableOf(unit));
  });

  it('of a flip-flop, a latch, a selector, a counter', () => {
    expect(printed('7474')).toEqual([
      '1CLK 1CLRn 1D 1PREn | 1Q 1Qn',
      '↑ H X H | =1D, /1D',
      'no ↑ H X H | as before, as before',
      'X L X H | L, H',
      'X H X L | H, L',
      'X L X L | H, H',
    ]);
    expect(printed('74157')).toContain('X X X X X X X X L H | =1B, =2B, =3B, =4B');
    expect(printed('74151')).toContain('H L H X X X X X X X X L | /D5, =D5');
    expect(printed('74161')).toContain('X X X ↑ H X H H H | counts up, counts up, counts up, counts up');
    expect(printed('74161')).toContain('X X X ↑ H X X X L | =A, =B, =C, =D');
    expect(printed('74190')).toContain('X X X X X X X L | =A, =B, =C, =D');
    expect(printed('74374')[1]).toBe(`${Array(8).fill('X').join(' ')} X H | ${Array(8).fill('Z').join(', ')}`);
  });

  it('of shift registers, long counters, sections of counters, one-shots and latched decoders', () => {
    expect(printed('74194')).toEqual([
      'A B C CLK CLRn D S0 S1 SL SR | QA QB QC QD',
      'X X X ↑ H X H H X X | =A, =B, =C, =D',
      'X X X ↑ H X H L X X | =SR, was QA, was QB, was QC',
      'X X X ↑ H X L H X X | was QB, was QC, was QD, =SL',
      'X X X ↑ H X L L X X | as before, as before, as before, as before',
      'X X X no ↑ H X X X X X | as before, as before, as before, as before',
      'X X X X L X X X X X | L, L, L, L',
    ]);
    expect(printed('74195').join('\n')).toMatch(/was QA, was QB, was QC, was not QC$/m);
    expect(printed('4024')).toContain(`↓ L | ${Array(7).fill('counts up').join(', ')}`);
    expect(printed('7493')).toContain('X ↓ L X | as before, counts up, counts up, counts up');
    expect(printed('74121')).toEqual([
      'A1 A2 B | Q Qn',
      '↑ X X | as before, as before',
      '↓ H H | pulse, low pulse',
      '↓ H L | as before, as before',
      '↓ L X | as before, as before',
      'H ↑ X | as before, as before',
      'H H X | as before, as before',
      'H ↓ H | pulse, low pulse',
      'H ↓ L | as before, as before',
      'H L ↑ | pulse, low pulse',
      'H L no ↑ | as before, as before',
      'L X ↑ | pulse, low pulse',
      'L X no ↑ | as before, as before',
    ]);
    expect(printed('74123')).toContain('L H ↑ | pulse, low pulse');
    expect(printed('SN7476')).toEqual([
      '1CLK 1CLRn 1J 1K 1PREn | 1Q 1Qn',
      '⊓ H H H H | other way, other way',
      '⊓ H H L H | H, L',
      '⊓ H L H H | L, H',
      '⊓ H L L H | as before, as before',
      'no ⊓ H X X H | as before, as before',
      'X L X X H | L, H',
      'X H X X L | H, L',
      'X L X X L | H, H',
    ]);
    expect(printed('4511')).toContain('L L H L H L H | H, H, H, H, H, H, H');
  });

  it('are there for most chips', () => {
    const without = chips.filter((c) => unitsOf(c.base).every((unit) => printedTableOf(unit) === null));
    expect(without.length).toBeLessThan(30);
  });

  it.each(chips.map((c) => c.base))(
    '%s: every row holds, whatever is not asked; and every setting is in a row',
    (base) => {
      for (const unit of unitsOf(base)) {
        const table = printedTableOf(unit);
        if (!table) continue;
        const held = new Held(unit);
        for (let n = 0; n < 25; n++)
          for (const row of table.rows) {
            const seen = held.tryRow(row.inputs);
            for (const [o, does] of row.outputs.entries()) {
              const name = elementAt(table.outputs, o);
              const counting = table.outputs.filter((_, i) => row.outputs[i] === does);
              expect(held.agrees(seen, name, does, counting), `${row.inputs.join(' ')}: ${name} ${does}`).toBe(true);
            }
          }
        for (let n = 0; n < 60; n++) {
          const setting = held.setting(table.inputs);
          const fits = table.rows.some((row) =>
            row.inputs.every((mark, i) => ['X', 'no ↑', 'no ↓', 'no ⊓', setting[i]].includes(mark)),
          );
          expect(fits, setting.join(' ')).toBe(true);
        }
      }
    },
  );
});

/** A unit that rows are tried on: with two levels only, where the tables were found with three. */
class Held {
  private readonly run: MachineRun;
  private state = 12_345;

  constructor(private readonly unit: Unit) {
    this.run = new MachineRun(unit.machine);
  }

  private chance(): number {
    this.state = (Math.imul(this.state, 1_664_525) + 1_013_904_223) >>> 0;
    return this.state / 2 ** 32;
  }

  setting(inputs: readonly string[]): string[] {
    return inputs.map(() => (this.chance() < 0.5 ? 'H' : 'L'));
  }

  /** Outputs before and after a row's edge, and the inputs as they were, everything not asked by chance. */
  tryRow(marks: readonly string[]) {
    const levels = marks.map((mark) => {
      const any = this.chance() < 0.5 ? LOW : HIGH;
      const both: Readonly<Record<string, readonly number[]>> = {
        '↑': [LOW, HIGH],
        '↓': [HIGH, LOW],
        '⊓': [LOW, HIGH, LOW],
        'no ⊓': [any, any],
        H: [HIGH, HIGH],
        L: [LOW, LOW],
        'no ↑': this.chance() < 0.5 ? [HIGH, LOW] : [any, any],
        'no ↓': this.chance() < 0.5 ? [LOW, HIGH] : [any, any],
        X: [any, any],
      };
      return both[mark] ?? expect.fail(mark);
    });
    const put = (edge: 0 | 1 | 2): void => {
      // No pulse ends while a row is tried.
      for (const { input } of this.unit.timers) this.run.setInput(input, LOW);
      levels.forEach((pair, i) => {
        this.run.setInput(i, (pair[edge] ?? pair[1]) as number);
      });
    };
    put(0);
    this.run.settle();
    const state = this.unit.behaviour.stored.map(() => (this.chance() < 0.5 ? LOW : HIGH));
    // Between pulses a master holds what its flip-flop shows.
    for (const [master, slave] of mastersOf(this.unit)) state[master] = elementAt(state, slave);
    this.run.restore(state);
    this.run.settle();
    const [before, kept] = [this.outputs(), this.kept()];
    put(1);
    this.run.settle();
    put(2);
    this.run.settle();
    return {
      before,
      after: this.outputs(),
      kept,
      now: this.kept(),
      inputs: levels.map(([, at, after = at]) => (after === HIGH ? 'H' : 'L')),
    };
  }

  private kept(): string[] {
    return this.unit.behaviour.stored.map((_, i) => (this.run.storedLevel(i) === HIGH ? 'H' : 'L'));
  }

  private outputs(): string[] {
    return this.unit.machine.outputs.map((output, o) => {
      const level = this.run.outputLevel(o) === HIGH ? 'H' : 'L';
      if (output.open) return level === 'H' ? 'Z' : 'L';
      if (this.unit.drives[o] === 'analogue-switch') return level === 'H' ? 'closed' : 'open';
      return this.run.outputDriven(o) === LOW ? 'Z' : level;
    });
  }

  agrees(seen: ReturnType<Held['tryRow']>, name: string, does: string, counting: readonly string[]): boolean {
    const { inputs, outputs, stored } = this.unit.behaviour;
    const o = outputs.findIndex((out) => out.name === name);
    const [before, after] = [seen.before[o], seen.after[o]];
    const inverse = (level: string | undefined): string => (level === 'H' ? 'L' : 'H');
    if (does === 'as before') return after === before;
    if (does === 'other way') return after === inverse(before);
    // A pulse begins: that it ends is left to its resistor and capacitor.
    if (does.endsWith('pulse')) return after === (does === 'pulse' ? 'H' : 'L');
    const shift = /^was (not )?(\w+)$/.exec(does);
    if (shift) {
      const from = outputs.find((out) => out.name === shift[2])?.net ?? shift[2]?.toLowerCase();
      const was = seen.kept[stored.findIndex((s) => s.name === from || s.name.toLowerCase() === from)];
      return was !== undefined && after === (shift[1] ? inverse(was) : was);
    }
    if (does.startsWith('counts')) {
      // Stages that do not come out stand between those that do.
      const nets = outputs.filter((out) => counting.includes(out.name)).map((out) => out.net);
      const stages = stored
        .filter((s) => nets.includes(s.name) || (stored.length > 4 && !outputs.some((out) => out.net === s.name)))
        .map((s) => s.name)
        .sort((a, b) => b.localeCompare(a, 'en', { numeric: true, sensitivity: 'base' }));
      const word = (levels: readonly string[]): number =>
        stages.reduce((sum, stage) => 2 * sum + Number(levels[stored.findIndex((s) => s.name === stage)] === 'H'), 0);
      const [from, to] = [word(seen.kept), word(seen.now)];
      const top = 2 ** stages.length - 1;
      const decade = stages.length === 4 ? 9 : stages.length === 3 ? 4 : top;
      const next = does === 'counts up' ? [from + 1, 0] : [from - 1, decade, top];
      // What a decade makes of ten and more its data sheet leaves to a diagram.
      return next.includes(to) || from > decade;
    }
    if (/^[=/]/.test(does)) {
      const level = seen.inputs[inputs.indexOf(does.slice(1))];
      return after === (does.startsWith('/') ? inverse(level) : level);
    }
    return after === does;
  }
}
