/** Whether two spans would get in each other's way. */
import { numberAt } from '../../geometry/elements';
import { flattenPath, type Path } from '../../geometry/path';
import type { Point } from '../../geometry/point';
import type { VoidEdges } from './edges';
import type { Landing, Span } from './span';

/** Outlines are looked at as chords that stray from the curves by up to this. */
const FLAT_MM = 0.05;
/** Bridges keep this share of the wider one's width from each other. */
const APART = 0.35;

/**
 * Whether two bridges would get in each other's way. `beside` is what each needs of the edge next to it, in shares of
 * its width: for fillets.
 */
export function conflict(edges: VoidEdges, a: Span, b: Span, beside: number): boolean {
  const apart = APART * Math.max(a.width, b.width) + beside * (a.width + b.width);
  for (const p of [a.from, a.to]) for (const q of [b.from, b.to]) if (landingsMeet(edges, p, q, apart)) return true;
  return stripsMeet(a, b, apart / 2);
}

function landingsMeet(edges: VoidEdges, a: Landing, b: Landing, apart: number): boolean {
  if (a.outline !== b.outline) return false;
  const whole = numberAt(edges.length, a.outline);
  const ahead = (((b.firstAt - a.firstAt) % whole) + whole) % whole;
  const back = (((a.firstAt - b.firstAt) % whole) + whole) % whole;
  return ahead < a.lastAt - a.firstAt + apart || back < b.lastAt - b.firstAt + apart;
}

/** What lies between two strips where they are nearest, in mm; nothing or less where they meet. */
export function whiteBetween(a: Span, b: Span): number {
  const apart = Math.min(
    fromLine(a.from.middle, b),
    fromLine(a.to.middle, b),
    fromLine(b.from.middle, a),
    fromLine(b.to.middle, a),
  );
  return apart - (a.width + b.width) / 2;
}

/** The distance of a point from the middle line of a strip. */
function fromLine(p: Point, { from: { middle }, way, length }: Span): number {
  const along = (p.x - middle.x) * way.x + (p.y - middle.y) * way.y;
  const t = Math.min(length, Math.max(0, along));
  return Math.hypot(p.x - middle.x - t * way.x, p.y - middle.y - t * way.y);
}

/** Whether an outline runs into a strip, or nearer to it than bridges come to each other. */
export function crosses({ from: { middle }, way, width, length }: Span, path: Path): boolean {
  const grow = APART * width;
  const points = flattenPath(path, FLAT_MM).map((p) => ({
    u: (p.y - middle.y) * way.x - (p.x - middle.x) * way.y,
    v: (p.x - middle.x) * way.x + (p.y - middle.y) * way.y,
  }));
  return points.some((a, i) => {
    const b = points[(i + 1) % points.length] as typeof a;
    // The stretch of the chord that is between the sides, then whether that lies between the ends (Liang and Barsky 1984).
    let [from, to] = [0, 1];
    for (const [start, by, low, high] of [
      [a.u, b.u - a.u, -width / 2 - grow, width / 2 + grow],
      [a.v, b.v - a.v, -grow, length + grow],
    ] as const) {
      if (by === 0 && (start < low || start > high)) return false;
      if (by === 0) continue;
      from = Math.max(from, Math.min((low - start) / by, (high - start) / by));
      to = Math.min(to, Math.max((low - start) / by, (high - start) / by));
    }
    return from <= to;
  });
}

/** Separating axes of two oblong strips (each direction and its normal); `grow` mm around each. */
function stripsMeet(a: Span, b: Span, grow: number): boolean {
  const [ca, cb] = [corners(a, grow), corners(b, grow)];
  for (const { way } of [a, b])
    for (const axis of [way, { x: -way.y, y: way.x }]) {
      const pa = ca.map((p) => p.x * axis.x + p.y * axis.y);
      const pb = cb.map((p) => p.x * axis.x + p.y * axis.y);
      if (Math.max(...pa) < Math.min(...pb) || Math.max(...pb) < Math.min(...pa)) return false;
    }
  return true;
}

function corners({ from: { middle }, way, width, length }: Span, grow: number) {
  const half = width / 2 + grow;
  const at = (ahead: number, aside: number): Point => ({
    x: middle.x + ahead * way.x - aside * way.y,
    y: middle.y + ahead * way.y + aside * way.x,
  });
  return [at(-grow, half), at(-grow, -half), at(length + grow, half), at(length + grow, -half)];
}
