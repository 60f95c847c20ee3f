/**
 * A serif on one side of a stem: where its straight side leaves its way shortly before the stem ends, goes out to a tip and comes back
 * along the edge that the stem ends on. Crossbars, arms and noses are none: the stem goes on behind them, or they are longer than the
 * serifs of the face. Lengths are in the unit of the letter, shares of its capital height.
 */
import { numberAt } from '../../geometry/elements';
import { distance, type Point } from '../../geometry/point';
import { freeFrom, type OutlinePoints } from './outline-points';

/** The side of a stem is straight for this long before the serif, within this. */
const STRAIGHT_FOR = 0.06;
const STRAIGHT_WITHIN = 0.0025;
/** What strays by no more than this beyond another is as straight. */
export const AS_STRAIGHT = 0.00005;
/** It leaves the straight within this. */
const LEAVES_WITHIN = 0.06;
/** A serif stands out by at least this, and is no longer than this along its stem, bracket and all. */
const LEAST = 0.022;
const MOST_DEPTH = 0.34;
/** From where it leaves the stem to where its edge crosses it, the outline is no longer than this. */
const MOST_LENGTH = 0.9;
/** Its thickness is told this share of its length before its tip, from this far inside its edge, and is no more than this. */
const TIP_SHARE = 0.15;
const DEEP = 0.003;
const MOST_HEIGHT = 0.22;
/** The edge from the tip on is straight within this share of its length and this besides, and meets the stem at no less than this cosine. */
const EDGE_BENDS = 0.05;
/** Across the stem it may rise by this: heads do. */
const HEAD_RISES = 0.12;
const EDGE_WITHIN = 0.005;
const EDGE_MEETS = Math.cos((46 * Math.PI) / 180);
/** The end of a serif is no higher than this. */
const MOST_END = 0.2;
/** The edge goes on across the stem by this, in its direction within this cosine: a crossbar ends at the side of the stem. */
const GOES_ON = 0.022;
const GOES_ON_WITHIN = Math.cos((35 * Math.PI) / 180);
/** It goes across this share of the stem at least, but no more than this is looked at. */
const ACROSS_STEM = 0.7;
const MOST_ACROSS = 0.3;
/** What goes out beyond the tip is this against it, and this besides; of a side that comes out at the end of a serif, so many times that. */
const BEYOND_TIP = 1.15;
const SHORT_OUT = 6;
/** Rays run this far inside the edge they start from. */
export const INSET = 0.0015;
/** Edges that run up and down within this sine are those of beaks, which may be longer by this. */
const BEAK = Math.cos((30 * Math.PI) / 180);
const BEAK_OF_FOOT = 1.9;

/** A serif on one side of a stem. */
export type SerifSide = {
  readonly path: number;
  /** Where the side of the stem is left, and where its straight continuation comes to the edge, as lengths along the path. */
  readonly foot: number;
  readonly edge: number;
  /** Whether the outline comes to the serif along the stem (1), or along the edge (−1). */
  readonly way: 1 | -1;
  /** Where the continued side of the stem meets the edge, where the edge is straightened from there to `edge`. */
  readonly corner: Point | null;
  /** Half a thickness inside the edge: at the tip, half way to the stem, and at its side; how thick the serif is at the tip. */
  readonly tip: Point;
  readonly along: Point;
  readonly to: Point;
  readonly height: number;
  /** The direction from the stem out along the edge. */
  readonly out: Point;
  /** How far it stands out from the stem; 0 where the side of a slanted stem comes out at its end. */
  readonly by: number;
};

/** The straight stretch of an outline up to a point: its direction, and how far the outline strays from it; null where it is not straight. */
function straightUpTo(o: OutlinePoints, i: number, way: 1 | -1, capital: number): { u: Point; strays: number } | null {
  const p = o.point(i);
  let k = i;
  while (o.between(k, i, way) < STRAIGHT_FOR * capital) {
    k -= way;
    if (Math.abs(k - i) >= o.count) return null;
  }
  const from = o.point(k);
  const size = Math.hypot(p.x - from.x, p.y - from.y);
  if (size < 0.9 * STRAIGHT_FOR * capital) return null;
  const u = { x: (p.x - from.x) / size, y: (p.y - from.y) / size };
  let strays = 0;
  for (let j = k + way; j !== i; j += way) {
    const q = o.point(j);
    strays = Math.max(strays, Math.abs(u.x * (q.y - from.y) - u.y * (q.x - from.x)));
    if (strays > STRAIGHT_WITHIN * capital) return null;
  }
  return { u, strays };
}

