/** All sides of stems that have a serif, each of them once, and which of them are of one. */
import type { Path } from '../../geometry/path';
import { freeFrom, OutlinePoints } from './outline-points';
import { AS_STRAIGHT, INSET, type SerifSide, sideAfter } from './serif-side';

/** Points on outlines are no farther apart than this. */
const STEP = 0.004;
/** Two sides are of one serif when their edges are one: no farther apart than this, directions opposite within this cosine. */
const ONE_EDGE = 0.45;
const OPPOSITE = Math.cos((30 * Math.PI) / 180);

/** The sides of serifs of a region that stand out by no more than `most`. */
export function sidesOf(outlines: readonly OutlinePoints[], most: number, capital: number): SerifSide[] {
  const best = new Map<string, NonNullable<ReturnType<typeof sideAfter>>>();
  outlines.forEach((o, path) => {
    for (const way of [1, -1] as const)
      for (let i = 0; i < o.count; i++) {
        const made = sideAfter(outlines, { path, i, way }, most, capital);
        if (!made) continue;
        const key = `${path}:${way}:${made.tip}`;
        const known = best.get(key);
        // The straightest side, and of those that are as straight the last before the serif.
        const strays = known ? made.strays - known.strays : 0;
        const isAsStraight = Math.abs(strays) < AS_STRAIGHT * capital;
        if (!known || (isAsStraight ? made.length < known.length : strays < 0)) best.set(key, made);
      }
  });
  const inset = INSET * capital;
  return [...best.values()]
    .filter(({ p, u, depth, side: { way } }) => {
      const start = { x: p.x - way * u.y * inset + u.x * inset, y: p.y + way * u.x * inset + u.y * inset };
      return freeFrom(outlines, start, u) > depth - 4 * inset;
    })
    .map(({ side }) => side)
    .sort((a, b) => b.by - a.by)
    .filter((side, i, all) => all.slice(0, i).every((other) => !overlap(side, other, outlines)))
    .filter(
      (side, _, all) => side.by > 0 || all.some((other) => other.by > 0 && haveOneEdge(side, other, outlines, capital)),
    );
}

/** Whether two sides have one edge, which one comes to from the stem and leaves along it to the other side of that. */
export function haveOneEdge(p: SerifSide, q: SerifSide, outlines: readonly OutlinePoints[], capital: number): boolean {
  if (p.path !== q.path || p.way === q.way) return false;
  const [a, b] = p.way === 1 ? [p, q] : [q, p];
  const isOpposite = -(a.out.x * b.out.x + a.out.y * b.out.y) > OPPOSITE;
  return isOpposite && lengthBetween(a, b, outlines) < ONE_EDGE * capital;
}

/** How long the edge is between two sides that have it in common. */
export function lengthBetween(a: SerifSide, b: SerifSide, outlines: readonly OutlinePoints[]): number {
  const { length } = outlines[a.path] as OutlinePoints;
  return (((b.edge - a.edge) % length) + length) % length;
}

/** The outlines of a region as points, close enough for its serifs. */
export const outlinesOf = (region: readonly Path[], capital: number): OutlinePoints[] =>
  region.map((p) => new OutlinePoints(p, STEP * capital));

/** What is cut out of an outline for a side, as lengths along it, from less to more. */
export function rangeOf(
  { foot, edge, way }: SerifSide,
  length: number,
): { readonly from: number; readonly to: number } {
  const [from, to] = way === 1 ? [foot, edge] : [edge, foot];
  const start = ((from % length) + length) % length;
  const size = (((to - from) % length) + length) % length;
  return { from: start, to: start + size };
}

/** Whether two sides are cut out of a common stretch of an outline. */
function overlap(a: SerifSide, b: SerifSide, outlines: readonly OutlinePoints[]): boolean {
  if (a.path !== b.path) return false;
  const { length } = outlines[a.path] as OutlinePoints;
  const [p, q] = [rangeOf(a, length), rangeOf(b, length)];
  return [-length, 0, length].some((round) => p.from < q.to + round && q.from + round < p.to);
}
