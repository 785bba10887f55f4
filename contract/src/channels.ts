/** The channel of all jobs; every other one is the study with this id. */
export const JOBS = 'jobs';

/** Entries of the record that touch no readings. */
export const OUTSIDE_READINGS: ReadonlySet<string> = new Set(['rule', 'reopen', 'bin', 'restore']);