/** A stretch of outline that leaves the straight side of a stem at point `i` and comes back across its continuation. */
type Bump = {
  readonly o: OutlinePoints;
  readonly i: number;
  readonly way: 1 | -1;
  readonly p: Point;
  readonly u: Point;
  /** The last point before the crossing, the share of the way to the next one, and where it is. */
  readonly last: number;
  readonly share: number;
  readonly at: Point;
  /** How far it goes out from the continuation. */
  readonly out: number;
};

/** The bump that an outline makes after a point on the side of a stem; null where it makes none that a serif could be. */
function bumpAfter(
  o: OutlinePoints,
  { i, way, u }: Pick<Bump, 'i' | 'way' | 'u'>,
  most: number,
  capital: number,
): Bump | null {
  const p = o.point(i);
  const outBy = (q: Point) => -way * (u.x * (q.y - p.y) - u.y * (q.x - p.x));
  let by = 0;
  let last = i;
  for (;;) {
    const next = last + way;
    const length = o.between(i, next, way);
    if (length > MOST_LENGTH * capital || Math.abs(next - i) >= o.count - 1) return null;
    const d = outBy(o.point(next));
    if (d > most || (by < INSET * capital && length > LEAVES_WITHIN * capital)) return null;
    if (d < -INSET * capital) break;
    by = Math.max(by, d);
    last = next;
  }
  if (by < LEAST * capital) return null;
  const [before, after] = [o.point(last), o.point(last + way)];
  const [d0, d1] = [outBy(before), outBy(after)];
  const share = d0 > 0 ? d0 / (d0 - d1) : 0;
  const at = { x: before.x + share * (after.x - before.x), y: before.y + share * (after.y - before.y) };
  const depth = u.x * (at.x - p.x) + u.y * (at.y - p.y);
  return depth > 0 && depth < MOST_DEPTH * capital ? { o, i, way, p, u, last, share, at, out: by } : null;
}

/** The edge that a stem ends on: its tip, as a point of the outline; its direction from there; where it comes to the side of the stem. */
type Edge = { readonly tip: number; readonly e: Point; readonly meets: Point; readonly from: number };

/** The direction of an outline from one of its points to another. */
function directionOf(o: OutlinePoints, from: number, to: number): Point {
  const [p, q] = [o.point(from), o.point(to)];
  const size = distance(p, q) || 1;
  return { x: (q.x - p.x) / size, y: (q.y - p.y) / size };
}

/** The edge of a bump; null where what it comes back along does not cross the stem. */
function edgeOf({ o, i, way, u, last, at, p }: Bump, capital: number): Edge | null {
  const walked = (from: number, step: 1 | -1, length: number) => {
    let k = from;
    while (o.between(step === way ? from : k, step === way ? k : from, way) < length) k += step;
    return k;
  };
  const crosses = (e: Point) => Math.abs(e.x * u.x + e.y * u.y) < EDGE_MEETS;
  const e = directionOf(o, walked(last, way === 1 ? -1 : 1, LEAST * capital), last + way);
  if (crosses(e)) {
    // The tip is where the outline stops running in that direction.
    let tip = last;
    while (tip !== i) {
      const d = directionOf(o, tip - way, tip);
      if (d.x * e.x + d.y * e.y < GOES_ON_WITHIN) break;
      tip -= way;
    }
    return { tip, e, meets: at, from: last };
  }
  // A slanted stem is so wide that its side comes out at the end of the serif: the edge begins at the corner after.
  let tip = last + way;
  while (o.between(last, tip, way) < MOST_END * capital) {
    const d = directionOf(o, tip, tip + way);
    if (d.x * e.x + d.y * e.y < GOES_ON_WITHIN) break;
    tip += way;
  }
  const after = directionOf(o, tip, walked(tip, way, LEAST * capital));
  if (!crosses(after)) return null;
  const t = o.point(tip);
  const det = u.x * after.y - u.y * after.x;
  const beyond = (u.x * (p.y - t.y) - u.y * (p.x - t.x)) / det;
  const meets = { x: t.x + beyond * after.x, y: t.y + beyond * after.y };
  return beyond <= 0 && -beyond < MOST_END * capital ? { tip, e: after, meets, from: tip } : null;
}

