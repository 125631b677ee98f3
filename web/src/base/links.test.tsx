import { act, render } from '@testing-library/react';
import { useState } from 'react';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { describe, expect, it } from 'vitest';
import { jobAddress, useLinked } from './links';

/** A place that follows links to findings, at an address; it may not be ready to show any yet. */
function following(at: string) {
  const seen: string[] = [];
  const place: { ready: (is: boolean) => void } = { ready: () => {} };
  function Place() {
    const [isReady, setReady] = useState(false);
    place.ready = setReady;
    useLinked('finding', (value) => seen.push(value), isReady);
    return null;
  }
  const router = createMemoryRouter([{ path: '*', element: <Place /> }], { initialEntries: [at] });
  render(<RouterProvider router={router} />);
  return {
    seen,
    ready: (is: boolean) => act(() => place.ready(is)),
    go: (to: string) => act(() => router.navigate(to)),
  };
}

describe('a link to something', () => {
  it('is followed when that can be shown, and once, whatever happens there afterwards', async () => {
    const { seen, ready, go } = following(jobAddress('1', 'inspect', { finding: 'open U1.5' }));
    expect(seen).toEqual([]);
    ready(true);
    expect(seen).toEqual(['open U1.5']);
    ready(false);
    ready(true);
    expect(seen).toEqual(['open U1.5']);
    await go(jobAddress('1', 'inspect', { finding: 'open U1.5' }));
    expect(seen).toEqual(['open U1.5', 'open U1.5']);
  });

  it('that is none of ours is not', () => {
    const { seen, ready } = following(`/job/1/inspect?finding=${'x'.repeat(300)}`);
    ready(true);
    expect(seen).toEqual([]);
  });
});
