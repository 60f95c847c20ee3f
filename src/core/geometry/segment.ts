/**
 * One piece of an outline: a line, a quadratic or cubic Bézier curve, or a circular arc. Lengths in mm.
 * All have their ends as (x0, y0) and (x1, y1); t runs from 0 to 1 along the segment.
 */
import { determinant, type Matrix, type Point } from './point';

type Ends = { readonly x0: number; readonly y0: number; readonly x1: number; readonly y1: number };

/** A straight segment. */
export type Line = Ends & { readonly kind: 'line' };
/** Control point (ax, ay). */
export type Quadratic = Ends & { readonly kind: 'quadratic'; readonly ax: number; readonly ay: number };
/** Control points (ax, ay) and (bx, by). */
export type Cubic = Ends & {
  readonly kind: 'cubic';
  readonly ax: number;
  readonly ay: number;
  readonly bx: number;
  readonly by: number;
};
/** Centre (cx, cy); `sweep` is the signed angle from start to end in radians, counter-clockwise positive. */
export type Arc = Ends & { readonly kind: 'arc'; readonly cx: number; readonly cy: number; readonly sweep: number };

/** A piece of a path: a line, a quadratic or cubic Bézier curve, or a circular arc. */
export type Segment = Line | Quadratic | Cubic | Arc;

/** The straight segment from (x0, y0) to (x1, y1). */
export const line = (x0: number, y0: number, x1: number, y1: number): Line => ({ kind: 'line', x0, y0, x1, y1 });

/** The quadratic Bézier curve from (x0, y0) to (x1, y1) with control point (ax, ay). */
export const quadratic = (x0: number, y0: number, ax: number, ay: number, x1: number, y1: number): Quadratic => ({
  kind: 'quadratic',
  x0,
  y0,
  ax,
  ay,
  x1,
  y1,
});

/** The cubic Bézier curve from (x0, y0) to (x1, y1) with control points (ax, ay) and (bx, by). */
export const cubic = (
  x0: number,
  y0: number,
  ax: number,
  ay: number,
  bx: number,
  by: number,
  x1: number,
  y1: number,
): Cubic => ({ kind: 'cubic', x0, y0, ax, ay, bx, by, x1, y1 });

/** An arc about a centre; angles in radians. */
export function arcAbout(cx: number, cy: number, radius: number, from: number, sweep: number): Arc {
  return {
    kind: 'arc',
    x0: cx + radius * Math.cos(from),
    y0: cy + radius * Math.sin(from),
    x1: cx + radius * Math.cos(from + sweep),
    y1: cy + radius * Math.sin(from + sweep),
    cx,
    cy,
    sweep,
  };
}

/** An arc that turns farther is told badly by its ends, in radians: of a whole turn they say nothing. */
export const WIDEST_BY_ENDS = 1.5 * Math.PI;

/** Radius of an arc. */
export const arcRadius = (s: Arc): number => Math.hypot(s.x0 - s.cx, s.y0 - s.cy);

/** How far a segment may reach from its start, in mm: the way along its ends and control points, of an arc its length. */
export function spanOf(s: Segment): number {
  switch (s.kind) {
    case 'line':
      return Math.hypot(s.x1 - s.x0, s.y1 - s.y0);
    case 'quadratic':
      return Math.hypot(s.ax - s.x0, s.ay - s.y0) + Math.hypot(s.x1 - s.ax, s.y1 - s.ay);
    case 'cubic':
      return (
        Math.hypot(s.ax - s.x0, s.ay - s.y0) +
        Math.hypot(s.bx - s.ax, s.by - s.ay) +
        Math.hypot(s.x1 - s.bx, s.y1 - s.by)
      );
    case 'arc':
      return arcRadius(s) * Math.abs(s.sweep);
  }
}

/** Whether a segment reaches less than `mm` from its start. */
export function isTiny(s: Segment, mm: number): boolean {
  // Nearly all are told by their ends.
  if (Math.abs(s.x1 - s.x0) + Math.abs(s.y1 - s.y0) >= 2 * mm) return false;
  return spanOf(s) < mm;
}

