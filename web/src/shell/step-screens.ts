import { type ComponentType, type LazyExoticComponent, lazy } from 'react';
import { whenIdle } from '../base/when-idle';
import { type StepId, stepIds } from './steps';

const loaders: Readonly<Record<StepId, () => Promise<{ default: ComponentType }>>> = {
  design: () => import('../design/DesignStep'),
  pack: () => import('../pack/PackStep'),
  board: () => import('../board/BoardStep'),
  inspect: () => import('../inspect/InspectStep'),
  power: () => import('../power/PowerStep'),
  card: () => import('../card/CardStep'),
};

/** The screens of the six steps; each is fetched when it is first shown, or before by `fetchScreens`. */
export const screens = Object.fromEntries(
  Object.entries(loaders).map(([step, load]) => [step, lazy(load)]),
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
      await loaders[step]().then(
        () => onFetched(step),
        () => {},
      );
    }
  };
  void fetchAll();
  return () => {
    isStopped = true;
  };
}
