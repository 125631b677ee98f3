import { renderHook, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { dropEntry, keepEntry, replaceDrawer, useDrawer, useLooseValues } from './drawer';

beforeEach(async () => void (await replaceDrawer([])));

describe('the drawer of this browser', () => {
  it('is seen in the order of numbers, by whoever looks, as soon as it changes', async () => {
    const { result } = renderHook(() => useDrawer());
    await waitFor(() => expect(result.current).toEqual([]));
    await keepEntry({ part: '74HC138', count: 1 });
    await keepEntry({ part: '74HC08', count: 4, price: 0.4 });
    await waitFor(() => expect(result.current?.map((e) => e.part)).toEqual(['74HC08', '74HC138']));
    await keepEntry({ part: '74HC08', count: 3 });
    await waitFor(() => expect(result.current?.[0]).toEqual({ part: '74HC08', count: 3 }));
    await dropEntry('74HC08');
    await waitFor(() => expect(result.current?.map((e) => e.part)).toEqual(['74HC138']));
  });

  it('that is replaced gives back what was there, so that it can be put back', async () => {
    const before = [
      { part: '74HC00', count: 2 },
      { part: 'resistor 10 kΩ', count: 40 },
    ];
    await replaceDrawer(before);
    const given = await replaceDrawer([{ part: '74HC32', count: 1 }]);
    expect([...given].sort((a, b) => a.part.localeCompare(b.part))).toEqual(before);
    const { result } = renderHook(() => useDrawer());
    await waitFor(() => expect(result.current).toEqual([{ part: '74HC32', count: 1 }]));
    await replaceDrawer(given);
    await waitFor(() => expect(result.current).toHaveLength(2));
  });

  it('knows its resistors and capacitors, of which there is at least one', async () => {
    await replaceDrawer([
      { part: '74HC00', count: 2 },
      { part: 'resistor 33 kΩ', count: 1 },
      { part: 'resistor 4.7 kΩ', count: 9 },
      { part: 'resistor 1 kΩ', count: 0 },
      { part: 'capacitor 100 nF', count: 5 },
    ]);
    const { result } = renderHook(() => useLooseValues());
    await waitFor(() => expect(result.current).toEqual({ ohms: [4700, 33_000], farads: [1e-7] }));
  });
});
