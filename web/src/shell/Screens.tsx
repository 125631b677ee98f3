import { useIsFetching } from '@tanstack/react-query';
import { memo, Suspense, startTransition, useEffect, useState, useSyncExternalStore } from 'react';
import { useJobView, useSession } from '../base/job-context';
import { SideBySide } from '../kit/Beside';
import { Empty } from '../kit/Panel';
import { KeptScreens } from './KeptScreens';
import { fetchScreens, screens } from './step-screens';
import { type StepId, stepIds } from './steps';

interface ScreensProps {
  readonly step: StepId;
  /** Whether what the screens show is still that of an earlier reading. */
  readonly isBehind: boolean;
}

/** So long a job rests until the screens that are out of sight follow it, in milliseconds. */
const REST_MS = 1000;

/**
 * The screens of the steps, one of them in sight. The others stay as they were left, drawn but not shown, so that turning to
 * one is a matter of a frame or two and finds it as it was; those not yet turned to are made ready while nothing else goes on
 * (docs/decisions/0022).
 */
export const Screens = memo(function Screens({ step, isBehind }: ScreensProps) {
  const [ready, setReady] = useState<ReadonlySet<StepId>>(new Set([step]));
  if (!ready.has(step)) setReady(new Set([...ready, step]));
  useEffect(() => fetchScreens((next) => startTransition(() => setReady((before) => new Set([...before, next])))), []);
  // One wait for all: a screen whose code is still on its way leaves the one before in sight. Out of sight nothing waits:
  // React fails when a job is left while a hidden screen does.
  return (
    <Suspense fallback={<Empty>…</Empty>}>
      <KeptScreens
        steps={stepIds.filter((id) => id === step || (ready.has(id) && screens[id].isHere()))}
        step={step}
        restMs={REST_MS}
        screenOf={(id, isShown) => <Screen step={id} isShown={isShown} isBehind={isBehind} />}
      />
    </Suspense>
  );
});

interface ScreenProps extends ScreensProps {
  readonly isShown: boolean;
}

/** The screen of a step; it says whether anything is being worked out, or waits for a pause in the typing. */
function Screen({ step, isShown, isBehind }: ScreenProps) {
  const session = useSession();
  const { job } = useJobView();
  const isTyping = useSyncExternalStore(session.subscribe, () => session.job !== job);
  const busy = [useIsFetching() > 0, isBehind, isTyping].some(Boolean);
  return (
    <SideBySide as="main" data-step={step} aria-busy={isShown && busy} flex="1" minH="0" p="10px 12px" gap="10px">
      <Inside step={step} />
    </SideBySide>
  );
}

/** What a screen shows. It is drawn again when it asks for something that has changed, not whenever the page is. */
const Inside = memo(function Inside({ step }: { readonly step: StepId }) {
  const { Shown } = screens[step];
  return <Shown />;
});