/** Direction from the centre of an arc to its start, in radians counter-clockwise from the x axis. */
export const arcStart = (s: Arc): number => Math.atan2(s.y0 - s.cy, s.x0 - s.cx);

/** The point of a segment at a parameter from 0 (its start) to 1 (its end). */
export function pointAt(s: Segment, t: number): Point {
  if (t === 0) return { x: s.x0, y: s.y0 };
  if (t === 1) return { x: s.x1, y: s.y1 };
  const u = 1 - t;
  switch (s.kind) {
    case 'line':
      return { x: u * s.x0 + t * s.x1, y: u * s.y0 + t * s.y1 };
    case 'quadratic': {
      const a = u * u;
      const b = 2 * u * t;
      const c = t * t;
      return { x: a * s.x0 + b * s.ax + c * s.x1, y: a * s.y0 + b * s.ay + c * s.y1 };
    }
    case 'cubic': {
      const a = u * u * u;
      const b = 3 * u * u * t;
      const c = 3 * u * t * t;
      const d = t * t * t;
      return { x: a * s.x0 + b * s.ax + c * s.bx + d * s.x1, y: a * s.y0 + b * s.ay + c * s.by + d * s.y1 };
    }
    case 'arc': {
      const angle = arcStart(s) + s.sweep * t;
      const r = arcRadius(s);
      return { x: s.cx + r * Math.cos(angle), y: s.cy + r * Math.sin(angle) };
    }
  }
}

/** The derivative with respect to t, in mm per unit of t. */
export function derivativeAt(s: Segment, t: number): Point {
  const u = 1 - t;
  switch (s.kind) {
    case 'line':
      return { x: s.x1 - s.x0, y: s.y1 - s.y0 };
    case 'quadratic':
      return {
        x: 2 * (u * (s.ax - s.x0) + t * (s.x1 - s.ax)),
        y: 2 * (u * (s.ay - s.y0) + t * (s.y1 - s.ay)),
      };
    case 'cubic':
      return {
        x: 3 * (u * u * (s.ax - s.x0) + 2 * u * t * (s.bx - s.ax) + t * t * (s.x1 - s.bx)),
        y: 3 * (u * u * (s.ay - s.y0) + 2 * u * t * (s.by - s.ay) + t * t * (s.y1 - s.by)),
      };
    case 'arc': {
      const p = pointAt(s, t);
      return { x: -(p.y - s.cy) * s.sweep, y: (p.x - s.cx) * s.sweep };
    }
  }
}

/** A bound on the length of the derivative: so fast, at most, goes the point of a segment with its parameter, in mm. */
export function greatestSpeed(s: Segment): number {
  switch (s.kind) {
    case 'line':
      return Math.hypot(s.x1 - s.x0, s.y1 - s.y0);
    case 'quadratic':
      return 2 * Math.max(Math.hypot(s.ax - s.x0, s.ay - s.y0), Math.hypot(s.x1 - s.ax, s.y1 - s.ay));
    case 'cubic':
      return (
        3 *
        Math.max(
          Math.hypot(s.ax - s.x0, s.ay - s.y0),
          Math.hypot(s.bx - s.ax, s.by - s.ay),
          Math.hypot(s.x1 - s.bx, s.y1 - s.by),
        )
      );
    case 'arc':
      return arcRadius(s) * Math.abs(s.sweep);
  }
}

/** Unit tangent in the direction of travel; steps off a degenerate end. */
export function tangentAt(s: Segment, t: number): Point {
  const d = derivativeAt(s, t);
  let length = Math.hypot(d.x, d.y);
  if (length > 1e-9) return { x: d.x / length, y: d.y / length };
  const from = pointAt(s, Math.max(0, t - 1e-3));
  const to = pointAt(s, Math.min(1, t + 1e-3));
  length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  return { x: (to.x - from.x) / length, y: (to.y - from.y) / length };
}