/**
 * Whether the edge of a serif is straight from its tip to the side of the stem (`from`), and goes on across that (`on`) without
 * falling off: it may rise.
 */
function isStraightEdge(
  o: OutlinePoints,
  { tip, from, on }: { readonly tip: number; readonly from: number; readonly on: number },
  way: 1 | -1,
  capital: number,
): boolean {
  const t = o.point(tip);
  const e = directionOf(o, tip, from === tip ? on : from);
  const most = EDGE_BENDS * distance(t, o.point(on)) + EDGE_WITHIN * capital;
  let isAcross = false;
  for (let k = tip; k !== on; k += way) {
    const q = o.point(k);
    const into = way * (e.x * (q.y - t.y) - e.y * (q.x - t.x));
    if (into > most || into < -(isAcross ? HEAD_RISES * capital : most)) return false;
    isAcross ||= k === from;
  }
  return true;
}

/** Where the edge of a stem ends, which may rise beyond the side of the stem that a serif is on; null where it is straight up to there. */
function headAfter(o: OutlinePoints, { from, e }: Edge, way: 1 | -1, across: number, capital: number): number | null {
  // Corners may be rounded a little.
  const about = HEAD_ABOUT * way;
  let end = from + about;
  while (o.between(from, end, way) < HEAD * across) {
    const [before, here] = [directionOf(o, end - about, end), directionOf(o, end, end + about)];
    const turn = way * Math.atan2(before.x * here.y - before.y * here.x, before.x * here.x + before.y * here.y);
    if (turn > HEAD_CORNER) {
      const rises = Math.abs(e.x * (o.point(end).y - o.point(from).y) - e.y * (o.point(end).x - o.point(from).x));
      return rises > EDGE_WITHIN * capital ? end : null;
    }
    end += way;
  }
  return null;
}
const HEAD = 1.3;
/** So many points before and after one tell how the outline turns there. */
const HEAD_ABOUT = 3;
const HEAD_CORNER = (40 * Math.PI) / 180;

/** How far the outline runs in the direction of an edge from where that comes to the side of the stem. */
function edgeLength(o: OutlinePoints, { e, from }: Edge, way: 1 | -1, capital: number): number {
  let k = from + way;
  while (o.between(from, k, way) < MOST_LENGTH * capital) {
    const d = directionOf(o, k, k + way);
    if (d.x * e.x + d.y * e.y < GOES_ON_WITHIN) break;
    k += way;
  }
  return o.between(from, k, way);
}

/**
 * Whether an outline turns inwards again on the way from one point to another, after it has turned outwards: what stands out
 * has a foot of its own then, and is a stem.
 */
function isFooted(o: OutlinePoints, from: number, to: number, way: 1 | -1): boolean {
  let [angle, least, most] = [0, 0, -Infinity];
  let before = directionOf(o, from, from + way);
  for (let k = from + way; k !== to; k += way) {
    const here = directionOf(o, k, k + way);
    angle += way * Math.atan2(before.x * here.y - before.y * here.x, before.x * here.x + before.y * here.y);
    before = here;
    if (most > -Infinity || angle > least + OUTWARDS) most = Math.max(most, angle);
    else least = Math.min(least, angle);
    if (angle < most - INWARDS) return true;
  }
  return false;
}
const OUTWARDS = (40 * Math.PI) / 180;
const INWARDS = (25 * Math.PI) / 180;

