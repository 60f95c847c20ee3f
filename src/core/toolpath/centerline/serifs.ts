/**
 * Serifs of a letter, found where the straight side of a stem leaves its way shortly before the stem ends, goes out to a tip and
 * comes back along the edge that the stem ends on. Each side of a stem is looked at by itself, so that feet with two serifs,
 * flags with one and the beaks of arms are the same thing; crossbars, arms and noses are none, because the stem goes on behind
 * them, or they are longer than the serifs of the face. Lengths are in the unit of the letter, shares of its capital height.
 */
import { numberAt } from '../../geometry/elements';
import { type Path, type PathPlace, stretchesBetween } from '../../geometry/path';
import { distance, type Point } from '../../geometry/point';
import { line, pointAt, type Segment, subSegment } from '../../geometry/segment';
import { segmentLength } from '../../geometry/segment-measures';

/** Points on outlines are no farther apart than this. */
const STEP = 0.004;
/** The side of a stem is straight for this long before the serif, within this. */
const STRAIGHT_FOR = 0.06;
const STRAIGHT_WITHIN = 0.0025;
const AS_STRAIGHT = 0.00005;
/** A serif stands out by at least this, and is no longer than this along its stem, bracket and all. */
const LEAST = 0.022;
const MOST_DEPTH = 0.34;
/** From where it leaves the stem to where its edge crosses it, the outline is no longer than this. */
const MOST_LENGTH = 0.9;
/** Its thickness is told this share of its length before its tip, from this far inside its edge, and is no more than this. */
const TIP_SHARE = 0.15;
const DEEP = 0.003;
const MOST_HEIGHT = 0.25;
/** The edge from the tip on is straight within this share of its length and this besides, and meets the stem at no less than this cosine. */
const EDGE_BENDS = 0.05;
const EDGE_WITHIN = 0.005;
const EDGE_MEETS = Math.cos((46 * Math.PI) / 180);
/** The edge goes on across the stem by this, in its direction within this cosine: a crossbar ends at the side of the stem. */
const GOES_ON = 0.022;
const GOES_ON_WITHIN = Math.cos((35 * Math.PI) / 180);
/** It goes across this share of the stem at least, but no more than this is looked at. */
const ACROSS_STEM = 0.7;
const MOST_ACROSS = 0.3;
/** Rays run this far inside the edge they start from. */
const INSET = 0.0015;
/** Two sides are of one serif when their edges are one: no farther apart than this, directions opposite within this cosine. */
const ONE_EDGE = 0.45;
const OPPOSITE = Math.cos((30 * Math.PI) / 180);

/** A serif on one side of a stem. */
type SerifSide = {
  readonly path: number;
  /** Where the side of the stem is left, and where its straight continuation comes to the edge, as lengths along the path. */
  readonly foot: number;
  readonly edge: number;
  /** Whether the outline comes to the serif along the stem (1), or along the edge (−1). */
  readonly way: 1 | -1;
  /** Half way up the tip; how thick the serif is there; the direction from the stem out along the edge. */
  readonly tip: Point;
  readonly height: number;
  readonly out: Point;
  /** How far it stands out from the stem. */
  readonly by: number;
};

/** The stroke of a serif: from tip to tip, or from a tip to the stem it belongs to and as far on as that is wide. */
export type SerifStroke = {
  /** Three points: its ends, and one half way. */
  readonly points: readonly [Point, Point, Point];
  /** Whether its last point is a tip as well; else it ends on the line of its stem. */
  readonly isWhole: boolean;
  /** How thick it is at the tips. */
  readonly height: number;
  /** Where it comes to the side of its stem, for one side; else its other tip. */
  readonly to: Point;
};

/** An outline as points along it. */
class Outline {
  readonly x: number[] = [];
  readonly y: number[] = [];
  /** Length along the outline up to each point. */
  readonly s: number[] = [];
  readonly places: PathPlace[] = [];
  readonly count: number;
  readonly length: number;

  constructor(
    private readonly path: Path,
    step: number,
  ) {
    let s = 0;
    path.segments.forEach((segment, i) => {
      const length = segmentLength(segment);
      const n = Math.max(1, Math.ceil(length / step));
      for (let k = 0; k < n; k++) {
        const { x, y } = pointAt(segment, k / n);
        this.x.push(x);
        this.y.push(y);
        this.s.push(s + (length * k) / n);
        this.places.push({ segment: i, t: k / n });
      }
      s += length;
    });
    this.count = this.x.length;
    this.length = s;
  }