/** Curvature in 1/mm, positive where the segment turns left; infinite curvature (a cusp) is given as 0. */
export function curvatureAt(s: Segment, t: number): number {
  if (s.kind === 'line') return 0;
  if (s.kind === 'arc') return Math.sign(s.sweep) / arcRadius(s);
  const d = derivativeAt(s, t);
  const speed = Math.hypot(d.x, d.y);
  if (speed < 1e-9) return 0;
  const e = secondDerivativeAt(s, t);
  return (d.x * e.y - d.y * e.x) / speed ** 3;
}

/** The second derivative with respect to t. */
export function secondDerivativeAt(s: Quadratic | Cubic, t: number): Point {
  if (s.kind === 'quadratic') return { x: 2 * (s.x0 - 2 * s.ax + s.x1), y: 2 * (s.y0 - 2 * s.ay + s.y1) };
  const u = 1 - t;
  return {
    x: 6 * (u * (s.x0 - 2 * s.ax + s.bx) + t * (s.ax - 2 * s.bx + s.x1)),
    y: 6 * (u * (s.y0 - 2 * s.ay + s.by) + t * (s.ay - 2 * s.by + s.y1)),
  };
}

/** The segment run the other way. */
export function reverseSegment(s: Segment): Segment {
  const { x0: x1, y0: y1, x1: x0, y1: y0 } = s;
  switch (s.kind) {
    case 'line':
      return { kind: 'line', x0, y0, x1, y1 };
    case 'quadratic':
      return { kind: 'quadratic', x0, y0, x1, y1, ax: s.ax, ay: s.ay };
    case 'cubic':
      return { kind: 'cubic', x0, y0, x1, y1, ax: s.bx, ay: s.by, bx: s.ax, by: s.ay };
    case 'arc':
      return { kind: 'arc', x0, y0, x1, y1, cx: s.cx, cy: s.cy, sweep: -s.sweep };
  }
}

const mix = (p: number, q: number, t: number): number => p + (q - p) * t;
/** Polar form (blossom) of a quadratic and a cubic in one coordinate: the control values of a sub-curve. */
const blossom2 = (p0: number, p1: number, p2: number, a: number, b: number): number =>
  mix(mix(p0, p1, a), mix(p1, p2, a), b);
const blossom3 = (p0: number, p1: number, p2: number, p3: number, a: number, b: number, c: number): number => {
  const q0 = mix(p0, p1, a);
  const q1 = mix(p1, p2, a);
  const q2 = mix(p2, p3, a);
  return mix(mix(q0, q1, b), mix(q1, q2, b), c);
};

/** The exact part of a segment from t = `from` to t = `to` (de Casteljau by blossoming); reversed when `to` < `from`. */
export function subSegment(s: Segment, from: number, to: number): Segment {
  if (from === 0 && to === 1) return s;
  if (to < from) return reverseSegment(subSegment(s, to, from));
  const p = pointAt(s, from);
  const q = pointAt(s, to);
  const ends = { x0: p.x, y0: p.y, x1: q.x, y1: q.y };
  switch (s.kind) {
    case 'line':
      return { kind: 'line', ...ends };
    case 'quadratic':
      return {
        kind: 'quadratic',
        ...ends,
        ax: blossom2(s.x0, s.ax, s.x1, from, to),
        ay: blossom2(s.y0, s.ay, s.y1, from, to),
      };
    case 'cubic':
      return {
        kind: 'cubic',
        ...ends,
        ax: blossom3(s.x0, s.ax, s.bx, s.x1, from, from, to),
        ay: blossom3(s.y0, s.ay, s.by, s.y1, from, from, to),
        bx: blossom3(s.x0, s.ax, s.bx, s.x1, from, to, to),
        by: blossom3(s.y0, s.ay, s.by, s.y1, from, to, to),
      };
    case 'arc':
      return { kind: 'arc', ...ends, cx: s.cx, cy: s.cy, sweep: s.sweep * (to - from) };
  }
}

