/** Moving, turning, mirroring and sizing what is chosen: a member, a part, or several parts as one. */

import { partSchema } from '../document/part';
import type { Job, Member, Part } from '../document/schema';
import { growMember, growPart } from '../document/sizes';
import {
  applyMatrix,
  compose,
  determinant,
  invert,
  type Matrix,
  type Point,
  rotation,
  scaling,
  translation,
} from '../geometry/point';
import { partMatrix, placementFor, placementMatrix, placementOf } from '../prepare/placement';
import { changed, memberOf } from './changed';

/** Parts by their ids, or one member of the only one. */
export type Chosen = {
  readonly partIds: readonly string[];
  readonly memberId: string | null;
  /** How many times as large as its members say the part is made, where its overall width is given; 1 when left out. */
  readonly scale?: number;
};

/** Chosen parts that are not locked and do not go along with another that is chosen. */
const movable = (job: Job, { partIds }: Chosen): Part[] =>
  job.parts.filter((part) => partIds.includes(part.id) && !part.locked && !goesAlong(job, part, partIds));

function goesAlong(job: Job, part: Part, partIds: readonly string[]): boolean {
  const met = new Set([part.id]);
  for (let id = part.along; id !== null && !met.has(id); ) {
    const leader = job.parts.find((p) => p.id === id);
    if (partIds.includes(id) && leader?.locked !== true) return true;
    met.add(id);
    id = leader?.along ?? null;
  }
  return false;
}

/** The member that is chosen with its part, where one is and may be changed. */
function chosenMember(draft: Job, { partIds, memberId }: Chosen): { part: Part; member: Member } | null {
  const part = draft.parts.find((p) => p.id === partIds[0]);
  const member = memberOf(draft, part?.id ?? null, memberId);
  return part && member && !part.locked ? { part, member } : null;
}

/** From the coordinates that the members of a part are placed in to the sheet. */
const memberSpace = (job: Job, part: Part, { scale = 1 }: Chosen): Matrix =>
  compose(scaling(scale), partMatrix(job.parts, part));

/** What is chosen after a motion of the sheet: a move, a turn or a mirroring. */
function moved(job: Job, chosen: Chosen, motion: Matrix): Job {
  return changed(job, (draft) => {
    if (chosen.memberId !== null) {
      const found = chosenMember(draft, chosen);
      if (found) moveMember(found.member, memberSpace(draft, found.part, chosen), motion);
      return;
    }
    // Placements are found from where parts lay before any of them was moved.
    for (const part of movable(job, chosen)) {
      const target = draft.parts.find((p) => p.id === part.id) as Part;
      target.placement = placementFor(job.parts, part, compose(partMatrix(job.parts, part), motion));
    }
  });
}

function moveMember(member: Member, toSheet: Matrix, motion: Matrix): void {
  const inPart = compose(compose(toSheet, motion), invert(toSheet));
  const next = placementOf(compose(placementMatrix(member.placement), inPart));
  if (member.kind === 'copy' && member.follows) {
    // It stays on what it copies, about the middle of which it is turned and mirrored; a move is a distance from there.
    const isMove = determinant(motion) > 0 && motion.a === 1;
    member.placement = isMove
      ? next
      : { ...next, x: member.placement.x * (determinant(motion) < 0 ? -1 : 1), y: member.placement.y };
    return;
  }
  member.placement = next;
}

/** Move by mm on the sheet. */
export const moveChosen = (job: Job, chosen: Chosen, dx: number, dy: number): Job =>
  dx === 0 && dy === 0 ? job : moved(job, chosen, translation(dx, dy));

/** Turn about a point of the sheet, counter-clockwise. */
export const turnChosen = (job: Job, chosen: Chosen, degrees: number, about: Point): Job =>
  degrees === 0
    ? job
    : moved(
        job,
        chosen,
        compose(compose(translation(-about.x, -about.y), rotation(degrees)), translation(about.x, about.y)),
      );

