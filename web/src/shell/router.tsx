import type { ComponentType } from 'react';
import { createBrowserRouter } from 'react-router';
import { WithSearch } from '../search/WithSearch';
import { ShelfPage } from '../shelf/ShelfPage';
import { CrashPage, LostPage } from './CrashPage';
import { fetchJobPage } from './fetch-job-page';

/**
 * `/` is the shelf; `/job/:id/:step` a job at one of its six steps; `/parts/:id` a part's datasheet. While the code of a page is on its way the page before it stays in
 * sight.
 */
export const router = createBrowserRouter([
  { element: <WithSearch />, errorElement: <CrashPage />, HydrateFallback: () => null, children: pages() },
]);

function pages() {
  return [
    { path: '/', element: <ShelfPage />, errorElement: <CrashPage /> },
    { path: '/job/:id/:step?', lazy: page(fetchJobPage), errorElement: <CrashPage /> },
    {
      path: '/parts/:id?',
      lazy: page(async () => (await import('../datasheet/PartsPage')).default),
      errorElement: <CrashPage />,
    },
    { path: '*', element: <LostPage /> },
  ];
}

/** What a route's `lazy` gives: the page, or one that fails as its code did. React Router shows nothing at all when `lazy` itself fails. */
function page(load: () => Promise<ComponentType>): () => Promise<{ Component: ComponentType }> {
  return async () => {
    try {
      return { Component: await load() };
    } catch (error) {
      const Failing = (): never => {
        throw error;
      };
      return { Component: Failing };
    }
  };
}
