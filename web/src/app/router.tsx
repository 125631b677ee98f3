import { createBrowserRouter } from 'react-router';
import { ShelfPage } from '../shelf/ShelfPage';
import { CrashPage, LostPage } from './CrashPage';
import { JobPage } from './JobPage';

/** `/` is the shelf; `/job/:id/:step` a job at one of its six steps. */
export const router = createBrowserRouter([
  { path: '/', element: <ShelfPage />, errorElement: <CrashPage /> },
  { path: '/job/:id/:step?', element: <JobPage />, errorElement: <CrashPage /> },
  { path: '*', element: <LostPage /> },
]);
