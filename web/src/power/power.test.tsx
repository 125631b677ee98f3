import { applyEdit, elementAt, extractNets, type Job, newJob, readCommand, stripsOfEnds } from '@saddlebag/core';
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { interlock } from '../testing/interlock';
import { renderInJob } from '../testing/render';
import { localStages } from '../testing/stages';
import PowerStep from './PowerStep';

beforeEach(() => localStages.reset());

const job = interlock();
const without = (id: string): Job => {
  const applied = applyEdit(job, { kind: 'pull-jumper', id });
  return applied.ok ? applied.job : expect.fail(id);
};
const press = (key: string) => act(() => fireEvent.keyDown(document.body, { key, code: key === ' ' ? 'Space' : '' }));
const lamp = (name: string) => screen.getByRole('img', { name: new RegExp(`^${name} `) });

describe('power up', () => {
  it('asks for a board first', () => {
    renderInJob(<PowerStep />);
    expect(screen.getByText(/There is no board to power yet/)).toBeDefined();
  });

  it('is off until it is switched on, by button or by Space, and off again', async () => {
    renderInJob(<PowerStep />, job);
    expect(lamp('W').getAttribute('aria-label')).toBe('W dark');
    await userEvent.click(screen.getByRole('button', { name: 'Power on' }));
    expect(lamp('W').getAttribute('aria-label')).toBe('W lit');
    press(' ');
    expect(lamp('W').getAttribute('aria-label')).toBe('W dark');
  });

  it('shows what is pressed as a button, and what is slid as a switch', () => {
    const pressed: Job = { ...job, board: { ...job.board, parts: { ...job.board.parts } } };
    const { parts } = pressed.board as { parts: Record<string, (typeof job.board.parts)[string]> };
    const first = Object.values(parts).find((p) => p.signal === 'K') ?? expect.fail('no switch of K');
    parts[first.ref] = { ...first, part: 'push-button' };
    renderInJob(<PowerStep />, pressed);
    const capOf = (name: string) =>
      screen.getByRole('switch', { name: new RegExp(`^${name}`) }).querySelector('[data-cap=button]');
    expect([capOf('K') !== null, capOf('E')]).toEqual([true, null]);
  });

  it('shows what runs by itself as no switch, with no key, and leaves it alone', async () => {
    const { board } = job;
    const first = Object.values(board.parts).find((p) => p.signal === 'K') ?? expect.fail('no switch of K');
    const clock = { ...first, part: 'clock', at: 'b1.h60', value: 2 };
    renderInJob(<PowerStep />, { ...job, board: { ...board, parts: { ...board.parts, [first.ref]: clock } } });
    expect(screen.queryByRole('switch', { name: /^K/ })).toBeNull();
    expect(screen.getByRole('img', { name: /^K, .*runs by itself: low$/ })).toBeDefined();
    expect(screen.getByRole('switch', { name: /^E/ })).toBeDefined();
    press(' ');
    press('k');
    expect(screen.getByRole('img', { name: /^K, .*: low$/ })).toBeDefined();
  });

  it('measures at a pin, a hole or a lamp that is typed, and says what the supply gives', async () => {
    renderInJob(<PowerStep />, job);
    press(' ');
    press('k');
    press('e');
    expect(screen.getByText(/^\d+\.\d mA · at rest after/)).toBeDefined();
    press('/');
    const field = screen.getByLabelText('measure at');
    expect(document.activeElement).toBe(field);
    const reads = async (text: string, shown: RegExp) => {
      await userEvent.clear(field);
      await userEvent.type(field, text);
      expect(screen.getByLabelText('meter').textContent).toMatch(shown);
    };
    await reads('u1.14', /^U1\.14.*: 5\.00 V, high$/);
    await reads('S1.2', /, K: 5\.00 V, high$/);
    await reads('b1.top-5', /: 0\.00 V, low$/);
    await reads('D1', /^D1: [23]\.\d\d mA, lit$/);
    await reads('U9.1', /^nothing there to measure$/);
    await reads('b1.j63', /^nothing there to measure$/);
    // What is typed there moves no switch.
    expect(screen.getByRole('switch', { name: /^U/ }).getAttribute('aria-checked')).toBe('false');
  });

  it('turns a potentiometer under power, and keeps it so when the power goes', async () => {
    const typed = ['seat potentiometer', 'RV1.1 > b1.top+', 'RV1.3 > b1.top-'];
    const turning = typed.reduce((before, text) => {
      const command = readCommand(before.board, text);
      const applied = command.ok ? applyEdit(before, command.edit) : expect.fail(text);
      return applied.ok ? applied.job : expect.fail(text);
    }, job);
    renderInJob(<PowerStep />, turning);
    press(' ');
    const slider = screen.getByRole('slider', { name: /RV1/ });
    const field = screen.getByLabelText('measure at');
    await userEvent.type(field, 'RV1.2');
    expect(screen.getByLabelText('meter').textContent).toMatch(/: 2\.50 V/);
    fireEvent.change(slider, { target: { value: '20' } });
    expect(screen.getByLabelText('meter').textContent).toMatch(/: 4\.00 V, high$/);
    expect(slider.getAttribute('aria-valuetext')).toContain('20 %');
    await userEvent.click(screen.getByRole('button', { name: 'Power off' }));
    await userEvent.click(screen.getByRole('button', { name: 'Power on' }));
    expect(screen.getByLabelText('meter').textContent).toMatch(/: 4\.00 V, high$/);
  });

  it('keys work while a box or a slider has the focus, but for those that move it', async () => {
    const command = readCommand(job.board, 'seat potentiometer');
    const seated = command.ok ? applyEdit(job, command.edit) : expect.fail();
    renderInJob(<PowerStep />, seated.ok ? seated.job : expect.fail());
    press(' ');
    const isTaken = (at: HTMLElement, key: string, code = '') => act(() => !fireEvent.keyDown(at, { key, code }));
    const slider = screen.getByRole('slider', { name: 'RV1' });
    const box = screen.getByRole('checkbox', { name: 'contacts bounce' });
    const on = (name: RegExp) => screen.getByRole('switch', { name }).getAttribute('aria-checked');
    for (const key of ['ArrowRight', 'Home', 'PageUp']) expect(await isTaken(slider, key, key), key).toBe(false);
    expect(await isTaken(box, ' ', 'Space')).toBe(false);
    expect(await isTaken(slider, 'k')).toBe(true);
    expect(await isTaken(box, 'e')).toBe(true);
    expect([on(/^K/), on(/^E/)]).toEqual(['true', 'true']);
    expect(await isTaken(screen.getByLabelText('measure at'), 'u')).toBe(false);
    expect(await isTaken(slider, ' ', 'Space')).toBe(true);
    expect(screen.getByRole('button', { name: 'Power on' })).toBeDefined();
  });

  it('in slow motion lists what a change passes through, lights its wires, and shows the longest path', async () => {
    renderInJob(<PowerStep />, job);
    press(' ');
    expect(screen.queryByRole('group', { name: 'what passes' })).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: /^Pause/ }));
    press('k');
    press('e');
    for (let i = 0; i < 4; i++) press('.');
    const list = screen.getByRole('list', { name: 'gate by gate' });
    const steps = within(list).getAllByRole('listitem');
    expect(steps.map((step) => step.textContent)).toContain('+12 nsU1.6Ggoes high');
    // A chosen wire has a wider edge.
    const lit = () => document.querySelectorAll('path[stroke-width="0.62"]').length;
    expect(lit()).toBeGreaterThan(0);
    await userEvent.click(screen.getByRole('button', { name: 'Longest path' }));
    expect(screen.getByText(/^2 gates, /).textContent).toBe('2 gates, 21 ns, at most 40 ns');
    await userEvent.click(screen.getByRole('button', { name: 'Longest path' }));
    expect(screen.queryByText(/^2 gates/)).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: /^Run/ }));
    expect(lit()).toBe(0);
  });

  it('slows time down, stops it, and goes on step by step: what passes on the way is seen', async () => {
    renderInJob(<PowerStep />, job);
    expect(screen.queryByRole('button', { name: /^Pause/ })).toBeNull();
    press(' ');
    await userEvent.selectOptions(screen.getByLabelText('speed of time'), '10 ns a second');
    await userEvent.click(screen.getByRole('button', { name: /^Pause/ }));
    press('k');
    press('e');
    // The switches have moved; the gates behind them have not yet.
    expect(screen.getByRole('switch', { name: /^K/ }).getAttribute('aria-checked')).toBe('true');
    expect(lamp('G').getAttribute('aria-label')).toBe('G dark');
    const step = screen.getByRole('button', { name: /^Step/ });
    let steps = 0;
    while (!(step as HTMLButtonElement).disabled && steps++ < 9) press('.');
    expect(steps).toBeGreaterThan(0);
    expect(lamp('G').getAttribute('aria-label')).toBe('G lit');
    expect(screen.getByLabelText('time since power up').textContent).toMatch(/^\d+(\.\d+)? (ns|µs|ms|s)$/);
    press(',');
    expect(screen.getByRole('button', { name: /^Pause/ })).toBeDefined();
  });

  it('draws what labelled switches and lamps do in time, in place of the table and back', async () => {
    renderInJob(<PowerStep />, job);
    await userEvent.click(screen.getByRole('button', { name: 'Trace' }));
    expect(screen.getByText(/^Power the board up: what its labelled/)).toBeDefined();
    press(' ');
    press('k');
    press('e');
    const traced = screen.getAllByRole('img', { name: /^trace of/ }).map((e) => e.getAttribute('aria-label'));
    expect(traced).toEqual(['K', 'E', 'U', 'L', 'G', 'P', 'W'].map((name) => `trace of ${name}`));
    await userEvent.click(screen.getByRole('button', { name: 'shorter span' }));
    expect(screen.getByText('5 s across')).toBeDefined();
    await userEvent.click(screen.getByRole('button', { name: 'longer span' }));
    await userEvent.click(screen.getByRole('button', { name: 'longer span' }));
    expect(screen.getByText('20 s across')).toBeDefined();
    // A pin that is measured is traced as well, and let go again.
    await userEvent.type(screen.getByLabelText('measure at'), 'U1.14');
    act(() => (document.activeElement as HTMLElement).blur());
    press(';');
    expect(screen.getByRole('img', { name: 'trace of U1.14' })).toBeDefined();
    await userEvent.click(screen.getByRole('button', { name: 'U1.14 ×' }));
    expect(screen.queryByRole('img', { name: 'trace of U1.14' })).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Truth table' }));
    expect(screen.getByRole('button', { name: /^Walk/ })).toBeDefined();
  });

  it('powers up anew with what is stored as it is chosen, and says which output hangs on itself', async () => {
    const latch = [
      'seat supply b1.top+3',
      'b1.top-61 > b1.bottom-61',
      'seat 74HC00 b1.e20',
      'U1.14 > b1.top+',
      'U1.7 > b1.bottom-',
      'U1.3 > U1.4',
      'U1.6 > U1.2',
      'U1.1 > b1.top+',
      'U1.5 > b1.top+',
    ].reduce((bare: Job, line) => {
      const command = readCommand(bare.board, line);
      const applied = command.ok ? applyEdit(bare, command.edit) : null;
      return applied?.ok ? applied.job : expect.fail(line);
    }, newJob('latch'));
    renderInJob(<PowerStep />, latch);
    press(' ');
    expect(screen.getByText(/U1\.3 hangs on itself/)).toBeDefined();
    await userEvent.selectOptions(screen.getByLabelText('what is stored at power up'), 'memory clear');
    expect(screen.queryByText(/hangs on itself/)).toBeNull();
    expect(screen.getByText(/at rest/)).toBeDefined();
  });

  it('says of a lamp that has burnt so, in a word beside the others and in a sentence, until a new one is put in', async () => {
    const applied = applyEdit(job, { kind: 'set-value', ref: 'R7', value: 10 });
    const { session } = renderInJob(<PowerStep />, applied.ok ? applied.job : job);
    press(' ');
    expect(lamp('W').getAttribute('aria-label')).toBe('W destroyed');
    expect(screen.getByText(/^D3 took \d\d mA, past its maximum: it is destroyed/)).toBeDefined();
    // Its resistor is put right, and it is still dark.
    act(() => {
      session.dispatch({ kind: 'set-value', ref: 'R7', value: 1000 });
    });
    expect(lamp('W').getAttribute('aria-label')).toBe('W destroyed');
    await userEvent.click(screen.getByRole('button', { name: 'new D3' }));
    expect(lamp('W').getAttribute('aria-label')).toBe('W lit');
    expect(screen.queryByText(/it is destroyed/)).toBeNull();
  });

  it('says of a row without a level through which pin that is', () => {
    const supply = extractNets(job.board).leads.get('U1.14')?.strip;
    const wire = Object.values(job.board.jumpers).find((jumper) => stripsOfEnds(jumper).includes(supply ?? ''));
    renderInJob(<PowerStep />, without(wire?.id ?? ''));
    press(' ');
    expect(screen.getByText(/U1\.14 has no supply, so nobody knows what its chip does/)).toBeDefined();
  });

  it('switches answer to press, key, and the switch on the board', async () => {
    const { container } = renderInJob(<PowerStep />, job);
    press(' ');
    const on = (name: string) =>
      screen.getByRole('switch', { name: new RegExp(`^${name}`) }).getAttribute('aria-checked');
    await userEvent.click(screen.getByRole('switch', { name: /^K/ }));
    press('e');
    expect([on('K'), on('E'), on('U')]).toEqual(['true', 'true', 'false']);
    expect(lamp('G').getAttribute('aria-label')).toBe('G lit');
    fireEvent.click(container.querySelector('[data-ref=S2] rect') as Element);
    expect(on('E')).toBe('false');
    expect(lamp('G').getAttribute('aria-label')).toBe('G dark');
  });

  it('a row that is pressed is set on the switches', async () => {
    renderInJob(<PowerStep />, job);
    const rows = await screen.findAllByTitle('set the switches to this row');
    await userEvent.click(elementAt(rows, 11));
    expect(lamp('P').getAttribute('aria-label')).toBe('P lit');
    for (const name of ['K', 'U', 'L'])
      expect(screen.getByRole('switch', { name: new RegExp(`^${name}`) }).getAttribute('aria-checked')).toBe('true');
  });

  it('the walk runs every row and tells how many agree', async () => {
    renderInJob(<PowerStep />, job);
    await screen.findAllByTitle('set the switches to this row');
    press('w');
    await screen.findByText('16 of 16 rows seen, all agree');
    expect(screen.getAllByText('agrees')).toHaveLength(16);
    expect(screen.queryByText('—')).toBeNull();
  });

  it('tells the rows that differ on a board with a jumper missing', async () => {
    const id = Object.keys(job.board.jumpers).find((w) => w === 'w10') as string;
    renderInJob(<PowerStep />, without(id));
    await screen.findAllByTitle('set the switches to this row');
    press('w');
    await waitFor(() => expect(screen.getByText(/16 of 16 rows seen, \d+ differ/)).toBeDefined());
    expect(screen.getAllByText('differs').length).toBeGreaterThan(0);
  });

  it('what was walked is forgotten when the board changes', async () => {
    const { session } = renderInJob(<PowerStep />, job);
    await screen.findAllByTitle('set the switches to this row');
    press('w');
    await screen.findByText(/all agree/);
    act(() => {
      session.dispatch({ kind: 'pull-jumper', id: 'w12' });
    });
    // The board stays powered: the row that its switches stand at is seen anew.
    expect(screen.getByText('1 of 16 rows seen')).toBeDefined();
  });

  it('rows set by hand fill the table as the walk does, whether by key, by press or by the row', async () => {
    renderInJob(<PowerStep />, job);
    const rows = await screen.findAllByTitle('set the switches to this row');
    press(' ');
    expect(screen.getByText('1 of 16 rows seen')).toBeDefined();
    press('k');
    await userEvent.click(screen.getByRole('switch', { name: /^E/ }));
    expect(screen.getByText('3 of 16 rows seen')).toBeDefined();
    for (const row of rows) await userEvent.click(row);
    expect(screen.getByText('16 of 16 rows seen, all agree')).toBeDefined();
    expect(screen.getAllByText('agrees')).toHaveLength(16);
  });

  it('Space is power, whatever has the focus', async () => {
    renderInJob(<PowerStep />, job);
    screen.getByRole('switch', { name: /^K/ }).focus();
    await userEvent.keyboard(' ');
    expect(lamp('W').getAttribute('aria-label')).toBe('W lit');
    expect(screen.getByRole('switch', { name: /^K/ }).getAttribute('aria-checked')).toBe('false');
  });

  it('says that supply and ground are joined instead of showing levels', () => {
    const shorted = applyEdit(job, { kind: 'lay-jumper', jumper: { id: 'w90', from: 'b1.top+55', to: 'b1.top-55' } });
    renderInJob(<PowerStep />, shorted.ok ? shorted.job : job);
    press(' ');
    expect(screen.getByText(/supply and ground are joined/)).toBeDefined();
  });

  it('without a design shows what the board does, and never says that anything agrees', async () => {
    const { session } = renderInJob(<PowerStep />, { ...job, sheet: '', packing: null });
    expect(screen.getByText(/There is no design, so there is nothing to compare with/)).toBeDefined();
    press('w');
    await screen.findByText('16 of 16 rows seen');
    expect(screen.getAllByText('seen')).toHaveLength(16);
    expect(screen.queryByText(/agree/)).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'From the board' }));
    await screen.findByText(/wanted by the sheet/);
    expect(session.job.sheet).toContain('out');
  });

  it('names switches and lamps that have no label by what they are', async () => {
    const bare = Object.values(job.board.parts).map(({ signal: _, ...part }) => [part.ref, part] as const);
    const board = { ...job.board, parts: Object.fromEntries(bare) };
    renderInJob(<PowerStep />, { ...job, board, sheet: '', packing: null });
    press('w');
    await screen.findByText('16 of 16 rows seen');
    expect(screen.getByRole('switch', { name: 'S1' })).toBeDefined();
    expect(lamp('D1')).toBeDefined();
  });

  it('a sheet with a mistake leaves the switches working and says why there is no table', () => {
    renderInJob(<PowerStep />, { ...job, sheet: `${job.sheet}\nX = = 1` });
    expect(screen.getByText(/nothing to compare with/)).toBeDefined();
    expect(within(document.body).getByRole('button', { name: 'Walk the table' })).toHaveProperty('disabled', false);
  });
});

