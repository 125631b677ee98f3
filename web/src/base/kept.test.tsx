import { renderHook } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { contentKey, printedOnce } from './content-key';
import { useKept, useLast, useSame } from './use-kept';
import { useLatest } from './use-latest';

describe('what is kept from one drawing to the next', () => {
  it('is the same object while its key is, and the new one as soon as it is not', () => {
    const [first, again, other] = [{ at: 1 }, { at: 1 }, { at: 2 }];
    const { result, rerender } = renderHook(({ value, key }) => useKept(value, key), {
      initialProps: { value: first, key: 'a' },
    });
    rerender({ value: again, key: 'a' });
    expect(result.current).toBe(first);
    rerender({ value: other, key: 'b' });
    expect(result.current).toBe(other);
    // Going back is a change too.
    rerender({ value: again, key: 'a' });
    expect(result.current).toBe(again);
  });

  it('is the same record while each of its fields is', () => {
    const list = [1];
    const { result, rerender } = renderHook((value: { n: number; list: number[] }) => useSame(value), {
      initialProps: { n: 1, list },
    });
    const before = result.current;
    rerender({ n: 1, list });
    expect(result.current).toBe(before);
    rerender({ n: 1, list: [1] });
    expect(result.current).not.toBe(before);
  });

  it('is the last value there was, while there is none', () => {
    const { result, rerender } = renderHook(({ value }: { value: string | null }) => useLast(value), {
      initialProps: { value: null as string | null },
    });
    expect(result.current).toBeNull();
    for (const [value, seen] of [
      ['a', 'a'],
      [null, 'a'],
      ['b', 'b'],
      [null, 'b'],
    ] as const) {
      rerender({ value });
      expect(result.current).toBe(seen);
    }
  });

  it('is one function that always does what the newest would', () => {
    const heard: string[] = [];
    const { result, rerender } = renderHook(({ by }: { by: string }) => useLatest((n: number) => heard.push(by + n)), {
      initialProps: { by: 'a' },
    });
    const first = result.current;
    first(1);
    rerender({ by: 'b' });
    expect(result.current).toBe(first);
    first(2);
    expect(heard).toEqual(['a1', 'b2']);
  });
});

describe('keys of values that do not change', () => {
  it('are one for one object, another for another, and 0 for none', () => {
    const [a, b] = [{ x: 1 }, { x: 1 }];
    expect(contentKey(a)).toBe(contentKey(a));
    expect(contentKey(a)).not.toBe(contentKey(b));
    expect([contentKey(a), contentKey(b)]).not.toContain(0);
    expect(contentKey(null)).toBe(0);
  });

  it('have their text made once', () => {
    const print = vi.fn((value: { name: string }) => value.name);
    const text = printedOnce(print);
    const value = { name: 'weir' };
    expect([text(value), text(value), text(null), text({ name: 'gate' })]).toEqual(['weir', 'weir', '', 'gate']);
    expect(print).toHaveBeenCalledTimes(2);
  });
});
