/** What questions to the server are known by where more than one screen asks or renews them. */

/** The list of jobs. */
export const JOBS = ['jobs'];
