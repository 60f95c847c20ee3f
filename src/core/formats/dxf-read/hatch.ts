/** The boundaries of a hatch, in its own plane. */
import type { Path } from '../../geometry/path';
import type { Matrix, Point } from '../../geometry/point';
import { arcAbout, line, reverseSegment, type Segment, transformSegment, withEnds } from '../../geometry/segment';
import { bulged } from './bulge';
import type { Entity } from './entity';
import { splineSegments, splineThrough } from './spline';

const POLYLINE = 2;
const TURN = 2 * Math.PI;
const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** Reads the tags of a hatch one after the other. */
class Cursor {
  at = 0;
  constructor(private readonly e: Entity) {}
  /** The value of the next tag when it has this code. */
  take(code: number): number | null {
    if (this.tagsLeft === 0 || this.e.codeAt(this.at) !== code) return null;
    return this.e.valueAt(this.at++);
  }
  /** Move on to the next tag of a code. */
  find(code: number): number | null {
    const i = this.e.placeOf(code, this.at);
    if (i < 0) return null;
    this.at = i + 1;
    return this.e.valueAt(i);
  }
  pair(code: number): readonly [number, number] | null {
    const x = this.take(code);
    const y = this.take(code + 10);
    return x === null || y === null ? null : [x, y];
  }
  get tagsLeft(): number {
    return this.e.size - this.at;
  }
}

/** The boundary paths of a HATCH entity, closed within `tolerance`, in its own coordinates. */
export function hatchPaths(e: Entity, tolerance: number): Path[] {
  const cursor = new Cursor(e);
  const count = cursor.find(91) ?? 0;
  const paths: Path[] = [];
  for (let i = 0; i < count && cursor.tagsLeft > 0; i++) {
    const flags = cursor.find(92);
    if (flags === null) break;
    const path = flags & POLYLINE ? polylineBoundary(cursor) : edgeBoundary(cursor, tolerance);
    if (path.segments.length > 0) paths.push(path);
  }
  return paths;
}

function polylineBoundary(cursor: Cursor): Path {
  cursor.take(72);
  cursor.take(73);
  const n = cursor.take(93) ?? 0;
  const vertices: { x: number; y: number; bulge: number }[] = [];
  for (let i = 0; i < n && cursor.tagsLeft > 0; i++) {
    const p = cursor.pair(10);
    if (!p) break;
    vertices.push({ x: p[0], y: p[1], bulge: cursor.take(42) ?? 0 });
  }
  return bulged(vertices, true);
}

function edgeBoundary(cursor: Cursor, tolerance: number): Path {
  const n = cursor.take(93) ?? 0;
  const edges: (readonly Segment[])[] = [];
  for (let i = 0; i < n && cursor.tagsLeft > 0; i++) {
    const kind = cursor.take(72);
    if (kind === null) break;
    const edge = edgeOf(kind, cursor, tolerance);
    if (edge.length > 0) edges.push(edge);
  }
  return chained(edges);
}

function edgeOf(kind: number, cursor: Cursor, tolerance: number): readonly Segment[] {
  const p = kind === 4 ? null : cursor.pair(10);
  if (kind === 1) {
    const q = cursor.pair(11);
    return p && q ? [line(p[0], p[1], q[0], q[1])] : [];
  }
  if (kind === 2 || kind === 3) {
    const major = kind === 3 ? cursor.pair(11) : null;
    const size = cursor.take(40) ?? 0;
    const [from, to] = [cursor.take(50) ?? 0, cursor.take(51) ?? 360];
    const forwards = cursor.take(73) !== 0;
    if (!p) return [];
    // Angles of an edge that runs clockwise are counted the other way round.
    const start = radians(forwards ? from : -from);
    const span = radians(to - from);
    const full = Math.abs(Math.abs(span) - TURN) < 1e-9;
    const turn = full ? TURN : ((span % TURN) + TURN) % TURN;
    const arc = arcAbout(0, 0, 1, start, forwards ? turn : -turn);
    const [ax, ay] = major ?? [size, 0];
    const ratio = major ? size : 1;
    const m: Matrix = { a: ax, b: ay, c: -ay * ratio, d: ax * ratio, e: p[0], f: p[1] };
    return transformSegment(arc, m);
  }
  if (kind !== 4) return [];
  const degree = cursor.take(94) ?? 3;
  const isRational = cursor.take(73) === 1;
  cursor.take(74);
  const knotCount = cursor.take(95) ?? 0;
  const pointCount = cursor.take(96) ?? 0;
  const knots: number[] = [];
  for (let i = 0; i < knotCount && cursor.tagsLeft > 0; i++) knots.push(cursor.take(40) ?? 0);
  const points: (readonly [number, number])[] = [];
  const weights: number[] = [];
  for (let i = 0; i < pointCount && cursor.tagsLeft > 0; i++) {
    const point = cursor.pair(10);
    if (point) points.push(point);
    const weight = cursor.take(42);
    if (weight !== null && isRational) weights.push(weight);
  }
  const fitCount = cursor.take(97) ?? 0;
  const through: (readonly [number, number])[] = [];
  for (let i = 0; i < fitCount && cursor.tagsLeft > 0; i++) {
    const point = cursor.pair(11);
    if (!point) break;
    through.push(point);
  }
  cursor.pair(12);
  cursor.pair(13);
  return (
    splineSegments({ degree, knots, points, weights }, tolerance) ??
    (through.length > 1 ? splineThrough(through, null, null) : [])
  );
}

type Edge = readonly Segment[];

const startOf = (edge: Edge): Point => ({ x: (edge[0] as Segment).x0, y: (edge[0] as Segment).y0 });
const endOf = (edge: Edge): Point => ({
  x: (edge[edge.length - 1] as Segment).x1,
  y: (edge[edge.length - 1] as Segment).y1,
});
const apart = (p: Point, q: Point): number => Math.hypot(p.x - q.x, p.y - q.y);
const backwards = (edge: Edge): Edge => edge.map(reverseSegment).reverse();

/** Ends closer than this share of an edge's size are rounding. */
const ROUNDED = 1e-6;

/** Edges of a boundary end to start: each is turned round where that fits better, what is left between them is closed. */
function chained(edges: readonly Edge[]): Path {
  const out: Segment[] = [];
  const goTo = (next: Segment) => {
    const last = out[out.length - 1];
    if (!last) return;
    const gap = apart({ x: last.x1, y: last.y1 }, { x: next.x0, y: next.y0 });
    if (gap === 0) return;
    const size = Math.hypot(last.x1 - last.x0, last.y1 - last.y0);
    if (gap < ROUNDED * (1 + size))
      out[out.length - 1] = withEnds(last, { x: last.x0, y: last.y0 }, { x: next.x0, y: next.y0 });
    else out.push(line(last.x1, last.y1, next.x0, next.y0));
  };
  edges.forEach((edge, i) => {
    const last = out[out.length - 1];
    const next = edges[i + 1];
    let turned = false;
    if (last)
      turned = apart({ x: last.x1, y: last.y1 }, endOf(edge)) < apart({ x: last.x1, y: last.y1 }, startOf(edge));
    else if (next) {
      const toNext = (p: Point) => Math.min(apart(p, startOf(next)), apart(p, endOf(next)));
      turned = toNext(startOf(edge)) < toNext(endOf(edge));
    }
    const ready = turned ? backwards(edge) : edge;
    goTo(ready[0] as Segment);
    out.push(...ready);
  });
  if (out[0] && out.length > 1) goTo(out[0]);
  return { segments: out, closed: true };
}
