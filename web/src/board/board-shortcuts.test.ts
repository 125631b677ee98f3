import { describe, expect, it, vi } from 'vitest';
import { boardShortcuts } from './board-shortcuts';
import type { HandEvent } from './hand';

const keyed = (key: string, more: Partial<KeyboardEvent> = {}): KeyboardEvent =>
  ({ key, shiftKey: false, target: 'board', ...more }) as unknown as KeyboardEvent;

/** The keys of a board, with what they were asked for; `board` is the only place that is the board. */
function keys({ takes = true, guided = false } = {}) {
  const events: HandEvent[] = [];
  const [follow, type, layNext] = [vi.fn(), vi.fn(), vi.fn()];
  const commands: string[] = [];
  const shortcuts = boardShortcuts({
    take: (event) => {
      events.push(event);
      return takes;
    },
    command: (letter) => {
      commands.push(letter);
      return true;
    },
    isOnBoard: (target) => (target as unknown) === 'board',
    follow,
    type,
    layNext: guided ? layNext : null,
  });
  const press = (binding: string, e: KeyboardEvent): unknown =>
    shortcuts.find((s) => s.keys?.includes(binding))?.take?.(e);
  return { shortcuts, press, events, commands, follow, type, layNext };
}

describe('keys of the board', () => {
  it('are each bound once, and each says what it does', () => {
    const { shortcuts } = keys();
    const bound = shortcuts.flatMap((s) => s.keys ?? []);
    expect(new Set(bound).size).toBe(bound.length);
    expect(new Set(shortcuts.map((s) => s.cap)).size).toBe(shortcuts.length);
    for (const { does } of shortcuts) expect(does).toMatch(/^[a-z]/);
  });

  it('arrows and Enter belong to the board alone; letters to the hands wherever the focus is', () => {
    const { press, events } = keys();
    expect(press('ArrowLeft', keyed('ArrowLeft', { target: null }))).toBe(false);
    expect(press('Enter', keyed('Enter', { target: null }))).toBe(false);
    expect(events).toEqual([]);
    press('Shift+ArrowDown', keyed('ArrowDown', { shiftKey: true }));
    press('r', keyed('r', { target: null }));
    expect(events).toEqual([
      { kind: 'key', key: 'ArrowDown', shift: true },
      { kind: 'key', key: 'r', shift: false },
    ]);
  });

  it('are passed on when the hands have no use for them', () => {
    const { press } = keys({ takes: false });
    for (const binding of ['Delete', 'n', 'Escape', 'ArrowUp']) expect(press(binding, keyed(binding))).toBe(false);
  });

  it('copy, paste and choose all are for the board alone', () => {
    const { press, commands } = keys();
    expect(press('$mod+c', keyed('c', { target: null }))).toBe(false);
    expect(press('$mod+c', keyed('C'))).toBe(true);
    expect(press('$mod+v', keyed('v'))).toBe(true);
    expect(press('$mod+a', keyed('a'))).toBe(true);
    expect(commands).toEqual(['c', 'v', 'a']);
  });

  it('Enter lays what is shown while the person is guided', () => {
    const free = keys();
    free.press('Enter', keyed('Enter'));
    expect(free.events).toHaveLength(1);
    const guided = keys({ guided: true });
    expect(guided.press('Enter', keyed('Enter'))).toBe(true);
    expect(guided.layNext).toHaveBeenCalledTimes(1);
    expect(guided.press('Enter', keyed('Enter', { target: null }))).toBe(false);
    expect(guided.layNext).toHaveBeenCalledTimes(1);
    expect(guided.events).toEqual([]);
    expect(guided.shortcuts.find((s) => s.cap === 'Enter')?.does).toBe('lay what is shown');
  });

  it('F follows, / goes to the line that is typed', () => {
    const { press, follow, type } = keys();
    press('f', keyed('f'));
    press('/', keyed('/'));
    expect([follow.mock.calls.length, type.mock.calls.length]).toEqual([1, 1]);
  });
});
