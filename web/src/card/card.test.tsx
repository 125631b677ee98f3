import { newJob } from '@saddlebag/core';
import { act, fireEvent, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import { interlock } from '../testing/interlock';
import { renderInJob } from '../testing/render';
import CardStep from './CardStep';

const job = interlock();
const wires = (svg: Element | null) => [...(svg?.querySelectorAll('[data-wire]') ?? [])].length;
const drawing = () => screen.getByRole('img', { name: /^board after stage/ });

describe('the build card on the screen', () => {
  it('needs a board', () => {
    renderInJob(<CardStep />, newJob('x'));
    expect(screen.getByText(/written from a laid-out board/)).toBeDefined();
  });

  it('goes from stage to stage by key and by press, the picture growing with it', async () => {
    renderInJob(<CardStep />, job);
    const stages = await screen.findByRole('region', { name: 'stages' });
    expect(screen.getByText('1 of 11')).toBeDefined();
    const first = wires(drawing());
    act(() => fireEvent.keyDown(document.body, { key: 'ArrowDown' }));
    expect(screen.getByText('2 of 11')).toBeDefined();
    expect(wires(drawing())).toBeGreaterThan(first);
    await userEvent.click(within(stages).getByText('P on LED D2'));
    expect(screen.getByText('11 of 11')).toBeDefined();
    expect(wires(drawing())).toBe(28);
    act(() => fireEvent.keyDown(document.body, { key: 'ArrowDown' }));
    expect(screen.getByText('11 of 11')).toBeDefined();
  });

  it('tells what to seat, to lay and to try', async () => {
    renderInJob(<CardStep />, job);
    const stages = await screen.findByRole('region', { name: 'stages' });
    await userEvent.click(within(stages).getByText('G: U1 unit 1'));
    expect(within(stages).getByText(/G = K·E, on U1 pin 6/)).toBeDefined();
    expect(within(stages).getByText(/K=1 E=1 U=1 L=1/)).toBeDefined();
    expect(stages.textContent).toMatch(/w\d+ b1\.[a-e]5 to b1\.\w+, yellow, carries K/);
  });

  it('names every part and every jumper of the board in one stage, and ticks them off on paper', async () => {
    const { container } = renderInJob(<CardStep />, job);
    await screen.findByRole('region', { name: 'stages' });
    const onScreen = container.textContent ?? '';
    act(() => void window.dispatchEvent(new Event('beforeprint')));
    // What is made for paper alone.
    const times = (text: string): number =>
      (container.textContent ?? '').split(text).length - onScreen.split(text).length;
    for (const { ref, at } of Object.values(job.board.parts))
      expect(times(`☐ seat ${ref} `), `${ref} at ${at}`).toBe(1);
    for (const { id, from, to } of Object.values(job.board.jumpers))
      expect(times(`☐ ${id} ${from} to ${to}`), id).toBe(1);
    expect(times('Test: ')).toBe(11);
  });

  it('prints a picture after each stage, what is new in it named at both ends in black on white, and the rows to tick off', async () => {
    const { container } = renderInJob(<CardStep />, job);
    await screen.findByRole('region', { name: 'stages' });
    act(() => void window.dispatchEvent(new Event('beforeprint')));
    const pictured = (n: number) =>
      container.querySelector(`svg[aria-label="after stage ${n}"]`) ?? expect.fail(`no picture ${n}`);
    for (let n = 1; n <= 11; n++) expect(wires(pictured(n)), String(n)).toBeGreaterThanOrEqual(n === 1 ? 1 : 2);
    // The longest wire of the stage of G has its name at both of its ends, and no other stage's has one.
    const tags = [...pictured(5).querySelectorAll('[data-tag-of]')].map((tag) => tag.textContent);
    expect(tags.filter((text) => text === 'w10')).toHaveLength(2);
    expect(tags).not.toContain('w6');
    const whole = container.querySelector('svg[aria-label="the finished board"]');
    const named = new Set([...(whole?.querySelectorAll('[data-tag-of]') ?? [])].map((tag) => tag.textContent));
    expect(named).toEqual(new Set(Object.keys(job.board.jumpers)));
    const rows = [...container.querySelectorAll('tr')].filter((row) => row.textContent.startsWith('☐'));
    expect(rows.map((row) => row.textContent)).toContain('☐1101100');
    expect(rows).toHaveLength(16);
  });

  it('lists parts and pins', async () => {
    renderInJob(<CardStep />, job);
    const parts = await screen.findByRole('region', { name: 'parts list' });
    expect(within(parts).getByText('resistor, axial 10 kΩ')).toBeDefined();
    expect(within(parts).getByText('jumper wires').previousSibling?.textContent).toBe('28');
    expect(within(screen.getByRole('region', { name: 'pin list' })).getByText('U2 74HC02')).toBeDefined();
  });

  it('prints every stage, whatever is open on the screen', async () => {
    const print = vi.spyOn(window, 'print').mockImplementation(() => {});
    const { container } = renderInJob(<CardStep />, job);
    await userEvent.click(await screen.findByRole('button', { name: 'Print' }));
    expect(print).toHaveBeenCalledOnce();
    // What the browser tells before it takes its picture; it is made for that alone.
    expect(container.querySelector('h1')).toBeNull();
    act(() => void window.dispatchEvent(new Event('beforeprint')));
    const printed = [...container.querySelectorAll('h1')].find(
      (h) => h.textContent === 'Lock interlock: build card',
    )?.parentElement;
    for (const stage of ['1. Supply', '11. P on LED D2']) expect(printed?.textContent).toContain(stage);
    for (const id of Object.keys(job.board.jumpers)) expect(printed?.textContent).toContain(`☐ ${id} `);
    act(() => void window.dispatchEvent(new Event('afterprint')));
    expect(container.querySelector('h1')).toBeNull();
  });
});
