import { readJobFile } from '@saddlebag/core/job-reader';
import { act, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import text from '../../../../samples/fog-beacon.saddlebag.json?raw';
import { replaceDrawer } from '../../store/drawer';
import { drawn } from '../../testing/chart';
import { interlock } from '../../testing/interlock';
import { renderInJob } from '../../testing/render';
import { TimersButton } from './TimersButton';

beforeEach(() => {
  drawn.length = 0;
});

/** The fog beacon's timer, opened. */
async function opened() {
  const read = readJobFile(text);
  const made = renderInJob(<TimersButton />, read.ok ? read.job : expect.fail('the sample cannot be read'));
  await userEvent.click(screen.getByRole('button', { name: 'Timers' }));
  return made;
}
const field = (name: string) => screen.getByLabelText(name);
const figures = () => document.querySelector('[role=status]')?.textContent ?? '';

describe('the timers of a board', () => {
  it('are told with their rate, share and spread, and drawn: the charge of the capacitor, the rate against a resistor', async () => {
    await opened();
    expect(figures()).toMatch(/^2\.102 Hz, with the tolerances of its parts 1\.82 Hz to 2\.459 Hz · .* high 53 %/);
    expect(figures()).toContain('R1 10 kΩ · R2 68 kΩ · C1 4.7 µF');
    await vi.waitFor(() => expect(drawn).toHaveLength(2), 8000);
    expect(drawn[0]?.data.datasets[0]?.data.length).toBeGreaterThan(100);
    // Where the board stands is a point of its own.
    expect(drawn[1]?.data.datasets[1]?.data).toEqual([{ x: 68, y: expect.closeTo(2.102, 2) }]);
    expect(screen.getByRole('img', { name: 'rate, Hz against R2' })).toBeDefined();
  });

  it('get other parts for what is wanted, put on the board with one press and undone with one', async () => {
    const { session } = await opened();
    const values = () => ['R1', 'R2', 'C1'].map((ref) => session.job.board.parts[ref]?.value);
    const before = values();
    await userEvent.type(field('hertz'), '5');
    await userEvent.type(field('high share in percent'), '60');
    const [first] = screen.getAllByRole('button', { name: 'Put on the board' });
    await userEvent.click(first ?? expect.fail('nothing is offered'));
    expect(values()).toEqual([13_000, 24_000, 4700]);
    expect(figures()).toMatch(/^5\.032 Hz/);
    act(() => void session.undo());
    expect(values()).toEqual(before);
  });

  it('get parts of the drawer first, where it has what comes near', async () => {
    await replaceDrawer(
      ['resistor 10 kΩ', 'resistor 33 kΩ', 'capacitor 4.7 µF', '74HC00'].map((part) => ({ part, count: 9 })),
    );
    await opened();
    await userEvent.type(field('hertz'), '4');
    await screen.findByText('R1 10 kΩ · R2 33 kΩ · C1 4.7 µF');
    expect(screen.getAllByText('in the drawer')).toHaveLength(1);
    await replaceDrawer([]);
  });

  it('get a fast switch with one press, and say both rates; undo takes it out', async () => {
    const { session } = await opened();
    await userEvent.click(screen.getByRole('button', { name: 'Wire a fast switch' }));
    expect(figures()).toMatch(/^210\.2 Hz/);
    expect(figures()).toMatch(/While S1 is closed: 2\.08\d Hz, with C5 4\.7 µF beside it\./);
    // What is wanted then is the rate without the second capacitor, and it says so.
    expect(screen.getByText('while S1 is open')).toBeDefined();
    act(() => void session.undo());
    expect(figures()).toMatch(/^2\.102 Hz/);
    expect(screen.getByRole('button', { name: 'Wire a fast switch' })).toBeDefined();
  });

  it('say so where nothing comes near, and where no number is typed', async () => {
    await opened();
    await userEvent.type(field('hertz'), '99999999');
    expect(screen.getByText(/No parts of the series come within a third/)).toBeDefined();
    await userEvent.clear(field('hertz'));
    await userEvent.type(field('hertz'), 'fast');
    expect(screen.getByText(/Type a number above 0/)).toBeDefined();
  });

  it('are not offered where a board has none', () => {
    renderInJob(<TimersButton />, interlock());
    expect(screen.queryByRole('button', { name: 'Timers' })).toBeNull();
  });
});
