/** What a segment measures: bounds, area, length, the point nearest to another, and where it crosses another. */
import { type Box, EMPTY_BOX } from './point';
import { gaussLegendre } from './quadrature';
import { arcRadius, arcStart, type Cubic, derivativeAt, pointAt, type Quadratic, type Segment } from './segment';

function quadraticExtremes(p0: number, p1: number, p2: number): number[] {
  const d = p0 - 2 * p1 + p2;
  return d === 0 ? [] : [(p0 - p1) / d];
}

function cubicExtremes(p0: number, p1: number, p2: number, p3: number): number[] {
  const a = -p0 + 3 * p1 - 3 * p2 + p3;
  const b = 2 * (p0 - 2 * p1 + p2);
  const c = p1 - p0;
  if (Math.abs(a) < 1e-12 * (Math.abs(b) + Math.abs(c) + 1)) return b === 0 ? [] : [-c / b];
  const disc = b * b - 4 * a * c;
  if (disc < 0) return [];
  const q = -0.5 * (b + Math.sign(b || 1) * Math.sqrt(disc));
  return q === 0 ? [0] : [q / a, c / q];
}

/** Values of t strictly inside (0, 1) where x or y turns. */
export function extremes(s: Segment): number[] {
  let all: number[] = [];
  if (s.kind === 'quadratic') all = [...quadraticExtremes(s.x0, s.ax, s.x1), ...quadraticExtremes(s.y0, s.ay, s.y1)];
  if (s.kind === 'cubic') all = [...cubicExtremes(s.x0, s.ax, s.bx, s.x1), ...cubicExtremes(s.y0, s.ay, s.by, s.y1)];
  if (s.kind === 'arc') {
    const from = arcStart(s);
    const lo = Math.min(from, from + s.sweep);
    const hi = Math.max(from, from + s.sweep);
    for (let k = Math.ceil(lo / (Math.PI / 2)); k * (Math.PI / 2) <= hi; k++)
      all.push((k * (Math.PI / 2) - from) / s.sweep);
  }
  return all.filter((t) => t > 0 && t < 1);
}

/** Exact bounding box of several segments. */
export function boxOf(segments: readonly Segment[]): Box {
  let { minX, minY, maxX, maxY } = EMPTY_BOX;
  // Written out, without a function in between: the bounds of everything that is turned on the sheet are found here.
  for (const s of segments) {
    if (s.x0 < minX) minX = s.x0;
    if (s.x0 > maxX) maxX = s.x0;
    if (s.y0 < minY) minY = s.y0;
    if (s.y0 > maxY) maxY = s.y0;
    if (s.x1 < minX) minX = s.x1;
    if (s.x1 > maxX) maxX = s.x1;
    if (s.y1 < minY) minY = s.y1;
    if (s.y1 > maxY) maxY = s.y1;
  }
  for (const s of segments) {
    if (s.kind === 'line') continue;
    // A curve lies in the hull of its control points: none beyond the ends of all, and it is within.
    if (s.kind !== 'arc' && s.ax >= minX && s.ax <= maxX && s.ay >= minY && s.ay <= maxY)
      if (s.kind === 'quadratic' || (s.bx >= minX && s.bx <= maxX && s.by >= minY && s.by <= maxY)) continue;
    for (const t of extremes(s)) {
      const { x, y } = pointAt(s, t);
      if (x < minX) minX = x;
      if (x > maxX) maxX = x;
      if (y < minY) minY = y;
      if (y > maxY) maxY = y;
    }
  }
  return { minX, minY, maxX, maxY };
}

/** Exact bounding box. */
export const segmentBox = (s: Segment): Box => boxOf([s]);

/** Signed area between the segment and the origin (Green's theorem, exact); summed over a closed path it is its area. */
export function segmentArea(s: Segment): number {
  switch (s.kind) {
    case 'line':
      return (s.x0 * s.y1 - s.x1 * s.y0) / 2;
    case 'quadratic':
      return (2 * (s.x0 * s.ay - s.ax * s.y0) + 2 * (s.ax * s.y1 - s.x1 * s.ay) + (s.x0 * s.y1 - s.x1 * s.y0)) / 6;
    case 'cubic':
      return (
        (6 * (s.x0 * s.ay - s.ax * s.y0) +
          3 * (s.x0 * s.by - s.bx * s.y0) +
          (s.x0 * s.y1 - s.x1 * s.y0) +
          3 * (s.ax * s.by - s.bx * s.ay) +
          3 * (s.ax * s.y1 - s.x1 * s.ay) +
          6 * (s.bx * s.y1 - s.x1 * s.by)) /
        20
      );
    case 'arc': {
      const r = arcRadius(s);
      return (s.cx * (s.y1 - s.y0) - s.cy * (s.x1 - s.x0)) / 2 + (r * r * s.sweep) / 2;
    }
  }
}