describe('a table of one’s own', () => {
  it('is filled in by keys, compared with the sheet, and put away; undo takes each mark back', async () => {
    const { session } = renderInJob(<PowerStep />, job);
    await userEvent.click(await screen.findByRole('button', { name: 'Fill in my own' }));
    expect(screen.getByText('48 of 48 cells open')).toBeDefined();
    const cell = (row: number, output: number) =>
      document.querySelector<HTMLElement>(`[data-cell="${row} ${output}"]`) ?? expect.fail();
    cell(0, 2).focus();
    await userEvent.keyboard('11');
    expect(document.activeElement).toBe(cell(2, 2));
    expect(session.job.ownTable?.outputs[2]?.marks.slice(0, 3)).toBe('11.');
    await userEvent.click(screen.getByRole('button', { name: 'Compare with the sheet' }));
    expect(screen.getByText('1 of 2 wrong, first W at 0001')).toBeDefined();
    expect(cell(1, 2).getAttribute('aria-label')).toBe('W at K=0 E=0 U=0 L=1: 1, the sheet has 0');
    // Pressing goes from one mark to the next; the switches stay.
    await userEvent.click(cell(1, 2));
    expect(cell(1, 2).textContent).toBe('-');
    expect(screen.getByText('46 of 48 cells open')).toBeDefined();
    act(() => session.undo());
    expect(cell(1, 2).textContent).toBe('1');
    await userEvent.click(screen.getByRole('button', { name: 'Show the sheet’s' }));
    expect(session.job.ownTable).toBeUndefined();
  });
});
