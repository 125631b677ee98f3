import { finding, newJob, readDesign } from '@saddlebag/core';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { notices } from '../kit/notices';
import { keepEntry, replaceDrawer } from '../store/drawer';
import { interlock } from '../testing/interlock';
import { renderInJob } from '../testing/render';
import { localStages } from '../testing/stages';
import PackStep from './PackStep';

const job = interlock();
beforeEach(() => replaceDrawer([]).then(() => localStages.reset()));

/** Signals on the pins of a chip that have one colour, each with that which had it first. */
function alike(chip: HTMLElement): string[] {
  const firstOf = new Map<string, string>();
  return [...chip.querySelectorAll('rect + text')].flatMap((text) => {
    const [name, fill] = [text.textContent ?? '', text.previousElementSibling?.getAttribute('fill') ?? ''];
    if (!text.previousElementSibling?.hasAttribute('rx')) return [];
    const first = firstOf.get(fill) ?? name;
    firstOf.set(fill, first);
    return first === name ? [] : [`${first} ${name}`];
  });
}

describe('packing', () => {
  it('shows each package with its count, and says how sure it is', () => {
    renderInJob(<PackStep />, job);
    expect(screen.getByRole('group', { name: 'U1 74HC21' })).toBeDefined();
    expect(screen.getByText(/two 4-input ANDs, 2 of 2 used/)).toBeDefined();
    expect(screen.getByText('4 units used, 2 spare')).toBeDefined();
    expect(screen.getByText(/^Fewest for these gates one to one: proved/)).toBeDefined();
  });

  it('claims no proof where there is none', () => {
    const packing = job.packing && { ...job.packing, proved: false };
    renderInJob(<PackStep />, { ...job, packing });
    expect(screen.queryByText(/proved/)).toBeNull();
    expect(screen.getByText('The best found; a smaller one may exist.')).toBeDefined();
  });

  it('tells where each gate sits and what a spare unit is put to', () => {
    renderInJob(<PackStep />, job);
    expect(screen.getByText("K·E'·U·L")).toBeDefined();
    expect(screen.getByText('spare unit as inverter, inputs joined')).toBeDefined();
    expect(screen.getByText('spare inputs joined')).toBeDefined();
  });

  it('is taken to another family with one choice: chips of packing and board change, and undo takes it back', async () => {
    const { session } = renderInJob(<PackStep />, job);
    const told = vi.spyOn(notices, 'create');
    const family = screen.getByLabelText('family of the chips');
    await userEvent.selectOptions(family, 'LS: low-power Schottky TTL');
    await waitFor(() => expect(session.job.family).toBe('LS'));
    expect(screen.getByRole('group', { name: 'U1 74LS21' })).toBeDefined();
    expect(['U1', 'U2'].map((ref) => session.job.board.parts[ref]?.part)).toEqual(['74LS21', '74LS02']);
    // What became the same is told together.
    expect(told.mock.lastCall?.[0].title).toBe('Now on the board: 74LS21: U1; 74LS02: U2; 820 Ω: R1 R3 R4; 330 Ω: R2.');
    await userEvent.selectOptions(family, 'no letters: standard TTL');
    await waitFor(() => expect(session.job.board.parts.U2?.part).toBe('7402'));
    // No 7421 is made without letters.
    expect(session.job.board.parts.U1?.part).toBe('74LS21');
    session.undo();
    session.undo();
    expect(session.job).toEqual(job);
  });

  it('takes the job to what the drawer has, whatever families that are, with one choice', async () => {
    await replaceDrawer([
      { part: '74LS21', count: 1 },
      { part: '74HCT02', count: 4 },
    ]);
    const { session } = renderInJob(<PackStep />, job);
    await screen.findByRole('option', { name: 'as in the drawer: HCT, LS' });
    await userEvent.selectOptions(screen.getByLabelText('family of the chips'), 'as in the drawer: HCT, LS');
    await waitFor(() => expect(session.job.family).toBe('HCT'));
    expect(['U1', 'U2'].map((ref) => session.job.board.parts[ref]?.part)).toEqual(['74LS21', '74HCT02']);
    session.undo();
    expect(session.job).toEqual(job);
    await replaceDrawer([]);
  });

  it('lays the packing out on boards and goes there', async () => {
    const { session, router } = renderInJob(<PackStep />, { ...job, board: newJob('x').board });
    await userEvent.click(screen.getByRole('button', { name: 'Lay it out on boards' }));
    expect(session.job.board).toEqual(job.board);
    expect(router.state.location.pathname).toBe('/job/job-1/board');
  });

  it('can be stopped, and taken up again', async () => {
    const [stop, start] = [vi.fn(), vi.fn()];
    const { unmount } = renderInJob(<PackStep />, job, { packing: null, packingPending: true, stopPacking: stop });
    await userEvent.click(screen.getByRole('button', { name: 'Stop' }));
    expect(stop).toHaveBeenCalledOnce();
    unmount();
    renderInJob(<PackStep />, job, { packing: null, startPacking: start });
    await userEvent.click(screen.getByRole('button', { name: 'Pack again' }));
    expect(start).toHaveBeenCalledOnce();
  });

  it.each([
    ['a mistake in the sheet', { ...newJob('x'), sheet: 'in A\nout Y\nY = B' }, /The sheet has a mistake/],
    ['nothing to pack', newJob('x'), /Nothing to pack yet|Stopped before/],
  ])('says what it waits for: %s', (_, j, text) => {
    renderInJob(<PackStep />, j);
    expect(screen.getByText(text)).toBeDefined();
  });

  it('tells a failed program as a finding', () => {
    const failed = finding('pack/no-solution', [], { status: 'Infeasible' });
    renderInJob(<PackStep />, job, { packing: null, packingFindings: [failed] });
    expect(screen.getByText('The integer program found no packing (Infeasible).')).toBeDefined();
  });
});