/** How fast the point of a curve goes with its parameter, in mm: its derivative is taken apart once. */
export function speedOf(s: Quadratic | Cubic): (t: number) => number {
  const isCubic = s.kind === 'cubic';
  // x′ = p·t² + q·t + r, and so for y.
  const [px, py] = isCubic ? [3 * (s.x1 - s.x0 + 3 * (s.ax - s.bx)), 3 * (s.y1 - s.y0 + 3 * (s.ay - s.by))] : [0, 0];
  const [qx, qy] = isCubic
    ? [6 * (s.x0 - 2 * s.ax + s.bx), 6 * (s.y0 - 2 * s.ay + s.by)]
    : [2 * (s.x0 - 2 * s.ax + s.x1), 2 * (s.y0 - 2 * s.ay + s.y1)];
  const k = isCubic ? 3 : 2;
  const [rx, ry] = [k * (s.ax - s.x0), k * (s.ay - s.y0)];
  return (t) => {
    const x = (px * t + qx) * t + rx;
    const y = (py * t + qy) * t + ry;
    return Math.sqrt(x * x + y * y);
  };
}

/**
 * Length of a quadratic by its closed form: the speed is √(a·t² + b·t + c), whose integral is elementary. Null where the
 * curve is so nearly straight and even that the form would cancel.
 */
function quadraticLength(s: Quadratic): number | null {
  const ux = 2 * (s.x0 - 2 * s.ax + s.x1);
  const uy = 2 * (s.y0 - 2 * s.ay + s.y1);
  const vx = 2 * (s.ax - s.x0);
  const vy = 2 * (s.ay - s.y0);
  const a = ux * ux + uy * uy;
  const b = 2 * (ux * vx + uy * vy);
  const c = vx * vx + vy * vy;
  const k = 4 * a * c - b * b;
  if (a <= 1e-4 * c || k <= 1e-8 * a * a) return null;
  const root = Math.sqrt(a);
  const from = b;
  const to = 2 * a + b;
  const turned = Math.asinh(to / Math.sqrt(k)) - Math.asinh(from / Math.sqrt(k));
  return (to * Math.sqrt(a + b + c) - from * Math.sqrt(c)) / (4 * a) + (k * turned) / (8 * a * root);
}

/** Length in mm, to about 1e-6 relative (halving until two quadratures agree). */
export function segmentLength(s: Segment): number {
  if (s.kind === 'line') return Math.hypot(s.x1 - s.x0, s.y1 - s.y0);
  if (s.kind === 'arc') return arcRadius(s) * Math.abs(s.sweep);
  const closed = s.kind === 'quadratic' ? quadraticLength(s) : null;
  if (closed !== null) return closed;
  const speed = speedOf(s);
  const halve = (from: number, to: number, whole: number, depth: number): number => {
    const mid = (from + to) / 2;
    const left = gaussLegendre(speed, from, mid);
    const right = gaussLegendre(speed, mid, to);
    if (depth === 0 || Math.abs(left + right - whole) <= 1e-7 * whole) return left + right;
    return halve(from, mid, left, depth - 1) + halve(mid, to, right, depth - 1);
  };
  return halve(0, 1, gaussLegendre(speed, 0, 1), 8);
}

/** The parameter nearest to a point between `lo` and `hi` (samples, then Newton on the foot of the perpendicular). */
export function nearestParameter(s: Segment, x: number, y: number, lo = 0, hi = 1): number {
  let t = lo;
  let best = Infinity;
  for (let i = 0; i <= 8; i++) {
    const at = lo + ((hi - lo) * i) / 8;
    const p = pointAt(s, at);
    const d = (p.x - x) ** 2 + (p.y - y) ** 2;
    if (d < best) {
      best = d;
      t = at;
    }
  }
  for (let k = 0; k < 10; k++) {
    const p = pointAt(s, t);
    const d = derivativeAt(s, t);
    const l = d.x * d.x + d.y * d.y;
    if (l === 0) break;
    const next = Math.min(hi, Math.max(lo, t + ((x - p.x) * d.x + (y - p.y) * d.y) / l));
    if (Math.abs(next - t) < 1e-13) break;
    t = next;
  }
  return t;
}

/**
 * Where two segments cross, by Newton's method from a guess of both parameters; null when it does not settle within
 * 1e-7 mm or leaves the segments.
 */
export function crossingNear(a: Segment, b: Segment, ta: number, tb: number): readonly [number, number] | null {
  let t = ta;
  let u = tb;
  for (let k = 0; k < 14; k++) {
    const p = pointAt(a, t);
    const q = pointAt(b, u);
    const dx = q.x - p.x;
    const dy = q.y - p.y;
    if (dx * dx + dy * dy < 1e-20) break;
    const d = derivativeAt(a, t);
    const e = derivativeAt(b, u);
    const det = e.x * d.y - d.x * e.y;
    if (Math.abs(det) < 1e-14) return null;
    t += (e.x * dy - dx * e.y) / det;
    u += (d.x * dy - d.y * dx) / det;
    if (t < -0.05 || t > 1.05 || u < -0.05 || u > 1.05) return null;
  }
  if (t < -1e-9 || t > 1 + 1e-9 || u < -1e-9 || u > 1 + 1e-9) return null;
  t = Math.min(1, Math.max(0, t));
  u = Math.min(1, Math.max(0, u));
  const p = pointAt(a, t);
  const q = pointAt(b, u);
  return Math.hypot(p.x - q.x, p.y - q.y) < 1e-7 ? [t, u] : null;
}
