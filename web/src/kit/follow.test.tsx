import { act, render, screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { pointAt, useIsFollowing, useIsOutshone } from './follow';

describe('following', () => {
  let drawn = 0;
  function Sheet() {
    drawn++;
    return <output>{String(useIsFollowing())}</output>;
  }
  function Label() {
    return <em>{String(useIsOutshone('K'))}</em>;
  }

  it('draws what only asks whether anything is lit once, however many signals come and go', () => {
    render(
      <>
        <Sheet />
        <Label />
      </>,
    );
    const before = drawn;
    for (const signal of ['K', 'E', 'U', 'K', 'L']) act(() => pointAt(signal));
    expect(drawn).toBe(before + 1);
    expect(screen.getByRole('status').textContent).toBe('true');
    expect(document.querySelector('em')?.textContent).toBe('true');
    act(() => pointAt('K'));
    expect(document.querySelector('em')?.textContent).toBe('false');
    act(() => pointAt(null));
    expect([screen.getByRole('status').textContent, drawn]).toEqual(['false', before + 2]);
  });
});