/** The serif that the outline goes around after a point on the side of a stem; null where it is none. */
export function sideAfter(
  outlines: readonly OutlinePoints[],
  { path, i, way }: { readonly path: number; readonly i: number; readonly way: 1 | -1 },
  most: number,
  capital: number,
) {
  const o = outlines[path] as OutlinePoints;
  const straight = straightUpTo(o, i, way, capital);
  const bump = straight && bumpAfter(o, { i, way, u: straight.u }, BEAK_OF_FOOT * most, capital);
  const edge = bump && edgeOf(bump, capital);
  if (!edge) return null;
  const { u, p, last, share, out } = bump;
  const { meets, tip } = edge;
  const t = o.point(tip);
  const isShort = edge.from === tip;
  const by = isShort ? 0 : distance(meets, t);
  const slant = Math.abs(edge.e.x * u.y - edge.e.y * u.x);
  // Beaks hang from arms farther than feet stand out.
  const isBeak = Math.abs(edge.e.y) > BEAK;
  if (!isShort && (by < LEAST * capital || by * slant > (isBeak ? BEAK_OF_FOOT : 1) * most)) return null;
  // Nothing goes out farther than its tip.
  if (out > BEYOND_TIP * by * slant + LEAST * capital * (isShort ? SHORT_OUT : 1)) return null;
  if (isFooted(o, i, tip, way)) return null;
  const into = { x: -way * u.y, y: way * u.x };
  const across = freeFrom(outlines, { x: p.x + DEEP * capital * into.x, y: p.y + DEEP * capital * into.y }, into);
  // The edge of a beak ends where its arm does, or with the beak on its other side; that of a stem goes on.
  if (isBeak && edgeLength(o, edge, way, capital) > across / slant + BEAK_OF_FOOT * most) return null;
  // The edge, from the tip to the stem and across it, is one straight edge.
  const goesOn = Math.min(
    Math.max(GOES_ON * capital, (ACROSS_STEM * across) / slant - (isShort ? distance(meets, t) : 0)),
    MOST_ACROSS * capital,
  );
  let on = edge.from + way;
  while (o.between(edge.from, on, way) < goesOn) on += way;
  const e = directionOf(o, tip, on);
  const size = distance(t, o.point(on));
  if (size < by) return null;
  if (!isStraightEdge(o, { tip, from: edge.from, on }, way, capital)) return null;
  const beyond = directionOf(o, edge.from, on);
  if (beyond.x * e.x + beyond.y * e.y < GOES_ON_WITHIN) return null;
  // How thick it is shortly after its tip, into the letter from the edge.
  const deep = { x: -way * e.y, y: way * e.x };
  const back = Math.max(TIP_SHARE * by, DEEP * capital);
  const from = { x: t.x + back * e.x + DEEP * capital * deep.x, y: t.y + back * e.y + DEEP * capital * deep.y };
  const height = freeFrom(outlines, from, deep) + DEEP * capital;
  if (height > MOST_HEIGHT * capital) return null;
  const middle = o.point(tip + way * Math.round((way * (last - tip)) / 2));
  const deeper = (q: Point): Point => ({ x: q.x + (height / 2) * deep.x, y: q.y + (height / 2) * deep.y });
  const head = isShort ? null : headAfter(o, edge, way, across / slant, capital);
  const edgeAt = isShort ? tip : head;
  const side: SerifSide = {
    path,
    foot: numberAt(o.s, o.at(i)),
    edge: edgeAt === null ? o.lengthAt(last, way, share) : numberAt(o.s, o.at(edgeAt)),
    way,
    corner: edgeAt === null ? null : meets,
    tip: deeper(t),
    along: isShort ? deeper(t) : deeper(middle),
    to: deeper(isShort ? t : meets),
    height,
    out: { x: -e.x, y: -e.y },
    by,
  };
  const depth = (meets.x - p.x) * u.x + (meets.y - p.y) * u.y;
  return {
    side,
    strays: straight.strays,
    tip: o.at(tip),
    length: o.between(i, last, way),
    depth: isShort ? 0 : depth,
    p,
    u,
  };
}
