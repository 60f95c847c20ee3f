/**
 * Thousands of short lines made into what they stand for: a faceted circle into a circle, faceted bends into arcs and
 * curves. Corners stay where they are. From each vertex the longest arc is taken that passes every vertex within the
 * tolerance and from which no line strays farther; where no arc does, a smooth curve is fitted (fit-cubic.ts). What does
 * not fit stays as it is.
 */
import { fitCubics, type Sample } from '../../geometry/fit-cubic';
import type { Path } from '../../geometry/path';
import type { Point } from '../../geometry/point';
import { arcAbout, arcBetween, type Line, pointAt, type Segment } from '../../geometry/segment';
import { nearestParameter } from '../../geometry/segment-measures';

/** Lines that turn by more than this meet in a corner, in radians. */
const CORNER = (35 * Math.PI) / 180;
/** A line this many times as long as its neighbour is a straight of its own. */
const UNEVEN = 6;
/** Fewest lines that one arc, and one curve, may stand for. */
const LEAST_ARC = 4;
const LEAST_CURVE = 6;
/** An arc turns no farther than this, so that it has a middle to be told by; in radians. */
const MOST_SWEEP = 1.5 * Math.PI;

const turnBetween = (a: Line, b: Line): number => {
  const [ux, uy, vx, vy] = [a.x1 - a.x0, a.y1 - a.y0, b.x1 - b.x0, b.y1 - b.y0];
  return Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);
};
const lengthOf = (l: Line): number => Math.hypot(l.x1 - l.x0, l.y1 - l.y0);

/** Whether two lines that follow each other are facets of one bend. */
function runsOn(a: Segment, b: Segment): boolean {
  if (a.kind !== 'line' || b.kind !== 'line' || Math.abs(turnBetween(a, b)) > CORNER) return false;
  const [p, q] = [lengthOf(a), lengthOf(b)];
  return p <= UNEVEN * q && q <= UNEVEN * p;
}

/** The path with its facets refitted within `tolerance` mm; the path itself when nothing is to be won. */
export function refitPath(path: Path, tolerance: number): Path {
  const { segments, closed } = path;
  const n = segments.length;
  if (n < LEAST_ARC) return path;
  const circle = closed ? wholeCircle(segments, tolerance) : null;
  if (circle) return { segments: circle, closed };
  // A closed path is opened at a corner, so that no bend is cut in two.
  let start = 0;
  if (closed) {
    const corner = segments.findIndex((s, i) => !runsOn(segments[(i + n - 1) % n] as Segment, s));
    start = Math.max(0, corner);
  }
  const out: Segment[] = [];
  let run: Line[] = [];
  const finish = () => {
    out.push(...refitRun(run, tolerance));
    run = [];
  };
  for (let i = 0; i < n; i++) {
    const s = segments[(start + i) % n] as Segment;
    const last = run[run.length - 1];
    if (last && !runsOn(last, s)) finish();
    if (s.kind === 'line') run.push(s);
    else out.push(s);
  }
  finish();
  return out.length < n ? { segments: out, closed } : path;
}

const vertices = (run: readonly Line[]): Point[] => {
  const last = run[run.length - 1] as Line;
  return [...run.map((l) => ({ x: l.x0, y: l.y0 })), { x: last.x1, y: last.y1 }];
};

/** Four quarters when all vertices lie on one circle and the lines go round it once. */
function wholeCircle(segments: readonly Segment[], tolerance: number): Segment[] | null {
  const n = segments.length;
  if (n < 2 * LEAST_ARC || !segments.every((s, i) => runsOn(s, segments[(i + 1) % n] as Segment))) return null;
  const run = segments as readonly Line[];
  const turn = run.reduce((sum, l, i) => sum + turnBetween(l, run[(i + 1) % n] as Line), 0);
  if (Math.abs(Math.abs(turn) - 2 * Math.PI) > 0.01) return null;
  const circle = circleThrough(run.map((l) => ({ x: l.x0, y: l.y0 })));
  if (!circle || !run.every((l) => staysNear(l, circle, tolerance))) return null;
  const quarter = (Math.sign(turn) * Math.PI) / 2;
  const first = run[0] as Line;
  const from = Math.atan2(first.y0 - circle.y, first.x0 - circle.x);
  const arcs = [0, 1, 2, 3].map((k) => arcAbout(circle.x, circle.y, circle.r, from + k * quarter, quarter));
  return arcs.map((arc, k) => {
    const before = arcs[(k + 3) % 4] as Segment;
    return { ...arc, x0: before.x1, y0: before.y1 };
  });
}

type Circle = { readonly x: number; readonly y: number; readonly r: number };

/** The circle of least squares through points (Kåsa 1976). */
function circleThrough(points: readonly Point[]): Circle | null {
  const n = points.length;
  const mx = points.reduce((sum, p) => sum + p.x, 0) / n;
  const my = points.reduce((sum, p) => sum + p.y, 0) / n;
  let [xx, xy, yy, xz, yz, zz] = [0, 0, 0, 0, 0, 0];
  for (const p of points) {
    const [x, y] = [p.x - mx, p.y - my];
    const z = x * x + y * y;
    xx += x * x;
    xy += x * y;
    yy += y * y;
    xz += x * z;
    yz += y * z;
    zz += z;
  }
  const det = xx * yy - xy * xy;
  if (!(Math.abs(det) > 1e-12 * zz * zz)) return null;
  const cx = (xz * yy - yz * xy) / (2 * det);
  const cy = (yz * xx - xz * xy) / (2 * det);
  return { x: mx + cx, y: my + cy, r: Math.sqrt(cx * cx + cy * cy + zz / n) };
}

