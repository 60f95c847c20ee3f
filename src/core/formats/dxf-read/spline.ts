/**
 * B-splines as Bézier segments. The control points of the Bézier piece over a knot span are values of the spline's polar
 * form (Ramshaw 1987), found by de Boor's scheme with a different argument at each level. Degrees 1 to 3 without weights
 * come out exactly; others are fitted.
 */
import { numberAt } from '../../geometry/elements';
import { fitCubics } from '../../geometry/fit-cubic';
import { cubic, line, quadratic, type Segment } from '../../geometry/segment';

/** x, y, weight; homogeneous, so that x and y are already times the weight. */
type Point = readonly [number, number, number];

/** A B-spline as DXF has it: degree, knots, control points, and weights where it is rational. */
export type Spline = {
  readonly degree: number;
  readonly knots: readonly number[];
  /** x, y. */
  readonly points: readonly (readonly [number, number])[];
  readonly weights: readonly number[];
};

const mix = (p: Point, q: Point, t: number): Point => [
  p[0] + (q[0] - p[0]) * t,
  p[1] + (q[1] - p[1]) * t,
  p[2] + (q[2] - p[2]) * t,
];

/** Null when knots, points and degree don't go together. */
export function splineSegments(spline: Spline, tolerance: number): Segment[] | null {
  const { degree, knots, points, weights } = spline;
  const n = points.length;
  if (!(degree >= 1 && degree <= 24) || n < degree + 1 || knots.length !== n + degree + 1) return null;
  for (let i = 1; i < knots.length; i++) if (!(numberAt(knots, i) >= numberAt(knots, i - 1))) return null;
  const even = weights.length !== n || weights.every((w) => w === weights[0]);
  if (!even && !weights.every((w) => w > 0)) return null;
  const control = points.map(([x, y], i): Point => {
    const w = even ? 1 : numberAt(weights, i);
    return [x * w, y * w, w];
  });
  const polar = (span: number, at: readonly number[]): Point => {
    let row = control.slice(span - degree, span + 1);
    for (let level = 1; level <= degree; level++) {
      const t = numberAt(at, level - 1);
      row = row.slice(1).map((q, j) => {
        const low = numberAt(knots, span - degree + level + j);
        const high = numberAt(knots, span + 1 + j);
        return mix(row[j] as Point, q, high > low ? (t - low) / (high - low) : 0);
      });
    }
    return row[0] as Point;
  };
  const out: Segment[] = [];
  for (let span = degree; span < n; span++) {
    const [from, to] = [numberAt(knots, span), numberAt(knots, span + 1)];
    if (!(to > from)) continue;
    const bezier = Array.from({ length: degree + 1 }, (_, k) =>
      polar(
        span,
        Array.from({ length: degree }, (__, i) => (i < degree - k ? from : to)),
      ),
    );
    out.push(...bezierSegments(bezier, even, tolerance));
  }
  return out;
}

/** A piece may turn sharply anywhere: it is looked at in quarters, and fitted more closely than asked. */
const QUARTERS = 4;
const CAREFUL = 4;

function bezierSegments(b: readonly Point[], plain: boolean, tolerance: number): Segment[] {
  const [p, q, r, s] = b as [Point, Point, Point, Point];
  if (plain && b.length === 2) return [line(p[0], p[1], q[0], q[1])];
  if (plain && b.length === 3) return [quadratic(p[0], p[1], q[0], q[1], r[0], r[1])];
  if (plain && b.length === 4) return [cubic(p[0], p[1], q[0], q[1], r[0], r[1], s[0], s[1])];
  const at = (t: number) => {
    let row = [...b];
    while (row.length > 2) row = row.slice(1).map((c, i) => mix(row[i] as Point, c, t));
    const [u, v] = row as [Point, Point];
    const [x, y, w] = mix(u, v, t);
    // The direction of (x/w, y/w) from the last two points of the scheme.
    const dx = (v[0] - u[0]) * w - x * (v[2] - u[2]);
    const dy = (v[1] - u[1]) * w - y * (v[2] - u[2]);
    const length = Math.hypot(dx, dy) || 1;
    return { x: x / w, y: y / w, tx: dx / length, ty: dy / length };
  };
  return Array.from({ length: QUARTERS }, (_, i) =>
    fitCubics(at, { from: i / QUARTERS, to: (i + 1) / QUARTERS, tolerance: tolerance / CAREFUL }),
  ).flat();
}

/**
 * The smooth cubic through points (natural ends, or along given directions), its parameter the chord length; tridiagonal
 * system for the derivatives (de Boor 1978, IV).
 */
export function splineThrough(
  points: readonly (readonly [number, number])[],
  start: readonly [number, number] | null,
  end: readonly [number, number] | null,
): Segment[] {
  const distinct = points.filter(
    (p, i) =>
      i === 0 ||
      p[0] !== (points[i - 1] as readonly [number, number])[0] ||
      p[1] !== (points[i - 1] as readonly [number, number])[1],
  );
  const n = distinct.length;
  if (n < 2) return [];
  const at = (i: number) => distinct[i] as readonly [number, number];
  const h = distinct.slice(1).map((p, i) => Math.hypot(p[0] - at(i)[0], p[1] - at(i)[1]));
  const slopes = [0, 1].map((axis) => {
    const d = (i: number) => ((at(i + 1)[axis] as number) - (at(i)[axis] as number)) / numberAt(h, i);
    const [low, mid, high, right] = [0, 0, 0, 0].map(() => new Array<number>(n).fill(0)) as [
      number[],
      number[],
      number[],
      number[],
    ];
    mid[0] = start ? 1 : 2;
    high[0] = start ? 0 : 1;
    right[0] = start ? (start[axis] as number) : 3 * d(0);
    for (let i = 1; i < n - 1; i++) {
      low[i] = numberAt(h, i);
      mid[i] = 2 * (numberAt(h, i - 1) + numberAt(h, i));
      high[i] = numberAt(h, i - 1);
      right[i] = 3 * (numberAt(h, i) * d(i - 1) + numberAt(h, i - 1) * d(i));
    }
    low[n - 1] = end ? 0 : 1;
    mid[n - 1] = end ? 1 : 2;
    right[n - 1] = end ? (end[axis] as number) : 3 * d(n - 2);
    for (let i = 1; i < n; i++) {
      const k = numberAt(low, i) / numberAt(mid, i - 1);
      mid[i] = numberAt(mid, i) - k * numberAt(high, i - 1);
      right[i] = numberAt(right, i) - k * numberAt(right, i - 1);
    }
    const out = new Array<number>(n).fill(0);
    for (let i = n - 1; i >= 0; i--)
      out[i] = (numberAt(right, i) - numberAt(high, i) * (i + 1 < n ? numberAt(out, i + 1) : 0)) / numberAt(mid, i);
    return out;
  }) as [number[], number[]];
  return h.map((length, i) => {
    const [p, q] = [at(i), at(i + 1)];
    const k = length / 3;
    return cubic(
      p[0],
      p[1],
      p[0] + k * numberAt(slopes[0], i),
      p[1] + k * numberAt(slopes[1], i),
      q[0] - k * numberAt(slopes[0], i + 1),
      q[1] - k * numberAt(slopes[1], i + 1),
      q[0],
      q[1],
    );
  });
}
