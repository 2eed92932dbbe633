/** Larger files are refused before they are read: a project with 50,000 subs has about 30 MB. */
export const MAX_BUNDLE_BYTES = 60e6;

/** More records than ten people log in ten years: a file with more is none of theirs. */
export const MOST_RECORDS = 250_000;

/** Versions of one record: a choice among more is nobody's. */
export const MOST_VERSIONS = 1000;
