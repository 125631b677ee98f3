import { ChakraProvider } from '@chakra-ui/react';
import { elementAt, newJob } from '@saddlebag/core';
import { render, renderHook, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { system } from '../base/theme';
import { lookAt, useDesignFocus } from '../kit/design-focus';
import { db } from '../store/db';
import { shelf } from '../store/shelf';
import { renderInJob } from '../testing/render';
import { Faded } from './Faded';
import { GateBar } from './GateBar';
import { boxesOf, gray, mapOf, seamsOf } from './map';
import { ToolsPanel } from './ToolsPanel';

const lock = 'in K E\nout G W\nG = K & E  # gate\nW = ~(K | E)\n';

/** The tools below the gates, for a sheet; they follow the job as it is edited. */
function open(sheet: string) {
  const made = renderInJob(<Tools />, { ...newJob('lock'), sheet });
  return { ...made, text: () => made.session.job.sheet };
}

function Tools() {
  const { reading } = useJobView();
  return <ToolsPanel behaviour={reading?.design.behaviour ?? null} />;
}

const { useJobView } = await import('../base/job-context');
const table = () => screen.findByRole('region', { name: 'truth table' });
beforeEach(() => lookAt({ row: null, signal: null, gate: null }));

describe('the truth table', () => {
  it('says why a row is what it is, and sets cells by keys: the sheet follows', async () => {
    const { text } = open(lock);
    (await table()).focus();
    await userEvent.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}');
    const why = screen.getByRole('region', { name: 'why' });
    expect(why.textContent).toContain('Row 2: why G is 0');
    expect(why.textContent).toContain('K·E= 1·0= 0');
    await userEvent.keyboard('-');
    expect(text()).toContain('table G of K E : 00-1  # gate');
    await userEvent.keyboard('{ArrowRight}1');
    expect(text()).toContain('table W of K E : 1010');
  });

  it('sets a cell that is chosen by pressing it again, and undo brings the equation back', async () => {
    const { text, session } = open(lock);
    const cells = await waitFor(() =>
      within(document.querySelectorAll('tbody tr')[0] as HTMLElement).getAllByRole('cell'),
    );
    await userEvent.click(elementAt(cells, 2));
    expect(text()).toBe(lock);
    await userEvent.click(elementAt(cells, 2));
    expect(text()).toContain('table G of K E : 1001');
    session.undo();
    expect(text()).toBe(lock);
  });

  it('of a clocked sheet is its states, which can be stepped through', async () => {
    open('in CK\nout q1 q0\nq0 = ~q0 at rise CK\nq1 = q1 ^ q0 at rise CK\n');
    const states = await screen.findByRole('region', { name: 'next-state table' });
    expect([...states.querySelectorAll('tbody tr')].map((tr) => tr.textContent)).toEqual([
      '000001',
      '010110',
      '101011',
      '111100',
    ]);
    await userEvent.click(screen.getByRole('button', { name: 'Step' }));
    await userEvent.click(screen.getByRole('button', { name: 'Step' }));
    expect(screen.getByText('00 → 01 → 10')).toBeDefined();
    await userEvent.click(screen.getByRole('button', { name: 'Back' }));
    expect(screen.getByText('00 → 01')).toBeDefined();
  });
});

describe('the states of a clocked sheet with inputs', () => {
  const counter = 'in CK EN R\nout q1 q0\nq0 = q0 ^ EN at rise CK clear R\nq1 = q1 ^ (q0 & EN) at rise CK clear R\n';
  const now = () => document.querySelector('[aria-live=polite]')?.textContent;
  const press = (name: string) => userEvent.click(screen.getByRole('button', { name }));

  it('follow the settings of its inputs, step by step, back, and from the start again', async () => {
    open(counter);
    const states = await screen.findByRole('region', { name: 'next-state table' });
    // Four states with each setting of what is not the clock.
    expect(states.querySelectorAll('tbody tr').length).toBeGreaterThanOrEqual(8);
    const start = now();
    await press('Step');
    expect(now()).toBe(start);
    await press('EN: 0');
    expect(screen.getByRole('button', { name: 'EN: 1' })).toBeDefined();
    await press('Step');
    expect(now()).toBe('01');
    await press('Step');
    expect(now()).toBe('10');
    await press('Back');
    expect(now()).toBe('01');
    await press('Start');
    expect(now()).toBe(start);
    expect(screen.getByRole('button', { name: 'Back' }).hasAttribute('disabled')).toBe(true);
  });
});