/** Whether a line's ends and middle lie near a circle. */
function staysNear(l: Line, { x, y, r }: Circle, tolerance: number): boolean {
  const off = (px: number, py: number) => Math.abs(Math.hypot(px - x, py - y) - r);
  return (
    off(l.x0, l.y0) <= tolerance &&
    off(l.x1, l.y1) <= tolerance &&
    off((l.x0 + l.x1) / 2, (l.y0 + l.y1) / 2) <= tolerance
  );
}

function refitRun(run: readonly Line[], tolerance: number): Segment[] {
  const out: Segment[] = [];
  let kept: Line[] = [];
  const finish = () => {
    out.push(...asCurves(kept, tolerance));
    kept = [];
  };
  for (let i = 0; i < run.length; ) {
    const reach = longestArc(run, i, tolerance);
    if (reach) {
      finish();
      out.push(reach.arc);
      i = reach.end;
    } else kept.push(run[i++] as Line);
  }
  finish();
  return out;
}

/** The longest arc from a line's start; by doubling, then halving. Null when fewer lines than are worth it fit. */
function longestArc(run: readonly Line[], from: number, tolerance: number): { arc: Segment; end: number } | null {
  let best: { arc: Segment; end: number } | null = null;
  const tryTo = (end: number): boolean => {
    const arc = arcOver(run.slice(from, end), tolerance);
    if (arc) best = { arc, end };
    return arc !== null;
  };
  if (from + LEAST_ARC > run.length || !tryTo(from + LEAST_ARC)) return null;
  let good = LEAST_ARC;
  let bad = run.length - from + 1;
  for (let step = 2 * good; from + step <= run.length; step *= 2) {
    if (!tryTo(from + step)) {
      bad = step;
      break;
    }
    good = step;
  }
  while (bad - good > 1) {
    const middle = (good + bad) >> 1;
    if (from + middle <= run.length && tryTo(from + middle)) good = middle;
    else bad = middle;
  }
  return best;
}

/** One arc for a run of lines, through its ends; null where it strays, turns both ways or hardly bends. */
function arcOver(run: readonly Line[], tolerance: number): Segment | null {
  let turn = 0;
  for (let i = 1; i < run.length; i++) {
    const step = turnBetween(run[i - 1] as Line, run[i] as Line);
    if (i > 1 && step * turn < 0) return null;
    turn += step;
  }
  const first = run[0] as Line;
  const last = run[run.length - 1] as Line;
  if (turn === 0) return null;
  const points = vertices(run);
  const circle = circleThrough(points);
  if (!circle) return null;
  // What the lines turn between their middles, and half a facet at each end.
  const whole = (turn * run.length) / (run.length - 1);
  if (Math.abs(whole) > MOST_SWEEP) return null;
  const [p, q] = [points[0] as Point, points[points.length - 1] as Point];
  const seen = Math.atan2(q.y - circle.y, q.x - circle.x) - Math.atan2(p.y - circle.y, p.x - circle.x);
  const sweep = seen + 2 * Math.PI * Math.round((whole - seen) / (2 * Math.PI));
  const arc = arcBetween({ x: first.x0, y: first.y0 }, { x: last.x1, y: last.y1 }, sweep);
  if (arc.kind !== 'arc' || arc.sweep * turn <= 0) return null;
  const r = Math.hypot(arc.x0 - arc.cx, arc.y0 - arc.cy);
  return run.every((l) => staysNear(l, { x: arc.cx, y: arc.cy, r }, tolerance)) ? arc : null;
}

/** Smooth curves through a run of lines, or the lines themselves where that saves nothing. */
function asCurves(run: readonly Line[], tolerance: number): readonly Segment[] {
  if (run.length < LEAST_CURVE) return run;
  const points = vertices(run);
  const n = run.length;
  const way = (i: number): Point => {
    const [p, q] = [points[Math.max(0, i - 1)] as Point, points[Math.min(n, i + 1)] as Point];
    const length = Math.hypot(q.x - p.x, q.y - p.y) || 1;
    return { x: (q.x - p.x) / length, y: (q.y - p.y) / length };
  };
  /** Cubic Hermite between vertices. */
  const at = (t: number): Sample => {
    const i = Math.min(n - 1, Math.floor(t));
    const u = t - i;
    const [p, q] = [points[i] as Point, points[i + 1] as Point];
    const [a, b] = [way(i), way(i + 1)];
    const size = Math.hypot(q.x - p.x, q.y - p.y);
    const [h0, h1, h2, h3] = [
      2 * u ** 3 - 3 * u ** 2 + 1,
      u ** 3 - 2 * u ** 2 + u,
      -2 * u ** 3 + 3 * u ** 2,
      u ** 3 - u ** 2,
    ];
    const tx = (1 - u) * a.x + u * b.x;
    const ty = (1 - u) * a.y + u * b.y;
    const length = Math.hypot(tx, ty) || 1;
    return {
      x: h0 * p.x + h1 * size * a.x + h2 * q.x + h3 * size * b.x,
      y: h0 * p.y + h1 * size * a.y + h2 * q.y + h3 * size * b.y,
      tx: tx / length,
      ty: ty / length,
    };
  };
  const curves = fitCubics(at, { from: 0, to: n, tolerance: tolerance / 2 });
  const near = (x: number, y: number) =>
    curves.some((c) => {
      const p = pointAt(c, nearestParameter(c, x, y));
      return Math.hypot(p.x - x, p.y - y) <= tolerance;
    });
  const fits = run.every((l) => near(l.x0, l.y0) && near((l.x0 + l.x1) / 2, (l.y0 + l.y1) / 2));
  return fits && 2 * curves.length < n ? curves : run;
}
