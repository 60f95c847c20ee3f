/**
 * Few smooth segments through many points that lie close to a curve: lines where they run straight, else the longest
 * cubics that pass them within a tolerance, joined without a kink. Only where the points turn a corner is one kept.
 */
import { floatAt, numberAt } from './elements';
import { farthest } from './farthest';
import { distance, type Point } from './point';
import { type Cubic, cubic, line, type Segment } from './segment';

/** How a curve is laid through points; lengths in their unit. */
export type FitSettings = {
  /** How far the segments may stray from the points. */
  readonly tolerance: number;
  /** Over what length directions are told. */
  readonly reach: number;
};

/** A point, and whether the curve bends sharply there. */
export type FitPoint = Point & { readonly corner?: boolean };

/** A corner turns by more than this within a quarter of the reach either way, in radians. */
const CORNER = (38 * Math.PI) / 180;
/** Points nearer to each other than this share of the reach are one. */
const SAME = 0.06;
/** Straight is what stays within this share of the tolerance over at least this share of the reach. */
const STRAIGHT = 0.5;
const STRAIGHT_LENGTH = 2;
/** Most samples that one fit looks at. */
const SAMPLES = 26;

/** Points without those that stand on each other or step back. */
function thinned(points: readonly FitPoint[], { reach }: FitSettings): FitPoint[] {
  const out: FitPoint[] = [];
  points.forEach((p, i) => {
    const last = out[out.length - 1];
    if (!last) {
      out.push(p);
      return;
    }
    const d = distance(p, last);
    const isEnd = i === points.length - 1;
    if (d < SAME * reach && !p.corner && !isEnd) return;
    const before = out[out.length - 2];
    if (before && !last.corner && d < 0.5 * reach) {
      const dot = (last.x - before.x) * (p.x - last.x) + (last.y - before.y) * (p.y - last.y);
      // A short step back is two tracks that overlap where they meet.
      if (dot < 0 && distance(before, last) < 0.5 * reach) {
        if (!isEnd && !p.corner) return;
        out.pop();
      }
    }
    if (isEnd && d < SAME * reach && out.length > 1 && !last.corner) out.pop();
    out.push(p);
  });
  return out;
}

/** Direction between the places `by` before and after a point, within its smooth piece. */
function wayAt(points: readonly Point[], i: number, by: number): Point {
  const walk = (step: 1 | -1): Point => {
    let remainingMm = by;
    let k = i;
    for (;;) {
      const next = points[k + step];
      const here = points[k] as Point;
      if (!next) return here;
      const d = distance(next, here);
      if (d >= remainingMm)
        return { x: here.x + ((next.x - here.x) * remainingMm) / d, y: here.y + ((next.y - here.y) * remainingMm) / d };
      remainingMm -= d;
      k += step;
    }
  };
  const [p, q] = [walk(-1), walk(1)];
  const size = distance(p, q) || 1;
  return { x: (q.x - p.x) / size, y: (q.y - p.y) / size };
}

/** Direction at the end of a piece: the tangent there of the circle through its end and two points behind it. */
function endWay(points: readonly Point[], end: 0 | 1, by: number): Point {
  const n = points.length;
  const at = (k: number) => points[end === 0 ? k : n - 1 - k] as Point;
  const tip = at(0);
  const behind = (by: number): Point => {
    let remainingMm = by;
    for (let k = 0; k + 1 < n; k++) {
      const d = distance(at(k), at(k + 1));
      if (d >= remainingMm)
        return {
          x: at(k).x + ((at(k + 1).x - at(k).x) * remainingMm) / d,
          y: at(k).y + ((at(k + 1).y - at(k).y) * remainingMm) / d,
        };
      remainingMm -= d;
    }
    return at(n - 1);
  };
  const [a, b] = [behind(by / 2), behind(by)];
  // Chords of half and whole length: the tangent turns as far before the first as the second does after it.
  const [ux, uy, vx, vy] = [a.x - tip.x, a.y - tip.y, b.x - tip.x, b.y - tip.y];
  const turn = Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);
  const angle = Math.atan2(uy, ux) - turn;
  const sign = end === 0 ? 1 : -1;
  return { x: sign * Math.cos(angle), y: sign * Math.sin(angle) };
}