describe('strategies', () => {
  const line = (title: string) =>
    within(screen.getByText(title, { selector: 'b' }).closest('li') ?? expect.fail(title));

  it('take larger chips as logic only when asked to, and say what that saves', async () => {
    const adder = { ...newJob('adder'), sheet: 'in A B C\nout S D\nS = A ^ B ^ C\nD = A & B | A & C | B & C' };
    const { netlist } = readDesign(adder.sheet).design;
    renderInJob(<PackStep />, adder, { netlist });
    const find = async (title: string, chips: RegExp) => {
      await userEvent.click(screen.getByRole('button', { name: `Find ${title}` }));
      await waitFor(() => expect(line(title).getByText(chips)).toBeDefined(), { timeout: 20_000 });
    };
    await find('Fewest chips', /^2 chips, /);
    await find('Larger chips too', /^1 chip, /);
    expect(line('Larger chips too').getByText('Saves 1 chip beside the fewest of gates alone.')).toBeDefined();
    await userEvent.click(screen.getByRole('button', { name: 'Look at Fewest chips' }));
    expect(screen.getAllByRole('img', { name: /74HC\d+$/ })).toHaveLength(2);
  });

  it('are found when asked for, looked at, and taken: the board is laid out for it, and undo brings the old back', async () => {
    const { session } = renderInJob(<PackStep />, job);
    await userEvent.click(screen.getByRole('button', { name: 'Find NANDs alone' }));
    await waitFor(() => expect(line('NANDs alone').getByText(/3 chips, \d+ units/)).toBeDefined(), { timeout: 20_000 });
    expect(localStages.asked).toEqual(['ways']);
    await userEvent.click(screen.getByRole('button', { name: 'Look at NANDs alone' }));
    const chips = screen.getAllByRole('img', { name: /74HC(00|10|20|30)$/ });
    expect(chips).toHaveLength(3);
    for (const chip of chips) expect(alike(chip)).toEqual([]);
    await userEvent.click(screen.getByRole('button', { name: 'Use NANDs alone' }));
    expect(session.job.packing?.strategy).toBe('nand');
    expect(Object.values(session.job.board.parts).filter((p) => p.part.startsWith('74'))).toHaveLength(3);
    session.undo();
    expect(session.job).toEqual(job);
  }, 30_000);

  it('of a bare job change the packing alone', async () => {
    const bare = { ...newJob('x', 'in A B\nout Y\nY = A ^ B'), packing: null };
    const { netlist } = readDesign(bare.sheet).design;
    expect(netlist).not.toBeNull();
    const { session } = renderInJob(<PackStep />, bare, { packing: job.packing });
    await userEvent.click(screen.getByRole('button', { name: 'Find Fewest chips' }));
    await waitFor(() => line('Fewest chips').getByText(/No fewer than 1 will do/), { timeout: 20_000 });
    await userEvent.click(screen.getByRole('button', { name: 'Use Fewest chips' }));
    expect(session.job.packing?.packages).toHaveLength(1);
    expect(session.job.board).toEqual(bare.board);
  }, 30_000);
});

