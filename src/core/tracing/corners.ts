/**
 * Where an outline of a picture turns a corner, and where that corner truly lies. Pixels round corners off, so the points next to one
 * tell nothing: what comes up to it from either side is continued, as a line or a parabola, to where the two meet. Only what still
 * turns there is a corner; a tight bend, continued by its own curvature, does not.
 */
import { floatAt } from '../geometry/elements';
import type { Point } from '../geometry/point';
import type { Coverage } from './contours';
import { reachOfTip } from './tips';
import { placeAt, pointsBetween, sampled, type Track, trackLength } from './track';

/** A corner: how far along the outline, and where. */
export type Corner = Point & {
  readonly at: number;
  /** How far from it, either way, points of its sides are disturbed. */
  readonly reach: number;
};

/** How far pixels and blur reach from a corner, and how far points stray from the edge, in pixels. */
export type EdgeQuality = { readonly reach: number; readonly noise: number };

/** A direction is first told over this many pixels; of what is small over such a part of its length, but never less than this. */
const STEM = 2.2;
const STEMS_ROUND = 16;
const LEAST_STEM = 0.8;
/** What turns by less than this at first sight is no corner; what is left after continuing both sides has to turn by more. In radians. */
const GLANCE = (20 * Math.PI) / 180;
const CORNER = (26 * Math.PI) / 180;
/** By so many radians more for each pixel that points stray, but for this much, which hardly turns a side. */
const CORNER_BY_NOISE = 2.2;
const HARDLY = 0.03;
/** Each side is looked at over at most so many pixels. */
const LONGEST_ARM = 14;
/** One that no line or parabola passes is made so much shorter; what is short by then is taken for straight, and less than that tells nothing. */
const SHORTER = 0.62;
const SHORT_ARM = 3.2;
const SHORTEST_ARM = 1.2;
/** A side passes its points where they stray from it no more than this in the mean of squares, and so many times as far as points stray. */
const ALLOWED = 0.05;
const ALLOWED_BY_NOISE = 1.5;

type Candidate = {
  readonly at: number;
  /** How far its sides begin from it, beyond what pixels disturb. */
  readonly spread: number;
  /** Whether it is one of two that a wide end was parted in: it is not parted again. */
  readonly isParted: boolean;
  turn: number;
  tips: readonly Point[];
  width: number;
  reach: number;
};

/** One side of a corner, continued to it: where it comes to, and its direction away from the corner. */
type Arm = {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
  readonly isStraight: boolean;
};

/** Directions are compared at places about so far apart, in pixels. */
const STEP = 0.5;

/** The places that turn most among their neighbours, by the directions of what lies just beyond `reach` on both sides. */
function candidates(track: Track, reach: number): Candidate[] {
  const length = trackLength(track);
  const n = Math.max(8, Math.round(length / STEP));
  const step = length / n;
  const { x, y } = sampled(track, n);
  // What is small turns within less.
  const stem = Math.max(LEAST_STEM, Math.min(STEM, length / STEMS_ROUND));
  const [inner, outer] = [Math.round(reach / step), Math.round((reach + stem) / step)];
  const turns = new Float64Array(n);
  const index = (i: number) => (i < 0 ? i + n : i >= n ? i - n : i);
  if (outer >= n) return [];
  for (let i = 0; i < n; i++) {
    const [b2, b1, f1, f2] = [index(i - outer), index(i - inner), index(i + inner), index(i + outer)];
    const [ux, uy] = [floatAt(x, b1) - floatAt(x, b2), floatAt(y, b1) - floatAt(y, b2)];
    const [vx, vy] = [floatAt(x, f2) - floatAt(x, f1), floatAt(y, f2) - floatAt(y, f1)];
    turns[i] = Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy));
  }
  const near = Math.min(Math.round((reach + stem / 2) / step), (n - 1) >> 1);
  const out: Candidate[] = [];
  for (let i = 0; i < n; i++) {
    const turn = floatAt(turns, i);
    if (turn < GLANCE) continue;
    let [isMost, sum, weight] = [true, 0, 1];
    for (let k = -near; k <= near && isMost; k++) {
      const other = floatAt(turns, index(i + k));
      if (other > turn || (other === turn && k < 0)) isMost = false;
      // What turns nearly as much is the same corner, whose middle is meant.
      if (other > 0.93 * turn) {
        sum += k;
        weight++;
      }
    }
    if (isMost)
      out.push({ at: (i + sum / weight) * step, spread: 0, isParted: false, turn, tips: [], width: 0, reach });
  }
  return out;
}

