/** Colours that operations have in files. */
import type { Job, Operation } from './schema';

/** The colour an operation has in files, "#rrggbb": its own, or that of its kind in the job's key. */
export const colourOf = (operation: Operation, job: Pick<Job, 'colourKey'>): string =>
  operation.colour ?? job.colourKey[operation.kind];