describe('the drawer', () => {
  it('is filled by hand, tells what a way lacks, and strikes chips out of this job', async () => {
    const { session } = renderInJob(<PackStep />, job);
    await userEvent.click(screen.getByRole('button', { name: 'Drawer' }));
    await userEvent.type(screen.getByLabelText('part number'), 'teapot{Enter}');
    expect(screen.getByText(/^No part is known as teapot\./)).toBeDefined();
    await userEvent.clear(screen.getByLabelText('part number'));
    await userEvent.type(screen.getByLabelText('part number'), 'SN74HC21N{Enter}');
    expect(await screen.findByLabelText('how many 74HC21')).toBeDefined();
    await userEvent.click(screen.getByRole('button', { name: '7486' }));
    expect(session.job.excluded).toEqual(['7486']);
    await userEvent.click(screen.getByRole('button', { name: 'Done' }));
    await userEvent.click(screen.getByRole('button', { name: 'Find Spare units used' }));
    expect(await screen.findByText('Not in the drawer: 1 × 74HC02', undefined, { timeout: 10_000 })).toBeDefined();
    await keepEntry({ part: '74HC02', count: 1 });
    expect(await screen.findByText('All of it is in the drawer.')).toBeDefined();
  }, 30_000);
});

describe('packing by hand', () => {
  const unit = (name: RegExp) => screen.getByRole('button', { name });

  it('moves a gate by keys, pins it, and packs again around it; undo takes each step back', async () => {
    const { session } = renderInJob(<PackStep />, job);
    await userEvent.selectOptions(screen.getByLabelText('package to add'), '7404');
    await userEvent.click(screen.getByRole('button', { name: 'Add' }));
    expect(session.job.locks?.added).toEqual([{ ref: 'U3', part: '7404' }]);
    expect(screen.getByRole('group', { name: 'U3 74HC04' })).toBeDefined();
    const [place, net] = (
      screen.getAllByRole('button', { name: /^U\d\.\d E'$/ })[0]?.getAttribute('aria-label') ?? ''
    ).split(' ');
    unit(new RegExp(`^${place} `)).focus();
    await userEvent.keyboard('{Enter}');
    await userEvent.selectOptions(screen.getByLabelText('move to'), 'U3.2');
    expect(unit(/^U3\.2 E', pinned$/).getAttribute('aria-pressed')).toBe('true');
    expect(session.job.locks?.pins.map((p) => [p.net, p.ref, p.unit])).toEqual([[net, 'U3', 1]]);
    await userEvent.click(screen.getByRole('button', { name: 'Pack again' }));
    await waitFor(() => expect(session.job.packing?.packages.find((p) => p.ref === 'U3')?.units[1]?.output).toBe(net));
    await userEvent.click(screen.getByRole('button', { name: 'Unpin' }));
    expect(session.job.locks?.pins).toEqual([]);
    for (let i = 0; i < 10; i++) session.undo();
    expect(session.job).toEqual(job);
  }, 30_000);

  it('swaps equal inputs, and goes to the line of the sheet', async () => {
    const { session, router } = renderInJob(<PackStep />, job);
    await userEvent.click(screen.getByText("K·E'·U·L"));
    const before = session.job.packing?.packages.flatMap((p) => p.units).find((u) => u?.output === 'P')?.inputs ?? [];
    await userEvent.click(screen.getByRole('button', { name: /^swap pins 1 and 2$|^swap pins 9 and 10$/ }));
    const after = session.job.packing?.packages.flatMap((p) => p.units).find((u) => u?.output === 'P')?.inputs ?? [];
    expect(after).toEqual([before[1], before[0], ...before.slice(2)]);
    await userEvent.click(screen.getByRole('button', { name: 'On the sheet' }));
    expect(router.state.location.pathname).toBe('/job/job-1/design');
    const { at } = router.state.location.state as { at: number };
    expect(job.sheet.slice(0, at).split('\n')).toHaveLength(
      job.sheet.split('\n').findIndex((l) => l.startsWith('P =')) + 1,
    );
  });

  it('strikes the chip of a unit out, says that the packing uses it, and packs again without it', async () => {
    const { session } = renderInJob(<PackStep />, job);
    await userEvent.click(screen.getByText("K·E'·U·L"));
    await userEvent.click(screen.getByRole('button', { name: 'Exclude 7421' }));
    expect(screen.getByText(/uses chips that are excluded since: 7421/)).toBeDefined();
    await userEvent.click(screen.getByRole('button', { name: 'Pack again' }));
    await waitFor(() => expect(session.job.packing?.packages.map((p) => p.part)).not.toContain('74HC21'));
    expect(screen.queryByText(/excluded since/)).toBeNull();
  }, 30_000);
});
