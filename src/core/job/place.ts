/** Moving, sizing, turning and mirroring members on the sheet. They change the member they are given: a draft or a copy. */

import type { Member } from '../document/schema';
import { mapLengths } from '../document/shapes';
import type { Point } from '../geometry/point';

export function moveMember(member: Member, dx: number, dy: number): void {
  member.placement.x += dx;
  member.placement.y += dy;
}

/** Scale with locked proportions about a point of the sheet. */
export function scaleMember(member: Member, factor: number, about: Point): void {
  if (member.kind === 'copy' || member.kind === 'artwork' || member.kind === 'path') member.scale *= factor;
  // What goes along with another part keeps its distance from the middle of that.
  if (member.kind === 'copy' && member.follows) return;
  member.placement.x = about.x + (member.placement.x - about.x) * factor;
  member.placement.y = about.y + (member.placement.y - about.y) * factor;
  mapLengths(member, (mm) => mm * factor);
}

/** Turn by degrees about a point of the sheet. */
export function turnMember(member: Member, degrees: number, about: Point): void {
  const a = member.kind === 'copy' && member.follows ? 0 : (degrees * Math.PI) / 180;
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
  if (member.kind === 'copy' && member.follows) member.placement.x = -member.placement.x;
  else member.placement.x = 2 * middleX - member.placement.x;
  member.placement.turn = -member.placement.turn;
}
