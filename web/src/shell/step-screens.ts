import { type ComponentType, type LazyExoticComponent, lazy } from 'react';
import { whenIdle } from '../base/when-idle';
import { type StepId, stepIds } from './steps';

type Screen = { readonly default: ComponentType };

const loaders: Readonly<Record<StepId, () => Promise<Screen>>> = {
  design: () => import('../design/DesignStep'),
  pack: () => import('../pack/PackStep'),
  board: () => import('../board/BoardStep'),
  inspect: () => import('../inspect/InspectStep'),
  power: () => import('../power/PowerStep'),
  card: () => import('../card/CardStep'),
};

const fetched = new Map<StepId, Screen>();

async function load(step: StepId): Promise<Screen> {
  const screen = await loaders[step]();
  fetched.set(step, screen);
  return screen;
}

/** Whether the screen of a step is there, so that it is drawn without waiting. */
export const isFetched = (step: StepId): boolean => fetched.has(step);

/** What `lazy` waits for. A screen that is there is handed over at once: React does not wait then. */
function awaited(step: StepId): Promise<Screen> {
  const screen = fetched.get(step);
  if (!screen) return load(step);
  // biome-ignore lint/suspicious/noThenProperty: this is what is wanted, a promise kept before it is given.
  return { then: (keep: (s: Screen) => void) => keep(screen) } as unknown as Promise<Screen>;
}

/** The screens of the six steps; each is fetched when it is first shown, or before by `fetchScreens`. */
export const screens = Object.fromEntries(
  stepIds.map((step) => [step, lazy(() => awaited(step))]),
) as unknown as Readonly<Record<StepId, LazyExoticComponent<ComponentType>>>;

/**
 * Fetches the screens of all steps while nothing else goes on, one at a time, and tells of each, so that no step waits for its code when it
 * is first turned to. What cannot be fetched now is asked for again when it is shown. Returns how to stop.
 */
export function fetchScreens(onFetched: (step: StepId) => void): () => void {
  let isStopped = false;
  const fetchAll = async (): Promise<void> => {
    for (const step of stepIds) {
      await whenIdle();
      if (isStopped) return;
      await load(step).then(
        () => !isStopped && onFetched(step),
        () => {},
      );
    }
  };
  void fetchAll();
  return () => {
    isStopped = true;
  };
}