/** Whether points `i` to `j` lie along their chord. */
function isStraight(points: readonly Point[], i: number, j: number, tolerance: number): boolean {
  const [p, q] = [points[i] as Point, points[j] as Point];
  const size = distance(p, q);
  if (size === 0) return false;
  for (let k = i + 1; k < j; k++) {
    const m = points[k] as Point;
    if (Math.abs((q.x - p.x) * (m.y - p.y) - (q.y - p.y) * (m.x - p.x)) > tolerance * size) return false;
  }
  return true;
}

/** Rounds of fitting, between which the parameters of the points move to their feet on the curve. */
const FIT_ROUNDS = 4;
/** A first fit farther off than this many tolerances comes to nothing. */
const HOPELESS = 8;

const xs = new Float64Array(SAMPLES);
const ys = new Float64Array(SAMPLES);
const ts = new Float64Array(SAMPLES);

/**
 * The cubic from one point to another in given directions that passes those between within `tolerance`; null where none
 * does. Handle lengths by least squares (Schneider 1990), feet by Newton's method.
 */
function fitCurve(
  points: readonly Point[],
  {
    i,
    j,
    u,
    v,
    tolerance,
  }: { readonly i: number; readonly j: number; readonly u: Point; readonly v: Point; readonly tolerance: number },
): Cubic | null {
  const n = Math.min(SAMPLES, j - i + 1);
  let length = 0;
  for (let k = 0; k < n; k++) {
    const p = points[i + Math.round((k * (j - i)) / (n - 1))] as Point;
    xs[k] = p.x;
    ys[k] = p.y;
    if (k > 0) length += Math.hypot(p.x - floatAt(xs, k - 1), p.y - floatAt(ys, k - 1));
    ts[k] = length;
  }
  if (length === 0) return null;
  for (let k = 0; k < n; k++) ts[k] = floatAt(ts, k) / length;
  const [px, py, qx, qy] = [floatAt(xs, 0), floatAt(ys, 0), floatAt(xs, n - 1), floatAt(ys, n - 1)];
  const chord = Math.hypot(qx - px, qy - py);
  if (chord === 0) return null;
  const dot = u.x * v.x + u.y * v.y;
  for (let round = 0; round < FIT_ROUNDS; round++) {
    let [c00, c01, c11, x0, x1] = [0, 0, 0, 0, 0];
    for (let k = 1; k < n - 1; k++) {
      const t = floatAt(ts, k);
      const w = 1 - t;
      const b1 = 3 * w * w * t;
      const b2 = 3 * w * t * t;
      const start = w * w * w + b1;
      const end = t * t * t + b2;
      const rx = floatAt(xs, k) - start * px - end * qx;
      const ry = floatAt(ys, k) - start * py - end * qy;
      c00 += b1 * b1;
      c01 -= b1 * b2 * dot;
      c11 += b2 * b2;
      x0 += b1 * (u.x * rx + u.y * ry);
      x1 -= b2 * (v.x * rx + v.y * ry);
    }
    const det = c00 * c11 - c01 * c01;
    let a = (x0 * c11 - x1 * c01) / det;
    let b = (c00 * x1 - c01 * x0) / det;
    const usable = a > 1e-3 * chord && b > 1e-3 * chord && a < 4 * chord && b < 4 * chord;
    if (!usable) a = b = chord / 3;
    const [ax, ay, bx, by] = [px + a * u.x, py + a * u.y, qx - b * v.x, qy - b * v.y];
    let worst = 0;
    for (let k = 1; k < n - 1; k++) {
      const t = floatAt(ts, k);
      const w = 1 - t;
      const [k0, k1, k2, k3] = [w * w * w, 3 * w * w * t, 3 * w * t * t, t * t * t];
      const ex = k0 * px + k1 * ax + k2 * bx + k3 * qx - floatAt(xs, k);
      const ey = k0 * py + k1 * ay + k2 * by + k3 * qy - floatAt(ys, k);
      const dx = 3 * (w * w * (ax - px) + 2 * w * t * (bx - ax) + t * t * (qx - bx));
      const dy = 3 * (w * w * (ay - py) + 2 * w * t * (by - ay) + t * t * (qy - by));
      const speed = dx * dx + dy * dy;
      if (speed === 0) {
        worst = Math.max(worst, Math.hypot(ex, ey));
        continue;
      }
      // What is off along the curve is a matter of the parameter, what is off across it is an error.
      worst = Math.max(worst, Math.abs(ex * dy - ey * dx) / Math.sqrt(speed));
      const ddx = 6 * (w * (bx - 2 * ax + px) + t * (qx - 2 * bx + ax));
      const ddy = 6 * (w * (by - 2 * ay + py) + t * (qy - 2 * by + ay));
      const next = t - (ex * dx + ey * dy) / (speed + ex * ddx + ey * ddy || speed);
      if (next > 0 && next < 1) ts[k] = next;
    }
    if (worst <= tolerance && round > 0) return cubic(px, py, ax, ay, bx, by, qx, qy);
    if (worst > HOPELESS * tolerance && round > 0) return null;
  }
  return null;
}

