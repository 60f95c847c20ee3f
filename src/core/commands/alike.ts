/** Parts that are like another, to be chosen with it. */
import type { Job, Part } from '../document/schema';
import { facesOf } from '../schema/lettering';
import { partOf } from './changed';

/** In what parts are alike: their operations, their typefaces, what they are made of, how large they are. */
export type Likeness = 'work' | 'face' | 'made' | 'size';

/** Width and height of a part on the sheet in mm; null where nothing of it is drawn. */
export type SizeOf = (partId: string) => { readonly width: number; readonly height: number } | null;

/** Sizes are the same within this, in mm. */
const SAME_MM = 0.05;

const workOf = (part: Part): string =>
  part.work
    .map(({ what, operation }) => `${what} ${operation}`)
    .sort()
    .join();
const madeOf = (part: Part): string =>
  part.members
    .map((m) => `${m.kind} ${m.role}`)
    .sort()
    .join();
const facesIn = (part: Part): string[] => [
  ...new Set(
    part.members.flatMap((m) => (m.kind === 'lettering' ? facesOf(m).map((f) => `${f.face} ${f.content ?? ''}`) : [])),
  ),
];

/** The parts that are like one of the job in something, itself among them, in their order; none where there is no such part. */
export function partsAlike(job: Job, partId: string, likeness: Likeness, sizeOf: SizeOf): string[] {
  const part = partOf(job, partId);
  if (!part) return [];
  const size = sizeOf(partId);
  const faces = facesIn(part);
  const isAlike = (other: Part): boolean => {
    switch (likeness) {
      case 'work':
        return workOf(other) === workOf(part);
      case 'made':
        return madeOf(other) === madeOf(part);
      case 'face':
        return facesIn(other).some((face) => faces.includes(face));
      case 'size': {
        const own = sizeOf(other.id);
        return (
          own !== null &&
          size !== null &&
          Math.abs(own.width - size.width) <= SAME_MM &&
          Math.abs(own.height - size.height) <= SAME_MM
        );
      }
    }
  };
  return job.parts.filter((other) => other === part || isAlike(other)).map((other) => other.id);
}
