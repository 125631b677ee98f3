/** The way in for job files; apart from the main door because class-validator is heavy. */
export { type JobRead, MAX_FILE_BYTES, readJobFile, tooBig } from './job/file';
export { readHistory } from './job/kept-history';
