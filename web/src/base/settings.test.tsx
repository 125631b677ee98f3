import { act, renderHook } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { applySettings, changeSettings, settings, useSettings } from './settings';

const isDark = (): boolean => document.documentElement.classList.contains('dark');

afterEach(() => {
  vi.restoreAllMocks();
  changeSettings({ dim: false, symbols: 'distinctive' });
});

describe('what a person chose for the whole application', () => {
  it('is in effect at once, kept in this browser, and seen by whoever uses it', () => {
    const { result } = renderHook(() => useSettings());
    expect([result.current.dim, isDark()]).toEqual([false, false]);
    act(() => changeSettings({ dim: true }));
    expect([result.current.dim, isDark(), settings().dim]).toEqual([true, true, true]);
    expect(JSON.parse(localStorage.getItem('saddlebag:settings') ?? '')).toMatchObject({ dim: true });
    act(() => changeSettings({ symbols: 'rectangular' }));
    expect(result.current).toMatchObject({ dim: true, symbols: 'rectangular' });
  });

  it('is taken from this browser as far as it makes sense there, whatever it keeps', async () => {
    for (const [kept, zoom, folded] of [
      [{ zoom: { board: 2, power: 'wide', else: 3 }, folded: ['power', 'moon', 7] }, { board: 2 }, ['power']],
      [{ zoom: null, folded: 'board' }, {}, []],
    ]) {
      localStorage.setItem('saddlebag:settings', JSON.stringify(kept));
      vi.resetModules();
      const fresh = await import('./settings');
      expect([fresh.settings().zoom, fresh.settings().folded]).toEqual([zoom, folded]);
    }
    localStorage.clear();
  });

  it('holds until the tab closes where nothing can be kept', () => {
    vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    changeSettings({ dim: true });
    expect([settings().dim, isDark()]).toEqual([true, true]);
  });

  it('is put into effect again on a page that lost it', () => {
    changeSettings({ dim: true });
    document.documentElement.classList.remove('dark');
    applySettings();
    expect(isDark()).toBe(true);
  });
});