/** One smooth piece. */
function fitPiece(points: readonly Point[], { tolerance, reach }: FitSettings, out: Segment[]): void {
  const n = points.length;
  if (n < 2) return;
  // Straight stretches first: what joins them takes their directions.
  const straight: [number, number][] = [];
  for (let i = 0; i < n - 1; ) {
    const j = farthest(i + 1, n - 1, (k) => isStraight(points, i, k, STRAIGHT * tolerance));
    if (distance(points[i] as Point, points[j] as Point) > STRAIGHT_LENGTH * reach || (i === 0 && j === n - 1)) {
      straight.push([i, j]);
      i = j;
    } else i++;
  }
  const ways = new Map<number, Point>();
  for (const [i, j] of straight) {
    const [p, q] = [points[i] as Point, points[j] as Point];
    const size = distance(p, q);
    const way = { x: (q.x - p.x) / size, y: (q.y - p.y) / size };
    ways.set(i, way);
    ways.set(j, way);
  }
  const wayOf = (i: number): Point => {
    let known = ways.get(i);
    if (!known) {
      known = i === 0 ? endWay(points, 0, reach) : i === n - 1 ? endWay(points, 1, reach) : wayAt(points, i, reach / 2);
      ways.set(i, known);
    }
    return known;
  };
  const curve = (i: number, j: number) => fitCurve(points, { i, j, u: wayOf(i), v: wayOf(j), tolerance });
  const bent = (from: number, to: number) => {
    for (let i = from; i < to; ) {
      const j = farthest(i + 1, to, (k) => curve(i, k) !== null);
      const fitted = j === i + 1 ? null : curve(i, j);
      const [p, q] = [points[i] as Point, points[j] as Point];
      out.push(fitted ?? line(p.x, p.y, q.x, q.y));
      i = j;
    }
  };
  let at = 0;
  for (const [i, j] of straight) {
    bent(at, i);
    const [p, q] = [points[i] as Point, points[j] as Point];
    out.push(line(p.x, p.y, q.x, q.y));
    at = j;
  }
  bent(at, n - 1);
}

