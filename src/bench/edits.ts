/** Changes to a job document, each one thing a user does. They work on a draft (immer) or on a copy. */

import type { Job, Member, Part, ShapeKind } from '@/core/document/schema';
import { mapLengths } from '@/core/document/shapes';
import { applyMatrix, type Box, type Matrix, type Point } from '@/core/geometry/point';
import { newCopy, newLettering, newPart, newShape } from '@/core/job/defaults';
import { putTogether, splitPart } from '@/core/job/regroup';

/** An id that no part, member or operation of the job has yet, nor is among those `also` taken. */
export function freeId(job: Job, stem: string, also: readonly string[] = []): string {
  const taken = new Set([
    ...also,
    ...job.parts.map((p) => p.id),
    ...job.parts.flatMap((p) => p.members.map((m) => m.id)),
    ...job.operations.map((o) => o.id),
  ]);
  for (let n = 1; ; n++) if (!taken.has(`${stem}-${n}`)) return `${stem}-${n}`;
}

const partOf = (job: Job, partId: string | null): Part | undefined => job.parts.find((p) => p.id === partId);

export const memberOf = (job: Job, partId: string | null, memberId: string | null): Member | undefined =>
  partOf(job, partId)?.members.find((m) => m.id === memberId);

/** What can be added; a copy names the part it copies. */
export type NewThing = 'lettering' | ShapeKind | { readonly copyOf: string };

function makeMember(job: Job, kind: NewThing): Member {
  if (typeof kind === 'object') return newCopy(freeId(job, 'copy'), kind.copyOf, job.sheet);
  const id = freeId(job, kind);
  return kind === 'lettering' ? newLettering(id, job.sheet, '') : newShape(kind, id, job.sheet);
}

/** A new part with one member; returns what to select. */
export function addPart(job: Job, kind: NewThing): { partId: string; memberId: string } {
  const member = makeMember(job, kind);
  const partId = freeId(job, 'part');
  job.parts.push(newPart(partId, '', [member], job));
  return { partId, memberId: member.id };
}

/** A new member at the end of a part, where the part is; returns its id. */
export function addMember(job: Job, partId: string, kind: NewThing, where: Point | null): string | null {
  const part = partOf(job, partId);
  if (!part) return null;
  const member = makeMember(job, kind);
  if (where) {
    member.placement.x = Math.round(where.x * 1e3) / 1e3;
    member.placement.y = Math.round(where.y * 1e3) / 1e3;
  }
  part.members.push(member);
  return member.id;
}

/** Take a member out; a part without members goes too. */
export function removeMember(job: Job, partId: string, memberId: string): void {
  const part = partOf(job, partId);
  if (!part) return;
  part.members = part.members.filter((m) => m.id !== memberId);
  if (part.members.length === 0) job.parts = job.parts.filter((p) => p.id !== partId);
}

/** Change the place of one entry in a list. */
export const moveEntry = <T>(list: T[], from: number, to: number): void => {
  list.splice(to, 0, ...list.splice(from, 1));
};

/** Take a part apart into one for every joined member; its place in the list is theirs. */
export function splitInPlace(job: Job, partId: string): void {
  const at = job.parts.findIndex((p) => p.id === partId);
  const part = job.parts[at];
  if (!part) return;
  job.parts.splice(at, 1, ...splitPart(plain(part), (taken) => freeId(job, 'part', taken)));
}

/** Put another part into this one; a sentence when that would change what is cut. */
export function takeIn(job: Job, partId: string, otherId: string): string | null {
  const part = partOf(job, partId);
  const other = partOf(job, otherId);
  if (!part || !other || part === other) return null;
  const together = putTogether(plain(part), plain(other), (taken) => freeId(job, 'member', taken));
  if (!together.ok) return together.sentence;
  part.members = together.members;
  job.parts = job.parts.filter((p) => p.id !== otherId);
  return null;
}

/** A copy without the draft around it. */
const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

/** How far a copy lies from the original, in mm. */
const COPY_OFFSET_MM = 10;

export function duplicatePart(job: Job, partId: string): string | null {
  const at = job.parts.findIndex((p) => p.id === partId);
  const part = job.parts[at];
  if (!part) return null;
  const copy = plain(part);
  copy.id = freeId(job, 'part');
  copy.locked = false;
  copy.name = part.name ? `${part.name} copy` : '';
  for (const member of copy.members) {
    member.placement.x += COPY_OFFSET_MM;
    member.placement.y -= COPY_OFFSET_MM;
  }
  job.parts.splice(at + 1, 0, copy);
  return copy.id;
}

export function moveMember(member: Member, dx: number, dy: number): void {
  member.placement.x += dx;
  member.placement.y += dy;
}

/** Scale with locked proportions about a point of the sheet. */
export function scaleMember(member: Member, factor: number, about: Point): void {
  member.placement.x = about.x + (member.placement.x - about.x) * factor;
  member.placement.y = about.y + (member.placement.y - about.y) * factor;
  if (member.kind === 'copy') member.scale *= factor;
  mapLengths(member, (mm) => mm * factor);
}

/** Turn by degrees about a point of the sheet. */
export function turnMember(member: Member, degrees: number, about: Point): void {
  const a = (degrees * Math.PI) / 180;
  const dx = member.placement.x - about.x;
  const dy = member.placement.y - about.y;
  member.placement.x = about.x + dx * Math.cos(a) - dy * Math.sin(a);
  member.placement.y = about.y + dx * Math.sin(a) + dy * Math.cos(a);
  const turn = member.placement.turn + degrees;
  member.placement.turn = Math.round((((turn % 360) + 540) % 360) * 1e6 - 180e6) / 1e6;
}

/** Mirror left to right in place, about the middle of its bounds. */
export function mirrorMember(member: Member, middleX: number): void {
  member.placement.mirror = !member.placement.mirror;
  member.placement.x = 2 * middleX - member.placement.x;
  member.placement.turn = -member.placement.turn;
}

/** The four corners of a box after a matrix, counter-clockwise from the lower left. */
export function cornersOf(b: Box, m: Matrix): [Point, Point, Point, Point] {
  const at = (x: number, y: number) => applyMatrix(m, { x, y });
  return [at(b.minX, b.minY), at(b.maxX, b.minY), at(b.maxX, b.maxY), at(b.minX, b.maxY)];
}
