import { act, renderHook } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { describe, expect, it } from 'vitest';
import { type Shortcut, useShortcuts } from '../base/shortcuts';
import { useFindable } from './use-findable';

const wrapper = ({ children }: { readonly children: ReactNode }) => <MemoryRouter>{children}</MemoryRouter>;

describe('actions that a search finds', () => {
  it('do what their key does, each key as it is bound: with its letter, its modifiers, and the focus nowhere', () => {
    const seen: string[] = [];
    const bound = (cap: string, key: string): Shortcut => ({
      cap,
      does: `press ${cap}`,
      keys: [key],
      take: (e) =>
        seen.push(`${e.key}${e.shiftKey ? ' shift' : ''}${e.ctrlKey ? ' ctrl' : ''} ${e.target === document.body}`),
    });
    const shortcuts = [
      bound('R', 'r'),
      bound('Del', 'Delete'),
      bound('Shift N', 'Shift+n'),
      bound('Ctrl Z', '$mod+z'),
      bound('Space', 'Space'),
    ];
    renderHook(() => useShortcuts('Here', shortcuts));
    const { result } = renderHook(() => useFindable(''), { wrapper });
    for (const { cap } of shortcuts) {
      const action = result.current.find((one) => one.kind === 'action' && one.cap === cap);
      act(() => action?.take());
    }
    expect(seen).toEqual(['r true', 'Delete true', 'n shift true', 'z ctrl true', 'Space true']);
  });

  it('find parts by what they do, and answer questions', () => {
    const { result } = renderHook(() => useFindable('decade counter'), { wrapper });
    expect(result.current.filter((one) => one.kind === 'part').map((one) => one.title)).toContain('7490');
    expect(result.current.filter((one) => one.kind === 'help').length).toBeGreaterThan(5);
  });
});
