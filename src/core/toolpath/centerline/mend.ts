/** Mending lines by hand, one motion each: an end pulled to the tip, strokes let run through, two branches made one. */
import { fitPoints } from '../../geometry/fit-points';
import { measureLine } from '../../geometry/measure';
import { flattenPath, type Path, pathLength, reversePath } from '../../geometry/path';
import type { Point } from '../../geometry/point';
import { cubic, line, type Segment, tangentAt } from '../../geometry/segment';

/** An end of one of several lines: its start (0) or its end (1). */
export type LineEnd = { readonly path: number; readonly end: 0 | 1 };

const outOf = (path: Path, end: 0 | 1): { at: Point; way: Point } => {
  const s = (end === 0 ? path.segments[0] : path.segments[path.segments.length - 1]) as Segment;
  const t = tangentAt(s, end);
  return end === 0 ? { at: { x: s.x0, y: s.y0 }, way: { x: -t.x, y: -t.y } } : { at: { x: s.x1, y: s.y1 }, way: t };
};

/** The line taken on straight from an end to the outline around it; the line itself where there is none ahead. */
export function pulledToTip(path: Path, end: 0 | 1, outlines: readonly Path[], tolerance: number): Path {
  if (path.closed || path.segments.length === 0) return path;
  const { at, way } = outOf(path, end);
  let best = Infinity;
  for (const outline of outlines) {
    const points = flattenPath(outline, tolerance);
    points.forEach((p, i) => {
      const q = points[(i + 1) % points.length] as Point;
      const [ca, cb] = [way.x * (p.y - at.y) - way.y * (p.x - at.x), way.x * (q.y - at.y) - way.y * (q.x - at.x)];
      if (ca > 0 === cb > 0) return;
      const t = ca / (ca - cb);
      const d = way.x * (p.x + t * (q.x - p.x) - at.x) + way.y * (p.y + t * (q.y - p.y) - at.y);
      if (d > tolerance && d < best) best = d;
    });
  }
  if (!Number.isFinite(best)) return path;
  const tip = { x: at.x + best * way.x, y: at.y + best * way.y };
  return end === 1
    ? { ...path, segments: [...path.segments, line(at.x, at.y, tip.x, tip.y)] }
    : { ...path, segments: [line(tip.x, tip.y, at.x, at.y), ...path.segments] };
}

/** A smooth curve from one end into another. */
function smoothCurve(a: { at: Point; way: Point }, b: { at: Point; way: Point }): Segment {
  const gap = Math.hypot(b.at.x - a.at.x, b.at.y - a.at.y);
  const turn = Math.acos(Math.max(-1, Math.min(1, -(a.way.x * b.way.x + a.way.y * b.way.y))));
  const handle = (2 * gap) / (3 * (1 + Math.cos(turn / 2)));
  return cubic(
    a.at.x,
    a.at.y,
    a.at.x + handle * a.way.x,
    a.at.y + handle * a.way.y,
    b.at.x + handle * b.way.x,
    b.at.y + handle * b.way.y,
    b.at.x,
    b.at.y,
  );
}

/**
 * Lines joined over the ends given, two by two, those that run straightest into each other first: with four ends two strokes
 * pass through each other. Ends left over stay as they are.
 */
export function runThrough(paths: readonly Path[], ends: readonly LineEnd[]): Path[] {
  const open = ends.filter(({ path }) => paths[path] && !(paths[path] as Path).closed);
  const bend = (a: LineEnd, b: LineEnd): number => {
    const [p, q] = [outOf(paths[a.path] as Path, a.end), outOf(paths[b.path] as Path, b.end)];
    const [gx, gy] = [q.at.x - p.at.x, q.at.y - p.at.y];
    const gap = Math.hypot(gx, gy);
    const turn = 1 + (p.way.x * q.way.x + p.way.y * q.way.y);
    // Ends that stand on each other have no way from one to the other.
    const aside = gap > 0 ? 1 - (p.way.x * gx + p.way.y * gy) / gap : 0;
    return turn + aside;
  };
  const pairs = open
    .flatMap((a, i) => open.slice(i + 1).map((b) => ({ a, b, cost: bend(a, b) })))
    .sort((p, q) => p.cost - q.cost);
  const partner = new Map<string, LineEnd>();
  const name = ({ path, end }: LineEnd) => `${path}:${end}`;
  for (const { a, b } of pairs) {
    if (partner.has(name(a)) || partner.has(name(b))) continue;
    partner.set(name(a), b);
    partner.set(name(b), a);
  }
  const done = new Set<number>();
  const out: Path[] = [];
  const walk = (start: LineEnd) => {
    const segments: Segment[] = [];
    let here = start;
    for (;;) {
      done.add(here.path);
      const path = here.end === 0 ? (paths[here.path] as Path) : reversePath(paths[here.path] as Path);
      segments.push(...path.segments);
      const exit: LineEnd = { path: here.path, end: here.end === 0 ? 1 : 0 };
      const next = partner.get(name(exit));
      if (!next) {
        out.push({ segments, closed: false });
        return;
      }
      const [from, to] = [outOf(paths[exit.path] as Path, exit.end), outOf(paths[next.path] as Path, next.end)];
      if (Math.hypot(from.at.x - to.at.x, from.at.y - to.at.y) > 1e-9) segments.push(smoothCurve(from, to));
      if (done.has(next.path)) {
        out.push({ segments, closed: next.path === start.path });
        return;
      }
      here = next;
    }
  };
  paths.forEach((path, i) => {
    if (done.has(i)) return;
    if (path.closed) out.push(path);
    else if (!partner.has(`${i}:0`)) walk({ path: i, end: 0 });
    else if (!partner.has(`${i}:1`)) walk({ path: i, end: 1 });
  });
  paths.forEach((path, i) => {
    if (!done.has(i) && !path.closed) walk({ path: i, end: 0 });
  });
  return out;
}

const PLACES = 40;

/** One line half way between two that run side by side. */
export function mergedLines(a: Path, b: Path, tolerance: number): Path {
  const [first, other] = [outOf(a, 0).at, outOf(b, 0).at];
  const last = outOf(b, 1).at;
  const turned = Math.hypot(first.x - other.x, first.y - other.y) > Math.hypot(first.x - last.x, first.y - last.y);
  const [p, q] = [measureLine(a), measureLine(turned ? reversePath(b) : b)];
  const points = Array.from({ length: PLACES + 1 }, (_, i) => {
    const [m, n] = [p.at((p.length * i) / PLACES), q.at((q.length * i) / PLACES)];
    return { x: (m.x + n.x) / 2, y: (m.y + n.y) / 2 };
  });
  const reach = Math.max(pathLength(a), pathLength(b)) / 12;
  return { segments: fitPoints(points, false, { tolerance, reach }), closed: false };
}
