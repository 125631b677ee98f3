/** Fetches the page of a job, which the shelf does without. */
export const fetchJobPage = () => import('./JobPage').then(({ JobPage }) => ({ default: JobPage }));
