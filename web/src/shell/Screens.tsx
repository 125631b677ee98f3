import { Flex } from '@chakra-ui/react';
import { useIsFetching } from '@tanstack/react-query';
import {
  Activity,
  createContext,
  memo,
  type ReactNode,
  Suspense,
  startTransition,
  useContext,
  useEffect,
  useState,
  useSyncExternalStore,
} from 'react';
import { ColoursContext, JobContext, useJobView, useSession } from '../base/job-context';
import { Empty } from '../kit/Panel';
import { fetchScreens, isFetched, screens } from './step-screens';
import { type StepId, stepIds } from './steps';

/** Whether what the screens show is still that of an earlier reading. */
export const BehindContext = createContext(false);

/** How long a job must rest until the screens that are out of sight follow it, in milliseconds. */
const REST_MS = 1000;

/**
 * The screens of the steps, one of them in sight. The others stay as they were left, drawn but not shown, so that turning to
 * one is a matter of a frame or two and finds it as it was; those not yet turned to are made ready while nothing else goes on
 * (docs/decisions/0022).
 */
export const Screens = memo(function Screens({ step }: { readonly step: StepId }) {
  const [ready, setReady] = useState<ReadonlySet<StepId>>(new Set([step]));
  if (!ready.has(step)) setReady(new Set([...ready, step]));
  useEffect(() => fetchScreens((next) => startTransition(() => setReady((before) => new Set([...before, next])))), []);
  // One wait for all: a screen whose code is still on its way leaves the one before in sight. Out of sight nothing waits:
  // React fails when a job is left while a hidden screen does.
  return (
    <Suspense fallback={<Empty>…</Empty>}>
      {stepIds
        .filter((id) => id === step || (ready.has(id) && isFetched(id)))
        .map((id) => (
          <Followed key={id} isShown={id === step}>
            <Activity mode={id === step ? 'visible' : 'hidden'}>
              <Screen step={id} isShown={id === step} />
            </Activity>
          </Followed>
        ))}
    </Suspense>
  );
});

interface FollowedProps {
  readonly isShown: boolean;
  readonly children: ReactNode;
}

/** What is in it sees the job as it is while it is shown; out of sight it follows when the job rests. */
function Followed({ isShown, children }: FollowedProps) {
  const view = useJobView();
  const [seen, setSeen] = useState(view);
  if (isShown && seen !== view) setSeen(view);
  useEffect(() => {
    if (isShown || seen === view) return;
    const rest = setTimeout(() => startTransition(() => setSeen(view)), REST_MS);
    return () => clearTimeout(rest);
  }, [isShown, seen, view]);
  const shown = isShown ? view : seen;
  return (
    <JobContext.Provider value={shown}>
      <ColoursContext.Provider value={shown.colours}>{children}</ColoursContext.Provider>
    </JobContext.Provider>
  );
}

interface ScreenProps {
  readonly step: StepId;
  readonly isShown: boolean;
}

/** The screen of a step; it says whether anything is being worked out, or waits for a pause in the typing. */
function Screen({ step, isShown }: ScreenProps) {
  const session = useSession();
  const { job } = useJobView();
  const isTyping = useSyncExternalStore(session.subscribe, () => session.job !== job);
  const busy = [useIsFetching() > 0, useContext(BehindContext), isTyping].some(Boolean);
  return (
    <Flex
      as="main"
      data-step={step}
      data-away={isShown ? undefined : true}
      aria-busy={isShown && busy}
      flex="1"
      minH="0"
      p="10px 12px"
      gap="10px"
    >
      <Inside step={step} />
    </Flex>
  );
}

/** What a screen shows. It is drawn again when it asks for something that has changed, not whenever the page is. */
const Inside = memo(function Inside({ step }: { readonly step: StepId }) {
  const Shown = screens[step];
  return <Shown />;
});