/** Least squares of a polynomial of degree 1 or 2 in `u` through points; what it strays by in the mean, and its value and slope at 0. */
function continued(u: readonly number[], points: readonly Point[], degree: 1 | 2): { rms: number; arm: Arm } | null {
  const n = points.length;
  const middle = u.reduce((sum, v) => sum + v, 0) / n;
  let [s2, s3, s4, x0, x1, x2, y0, y1, y2] = [0, 0, 0, 0, 0, 0, 0, 0, 0];
  points.forEach((p, i) => {
    const v = (u[i] as number) - middle;
    s2 += v * v;
    s3 += v * v * v;
    s4 += v * v * v * v;
    x0 += p.x;
    x1 += v * p.x;
    x2 += v * v * p.x;
    y0 += p.y;
    y1 += v * p.y;
    y2 += v * v * p.y;
  });
  if (s2 < 1e-9) return null;
  // Centred, so that the first power is only coupled with the second.
  let [ax, bx, cx, ay, by, cy] = [x0 / n, x1 / s2, 0, y0 / n, y1 / s2, 0];
  if (degree === 2) {
    const det = s2 * (n * s4 - s2 * s2) - n * s3 * s3;
    if (Math.abs(det) < 1e-9) return null;
    const solve = (t0: number, t1: number, t2: number): [number, number, number] => {
      const c = (s2 * (n * t2 - s2 * t0) - n * s3 * t1) / det;
      return [(t0 - c * s2) / n, (t1 - c * s3) / s2, c];
    };
    [ax, bx, cx] = solve(x0, x1, x2);
    [ay, by, cy] = solve(y0, y1, y2);
  }
  let sum = 0;
  points.forEach((p, i) => {
    const v = (u[i] as number) - middle;
    sum += (ax + bx * v + cx * v * v - p.x) ** 2 + (ay + by * v + cy * v * v - p.y) ** 2;
  });
  const v = -middle;
  const [dx, dy] = [bx + 2 * cx * v, by + 2 * cy * v];
  const size = Math.hypot(dx, dy);
  if (size < 1e-9) return null;
  const rms = Math.sqrt(sum / Math.max(1, n - degree - 1));
  return {
    rms,
    arm: {
      x: ax + bx * v + cx * v * v,
      y: ay + by * v + cy * v * v,
      dx: dx / size,
      dy: dy / size,
      isStraight: degree === 1 && n > 3,
    },
  };
}

/** One side of a corner at `at`: towards `until`, which lies before it (going back) or after it. */
function armOf(track: Track, at: number, until: number, { reach, noise }: EdgeQuality): Arm {
  const room = Math.min(LONGEST_ARM, Math.abs(until - at) - 2 * reach);
  const allowed = ALLOWED + ALLOWED_BY_NOISE * noise;
  for (let length = room; length > SHORTEST_ARM; length *= SHORTER) {
    const { points, u } = alongArm(track, at, until, reach, length);
    if (points.length < 2) break;
    const straight = continued(u, points, 1);
    if (straight && straight.rms <= allowed) return straight.arm;
    const bent = points.length >= 5 ? continued(u, points, 2) : null;
    if (bent && bent.rms <= allowed) return bent.arm;
    if (length < SHORT_ARM && straight) return straight.arm;
  }
  // There is no room for anything between two corners but a line from one to the other.
  const [p, q] = [placeAt(track, at), placeAt(track, until)];
  const size = Math.hypot(q.x - p.x, q.y - p.y) || 1;
  // Both are rounded off alike; halfway it lies where it is meant to.
  const middle = placeAt(track, (at + until) / 2);
  return { x: middle.x, y: middle.y, dx: (q.x - p.x) / size, dy: (q.y - p.y) / size, isStraight: false };
}