function cornersOf(points: readonly FitPoint[], reach: number): number[] {
  const out: number[] = [];
  const by = reach / 4;
  const turns = points.map((_, i) => (i > 0 && i < points.length - 1 ? sharpness(points, i) : 0));
  for (let i = 1; i < points.length - 1; i++) {
    const p = points[i] as FitPoint;
    if (p.corner) {
      out.push(i);
      continue;
    }
    // Most points lie in no bend at all.
    let bend = 0;
    for (let k = Math.max(1, i - 3); k <= Math.min(points.length - 2, i + 3); k++) bend += numberAt(turns, k);
    if (bend < CORNER * 0.7) continue;
    const before = endWay(points.slice(Math.max(0, i - 12), i + 1), 1, by);
    const after = endWay(points.slice(i, i + 13), 0, by);
    const turn = Math.abs(Math.atan2(before.x * after.y - before.y * after.x, before.x * after.x + before.y * after.y));
    if (turn < CORNER) continue;
    const last = out[out.length - 1];
    // The sharpest of neighbours is the corner.
    if (last !== undefined && distance(points[last] as Point, p) < by) {
      if (sharpness(points, i) > sharpness(points, last)) out[out.length - 1] = i;
    } else out.push(i);
  }
  return out;
}

function sharpness(points: readonly FitPoint[], i: number): number {
  const [p, q, r] = [points[i - 1] as Point, points[i] as Point, points[i + 1] as Point];
  return Math.abs(
    Math.atan2(
      (q.x - p.x) * (r.y - q.y) - (q.y - p.y) * (r.x - q.x),
      (q.x - p.x) * (r.x - q.x) + (q.y - p.y) * (r.y - q.y),
    ),
  );
}

/** Segments through points; a closed curve comes back to its first point. */
export function fitPoints(points: readonly FitPoint[], closed: boolean, settings: FitSettings): Segment[] {
  let list = thinned(points, settings);
  if (list.length < 2) return [];
  if (closed) {
    // Open it at a corner, or where it is straightest, so that the joint does not show.
    const ring = [...list, ...list, ...list];
    const n = list.length;
    const corners = cornersOf(ring, settings.reach).filter((i) => i >= n && i < 2 * n);
    const start = (corners[0] ?? straightest(ring, n, 2 * n)) % n;
    list = [...list.slice(start), ...list.slice(0, start), list[start] as FitPoint];
    if (corners.length === 0) {
      const out: Segment[] = [];
      fitRing(list, settings, out);
      return out;
    }
  }
  const out: Segment[] = [];
  let at = 0;
  for (const i of [...cornersOf(list, settings.reach), list.length - 1]) {
    fitPiece(list.slice(at, i + 1), settings, out);
    at = i;
  }
  return out;
}

function straightest(ring: readonly Point[], from: number, to: number): number {
  let [best, least] = [from, Infinity];
  for (let i = from; i < to; i++) {
    const s = sharpness(ring, i);
    if (s < least) [best, least] = [i, s];
  }
  return best;
}

/** A smooth closed curve: fitted with a lap over, so that it has one direction where it closes. */
function fitRing(points: readonly Point[], settings: FitSettings, out: Segment[]): void {
  const n = points.length - 1;
  const ring = [...points.slice(0, n), ...points.slice(0, n), ...points];
  const way = wayAt(ring, n, settings.reach / 2);
  const made: Segment[] = [];
  fitPiece(points, settings, made);
  const [first, last] = [made[0], made[made.length - 1]];
  // Both ends get the direction of the whole.
  if (first?.kind === 'cubic') {
    const handle = Math.hypot(first.ax - first.x0, first.ay - first.y0);
    made[0] = { ...first, ax: first.x0 + handle * way.x, ay: first.y0 + handle * way.y };
  }
  if (last?.kind === 'cubic' && made.length > 1) {
    const handle = Math.hypot(last.bx - last.x1, last.by - last.y1);
    made[made.length - 1] = { ...last, bx: last.x1 - handle * way.x, by: last.y1 - handle * way.y };
  }
  out.push(...made);
}