/** Mirror left to right about an upright line of the sheet. */
export const mirrorChosen = (job: Job, chosen: Chosen, middleX: number): Job =>
  moved(job, chosen, { a: -1, b: 0, c: 0, d: 1, e: 2 * middleX, f: 0 });

/**
 * Make larger by a factor about a point of the sheet, proportions kept; `everything`: what would stay as it was set grows too.
 * A size that a document cannot hold changes nothing.
 */
export function sizeChosen(
  job: Job,
  chosen: Chosen,
  {
    factor,
    about,
    everything = false,
  }: { readonly factor: number; readonly about: Point; readonly everything?: boolean | undefined },
): Job {
  if (factor === 1 || !(factor > 0)) return job;
  const next = changed(job, (draft) => {
    if (chosen.memberId !== null) {
      const found = chosenMember(draft, chosen);
      if (!found) return;
      const { part, member } = found;
      growMember(member, factor, everything);
      if (member.kind === 'copy' && member.follows) return;
      const centre = applyMatrix(invert(memberSpace(draft, part, chosen)), about);
      const { x, y } = member.placement;
      member.placement = placementOf(
        compose(
          placementMatrix(member.placement),
          translation((centre.x - x) * (1 - factor), (centre.y - y) * (1 - factor)),
        ),
      );
      return;
    }
    const free = new Set(movable(job, chosen).map((p) => p.id));
    for (const part of job.parts) {
      if (!chosen.partIds.includes(part.id) || part.locked) continue;
      const target = draft.parts.find((p) => p.id === part.id) as Part;
      growPart(target, factor, everything, (id) => chosen.partIds.includes(id) && id !== part.id);
      if (free.has(part.id)) {
        const m = partMatrix(job.parts, part);
        const shift = translation((about.x - m.e) * (1 - factor), (about.y - m.f) * (1 - factor));
        target.placement = placementFor(job.parts, part, compose(m, shift));
      } else {
        target.placement.x *= factor;
        target.placement.y *= factor;
      }
    }
  });
  return next.parts.every((part, i) => part === job.parts[i] || partSchema.safeParse(part).success) ? next : job;
}

/**
 * Give a shape that is chosen another width and height, in mm along its own sides, one corner or side staying: `about` is that
 * point of the sheet. What is not a shape, or has one measure only, stays as it is.
 */
export function stretchShape(
  job: Job,
  chosen: Chosen,
  { width, height, about }: { readonly width: number; readonly height: number; readonly about: Point },
): Job {
  return changed(job, (draft) => {
    const found = chosenMember(draft, chosen);
    if (!found || !('width' in found.member && 'height' in found.member)) return;
    const { member, part } = found;
    const to = memberSpace(draft, part, chosen);
    const [fx, fy] = [width / member.width, height / member.height];
    if (!(fx > 0 && fy > 0 && Number.isFinite(fx * fy))) return;
    // The fixed point in the shape's own coordinates stays where it is.
    const own = compose(placementMatrix(member.placement), to);
    const fixed = applyMatrix(invert(own), about);
    const moved = applyMatrix(own, { x: fixed.x * (1 - fx), y: fixed.y * (1 - fy) });
    const at = applyMatrix(invert(to), moved);
    member.width = round(width);
    member.height = round(height);
    member.placement.x = round(at.x);
    member.placement.y = round(at.y);
  });
}

const round = (mm: number): number => Math.round(mm * 1e6) / 1e6;

/** Some parts of a job as they are in another state of it. */
export const withPartsOf = (job: Job, other: Job, partIds: readonly string[]): Job => {
  const known = new Map(other.parts.map((p) => [p.id, p]));
  const parts = job.parts.map((p) => (partIds.includes(p.id) ? (known.get(p.id) ?? p) : p));
  return parts.every((p, i) => p === job.parts[i]) ? job : { ...job, parts };
};