/** Near a tip both its sides are in the same pixels: straight ones are looked for beginning so many pixels farther off. */
const FARTHER = [1.5, 3, 5];
/** So long they have to be then, in pixels, and so straight. */
const TOLD = 5;
const ALLOWED_AT_TIP = 0.03;

/** A straight side of a tip, told by what lies far enough from it; null where there is none. */
function straightArm(
  track: Track,
  at: number,
  until: number,
  { reach, noise }: EdgeQuality,
): { readonly arm: Arm; readonly from: number } | null {
  const room = Math.min(LONGEST_ARM, Math.abs(until - at) - 2 * reach);
  for (const farther of FARTHER) {
    if (room - farther < TOLD) return null;
    const { points, u } = alongArm(track, at, until, reach + farther, room - farther);
    const straight = points.length < 4 ? null : continued(u, points, 1);
    if (straight && straight.rms <= ALLOWED_AT_TIP + noise) return { arm: straight.arm, from: reach + farther };
  }
  return null;
}

/** The points of a side of a corner that begin so far from it, over a length, and how far along they lie. */
function alongArm(
  track: Track,
  at: number,
  until: number,
  from: number,
  length: number,
): { points: Point[]; u: number[] } {
  const way = until > at ? 1 : -1;
  const [near, far] = [at + way * from, at + way * (from + length)];
  const points = way > 0 ? pointsBetween(track, near, far) : pointsBetween(track, far, near).reverse();
  return { points, u: lengthsFrom(placeAt(track, at), points, from) };
}

/** Lengths of points along their track from a place before the first of them. */
function lengthsFrom(from: Point, points: readonly Point[], reach: number): number[] {
  const out: number[] = [];
  let last = from;
  let sum = 0;
  for (const p of points) {
    // The first stretch, which is rounded off, counts for what it is meant to be.
    sum +=
      out.length === 0
        ? Math.max(reach, Math.hypot(p.x - last.x, p.y - last.y))
        : Math.hypot(p.x - last.x, p.y - last.y);
    out.push(sum);
    last = p;
  }
  return out;
}

/** Where two sides meet: one corner, or the two of a blunt end between them. */
type Meeting = {
  readonly turn: number;
  readonly tips: readonly Point[];
  /** How wide the blunt end is. */
  readonly width: number;
  /** Whether the pixels around it told where it ends. */
  readonly isTold: boolean;
};

/** Sides that turn by more than this, in radians, may end bluntly. */
const SHARP = (95 * Math.PI) / 180;
/** What turns by more than this, in radians, may be a tip whose sides only show away from it. */
const TIP_TURN = (125 * Math.PI) / 180;
/** What is missing at a tip is told from this many square pixels on, and by so much more for each pixel that points stray. */
const MISSING = 0.22;
const MISSING_BY_NOISE = 4;
const MISSING_BY_REACH = 0.3;
/** A corner that is not sharp is seldom cut off: so many times as much has to be missing. */
const OBTUSE = 2.5;
/** Pixels reach so far from a corner where edges are sharp. */
export const SHARP_REACH = 0.8;
/** An end narrower than this is a tip; one wider than that shows its corners. In pixels. */
const NARROW = 0.15;
const WIDE = 8;
/** An end so many times as wide as pixels reach is looked at as two corners. */
const TWO = 2.6;
/** A tip lies no farther than this from where it shows, in pixels. */
const FARTHEST = 6;
/** An end shows within so many pixels. */
const BLUNT_REACH = 2;
/** Where a tip that is told by its sides alone shows: where half of it is this share of what pixels disturb, and so many pixels before. */
const TIP_SHOWS = 0.575;
const TIP_MORE = 0.45;

