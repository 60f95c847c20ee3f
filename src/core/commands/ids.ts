/** Ids of what is made. */
import type { Job } from '../document/schema';

/** An id that no part, member, operation or picture of the job has yet, nor is among those `also` taken. */
export function freeId(job: Job, stem: string, also: readonly string[] = []): string {
  const taken = new Set([
    ...also,
    ...job.parts.map((p) => p.id),
    ...job.parts.flatMap((p) => p.members.map((m) => m.id)),
    ...job.operations.map((o) => o.id),
    ...job.pictures.map((p) => p.id),
  ]);
  for (let n = 1; ; n++) if (!taken.has(`${stem}-${n}`)) return `${stem}-${n}`;
}
