/** The same words in several faces: documents of a job whose lettering is set in each. */
import { setFace } from '../commands/faces';
import type { Job } from '../document/schema';
import { LIMITS } from '../limits';
import { faceOfFamily } from '../schema/lettering';

/** The job in each of so many faces, no more than are compared. */
export const inFaces = (job: Job, families: readonly string[]): { readonly face: string; readonly job: Job }[] =>
  families.slice(0, LIMITS.facesCompared).map((face) => ({
    face,
    job: job.parts.reduce(
      (doc, part) =>
        part.members.reduce(
          (of, member) =>
            member.kind === 'lettering'
              ? setFace(
                  of,
                  { partId: part.id, memberId: member.id, lines: null },
                  { ...faceOfFamily(face), isLine: false },
                )
              : of,
          doc,
        ),
      job,
    ),
  }));
