import { describe, expect, it } from 'vitest';
import { elementAt } from '../element-at';
import { HIGH, LOW, MachineRun } from '../logic';
import { findChip } from './catalogue';
import { chips } from './chips';
import { kindsOfUnit } from './datasheet';
import { printedTableOf } from './function-table';
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
    expect(printed('74374')[1]).toBe(`${Array(8).fill('X').join(' ')} X H | ${Array(8).fill('Z').join(', ')}`);
  });

  it('are there for most chips', () => {
    const without = chips.filter((c) => unitsOf(c.base).every((unit) => printedTableOf(unit) === null));
    expect(without.length).toBeLessThan(65);
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
              expect(held.agrees(seen, name, does), `${row.inputs.join(' ')}: ${name} ${does}`).toBe(true);
            }
          }
        for (let n = 0; n < 60; n++) {
          const setting = held.setting();
          const fits = table.rows.some((row) =>
            row.inputs.every((mark, i) => ['X', 'no ↑', 'no ↓', setting[i]].includes(mark)),
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

  setting(): string[] {
    return this.unit.behaviour.inputs.map(() => (this.chance() < 0.5 ? 'H' : 'L'));
  }

  /** Outputs before and after a row's edge, and the inputs as they were, everything not asked by chance. */
  tryRow(marks: readonly string[]) {
    const levels = marks.map((mark) => {
      const any = this.chance() < 0.5 ? LOW : HIGH;
      const both: Readonly<Record<string, readonly [number, number]>> = {
        '↑': [LOW, HIGH],
        '↓': [HIGH, LOW],
        H: [HIGH, HIGH],
        L: [LOW, LOW],
        'no ↑': this.chance() < 0.5 ? [HIGH, LOW] : [any, any],
        'no ↓': this.chance() < 0.5 ? [LOW, HIGH] : [any, any],
        X: [any, any],
      };
      return both[mark] ?? expect.fail(mark);
    });
    const put = (edge: 0 | 1): void => {
      levels.forEach((pair, i) => {
        this.run.setInput(i, pair[edge]);
      });
    };
    put(0);
    this.run.settle();
    this.unit.behaviour.stored.forEach((_, i) => {
      this.run.setStored(i, this.chance() < 0.5 ? LOW : HIGH);
    });
    this.run.settle();
    const before = this.outputs();
    put(1);
    this.run.settle();
    return { before, after: this.outputs(), inputs: levels.map(([, after]) => (after === HIGH ? 'H' : 'L')) };
  }

  private outputs(): string[] {
    return this.unit.machine.outputs.map((output, o) => {
      const level = this.run.outputLevel(o) === HIGH ? 'H' : 'L';
      if (output.open) return level === 'H' ? 'Z' : 'L';
      return this.run.outputDriven(o) === LOW ? 'Z' : level;
    });
  }

  agrees(seen: ReturnType<Held['tryRow']>, name: string, does: string): boolean {
    const { inputs, outputs } = this.unit.behaviour;
    const o = outputs.findIndex((out) => out.name === name);
    const [before, after] = [seen.before[o], seen.after[o]];
    const inverse = (level: string | undefined): string => (level === 'H' ? 'L' : 'H');
    if (does === 'as before') return after === before;
    if (does === 'other way') return after === inverse(before);
    if (does.startsWith('counts')) {
      const word = (levels: readonly string[]): number =>
        ['QD', 'QC', 'QB', 'QA', 'Q4', 'Q3', 'Q2', 'Q1']
          .map((pin) => outputs.findIndex((out) => out.name === pin || out.name.slice(1) === pin))
          .filter((at) => at >= 0)
          .reduce((sum, at) => 2 * sum + (levels[at] === 'H' ? 1 : 0), 0);
      const [from, to] = [word(seen.before), word(seen.after)];
      const next = does === 'counts up' ? [from + 1, 0] : [from - 1, 9, 15];
      // What a decade makes of ten and more its data sheet leaves to a diagram.
      return next.includes(to) || from > 9;
    }
    if (/^[=/]/.test(does)) {
      const level = seen.inputs[inputs.indexOf(does.slice(1))];
      return after === (does.startsWith('/') ? inverse(level) : level);
    }
    return after === does;
  }
}
