import { lazy, Suspense } from 'react';
import { createBrowserRouter } from 'react-router';
import { WithSearch } from '../search/WithSearch';
import { ShelfPage } from '../shelf/ShelfPage';
import { CrashPage, LostPage } from './CrashPage';
import { fetchJobPage } from './fetch-job-page';

const JobPage = lazy(fetchJobPage);
const PartsPage = lazy(() => import('../datasheet/PartsPage'));

/** `/` is the shelf; `/job/:id/:step` a job at one of its six steps; `/parts/:id` a part's datasheet. */
export const router = createBrowserRouter([
  { element: <WithSearch />, errorElement: <CrashPage />, children: pages() },
]);

function pages() {
  return [
    { path: '/', element: <ShelfPage />, errorElement: <CrashPage /> },
    {
      path: '/job/:id/:step?',
      element: (
        <Suspense fallback={null}>
          <JobPage />
        </Suspense>
      ),
      errorElement: <CrashPage />,
    },
    {
      path: '/parts/:id?',
      element: (
        <Suspense fallback={null}>
          <PartsPage />
        </Suspense>
      ),
      errorElement: <CrashPage />,
    },
    { path: '*', element: <LostPage /> },
  ];
}
