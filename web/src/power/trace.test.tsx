import { plainTrace } from '@saddlebag/core';
import { readJobFile } from '@saddlebag/core/job-reader';
import { act, fireEvent, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import fc from 'fast-check';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import text from '../../../samples/boat-counter.saddlebag.json?raw';
import ropes from '../../../samples/ropes-by-tens.saddlebag.json?raw';
import { picturedRows, tracePicture } from '../kit/trace-picture';
import { renderInJob } from '../testing/render';
import { localStages } from '../testing/stages';
import PowerStep from './PowerStep';
import { panned, zoomed } from './trace-spans';

beforeEach(() => localStages.reset());

const press = (key: string) => act(() => fireEvent.keyDown(document.body, { key, code: key === ' ' ? 'Space' : key }));
const button = (name: string | RegExp) => screen.getByRole('button', { name });
const rows = (): (string | null)[] =>
  [...document.querySelectorAll('[data-row]')].map((row) => row.getAttribute('data-row'));
/** What stands at the end of a row. */
const last = (name: string): string => document.querySelector(`[data-row="${name}"] > :last-child`)?.textContent ?? '';

/** A counter under power, its memory cleared: the boats, if no other is given. */
async function counting(file = text) {
  const read = readJobFile(file);
  const made = renderInJob(<PowerStep />, read.ok ? read.job : expect.fail('the sample cannot be read'));
  await userEvent.selectOptions(screen.getByLabelText('what is stored at power up'), 'memory clear');
  press(' ');
  return made;
}

async function asNumber(...signals: string[]): Promise<void> {
  await userEvent.click(button('Number'));
  for (const signal of signals) await userEvent.click(button(signal));
  await userEvent.click(button('Done'));
}

describe('the trace', () => {
  it('shows several signals as one number in four forms, and takes it apart; undo brings it back', async () => {
    const { session } = await counting();
    expect(rows()).toEqual(['B', 'R', 'Q3', 'Q2', 'Q1', 'Q0', 'ANY', 'TEN']);
    await asNumber('Q3', 'Q2', 'Q1', 'Q0');
    expect(rows()).toEqual(['B', 'R', 'Q3:0', 'ANY', 'TEN']);
    const times = screen.getByLabelText('so many times');
    await userEvent.clear(times);
    await userEvent.type(times, '13');
    await userEvent.click(button('B down 13 times'));
    const forms = [];
    for (let i = 0; i < 4; i++) {
      forms.push(last('Q3:0'));
      await userEvent.click(button(/^Q3:0 is written/));
    }
    expect(forms).toEqual(['1101', '13', 'D', '-3']);
    await userEvent.click(button('Q3:0 ×'));
    expect(rows()).toContain('Q2');
    act(() => void session.undo());
    expect(rows()).toContain('Q3:0');
    // It is in the job: whoever opens it sees it so.
    expect(session.job.trace?.numbers).toMatchObject([{ name: 'Q3:0', of: ['Q3', 'Q2', 'Q1', 'Q0'] }]);
  });

  it('names the states that a number passed through last, and how long each was: ten, before the clear bites', async () => {
    await counting(ropes);
    await asNumber('Q3', 'Q2', 'Q1', 'Q0');
    const times = screen.getByLabelText('so many times');
    await userEvent.clear(times);
    await userEvent.type(times, '10');
    await userEvent.click(button('C down 10 times'));
    expect(last('Q3:0')).toBe('0000');
    expect(screen.getByText(/^passed .*1010 \d+ ns/)).toBeDefined();
  });

  it('has its rows moved with Alt and the arrows', async () => {
    await counting();
    const ten = within(document.querySelector('[data-row="TEN"]') as HTMLElement).getByRole('group');
    ten.focus();
    fireEvent.keyDown(ten, { key: 'ArrowUp', altKey: true });
    expect(rows().slice(-2)).toEqual(['TEN', 'ANY']);
    fireEvent.keyDown(ten, { key: 'ArrowDown', altKey: true });
    expect(rows().slice(-2)).toEqual(['ANY', 'TEN']);
  });

  it('finds when an expression is true, in what was and by letting time run; a mistake is told', async () => {
    await counting();
    await userEvent.click(button('B down'));
    await userEvent.click(button('B down'));
    await userEvent.click(button('B down'));
    const field = screen.getByLabelText('true when');
    await userEvent.type(field, 'Q1 & ~Q0');
    await userEvent.click(button('Before'));
    expect(screen.getByText(/^A \d/)).toBeDefined();
    expect(document.querySelector('[data-mark="a"]')).not.toBeNull();
    await userEvent.clear(field);
    await userEvent.type(field, 'Q1 & Nobody');
    await userEvent.click(button('Next'));
    expect(screen.getByText(/No signal of the trace is called Nobody/)).toBeDefined();
    await userEvent.clear(field);
    await userEvent.type(field, 'Q2');
    await userEvent.click(button('Wait'));
    expect(screen.getByText(/^Waiting/)).toBeDefined();
    await userEvent.click(button('B down'));
    expect(screen.queryByText(/^Waiting/)).toBeDefined();
    await userEvent.click(button('Stop waiting'));
    expect(screen.queryByText(/^Waiting/)).toBeNull();
    await userEvent.clear(field);
    await userEvent.type(field, 'Q3{Enter}');
    expect(await screen.findByText(/the board rests/)).toBeDefined();
  });

  it('keeps its marks in the job: they stand there again when the power comes on anew', async () => {
    const { session } = await counting();
    for (let i = 0; i < 3; i++) await userEvent.click(button('B down'));
    const q0 = screen.getByLabelText(/^Q0: arrows/);
    fireEvent.keyDown(q0, { key: 'ArrowLeft' });
    fireEvent.keyDown(q0, { key: 'ArrowLeft', shiftKey: true });
    fireEvent.keyDown(q0, { key: 'ArrowLeft', shiftKey: true });
    await vi.waitFor(() => expect(session.job.trace?.marks?.b).toBeGreaterThan(0), 4000);
    const { a, b } = session.job.trace?.marks ?? expect.fail();
    expect(b).toBeLessThan(a ?? 0);
    press(' ');
    press(' ');
    expect(document.querySelector('[data-mark]')).toBeNull();
    await userEvent.selectOptions(screen.getByLabelText('time to run on'), 'a second');
    await userEvent.click(button('Run on'));
    await vi.waitFor(() => expect(document.querySelectorAll('[data-row="Q0"] [data-mark]')).toHaveLength(2), 8000);
    expect(session.job.trace?.marks).toEqual({ a, b });
    // Taken away, they are gone from the job too.
    await userEvent.click(button('No marks'));
    await vi.waitFor(() => expect(session.job.trace?.marks).toEqual({ a: null, b: null }), 4000);
  });

  it('winds time back, change by change, and goes on otherwise from there', async () => {
    await counting();
    for (let i = 0; i < 3; i++) await userEvent.click(button('B down'));
    await asNumber('Q3', 'Q2', 'Q1', 'Q0');
    expect(last('Q3:0')).toBe('0011');
    const switchB = () => screen.getByRole('switch', { name: /^B/ }).getAttribute('aria-checked');
    const seen = [last('Q3:0')];
    for (let i = 0; i < 40 && last('Q3:0') !== '0001'; i++) {
      press('Backspace');
      await vi.waitFor(() => expect(screen.queryByText(/On the way there/)).toBeNull());
      if (last('Q3:0') !== seen[seen.length - 1]) seen.push(last('Q3:0'));
    }
    expect(seen[0]).toBe('0011');
    expect(seen).toContain('0010');
    expect(seen[seen.length - 1]).toBe('0001');
    expect(button(/^Run ,/)).toBeDefined();
    // Pressed otherwise from there: another boat.
    await userEvent.click(button(/^Run ,/));
    const before = switchB();
    press('b');
    expect(switchB()).not.toBe(before);
  });
});

describe('what is in sight of a trace', () => {
  const sights = fc.record({
    spanNs: fc.double({ min: 10, max: 86_400e9, noNaN: true }),
    endNs: fc.option(fc.double({ min: 0, max: 1e15, noNaN: true })),
  });

  it('keeps what the pointer is over where it is, whatever the span, and never shows what is to come', () => {
    fc.assert(
      fc.property(
        sights,
        fc.double({ min: 0.01, max: 100, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (sight, times, share) => {
          const now = Math.max(sight.endNs ?? 0, 5e9);
          const at = (s: typeof sight): number => (s.endNs ?? now) - (1 - share) * s.spanNs;
          const next = zoomed(sight, times, share, now);
          expect(next.spanNs).toBeGreaterThanOrEqual(10);
          expect(next.spanNs).toBeLessThanOrEqual(86_400e9);
          if (next.endNs !== null) {
            expect(next.endNs).toBeLessThan(now);
            expect(Math.abs(at(next) - at(sight))).toBeLessThanOrEqual(1e-6 * Math.max(now, next.spanNs, sight.spanNs));
          }
          const back = panned(next, -next.spanNs, now);
          expect(back.endNs ?? now).toBeGreaterThanOrEqual(Math.min(now, next.spanNs));
        },
      ),
    );
  });

  it('goes out as a picture that any program reads, with every row by its name', async () => {
    const { bench } = await counting();
    const trace = bench.snapshot().seen?.trace ?? expect.fail('nothing is traced');
    const number = { name: 'Q<3:0>', of: ['Q3', 'Q2', 'Q1', 'Q0'], form: 'hex' as const };
    const setup = { ...plainTrace, numbers: [number] };
    const svg = tracePicture('Boats & locks', trace, picturedRows(trace, setup));
    const read = new DOMParser().parseFromString(svg, 'image/svg+xml');
    expect(read.querySelector('parsererror')).toBeNull();
    const words = [...read.querySelectorAll('text')].map((t) => t.textContent);
    for (const name of ['Boats & locks', 'B', 'TEN', 'Q<3:0>']) expect(words).toContain(name);
    expect(words).not.toContain('Q3');
    expect(read.querySelectorAll('path').length).toBeGreaterThan(4);
  });
});
