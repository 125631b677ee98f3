/** The way in and out for job files; apart from the main door because class-validator is heavy. */
export { FILE_VERSION, type JobRead, MAX_FILE_BYTES, readJobFile, tooBig, writeJobFile } from './job/file';