describe('restating', () => {
  it('of one signal leaves the others as they are', async () => {
    const { text } = open('in A B C\nout Y Z\nY = A & B | A & C\nZ = A & B | A & C\n');
    await userEvent.click(screen.getByRole('tab', { name: 'Restate' }));
    await userEvent.selectOptions(await screen.findByLabelText('signal to restate'), 'Y');
    const use = await screen.findByRole('button', { name: 'use the form NANDs alone' });
    await waitFor(() => expect(use.hasAttribute('disabled')).toBe(false));
    await userEvent.click(use);
    expect(text()).toContain('Z = A & B | A & C');
    expect(text()).not.toContain('Y = A & B | A & C');
    expect(text()).toMatch(/Y = .*nand/i);
  });

  it('offers each form with its size and what is proved, and takes one', async () => {
    const { text } = open('in A B C\nout Y\nY = A & B | A & C  # keep\n');
    await userEvent.click(screen.getByRole('tab', { name: 'Restate' }));
    await waitFor(() => expect(screen.getAllByText(/· proved smallest/).length).toBe(2));
    await userEvent.click(await screen.findByRole('button', { name: 'use the form factored' }));
    expect(text()).toBe('in A B C\nout Y\nY = A & (B | C)    # keep\n');
  });
});

describe('comparing', () => {
  it('tells two signals apart with the row and both values, and all rows', async () => {
    open(lock);
    await userEvent.click(screen.getByRole('tab', { name: 'Compare' }));
    await userEvent.selectOptions(screen.getByLabelText('first to compare'), 'G');
    await userEvent.selectOptions(screen.getByLabelText('second to compare'), 'signal W');
    expect(await screen.findByText('They differ, first in row 0.')).toBeDefined();
    expect(screen.getByText('G: 0 and 1')).toBeDefined();
    expect(screen.getByRole('region', { name: 'comparison' }).querySelectorAll('tbody tr')).toHaveLength(4);
  });

  it('says of two that are written otherwise that they are the same in all rows', async () => {
    open('in A B\nout Y Z\nY = ~(A & B)\nZ = ~A | ~B\n');
    await userEvent.click(screen.getByRole('tab', { name: 'Compare' }));
    await userEvent.selectOptions(screen.getByLabelText('first to compare'), 'Y');
    await userEvent.selectOptions(screen.getByLabelText('second to compare'), 'signal Z');
    expect(await screen.findByText('The same in all 4 rows.')).toBeDefined();
  });

  it('holds the whole job to another of the shelf, and leads to the row in which they differ', async () => {
    await db.jobs.clear();
    await shelf.add({ ...newJob('As built'), sheet: lock.replace('K & E', 'K | E') });
    open(lock);
    await userEvent.click(screen.getByRole('tab', { name: 'Compare' }));
    const second = screen.getByLabelText('second to compare');
    const built = await within(second).findByText('job: As built');
    await userEvent.selectOptions(second, built);
    expect(await screen.findByText('They differ, first in row 1.')).toBeDefined();
    expect(screen.getByText('G: 0 and 1')).toBeDefined();
    expect(screen.getByText('W: 0 and 0')).toBeDefined();
    await userEvent.click(screen.getByRole('button', { name: 'Show why' }));
    const { result } = renderHook(() => useDesignFocus());
    expect(result.current).toMatchObject({ row: 1, signal: 'G' });
  });
});

describe('the map', () => {
  it('shows the groups of the smallest sum, and its cells can be set by keys', async () => {
    const { text } = open('in A B C\nout Y\nY = A & B | A & C\n');
    await userEvent.click(screen.getByRole('tab', { name: 'Map' }));
    expect(await screen.findByText('A·B')).toBeDefined();
    expect(screen.getByText('A·C')).toBeDefined();
    screen.getByRole('group', { name: 'map of Y' }).focus();
    await userEvent.keyboard('{ArrowRight}1');
    expect(text()).toContain('table Y of A B C : 0100 0111');
    await userEvent.click(screen.getByRole('button', { name: 'Groups of zeros' }));
    expect(await screen.findByText(/Y is low in these/)).toBeDefined();
  });

  it('of every size has each row once, and neighbours that differ in one input', () => {
    for (let n = 2; n <= 6; n++) {
      const { cells } = mapOf(n);
      expect(new Set(cells.map((c) => c.row)).size).toBe(2 ** n);
      expect(new Set(cells.map((c) => `${c.x} ${c.y}`)).size).toBe(2 ** n);
      for (const a of cells)
        for (const b of cells) {
          if (Math.abs(a.x - b.x) + Math.abs(a.y - b.y) !== 1) continue;
          const apart = (a.row ^ b.row).toString(2).replaceAll('0', '').length;
          expect(apart, `${n} inputs: ${a.row} and ${b.row}`).toBe(1);
        }
    }
    expect(gray(2)).toEqual([0, 1, 3, 2]);
  });

  it('draws a product over exactly its cells, in parts where it goes round an edge', () => {
    for (let n = 2; n <= 6; n++) {
      const layout = mapOf(n);
      for (let care = 0; care < 2 ** n; care++) {
        const cube = { care, value: care & 0b101010 };
        const boxes = boxesOf(layout, cube);
        const area = boxes.reduce((sum, b) => sum + b.width * b.height, 0);
        expect(area).toBe(layout.cells.filter((c) => (c.row & cube.care) === cube.value).length);
      }
    }
    expect(boxesOf(mapOf(4), { care: 0b0101, value: 0 })).toHaveLength(4);
  });
});

