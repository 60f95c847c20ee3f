/**
 * Jogs taken out of strokes: where what is known of the middle passes from both edges to one, or from one track to the next, a
 * stroke may step aside by a little. No pen does: where it runs on in the same direction past such a step, the points about
 * it are left out, and the fitted curve runs through.
 */
import { numberAt } from '../../geometry/elements';
import { distance } from '../../geometry/point';
import type { StrokePoint } from './chain';

/** A step aside is no longer than this, in halves of the stroke. */
const STEP = 0.7;
/** It turns this far from the way before and after, which are told over this many halves and turn no further, in radians. */
const ASIDE = (24 * Math.PI) / 180;
const TELLING = 1;
const GOES_ON = (40 * Math.PI) / 180;
/** Points this near to it are left out, in halves. */
const ROOM = 0.6;
/** A stretch longer than this is no jog, in halves. */
const MOST = 2;

/** Points of a stroke `half` of whose width is as usual, without the jogs. */
export function withoutJogs(points: readonly StrokePoint[], closed: boolean, half: number): readonly StrokePoint[] {
  const n = points.length;
  if (n < 8) return points;
  const at = (i: number) => points[((i % n) + n) % n] as StrokePoint;
  const isWithin = (i: number) => closed || (i >= 0 && i < n);
  const steps = points.map((p, i) => (closed || i + 1 < n ? distance(p, at(i + 1)) : 0));
  const step = (i: number) => numberAt(steps, ((i % n) + n) % n);
  const ways = points.map((p, i) => (closed || i + 1 < n ? angleOf(p, at(i + 1)) : 0));
  const bends = points.map(
    (_, i) => isWithin(i - 1) && Math.abs(turn(numberAt(ways, (i + n - 1) % n), numberAt(ways, i))) > ASIDE / 4,
  );
  /** The direction from the point a stretch behind, or to the one ahead; null where the stroke ends or turns a corner. */
  const wayFrom = (i: number, way: 1 | -1): number | null => {
    let length = 0;
    let k = i;
    while (length < TELLING * half) {
      if (!isWithin(k + way) || Math.abs(k + way - i) > n / 2 || at(k).corner) return null;
      length += step(way === 1 ? k : k - 1);
      k += way;
    }
    return way === 1 ? angleOf(at(i), at(k)) : angleOf(at(k), at(i));
  };
  const out = new Uint8Array(n);
  for (let i = 0; i < (closed ? n : n - 1); i++) {
    if (!bends[i] || points[i]?.corner) continue;
    const before = wayFrom(i, -1);
    if (before === null) continue;
    // A step may be spread over a few points.
    for (let k = i + 1; isWithin(k) && k <= i + 4; k++) {
      const [p, q] = [at(i), at(k)];
      const d = distance(p, q);
      if (d > STEP * half || p.corner || q.corner || d === 0) break;
      const here = angleOf(p, q);
      if (Math.abs(turn(before, here)) < ASIDE) continue;
      const after = wayFrom(k, 1);
      if (after === null) break;
      if (Math.abs(turn(here, after)) < ASIDE) continue;
      if (Math.abs(turn(before, after)) > GOES_ON) continue;
      leaveOut(i, -1);
      leaveOut(k, 1);
      for (let j = i; j <= k; j++) out[j % n] = 1;
    }
  }
  function leaveOut(from: number, way: 1 | -1): void {
    let length = 0;
    for (let j = from; isWithin(j) && length < ROOM * half && Math.abs(j - from) < n / 4; j += way) {
      out[((j % n) + n) % n] = 1;
      length += step(way === 1 ? j : j - 1);
    }
  }
  keepLong(out, at, closed, MOST * half);
  const kept = points.filter((p, i) => !out[i] || p.corner || (!closed && (i === 0 || i === n - 1)));
  return kept.length > 3 ? kept : points;
}

/** Points in stretches that are longer than `most` stay. */
function keepLong(out: Uint8Array, at: (i: number) => StrokePoint, closed: boolean, most: number): void {
  const n = out.length;
  let start = 0;
  if (closed) while (start < n && out[start]) start++;
  if (start === n) out.fill(0);
  for (let k = 0; k < n; k++) {
    const first = start + k;
    if (!out[first % n]) continue;
    let [last, length] = [first, 0];
    while (last + 1 < start + n && out[(last + 1) % n]) {
      length += distance(at(last), at(last + 1));
      last++;
    }
    if (length > most) for (let j = first; j <= last; j++) out[j % n] = 0;
    k = last - start;
  }
}

const angleOf = (p: StrokePoint, q: StrokePoint): number => Math.atan2(q.y - p.y, q.x - p.x);

const turn = (a: number, b: number): number => b - a - 2 * Math.PI * Math.round((b - a) / (2 * Math.PI));