  at(i: number): number {
    return ((i % this.count) + this.count) % this.count;
  }

  point(i: number): Point {
    const k = this.at(i);
    return { x: numberAt(this.x, k), y: numberAt(this.y, k) };
  }

  /** How far it is from one point on to another that lies `way` of it. */
  between(from: number, to: number, way: 1 | -1): number {
    const d = way * (numberAt(this.s, this.at(to)) - numberAt(this.s, this.at(from)));
    return d < 0 ? d + this.length : d;
  }

  /** The length along the outline a share of the way from a point to its neighbour. */
  lengthAt(i: number, way: 1 | -1, share: number): number {
    const here = numberAt(this.s, this.at(i));
    return here + way * share * this.between(i, i + way, way);
  }

  pointAlong(length: number): Point {
    const { segment, t } = this.placeAt(length);
    return pointAt(this.path.segments[segment] as Segment, t);
  }

  /** Where on the path a length along it is. */
  placeAt(length: number): PathPlace {
    const s = ((length % this.length) + this.length) % this.length;
    let [low, high] = [0, this.count - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (numberAt(this.s, middle) <= s) low = middle;
      else high = middle - 1;
    }
    const here = this.places[low] as PathPlace;
    const next = this.places[low + 1];
    const to = next && next.segment === here.segment ? next.t : 1;
    const end = low + 1 < this.count ? numberAt(this.s, low + 1) : this.length;
    const size = end - numberAt(this.s, low);
    return { segment: here.segment, t: here.t + (size > 0 ? ((s - numberAt(this.s, low)) / size) * (to - here.t) : 0) };
  }
}