describe('a gap between the groups of a map', () => {
  it('lies between two cells that touch, or at both outer edges, the same from either side', () => {
    for (let inputs = 2; inputs <= 6; inputs++) {
      const layout = mapOf(inputs);
      for (const { row } of layout.cells)
        for (let i = 0; i < inputs; i++) {
          const there = seamsOf(layout, row, i);
          const back = seamsOf(layout, row ^ (1 << (inputs - 1 - i)), i);
          const words = (list: typeof there) => list.map((s) => JSON.stringify(s)).sort();
          expect(words(back)).toEqual(words(there));
          expect(there.length).toBeGreaterThan(0);
          for (const { x1, y1, x2, y2 } of there) expect(Math.abs(x2 - x1) + Math.abs(y2 - y1)).toBe(1);
        }
    }
  });

  it('is drawn, told with its width, and closed by one press: the product that lies over it', async () => {
    const { text, session } = open('in S A B\nout Y\nY = S & A | ~S & B\n');
    await userEvent.click(screen.getByRole('tab', { name: 'Map' }));
    await waitFor(() => expect(document.querySelectorAll('[data-gap=S]')).toHaveLength(1));
    expect(screen.getByRole('note').textContent).toMatch(
      /When S changes \(one place\), Y should stay high and may fall/,
    );
    await userEvent.click(screen.getByRole('button', { name: 'Add A·B' }));
    expect(text()).toContain('Y = S & A | ~S & B | A & B');
    await waitFor(() => expect(screen.queryByRole('note')).toBeNull());
    expect(document.querySelectorAll('[data-gap]')).toHaveLength(0);
    session.undo();
    expect(text()).toContain('Y = S & A | ~S & B\n');
  });
});

describe('the gate chosen in the diagram', () => {
  const bar = (sheet: string) => {
    const made = renderInJob(<GateBar />, { ...newJob('lock'), sheet });
    return { ...made, text: () => made.session.job.sheet };
  };

  it('changes its kind, takes an input more or less, and is named', async () => {
    lookAt({ gate: 'G' });
    const { text } = bar(lock);
    await userEvent.selectOptions(screen.getByLabelText('kind of gate'), 'xor');
    expect(text()).toContain('G = K ^ E  # gate');
    await userEvent.selectOptions(screen.getByLabelText('connect a signal'), 'W');
    expect(text()).toContain('G = K ^ E ^ W  # gate');
    await userEvent.click(screen.getByRole('button', { name: 'cut input K' }));
    expect(text()).toContain('G = E ^ W  ');
    const name = screen.getByLabelText('name of its signal');
    await userEvent.clear(name);
    await userEvent.type(name, 'GO{Enter}');
    expect(text()).toContain('out GO W');
  });

  it('is told why it cannot be joined to what depends on it', async () => {
    lookAt({ gate: 'G' });
    const { text } = bar('in K E\nout G H\nG = K & E\nH = ~G\n');
    await userEvent.selectOptions(screen.getByLabelText('connect a signal'), 'H');
    expect(screen.getByRole('status').textContent).toContain('H depends on G');
    expect(text()).toContain('G = K & E\n');
  });

  it('may be a new one', async () => {
    const { text } = bar(lock);
    await userEvent.selectOptions(screen.getByLabelText('kind of new gate'), 'nor');
    await userEvent.selectOptions(screen.getByLabelText('of signal'), 'K');
    await userEvent.selectOptions(screen.getByLabelText('of signal'), 'G');
    await userEvent.type(screen.getByLabelText('name of the new signal'), 'X{Enter}');
    expect(text()).toContain('W = ~(K | E)\nX = nor(K, G)\n');
  });
});

describe('what is no longer so', () => {
  it('is out of reach of presses and keys until it is again, and Tab leads past it', async () => {
    const press = vi.fn();
    const inside = (stale: boolean) => (
      <ChakraProvider value={system}>
        <Faded stale={stale}>
          <button type="button" onClick={press}>
            a gate
          </button>
        </Faded>
        <button type="button">after it</button>
      </ChakraProvider>
    );
    const { rerender } = render(inside(true));
    await userEvent.click(screen.getByText('a gate'));
    await userEvent.tab();
    await userEvent.keyboard('{Enter}');
    expect(press).not.toHaveBeenCalled();
    screen.getByText('a gate').focus();
    await userEvent.tab();
    expect(document.activeElement).toBe(screen.getByText('after it'));
    rerender(inside(false));
    await userEvent.click(screen.getByText('a gate'));
    expect(press).toHaveBeenCalledTimes(1);
  });
});
