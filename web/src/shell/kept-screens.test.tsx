import { memo, Suspense, startTransition, useEffect, useState } from 'react';
import { createRoot } from 'react-dom/client';
import { afterEach, expect, it, vi } from 'vitest';
import { JobContext, type JobView, useJobView } from '../base/job-context';
import { Colours } from '../base/palette';
import { KeptScreens } from './KeptScreens';

afterEach(() => vi.unstubAllGlobals());

/** A part of a screen that takes a while to be drawn, so that drawing is broken off and taken up again. */
const Leaf = memo(function Leaf() {
  const { id } = useJobView();
  for (const t = performance.now(); performance.now() - t < 1.5; );
  return <i>{id}</i>;
});

const Inside = memo(function Inside() {
  return (
    <>
      {[1, 2, 3, 4, 5, 6, 7, 8].map((n) => (
        <Leaf key={n} />
      ))}
    </>
  );
});

/** Screens read the job themselves, above what is drawn only when it must be, and are drawn again by what they wait for. */
const refresh = new Set<(n: number) => void>();
function Screen({ isShown }: { readonly isShown: boolean }) {
  const { id } = useJobView();
  const [n, setN] = useState(0);
  useEffect(() => {
    refresh.add(setN);
    return () => void refresh.delete(setN);
  }, []);
  return (
    <main data-shown={isShown} data-id={id} data-n={n}>
      <Inside />
    </main>
  );
}

const colours = new Colours([]);
const viewOf = (id: string) => ({ id, colours }) as unknown as JobView;
let show: (change: { readonly id?: string; readonly step?: Step }) => void = () => {};

const steps = ['a', 'b', 'c'] as const;
type Step = (typeof steps)[number];
// As on the page: the job reaches them as a context, past what is not drawn again.
const Kept = memo(KeptScreens<Step>);
const screenOf = (_: Step, isShown: boolean) => <Screen isShown={isShown} />;

function Page() {
  const [{ id, step }, set] = useState<{ id: string; step: Step }>({ id: '0', step: 'a' });
  const [view, setView] = useState(viewOf(id));
  if (view.id !== id) setView(viewOf(id));
  show = (change) => set((before) => ({ ...before, ...change }));
  return (
    <JobContext.Provider value={view}>
      <Suspense fallback="…">
        <Kept steps={steps} step={step} restMs={5} screenOf={screenOf} />
      </Suspense>
    </JobContext.Provider>
  );
}

/** A slow machine may take so long to draw it. */
const WAIT = { timeout: 15_000 };
const wait = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

it('shows the job as it is in all its parts, whenever one turns to it and whatever was being drawn', async () => {
  vi.stubGlobal('IS_REACT_ACT_ENVIRONMENT', false);
  const div = document.createElement('div');
  const root = createRoot(div);
  root.render(<Page />);
  await vi.waitFor(() => expect(div.querySelector('main')).not.toBeNull());
  let seed = 1;
  const chance = (): number => {
    seed = (seed * 16807) % 2147483647;
    return seed / 2147483647;
  };
  const redraw = (): void => {
    for (const set of refresh) set(chance());
  };
  for (let turn = 0, id = 0; turn < 60; turn++) {
    if (chance() < 0.7) show({ id: String(++id) });
    redraw();
    await wait(chance() * 60);
    redraw();
    const step = steps[Math.floor(chance() * 3)] as Step;
    if (chance() < 0.3) startTransition(() => show({ step }));
    else show({ step });
    await vi.waitFor(() => {
      const parts = [...div.querySelectorAll('main[data-shown=true] i')].map((e) => e.textContent);
      expect(parts).toEqual(Array(8).fill(String(id)));
      expect(div.querySelector('main[data-shown=true]')?.getAttribute('data-id')).toBe(String(id));
    }, WAIT);
  }
  root.unmount();
});
