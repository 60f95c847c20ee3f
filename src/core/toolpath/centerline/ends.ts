/**
 * Free ends: near its end the axis may fork or turn to a corner, so a stroke is cut back to where its edges still run
 * along each other, and taken on straight from there: to the tip of the letter, or short of it by half the stroke.
 */
import type { Samples } from '../../geometry/medial';
import type { Point } from '../../geometry/point';
import { capAt } from './caps';
import type { Stroke, StrokePoint } from './chain';
import { type Ray, rayOf } from './rays';
import { curveBetween } from './ways';

/** Whether lines go to the tip of a stroke, or stop half its width short. */
export type EndStyle = 'tip' | 'short';

/** Edges run along each other when seen from the middle they are at least this far apart, in radians. */
const ALONG = (150 * Math.PI) / 180;
/** A stroke that narrows for longer than this many radii is pointed: its axis is right to the tip. */
const POINTED = 1.8;
/** How far a tip may lie beyond the last sure place, in radii. */
const TIP_WITHIN = 3;

type Hit = { readonly distance: number; readonly sample: number };

/** Where a ray first crosses an outline, and the sample before the crossing. */
function toOutline(s: Samples, from: Point, way: Point): Hit {
  let [distance, sample] = [Infinity, -1];
  for (let i = 0; i < s.x.length; i++) {
    const j = s.next[i] as number;
    const [ax, ay] = [(s.x[i] as number) - from.x, (s.y[i] as number) - from.y];
    const [bx, by] = [(s.x[j] as number) - from.x, (s.y[j] as number) - from.y];
    const [ca, cb] = [way.x * ay - way.y * ax, way.x * by - way.y * bx];
    if (ca > 0 === cb > 0) continue;
    const t = ca / (ca - cb);
    const d = way.x * (ax + t * (bx - ax)) + way.y * (ay + t * (by - ay));
    if (d > 0 && d < distance) [distance, sample] = [d, i];
  }
  return { distance, sample };
}

function trimmed(points: readonly StrokePoint[], samples: Samples, style: EndStyle): StrokePoint[] {
  const n = points.length;
  let k = n - 1;
  let length = 0;
  const isAlong = (i: number) => {
    const p = points[i];
    // Where only one edge tells, it is one that runs along the stroke.
    return p === undefined || p.open >= ALONG || (p.open === 0 && !p.corner);
  };
  while (k > 0 && !(isAlong(k) && isAlong(k - 1) && isAlong(k - 2))) {
    const [p, q] = [points[k] as StrokePoint, points[k - 1] as StrokePoint];
    length += Math.hypot(p.x - q.x, p.y - q.y);
    k--;
  }
  const reliable = k === 0 ? points : points.slice(0, k + 1);
  const end = (x: number, y: number): StrokePoint => ({
    x,
    y,
    r: (reliable[reliable.length - 1] as StrokePoint).r,
    open: 0,
    corner: false,
  });
  const ahead = (list: readonly StrokePoint[]) => {
    const ray = rayOf(list, 1);
    const last = list[list.length - 1] as StrokePoint;
    return { ray, last, ...toOutline(samples, last, { x: ray.dx, y: ray.dy }) };
  };
  let { ray, last, distance, sample } = ahead(reliable);
  const cap = distance < TIP_WITHIN * last.r ? capAt(samples, sample, last.r) : null;
  let kept = reliable;
  if (!cap && length > POINTED * last.r) {
    kept = points;
    ({ ray, last, distance, sample } = ahead(kept));
  }
  if (distance > TIP_WITHIN * last.r) return [...kept];
  if (cap) {
    const back = cap.straight;
    const [sx, sy] = [cap.x - back * cap.dx, cap.y - back * cap.dy];
    let m = kept.length;
    while (m > 1) {
      const p = kept[m - 1] as StrokePoint;
      if ((p.x - sx) * cap.dx + (p.y - sy) * cap.dy < -0.1 * last.r) break;
      m--;
    }
    const smooth = smoothInto(kept, m, { x: sx, y: sy, dx: -cap.dx, dy: -cap.dy, bend: 0, r: last.r });
    const made = [
      ...kept.slice(0, smooth.from),
      ...smooth.way.map((p) => end(p.x, p.y)),
      end(sx, sy),
      end(cap.x, cap.y),
    ];
    return style === 'tip' ? made : cutBack(made, last.r);
  }
  const onwards = style === 'tip' ? distance : distance - last.r;
  return onwards > 0 ? [...kept, end(last.x + onwards * ray.dx, last.y + onwards * ray.dy)] : cutBack(kept, -onwards);
}

/**
 * How far a stroke is right on its way into its cut-off end, and how it goes on from there: near the end its middle may already
 * lean to a corner, so the last point is taken from which it runs smoothly into the end.
 */
function smoothInto(points: readonly StrokePoint[], most: number, into: Ray): { from: number; way: readonly Point[] } {
  for (let m = most; m > FEW; m--) {
    const p = points[m - 1] as StrokePoint;
    const far = Math.hypot(into.x - p.x, into.y - p.y);
    if (far > LEANS_WITHIN * into.r) break;
    if (far < 1e-9) continue;
    let k = m - 2;
    while (k > 0 && Math.hypot((points[k] as StrokePoint).x - p.x, (points[k] as StrokePoint).y - p.y) < 0.4 * into.r)
      k--;
    const q = points[k] as StrokePoint;
    const size = Math.hypot(p.x - q.x, p.y - q.y) || 1;
    const [dx, dy] = [(p.x - q.x) / size, (p.y - q.y) / size];
    const [ux, uy] = [(into.x - p.x) / far, (into.y - p.y) / far];
    if (dx * ux + dy * uy < LEANS || -(into.dx * ux + into.dy * uy) < LEANS) continue;
    return { from: m, way: curveBetween({ x: p.x, y: p.y, dx, dy, bend: 0, r: into.r }, into) };
  }
  return { from: most, way: [] };
}
const FEW = 4;
/** A stroke leans to a corner no farther than this many radii from its end; it runs into it within this. */
const LEANS_WITHIN = 3;
const LEANS = Math.cos((32 * Math.PI) / 180);

/** Points without the last `by` of their length; at least two stay. */
function cutBack(points: readonly StrokePoint[], by: number): StrokePoint[] {
  let remainingMm = by;
  let k = points.length - 1;
  while (k > 1) {
    const [p, q] = [points[k] as StrokePoint, points[k - 1] as StrokePoint];
    const d = Math.hypot(p.x - q.x, p.y - q.y);
    if (d > remainingMm) {
      const at: Point = { x: p.x + ((q.x - p.x) * remainingMm) / d, y: p.y + ((q.y - p.y) * remainingMm) / d };
      return [...points.slice(0, k), { ...p, ...at }];
    }
    remainingMm -= d;
    k--;
  }
  return points.slice(0, k + 1);
}

/** The stroke with its free ends brought to where the stroke of the letter ends. */
export function withEndsMade(stroke: Stroke, samples: Samples, style: EndStyle): Stroke {
  let { points } = stroke;
  if (stroke.closed || points.length < 2) return stroke;
  if (stroke.ends[1] === 'free') points = trimmed(points, samples, style);
  if (stroke.ends[0] === 'free') points = trimmed([...points].reverse(), samples, style).reverse();
  return { ...stroke, points };
}
