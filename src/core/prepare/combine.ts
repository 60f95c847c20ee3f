/** Members put together into one clean shape. */
import type { ClipEngine, TaggedPolygon } from '../geometry/boolean/engine';
import { BooleanSession, FLATTEN_MM } from '../geometry/boolean/session';
import { boxesMeet } from '../geometry/point';
import type { Member } from '../schema/members';
import { boundsOf, measureOutlines, type Outline, relabel } from './outline';

/** A member with its outlines, in the coordinates of its part. */
export type DrawnMember = { readonly member: Member; readonly outlines: readonly Outline[] };

/** Members combined in order into clean outlines. Booleans run only where shapes meet. */
export function combineMembers(drawn: readonly DrawnMember[], engine: ClipEngine): readonly Outline[] {
  const apart = drawn.every(
    (a, i) =>
      a.member.role === 'join' &&
      drawn.every((b, j) => i >= j || !boxesMeet(boundsOf(a.outlines), boundsOf(b.outlines))),
  );
  if (apart) return sideBySide(drawn);
  const session = new BooleanSession(engine, FLATTEN_MM, true);
  let current: TaggedPolygon[] = [];
  for (const { member, outlines } of drawn) {
    const polygons = session.addLabelled(outlines);
    if (member.role === 'join') current = session.clip('union', [...current, ...polygons]);
    else current = session.clip(member.role === 'punch' ? 'difference' : 'intersection', current, polygons);
  }
  return measureOutlines(session.rebuild(current));
}

/** Shapes as they are, one after the other. */
export const sideBySide = (drawn: readonly DrawnMember[]): Outline[] => {
  const all: Outline[] = [];
  for (const { outlines } of drawn) all.push(...relabel(outlines, all.length, 0));
  return all;
};
