/**
 * Format 2: parts have a place of their own, and members are placed in their part. A part's origin becomes that of its first
 * member, level; so files stay as they are, and parts that are alike but for their place are prepared once.
 */
import { LIMITS } from '../limits';
import { isObject, type Json } from './json';

const objects = (value: unknown): Json[] => (Array.isArray(value) ? value.filter(isObject) : []);
const placeOf = (member: Json | undefined): { x: number; y: number } | null => {
  const placement = member?.placement;
  if (!isObject(placement)) return null;
  const { x, y } = placement;
  return typeof x === 'number' && typeof y === 'number' ? { x, y } : null;
};
/** Whether a member was placed from the middle of the part it copies, and went along with it. */
const isFollowing = (member: Json | undefined): boolean => member?.kind === 'copy' && member.follows === true;

const isOutOfSheet = (part: Json): boolean =>
  part.keep === 'outside' && !objects(part.steps).some((step) => step.kind === 'plate' && step.on !== false);

/** Places are told apart to this share of a mm. */
const STEADY_PER_MM = 1e9;
const steady = (mm: number): number => Math.round(mm * STEADY_PER_MM) / STEADY_PER_MM + 0;

/** A document of format 1 in format 2: each part is placed where its first member was, its members in it. */
export function placeParts(document: Json): Json {
  const parts = objects(document.parts);
  const byId = new Map(parts.map((part) => [part.id, part]));
  const firstOf = (part: Json) => objects(part.members)[0];
  /** The part that one goes along with: the one its first member followed, unless that leads back to it. */
  const leaderOf = (part: Json): Json | null => {
    const first = firstOf(part);
    if (!isFollowing(first)) return null;
    const met = new Set([part]);
    let next = byId.get(first?.of);
    const leader = next && next !== part ? next : null;
    while (next) {
      if (met.has(next)) return null;
      met.add(next);
      const further = firstOf(next);
      next = isFollowing(further) ? byId.get(further?.of) : undefined;
    }
    return leader;
  };
  const origins = new Map<Json, { x: number; y: number }>();
  /** Where the origin of a part lies on the sheet. */
  const originOf = (part: Json): { x: number; y: number } => {
    const known = origins.get(part);
    if (known) return known;
    const leader = leaderOf(part);
    const origin = leader ? originOf(leader) : ownOrigin(part);
    origins.set(part, origin);
    return origin;
  };
  const ownOrigin = (part: Json) => {
    const first = firstOf(part);
    // What is cut out of the sheet was prepared where it lies; it stays so, that no bridge goes elsewhere by a rounding.
    const at = (!isOutOfSheet(part) && !isFollowing(first) && placeOf(first)) || { x: 0, y: 0 };
    // Members far apart stay placed from the corner of the sheet, which holds them all.
    const isFar = objects(part.members).some((m) => {
      const p = placeOf(m);
      return p && Math.max(Math.abs(p.x - at.x), Math.abs(p.y - at.y)) > LIMITS.lengthMm;
    });
    return isFar ? { x: 0, y: 0 } : at;
  };
  const moved = (member: Json, part: Json): Json => {
    const at = placeOf(member);
    if (!at) return member;
    const [origin, copied] = [originOf(part), byId.get(member.of)];
    const from = isFollowing(member) ? (copied ? originOf(copied) : origin) : { x: 0, y: 0 };
    const placement = {
      ...(member.placement as Json),
      x: steady(at.x + from.x - origin.x),
      y: steady(at.y + from.y - origin.y),
    };
    return { ...member, placement };
  };
  if (!Array.isArray(document.parts)) return document;
  return {
    ...document,
    parts: document.parts.map((part: unknown) => {
      if (!isObject(part)) return part;
      const leader = leaderOf(part);
      const { x, y } = leader ? { x: 0, y: 0 } : originOf(part);
      return {
        ...part,
        placement: { x, y, turn: 0, mirror: false },
        along: leader ? leader.id : null,
        members: Array.isArray(part.members)
          ? part.members.map((m: unknown) => (isObject(m) ? moved(m, part) : m))
          : part.members,
      };
    }),
  };
}
