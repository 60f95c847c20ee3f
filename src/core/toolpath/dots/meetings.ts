/** Where lines meet: an end of one on another, or two that cross. */
import Flatbush from 'flatbush';
import { numberAt } from '../../geometry/elements';
import type { MeasuredLine } from '../../geometry/measure';
import type { Path } from '../../geometry/path';
import { pointAt, type Segment, subSegment } from '../../geometry/segment';
import { crossingNear, nearestParameter, segmentBox, segmentLength } from '../../geometry/segment-measures';

/** For each line the lengths from its start at which others meet it; an end counts as on a line within `within` mm. */
export function meetingsOf(paths: readonly Path[], measured: readonly MeasuredLine[], within: number): number[][] {
  const out: number[][] = paths.map(() => []);
  const segments = paths.flatMap((path, p) =>
    path.segments.map((s, i) => ({ s, p, i, n: path.segments.length, closed: path.closed })),
  );
  if (segments.length === 0) return out;
  const index = new Flatbush(segments.length);
  for (const { s } of segments) {
    const b = segmentBox(s);
    index.add(b.minX - within, b.minY - within, b.maxX + within, b.maxY + within);
  }
  index.finish();
  const put = (k: number, t: number) => {
    const { s, p, i } = segments[k] as (typeof segments)[number];
    const from = numberAt((measured[p] as MeasuredLine).starts, i);
    (out[p] as number[]).push(from + segmentLength(subSegment(s, 0, t)));
  };
  paths.forEach((path, p) => {
    const [first, last] = [path.segments[0], path.segments[path.segments.length - 1]];
    if (path.closed || !first || !last) return;
    for (const [x, y] of [
      [first.x0, first.y0],
      [last.x1, last.y1],
    ] as const)
      for (const k of index.search(x, y, x, y)) {
        const other = segments[k] as (typeof segments)[number];
        if (other.p === p) continue;
        const t = nearestParameter(other.s, x, y);
        const q = pointAt(other.s, t);
        if (Math.hypot(q.x - x, q.y - y) <= within) put(k, t);
      }
  });
  segments.forEach((a, k) => {
    const b = segmentBox(a.s);
    for (const m of index.search(b.minX, b.minY, b.maxX, b.maxY)) {
      const other = segments[m] as (typeof segments)[number];
      if (m <= k || (other.p === a.p && areNeighbours(a.i, other.i, a.n, a.closed))) continue;
      for (const [t, u] of crossings(a.s, other.s)) {
        put(k, t);
        put(m, u);
      }
    }
  });
  return out;
}

const areNeighbours = (i: number, k: number, n: number, closed: boolean): boolean =>
  Math.abs(i - k) <= 1 || (closed && Math.abs(i - k) === n - 1);

/** Where two segments cross: pieces of both whose chords cross, then Newton. */
function crossings(a: Segment, b: Segment): [number, number][] {
  const [na, nb] = [a.kind === 'line' ? 1 : PIECES, b.kind === 'line' ? 1 : PIECES];
  const out: [number, number][] = [];
  for (let i = 0; i < na; i++) {
    const [p, q] = [pointAt(a, i / na), pointAt(a, (i + 1) / na)];
    for (let k = 0; k < nb; k++) {
      const [r, s] = [pointAt(b, k / nb), pointAt(b, (k + 1) / nb)];
      const det = (q.x - p.x) * (s.y - r.y) - (q.y - p.y) * (s.x - r.x);
      if (det === 0) continue;
      const t = ((r.x - p.x) * (s.y - r.y) - (r.y - p.y) * (s.x - r.x)) / det;
      const u = ((r.x - p.x) * (q.y - p.y) - (r.y - p.y) * (q.x - p.x)) / det;
      if (t < 0 || t > 1 || u < 0 || u > 1) continue;
      const found = crossingNear(a, b, (i + t) / na, (k + u) / nb);
      if (found) out.push([found[0], found[1]]);
    }
  }
  return out;
}
const PIECES = 12;
