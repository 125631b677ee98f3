import { type Fetched, fetched } from '../base/fetched';
import { whenIdle } from '../base/when-idle';
import { type StepId, stepIds } from './steps';

/** The screens of the six steps; each is fetched when it is first shown, or before by `fetchScreens`. */
export const screens: Readonly<Record<StepId, Fetched<object>>> = {
  design: fetched(async () => (await import('../design/DesignStep')).default),
  pack: fetched(async () => (await import('../pack/PackStep')).default),
  board: fetched(async () => (await import('../board/BoardStep')).default),
  inspect: fetched(async () => (await import('../inspect/InspectStep')).default),
  power: fetched(async () => (await import('../power/PowerStep')).default),
  card: fetched(async () => (await import('../card/CardStep')).default),
};

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
      await screens[step].fetch().then(
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