/** The straight stretch of an outline up to a point: its direction, and how far the outline strays from it; null where it is not straight. */
function straightUpTo(o: Outline, i: number, way: 1 | -1, capital: number): { u: Point; strays: number } | null {
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

/** The serif that the outline goes around after a point on the side of a stem; null where it is none. */
function sideAfter(
  outlines: readonly Outline[],
  { path, i, way }: { readonly path: number; readonly i: number; readonly way: 1 | -1 },
  most: number,
  capital: number,
) {
  const o = outlines[path] as Outline;
  const straight = straightUpTo(o, i, way, capital);
  if (!straight) return null;
  const { u, strays } = straight;
  const p = o.point(i);
  const outBy = (q: Point) => -way * (u.x * (q.y - p.y) - u.y * (q.x - p.x));
  const ahead = (q: Point) => u.x * (q.x - p.x) + u.y * (q.y - p.y);
  let by = 0;
  let last = i;
  for (;;) {
    const next = last + way;
    if (o.between(i, next, way) > MOST_LENGTH * capital || Math.abs(next - i) >= o.count - 1) return null;
    const d = outBy(o.point(next));
    if (d > most) return null;
    if (d < -INSET * capital) break;
    by = Math.max(by, d);
    last = next;
  }
  if (by < LEAST * capital) return null;
  // Between these two the edge crosses the continued side of the stem.
  const [before, after] = [o.point(last), o.point(last + way)];
  const [d0, d1] = [outBy(before), outBy(after)];
  const share = d0 > 0 ? d0 / (d0 - d1) : 0;
  const at = { x: before.x + share * (after.x - before.x), y: before.y + share * (after.y - before.y) };
  if (ahead(at) <= 0 || ahead(at) > MOST_DEPTH * capital) return null;
  // The direction of the edge there, and the tip: the farthest along it.
  let near = last;
  while (near !== i && o.between(near, last, way) < LEAST * capital) near -= way;
  const n = o.point(near);
  const nearBy = Math.hypot(at.x - n.x, at.y - n.y);
  if (nearBy === 0) return null;
  const [ex, ey] = [(at.x - n.x) / nearBy, (at.y - n.y) / nearBy];
  if (Math.abs(ex * u.x + ey * u.y) > EDGE_MEETS) return null;
  // The tip: how far back the outline runs in that direction.
  let tip = last;
  while (tip !== i) {
    const [q, r] = [o.point(tip - way), o.point(tip)];
    const step = Math.hypot(r.x - q.x, r.y - q.y);
    if ((r.x - q.x) * ex + (r.y - q.y) * ey < GOES_ON_WITHIN * step) break;
    tip -= way;
  }
  const t = o.point(tip);
  const reach = Math.hypot(at.x - t.x, at.y - t.y);
  const slant = Math.abs(ex * u.y - ey * u.x);
  if (reach < LEAST * capital || reach * slant > most) return null;
  // The edge, from the tip to the stem and across it, is one straight edge.
  const across = widthAt(outlines, p, u, way);
  let on = last;
  const goesOn = Math.min(Math.max(GOES_ON * capital, (ACROSS_STEM * across) / slant), MOST_ACROSS * capital);
  while (o.between(last, on, way) < goesOn) on += way;
  const end = o.point(on);
  const size = Math.hypot(end.x - t.x, end.y - t.y);
  if (size < reach) return null;
  const e = { x: (end.x - t.x) / size, y: (end.y - t.y) / size };
  for (let k = tip; k !== on; k += way) {
    const q = o.point(k);
    const [qx, qy] = [q.x - t.x, q.y - t.y];
    if (Math.abs(e.x * qy - e.y * qx) > EDGE_BENDS * size + EDGE_WITHIN * capital) return null;
  }
  const beyond = o.point(on);
  const far = Math.hypot(beyond.x - at.x, beyond.y - at.y);
  if (((beyond.x - at.x) * e.x + (beyond.y - at.y) * e.y) / far < GOES_ON_WITHIN) return null;
  // How thick it is shortly before its tip, into the letter from the edge.
  const back = TIP_SHARE * reach;
  const into = { x: -way * e.y, y: way * e.x };
  const from = { x: t.x + back * e.x, y: t.y + back * e.y };
  const height = freeFrom(outlines, { x: from.x + DEEP * capital * into.x, y: from.y + DEEP * capital * into.y }, into);
  if (height > MOST_HEIGHT * capital) return null;
  const side: SerifSide = {
    path,
    foot: numberAt(o.s, o.at(i)),
    edge: o.lengthAt(last, way, share),
    way,
    tip: { x: t.x + (height / 2) * into.x, y: t.y + (height / 2) * into.y },
    height,
    out: { x: -e.x, y: -e.y },
    by: reach,
  };
  return { side, strays, tip: o.at(tip), length: o.between(i, last, way), depth: ahead(at), p, u };
}

/** How far it is from a point straight on to the nearest of some outlines; infinite where there is none. */
function freeFrom(outlines: readonly Outline[], { x, y }: Point, u: Point): number {
  let least = Infinity;
  for (const o of outlines) {
    let a = o.point(-1);
    let before = u.x * (a.y - y) - u.y * (a.x - x);
    for (let k = 0; k < o.count; k++) {
      const b = o.point(k);
      const side = u.x * (b.y - y) - u.y * (b.x - x);
      if (side > 0 !== before > 0) {
        const [ahead0, ahead1] = [u.x * (a.x - x) + u.y * (a.y - y), u.x * (b.x - x) + u.y * (b.y - y)];
        const ahead = ahead0 + ((ahead1 - ahead0) * before) / (before - side);
        if (ahead > 0 && ahead < least) least = ahead;
      }
      [a, before] = [b, side];
    }
  }
  return least;
}

/** How wide the ink is across a stem, from a point on its side. */
function widthAt(outlines: readonly Outline[], { x, y }: Point, u: Point, way: 1 | -1): number {
  const into = { x: -way * u.y, y: way * u.x };
  return freeFrom(outlines, { x: x + 1e-3 * into.x, y: y + 1e-3 * into.y }, into);
}

/** The sides of serifs of a region that stand out by no more than `most`. */
function sidesOf(outlines: readonly Outline[], most: number, capital: number): SerifSide[] {
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
    .filter((side, i, all) => all.slice(0, i).every((other) => !overlap(side, other, outlines)));
}

const outlinesOf = (region: readonly Path[], capital: number): Outline[] =>
  region.map((p) => new Outline(p, STEP * capital));

/**
 * How far serifs of a face stand out at most, told from its H and n, `capital` high; null where the face has none: those of an H
 * are told from both feet and both heads.
 */
export function serifReach(capitals: readonly (readonly Path[])[], capital: number): number | null {
  const found = capitals.flatMap((region) =>
    sidesOf(outlinesOf(region, capital), MOST_OF_CAPITAL * capital, capital).map(({ by }) => by),
  );
  found.sort((a, b) => a - b);
  const usual = found[found.length >> 1];
  if (found.length < OF_AN_H || usual === undefined) return null;
  return Math.min(OF_USUAL * usual, MOST_OF_CAPITAL * capital);
}
/** An H has eight sides of serifs; some faces leave out one or two. */
const OF_AN_H = 6;
/** Serifs stand out no farther than this share of a capital; beaks of arms are longer than feet by this. */
const MOST_OF_CAPITAL = 0.24;
const OF_USUAL = 2;

/** A region without its serifs, its stems gone on straight to the edges they ended on, and the strokes that the serifs are. */
export function withoutSerifs(
  region: readonly Path[],
  most: number,
  capital: number,
): { readonly region: readonly Path[]; readonly serifs: readonly SerifStroke[] } {
  const outlines = outlinesOf(region, capital);
  const sides = sidesOf(outlines, most, capital);
  if (sides.length === 0) return { region, serifs: [] };
  const cut = region.map((path, k): Path => {
    const o = outlines[k] as Outline;
    const { segments } = path;
    const mine = sides.filter((s) => s.path === k).map((side) => ({ side, ...rangeOf(side, o.length) }));
    if (mine.length === 0) return path;
    mine.sort((a, b) => a.from - b.from);
    return {
      closed: true,
      segments: mine.flatMap(({ to }, i) => {
        const next = mine[(i + 1) % mine.length] as (typeof mine)[number];
        const kept = stretchesBetween(segments.length, o.placeAt(to), o.placeAt(next.from))
          .filter((s) => s.to - s.from > 1e-9)
          .map((s) => subSegment(segments[s.segment] as Segment, s.from, s.to));
        const [end, start] = [o.pointAlong(next.from), o.pointAlong(next.to)];
        return [...kept, line(end.x, end.y, start.x, start.y)];
      }),
    };
  });
  return { region: cut, serifs: strokesOf(sides, outlines, capital) };
}

/** What is cut out of an outline for a side, as lengths along it, from less to more. */
function rangeOf({ foot, edge, way }: SerifSide, length: number): { readonly from: number; readonly to: number } {
  const [from, to] = way === 1 ? [foot, edge] : [edge, foot];
  const start = ((from % length) + length) % length;
  const size = (((to - from) % length) + length) % length;
  return { from: start, to: start + size };
}

/** Whether two sides are cut out of a common stretch of an outline. */
function overlap(a: SerifSide, b: SerifSide, outlines: readonly Outline[]): boolean {
  if (a.path !== b.path) return false;
  const { length } = outlines[a.path] as Outline;
  const [p, q] = [rangeOf(a, length), rangeOf(b, length)];
  return [-length, 0, length].some((round) => p.from < q.to + round && q.from + round < p.to);
}

/** The strokes of serifs: sides with a common edge make one. */
function strokesOf(sides: readonly SerifSide[], outlines: readonly Outline[], capital: number): SerifStroke[] {
  const alone = new Set(sides);
  const strokes: SerifStroke[] = [];
  for (const a of sides.filter((s) => s.way === 1)) {
    const { length } = outlines[a.path] as Outline;
    const on = (b: SerifSide) => (((b.edge - a.edge) % length) + length) % length;
    const b = sides
      .filter((s) => s.way === -1 && s.path === a.path && alone.has(s))
      .filter((s) => on(s) < ONE_EDGE * capital && -(s.out.x * a.out.x + s.out.y * a.out.y) > OPPOSITE)
      .reduce<SerifSide | null>((least, s) => (least && on(least) <= on(s) ? least : s), null);
    if (!b) continue;
    alone.delete(a);
    alone.delete(b);
    const height = (a.height + b.height) / 2;
    const o = outlines[a.path] as Outline;
    const middle = o.pointAlong(a.edge + on(b) / 2);
    // As deep at both tips, and half way between them too, however much the edge is hollowed.
    const size = distance(a.tip, b.tip) || 1;
    const into = { x: -(b.tip.y - a.tip.y) / size, y: (b.tip.x - a.tip.x) / size };
    const deeper = (p: Point, by: number): Point => ({ x: p.x + by * into.x, y: p.y + by * into.y });
    const points = [
      deeper(a.tip, (height - a.height) / 2),
      deeper(middle, height / 2),
      deeper(b.tip, (height - b.height) / 2),
    ] as const;
    strokes.push({ points, isWhole: true, height, to: points[2] });
  }
  for (const { tip, out, height, by } of alone) {
    const to = (far: number): Point => ({ x: tip.x - far * out.x, y: tip.y - far * out.y });
    const across = ACROSS * capital;
    strokes.push({ points: [tip, to(across / 2), to(across)], isWhole: false, height, to: to(by) });
  }
  return strokes;
}
/** A serif on one side alone is followed this far to find the line of its stem. */
const ACROSS = 0.7;