/** A segment with its ends set to the given points (used to close junctions without a gap). */
export function withEnds(s: Segment, start: Point, end: Point): Segment {
  if (s.x0 === start.x && s.y0 === start.y && s.x1 === end.x && s.y1 === end.y) return s;
  if (s.kind === 'arc')
    // Of nearly a whole turn the ends do not tell the circle.
    return Math.abs(s.sweep) > WIDEST_BY_ENDS
      ? { ...s, x0: start.x, y0: start.y, x1: end.x, y1: end.y }
      : arcBetween(start, end, s.sweep);
  const ends = { x0: start.x, y0: start.y, x1: end.x, y1: end.y };
  // Controls next to a moved end go with it, so that the tangent there stays.
  const d0x = start.x - s.x0;
  const d0y = start.y - s.y0;
  const d1x = end.x - s.x1;
  const d1y = end.y - s.y1;
  switch (s.kind) {
    case 'line':
      return { kind: 'line', ...ends };
    case 'quadratic':
      return { ...s, ...ends, ax: s.ax + (d0x + d1x) / 2, ay: s.ay + (d0y + d1y) / 2 };
    case 'cubic':
      return { ...s, ...ends, ax: s.ax + d0x, ay: s.ay + d0y, bx: s.bx + d1x, by: s.by + d1y };
  }
}

/** Segments with every arc of nearly a whole turn, or more, as two halves; the same list where there is none. */
export function halvedArcs<S extends Segment>(segments: readonly S[]): readonly S[] {
  if (!segments.some(isWide)) return segments;
  // Halves are of the same kind.
  return segments.flatMap((s) => (isWide(s) ? [subSegment(s, 0, 0.5) as S, subSegment(s, 0.5, 1) as S] : [s]));
}

const isWide = (s: Segment): boolean => s.kind === 'arc' && Math.abs(s.sweep) > WIDEST_BY_ENDS;

/** The arc from one point to another that turns by `sweep` radians; a line when the sweep is nearly nothing. */
export function arcBetween(start: Point, end: Point, sweep: number): Arc | Line {
  const chord = Math.hypot(end.x - start.x, end.y - start.y);
  if (Math.abs(sweep) < 1e-9 || chord < 1e-12) return line(start.x, start.y, end.x, end.y);
  const h = chord / 2 / Math.tan(sweep / 2);
  const nx = -(end.y - start.y) / chord;
  const ny = (end.x - start.x) / chord;
  return {
    kind: 'arc',
    x0: start.x,
    y0: start.y,
    x1: end.x,
    y1: end.y,
    cx: (start.x + end.x) / 2 + nx * h,
    cy: (start.y + end.y) / 2 + ny * h,
    sweep,
  };
}

/** Whether a matrix keeps angles: it moves, turns, mirrors and sizes alike in every direction. */
const isSimilarity = (m: Matrix): boolean =>
  Math.abs(m.a * m.c + m.b * m.d) < 1e-9 * (m.a * m.a + m.b * m.b) &&
  Math.abs(m.a * m.a + m.b * m.b - m.c * m.c - m.d * m.d) < 1e-9 * (m.a * m.a + m.b * m.b);

/**
 * Apply an affine matrix. Arcs stay arcs under similarity; under unequal scaling they become cubics. `reversed`, the segments run
 * the other way.
 */
export function transformSegments(segments: readonly Segment[], m: Matrix, reversed = false): Segment[] {
  const { a, b, c, d, e, f } = m;
  const out: Segment[] = [];
  const n = segments.length;
  for (let i = 0; i < n; i++) {
    const s = segments[reversed ? n - 1 - i : i] as Segment;
    // Written out, without points in between: everything that is moved on the sheet goes through here.
    const fromX = a * s.x0 + c * s.y0 + e;
    const fromY = b * s.x0 + d * s.y0 + f;
    const toX = a * s.x1 + c * s.y1 + e;
    const toY = b * s.x1 + d * s.y1 + f;
    const x0 = reversed ? toX : fromX;
    const y0 = reversed ? toY : fromY;
    const x1 = reversed ? fromX : toX;
    const y1 = reversed ? fromY : toY;
    switch (s.kind) {
      case 'line':
        out.push({ kind: 'line', x0, y0, x1, y1 });
        break;
      case 'quadratic':
        out.push({ kind: 'quadratic', x0, y0, x1, y1, ax: a * s.ax + c * s.ay + e, ay: b * s.ax + d * s.ay + f });
        break;
      case 'cubic': {
        const ax = a * s.ax + c * s.ay + e;
        const ay = b * s.ax + d * s.ay + f;
        const bx = a * s.bx + c * s.by + e;
        const by = b * s.bx + d * s.by + f;
        out.push(
          reversed
            ? { kind: 'cubic', x0, y0, x1, y1, ax: bx, ay: by, bx: ax, by: ay }
            : { kind: 'cubic', x0, y0, x1, y1, ax, ay, bx, by },
        );
        break;
      }
      case 'arc': {
        if (!isSimilarity(m)) {
          out.push(...transformSegments(arcToCubics(s, 1e-4), m, reversed));
          break;
        }
        const cx = a * s.cx + c * s.cy + e;
        const cy = b * s.cx + d * s.cy + f;
        const turns = reversed !== determinant(m) < 0;
        out.push({ kind: 'arc', x0, y0, x1, y1, cx, cy, sweep: turns ? -s.sweep : s.sweep });
      }
    }
  }
  return out;
}

