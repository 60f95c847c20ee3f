/** New members: what can be added, and how each is at first. */
import type { Job, Member, ShapeKind } from '../document/schema';
import { DEFAULT_LINE_FACE } from '../lettering/catalogue';
import { faceOfFamily } from '../schema/lettering';
import { newCopy, newLettering, newShape } from './defaults';
import { freeId } from './ids';

/** What can be added; a copy names the part it copies. */
export type NewThing = 'lettering' | 'one-line lettering' | ShapeKind | { readonly copyOf: string };

/** A new member of its own, as it is without anything to be like. */
export function makeMember(job: Job, kind: NewThing): Member {
  if (typeof kind === 'object') return newCopy(freeId(job, 'copy'), kind.copyOf, job.sheet);
  if (kind === 'one-line lettering')
    return { ...newLettering(freeId(job, 'lettering'), job.sheet, ''), ...faceOfFamily(DEFAULT_LINE_FACE) };
  const id = freeId(job, kind);
  return kind === 'lettering' ? newLettering(id, job.sheet, '') : newShape(kind, id, job.sheet);
}
