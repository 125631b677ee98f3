import { type Finding, finding, type GateKind } from '@saddlebag/core';
import { fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import { interlock } from '../testing/interlock';
import { renderInJob, renderPage } from '../testing/render';
import { Ask } from './Ask';
import { FindingLine } from './FindingLine';
import { pointAt, useFollowed } from './follow';
import { GateSymbol } from './GateSymbol';
import { PackageDrawing } from './PackageDrawing';
import { Tag } from './Tag';

function Followed() {
  return <output>{useFollowed() ?? 'none'}</output>;
}

describe('a tag', () => {
  it('lights its signal while it is pointed at, and keeps it lit when pressed', async () => {
    const { container } = renderInJob(
      <>
        <Tag signal="K" />
        <Followed />
      </>,
      interlock(),
    );
    const tag = screen.getByRole('button', { name: 'follow K' });
    const lit = () => container.querySelector('output')?.textContent;
    expect(lit()).toBe('none');
    fireEvent.pointerEnter(tag);
    expect(lit()).toBe('K');
    fireEvent.pointerLeave(tag);
    expect(lit()).toBe('none');
    await userEvent.click(tag);
    fireEvent.pointerLeave(tag);
    expect(lit()).toBe('K');
    await userEvent.click(tag);
    fireEvent.pointerLeave(tag);
    fireEvent.blur(tag);
    expect(lit()).toBe('none');
  });

  it('always has the name beside the colour, rails as people call them', () => {
    renderInJob(
      <>
        <Tag signal="E'" />
        <Tag signal="1" />
        <Tag signal="0" />
      </>,
      interlock(),
    );
    expect(screen.getByText("E'")).toBeDefined();
    expect(screen.getByText('+5 V')).toBeDefined();
    expect(screen.getByText('0 V')).toBeDefined();
  });
});

describe('a finding', () => {
  const broken: Finding = finding(
    'chip-no-ground',
    [{ kind: 'pin', pin: 'U2.7' }],
    { ref: 'U2', pin: '7', strip: 'b1.9e' },
    'U2.7 > b1.bottom-',
  );

  it('says what is wrong, what to do, how grave it is and where', () => {
    renderPage(<FindingLine finding={broken} where="U2" />);
    expect(screen.getByText('U2 pin 7 has no ground.')).toBeDefined();
    expect(screen.getByText(/Lay a jumper from its strip b1.9e/)).toBeDefined();
    expect(screen.getByText('to fix · U2')).toBeDefined();
    expect(screen.queryByRole('button')).toBeNull();
  });

  it('can be chosen and mended', async () => {
    const [choose, fix] = [vi.fn(), vi.fn()];
    renderPage(<FindingLine finding={broken} onChoose={choose} onFix={fix} />);
    await userEvent.click(screen.getByRole('button', { name: /has no ground/ }));
    await userEvent.click(screen.getByRole('button', { name: 'U2.7 > b1.bottom-' }));
    expect([choose.mock.calls.length, fix.mock.calls.length]).toEqual([1, 1]);
  });
});

describe('gate symbols', () => {
  const kinds: GateKind[] = ['not', 'and', 'or', 'xor', 'nand', 'nor', 'xnor'];
  const draw = (kind: GateKind, form: 'distinctive' | 'rectangular', more: { lit?: boolean; spare?: boolean } = {}) =>
    render(
      <svg aria-hidden="true">
        <GateSymbol kind={kind} form={form} {...more} />
      </svg>,
    ).container;

  it.each(kinds)('%s has a bubble exactly when it inverts, in either form', (kind) => {
    for (const form of ['distinctive', 'rectangular'] as const) {
      const bubbles = draw(kind, form).querySelectorAll('circle').length;
      expect(bubbles).toBe(['not', 'nand', 'nor', 'xnor'].includes(kind) ? 1 : 0);
    }
  });

  it.each([
    ['and', '&'],
    ['nor', '≥1'],
    ['xor', '=1'],
    ['not', '1'],
  ] as const)('%s is marked %s in the rectangular form', (kind, mark) => {
    expect(draw(kind, 'rectangular').textContent).toBe(mark);
  });

  it('are dashed when spare, filled when lit, and differ from kind to kind', () => {
    expect(draw('and', 'distinctive', { spare: true }).innerHTML).toContain('stroke-dasharray');
    expect(draw('and', 'distinctive', { lit: true }).innerHTML).toContain('colors-lit');
    const shapes = ['and', 'or', 'xor', 'not'].map((k) => draw(k as GateKind, 'distinctive').innerHTML);
    expect(new Set(shapes).size).toBe(4);
  });
});

describe('a package', () => {
  it('shows every pin with its number and what it carries, and names the gate in each unit', () => {
    const job = interlock();
    const [u1, u2] = job.packing?.packages ?? [];
    if (!u1 || !u2) return expect.fail('no packages');
    const { container } = renderInJob(<PackageDrawing pack={u2} />, job);
    const texts = [...container.querySelectorAll('text')].map((t) => t.textContent);
    for (let pin = 1; pin <= 14; pin++) expect(texts).toContain(String(pin));
    expect(texts).toEqual(expect.arrayContaining(["E'", 'W', '+5 V', '0 V']));
    expect(container.innerHTML.match(/stroke-dasharray/g)?.length).toBe(2);
  });
});

describe('asking for a line of text', () => {
  const ask = () => {
    const [done, close] = [vi.fn(), vi.fn()];
    renderPage(<Ask title="Rename the job" label="Name" value="Lock" done="Rename" onDone={done} onClose={close} />);
    return { done, close };
  };

  it('gives the answer, trimmed, on Enter', async () => {
    const { done, close } = ask();
    const input = await screen.findByLabelText('Name');
    await userEvent.clear(input);
    await userEvent.type(input, '  Weir {Enter}');
    expect(done).toHaveBeenCalledWith('Weir');
    expect(close).toHaveBeenCalledOnce();
  });

  it('does not take an empty one, and closes without any on Cancel', async () => {
    const { done, close } = ask();
    const input = await screen.findByLabelText('Name');
    await userEvent.clear(input);
    await userEvent.type(input, '   {Enter}');
    expect(screen.getByRole('button', { name: 'Rename' })).toHaveProperty('disabled', true);
    await userEvent.click(screen.getByRole('button', { name: 'Cancel' }));
    expect(done).not.toHaveBeenCalled();
    expect(close).toHaveBeenCalled();
  });
});

describe('following', () => {
  it('prefers what is pointed at to what is pinned', () => {
    const { container } = renderPage(<Followed />);
    pointAt('E');
    pointAt(null);
    expect(container.querySelector('output')?.textContent).toBe('none');
  });
});