/** One segment after an affine matrix: itself in kind, or of an arc that is scaled unequally, cubics. */
export const transformSegment = (s: Segment, m: Matrix): readonly Segment[] => transformSegments([s], m);

/** Elevate a quadratic to the same curve as a cubic. */
export function quadraticToCubic(s: Quadratic): Cubic {
  return cubic(
    s.x0,
    s.y0,
    s.x0 + (2 / 3) * (s.ax - s.x0),
    s.y0 + (2 / 3) * (s.ay - s.y0),
    s.x1 + (2 / 3) * (s.ax - s.x1),
    s.y1 + (2 / 3) * (s.ay - s.y1),
    s.x1,
    s.y1,
  );
}

/**
 * Cubics for an arc, off by at most `tolerance` mm. The radial error of the usual construction with handle
 * (4/3)·tan(θ/4) is about r·θ⁶·(4/27)/4096 for a piece of θ radians (Goldapp 1991).
 */
export function arcToCubics(s: Arc, tolerance: number): Cubic[] {
  const r = arcRadius(s);
  const largest = Math.min(Math.PI / 2, ((tolerance * 27 * 1024) / Math.max(r, 1e-9)) ** (1 / 6));
  const n = Math.max(1, Math.ceil(Math.abs(s.sweep) / largest));
  const theta = s.sweep / n;
  const handle = (4 / 3) * Math.tan(theta / 4);
  return Array.from({ length: n }, (_, i) => {
    const piece = subSegment(s, i / n, (i + 1) / n);
    return cubic(
      piece.x0,
      piece.y0,
      piece.x0 - handle * (piece.y0 - s.cy),
      piece.y0 + handle * (piece.x0 - s.cx),
      piece.x1 + handle * (piece.y1 - s.cy),
      piece.y1 - handle * (piece.x1 - s.cx),
      piece.x1,
      piece.y1,
    );
  });
}

/** How many equal steps of t keep the chords within `tolerance` mm of the curve (second-difference bound, Wang). */
export function stepsWithin(s: Segment, tolerance: number): number {
  switch (s.kind) {
    case 'line':
      return 1;
    case 'quadratic':
      return Math.max(
        1,
        Math.ceil(Math.sqrt(Math.hypot(s.x0 - 2 * s.ax + s.x1, s.y0 - 2 * s.ay + s.y1) / (4 * tolerance))),
      );
    case 'cubic': {
      const a = Math.hypot(s.x0 - 2 * s.ax + s.bx, s.y0 - 2 * s.ay + s.by);
      const b = Math.hypot(s.ax - 2 * s.bx + s.x1, s.ay - 2 * s.by + s.y1);
      return Math.max(1, Math.ceil(Math.sqrt((0.75 * Math.max(a, b)) / tolerance)));
    }
    case 'arc': {
      const step = 2 * Math.acos(Math.max(0, 1 - tolerance / Math.max(arcRadius(s), tolerance)));
      return Math.max(1, Math.ceil(Math.abs(s.sweep) / step));
    }
  }
}
