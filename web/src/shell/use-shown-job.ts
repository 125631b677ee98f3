import type { Job } from '@saddlebag/core';
import { useEffect, useState } from 'react';
import type { JobSession } from '../store/session';

/** The screens follow the sheet once nobody has typed for so long. */
const PAUSE_MS = 120;

/**
 * The job of a session as the screens show it: at once what is done, and what is typed into the sheet after a pause, so
 * that a key costs no more than the editor's own work. Whoever changes the job asks the session for it, which has all.
 */
export function useShownJob(session: JobSession): Job {
  const [shown, show] = useState(session.job);
  useEffect(() => {
    let last = session.job;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const catchUp = (): void => {
      last = session.job;
      show(last);
    };
    const follow = (): void => {
      clearTimeout(timer);
      if (session.job === last) return;
      if (isTyping(last, session.job)) timer = setTimeout(catchUp, PAUSE_MS);
      else catchUp();
    };
    catchUp();
    const leave = session.subscribe(follow);
    return () => {
      clearTimeout(timer);
      leave();
    };
  }, [session]);
  return shown;
}

/** Whether jobs differ in their sheets alone. */
function isTyping(before: Job, after: Job): boolean {
  const keys = Object.keys({ ...before, ...after }) as (keyof Job)[];
  return keys.every((key) => key === 'sheet' || before[key] === after[key]);
}
