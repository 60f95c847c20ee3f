/** What questions to the server are known by where more than one screen asks or renews them. */

/** Files of a job that were given out. */
export const GIVEN_FILES = ['given files'];

/** The list of jobs. */
export const JOBS = ['jobs'];