/** A blunt end as far out as `height` along `out`; where that is no end, the corner is where it shows. */
function bluntEnd(turn: number, [back, on]: readonly [Arm, Arm], shown: Point, out: Point, height: number): Meeting {
  const [a, b] = [back, on].map((arm) => {
    const along = (height - arm.x * out.x - arm.y * out.y) / (arm.dx * out.x + arm.dy * out.y);
    return { x: arm.x + along * arm.dx, y: arm.y + along * arm.dy };
  }) as [Point, Point];
  const width = Math.hypot(a.x - b.x, a.y - b.y);
  if (!(width <= WIDE) || [a, b].some((p) => Math.hypot(p.x - shown.x, p.y - shown.y) > WIDE))
    return { turn, tips: [shown], width: 0, isTold: false };
  return width > NARROW
    ? { turn, tips: [a, b], width, isTold: false }
    : { turn, tips: [{ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }], width: 0, isTold: false };
}

/** Where two sides meet, and by how much they turn there. `at` is where the outline comes nearest to it. */
function meeting(outline: Outlined, at: number, arms: readonly [Arm, Arm], { reach, noise }: EdgeQuality): Meeting {
  const { track, coverage } = outline;
  const [back, on] = arms;
  // Going along the outline, the first side comes up to the corner.
  const det = back.dx * on.dy - back.dy * on.dx;
  const turn = Math.abs(Math.atan2(-det, -(back.dx * on.dx + back.dy * on.dy)));
  const shown = placeAt(track, at);
  const t = ((on.x - back.x) * on.dy - (on.y - back.y) * on.dx) / det;
  const tip = { x: back.x + t * back.dx, y: back.y + t * back.dy };
  const off = Math.hypot(tip.x - shown.x, tip.y - shown.y);
  const tan = Math.tan(Math.max((Math.PI - turn) / 2, 1e-3));
  const meets = Math.abs(det) > 1e-3 && off < FARTHEST;
  const isNear = meets && off <= Math.max(reach, (reach * TIP_SHOWS) / tan + TIP_MORE);
  const single = (p: Point, isTold = false): Meeting => ({ turn, tips: [p], width: 0, isTold });
  if (turn < SHARP) return single(isNear ? tip : shown);
  const size = Math.hypot(back.dx + on.dx, back.dy + on.dy) || 1;
  const out = { x: -(back.dx + on.dx) / size, y: -(back.dy + on.dy) / size };
  const summed =
    back.isStraight && on.isStraight
      ? reachOfTip(coverage, { at: meets ? tip : shown, out, sides: [back, on], isNotch: det > 0, reach })
      : null;
  if (summed !== null) {
    const short = tip.x * out.x + tip.y * out.y - summed;
    const unsure = MISSING + MISSING_BY_NOISE * noise + MISSING_BY_REACH * (reach - SHARP_REACH);
    const least = turn < TIP_TURN ? OBTUSE * unsure : unsure;
    const isWhole = meets && short * short * tan < least;
    return isWhole ? single(tip, true) : { ...bluntEnd(turn, arms, shown, out, summed), isTold: true };
  }
  if (isNear) return single(tip);
  let height = -Infinity;
  for (const p of [shown, ...pointsBetween(track, at - BLUNT_REACH, at + BLUNT_REACH)])
    height = Math.max(height, p.x * out.x + p.y * out.y);
  return bluntEnd(turn, arms, shown, out, height);
}

/** An outline, and the picture it was found in. */
export type Outlined = { readonly track: Track; readonly coverage: Coverage };

/** What a place that turns comes to, between what turns before and after it. */
function cornerAt(
  outline: Outlined,
  { at, spread }: Pick<Candidate, 'at' | 'spread'>,
  { before, after }: { readonly before: number; readonly after: number },
  quality: EdgeQuality,
): Meeting & { readonly reach: number } {
  const { track } = outline;
  const [back, on] = [at - spread, at + spread];
  const arms = [armOf(track, back, before, quality), armOf(track, on, after, quality)] as const;
  const met = { ...meeting(outline, at, arms, quality), reach: quality.reach };
  if (met.isTold || met.turn < TIP_TURN) return met;
  const straight = [straightArm(track, back, before, quality), straightArm(track, on, after, quality)] as const;
  if (!straight[0] || !straight[1]) return met;
  const told = meeting(outline, at, [straight[0].arm, straight[1].arm], quality);
  return told.isTold ? { ...told, reach: Math.max(straight[0].from, straight[1].from) } : met;
}

