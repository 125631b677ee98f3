import { Activity, type ReactNode, startTransition, useEffect, useState } from 'react';
import { ColoursContext, JobContext, type JobView, useJobView } from '../base/job-context';

interface KeptScreensProps<S extends string> {
  readonly steps: readonly S[];
  /** The one in sight. */
  readonly step: S;
  /** How long the job must rest until the screens out of sight follow it, in milliseconds. */
  readonly restMs: number;
  readonly screenOf: (step: S, isShown: boolean) => ReactNode;
}

/**
 * Screens that stay as they were left while they are out of sight (docs/decisions/0022). The job comes to each as a prop and is given on from inside
 * its Activity: React 19.3 loses a context that changes outside of one while what is in it is hidden, if a reader of it stands above a memo.
 */
export function KeptScreens<S extends string>({ steps, step, restMs, screenOf }: KeptScreensProps<S>) {
  const view = useJobView();
  return steps.map((id) => (
    // What is inside a hidden Activity is drawn again when there is time for it; that a screen is away must be told at once.
    <div key={id} data-away={id === step ? undefined : true} style={{ display: 'contents' }}>
      <Activity mode={id === step ? 'visible' : 'hidden'}>
        <Followed isShown={id === step} view={view} restMs={restMs}>
          {screenOf(id, id === step)}
        </Followed>
      </Activity>
    </div>
  ));
}

interface FollowedProps {
  readonly isShown: boolean;
  /** The job as it is. */
  readonly view: JobView;
  readonly restMs: number;
  readonly children: ReactNode;
}

/** What is in it sees the job as it is while it is shown; out of sight it follows when the job rests. */
function Followed({ isShown, view, restMs, children }: FollowedProps) {
  const [seen, setSeen] = useState(view);
  if (isShown && seen !== view) setSeen(view);
  useEffect(() => {
    if (isShown || seen === view) return;
    const rest = setTimeout(() => startTransition(() => setSeen(view)), restMs);
    return () => clearTimeout(rest);
  }, [isShown, seen, view, restMs]);
  const shown = isShown ? view : seen;
  return (
    <JobContext.Provider value={shown}>
      <ColoursContext.Provider value={shown.colours}>{children}</ColoursContext.Provider>
    </JobContext.Provider>
  );
}
