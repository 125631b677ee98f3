import { ChakraProvider } from '@chakra-ui/react';
import { type Job, newJob, startHistory } from '@saddlebag/core';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render } from '@testing-library/react';
import { type ReactElement, useSyncExternalStore } from 'react';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { ColoursContext, JobContext, type JobView, SessionContext } from '../base/job-context';
import { system } from '../base/theme';
import { JobSession } from '../store/session';
import { localBench } from './local-bench';
import { nowhere, viewOf } from './view';

/** Renders a screen as it stands in an open job; the job's edits show, as they do in the application. */
export function renderInJob(ui: ReactElement, job: Job = newJob('test'), change: Partial<JobView> = {}) {
  const session = new JobSession({ id: 'job-1', history: startHistory(job), rev: 1 }, nowhere);
  const bench = localBench();
  function Open() {
    useSyncExternalStore(session.subscribe, session.snapshot);
    const view = viewOf(session, bench, change);
    return (
      <JobContext.Provider value={view}>
        <SessionContext.Provider value={session}>
          <ColoursContext.Provider value={view.colours}>{ui}</ColoursContext.Provider>
        </SessionContext.Provider>
      </JobContext.Provider>
    );
  }
  return { ...renderPage(<Open />), session, bench };
}

/** Renders something with theme, queries and routes around it; it stands at every address, if none is given. */
export function renderPage(
  ui: ReactElement,
  { path = '*', at = '/' }: { readonly path?: string; readonly at?: string } = {},
) {
  const router = createMemoryRouter(
    path === '*'
      ? [{ path, element: ui }]
      : [
          { path, element: ui },
          { path: '*', element: null },
        ],
    { initialEntries: [at] },
  );
  return {
    router,
    ...render(
      <ChakraProvider value={system}>
        <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
          <RouterProvider router={router} />
        </QueryClientProvider>
      </ChakraProvider>,
    ),
  };
}