/** Two places that turn no farther apart than this, in pixels, may be one tip, whose pixels show it as two. */
const ONE_TIP = 4.2;
/** So wide an end may one of them be, in pixels. */
const NARROW_END = 1.2;

/** Places around a track, begun after the widest gap between two; those that lie before it follow a length later. */
function fromWidestGap(found: readonly Candidate[], length: number): Candidate[] {
  let [widest, start] = [-1, 0];
  found.forEach((c, i) => {
    const before = i === 0 ? (found.at(-1) as Candidate).at - length : (found[i - 1] as Candidate).at;
    if (c.at - before > widest) [widest, start] = [c.at - before, i];
  });
  return [...found.slice(start), ...found.slice(0, start).map((c) => ({ ...c, at: c.at + length }))];
}

/** The places that turn, those of one tip taken together. */
function withTips(outline: Outlined, turning: readonly Candidate[], quality: EdgeQuality): Candidate[] {
  const length = trackLength(outline.track);
  const n = turning.length;
  if (n < 3) return [...turning];
  const found = fromWidestGap(turning, length);
  const out: Candidate[] = [];
  for (let i = 0; i < n; i++) {
    const c = found[i] as Candidate;
    const next = found[(i + 1) % n] as Candidate;
    const gap = next.at - c.at;
    if (i === n - 1 || gap > ONE_TIP) {
      out.push(c);
      continue;
    }
    const before = i === 0 ? (found[n - 1] as Candidate).at - length : (found[i - 1] as Candidate).at;
    const after = i + 2 < n ? (found[i + 2] as Candidate).at : (found[0] as Candidate).at + length;
    const at = (c.at + next.at) / 2;
    const { isTold, tips, width } = cornerAt(outline, { at, spread: gap / 2 }, { before, after }, quality);
    if (isTold && width < NARROW_END && tips.length > 0) {
      out.push({ at, spread: gap / 2, isParted: false, turn: 0, tips: [], width: 0, reach: quality.reach });
      i++;
    } else out.push(c);
  }
  return out;
}

/** The corners of an outline, in the order they lie in along it. */
export function cornersOf(outline: Outlined, quality: EdgeQuality): Corner[] {
  const { track } = outline;
  const length = trackLength(track);
  if (track.count < 4) return [];
  const turning = candidates(track, quality.reach).sort((a, b) => a.at - b.at);
  const found = withTips(outline, turning, quality);
  const least = CORNER + CORNER_BY_NOISE * Math.max(0, quality.noise - HARDLY);
  // The least of them is dropped while it is none: what is beside it then has more to go by. A wide end is two.
  for (;;) {
    const n = found.length;
    if (n === 0) return [];
    let weakest: Candidate | null = null;
    let widest: Candidate | null = null;
    found.forEach((c, i) => {
      const before = i === 0 ? (found[n - 1] as Candidate).at - length : (found[i - 1] as Candidate).at;
      const after = i === n - 1 ? (found[0] as Candidate).at + length : (found[i + 1] as Candidate).at;
      Object.assign(c, cornerAt(outline, c, { before, after }, quality));
      if (c.turn < least && (!weakest || c.turn < weakest.turn)) weakest = c;
      if (!c.isParted && c.width > TWO * quality.reach && (!widest || c.width > widest.width)) widest = c;
    });
    const wide = widest as Candidate | null;
    if (wide) {
      const parted = [-wide.width / 2, wide.width / 2].map((by) => ({ ...wide, at: wide.at + by, isParted: true }));
      found.splice(found.indexOf(wide), 1, ...parted);
    } else if (weakest) found.splice(found.indexOf(weakest), 1);
    else
      return found.flatMap(({ at, tips, reach, spread }) =>
        tips.map(({ x, y }) => ({ at, x, y, reach: reach + spread })),
      );
  }
}
