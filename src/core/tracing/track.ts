/** An outline of a picture as a curve one can walk along: its points, and how far along it each lies. */
import { floatAt } from '../geometry/elements';
import type { Point } from '../geometry/point';
import type { Ring } from './contours';

/** A closed outline by length along it, in pixels. */
export type Track = {
  readonly count: number;
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** How far along each point lies; `along[count]` is the whole length. */
  readonly along: Float64Array;
};

/** The track of an outline. */
export function trackOf(ring: Ring): Track {
  const count = ring.length / 2;
  const x = new Float64Array(count);
  const y = new Float64Array(count);
  const along = new Float64Array(count + 1);
  for (let i = 0; i < count; i++) {
    x[i] = floatAt(ring, 2 * i);
    y[i] = floatAt(ring, 2 * i + 1);
    if (i > 0)
      along[i] =
        floatAt(along, i - 1) + Math.hypot(floatAt(x, i) - floatAt(x, i - 1), floatAt(y, i) - floatAt(y, i - 1));
  }
  along[count] =
    count === 0
      ? 0
      : floatAt(along, count - 1) +
        Math.hypot(floatAt(x, 0) - floatAt(x, count - 1), floatAt(y, 0) - floatAt(y, count - 1));
  return { count, x, y, along };
}

/** The length of the whole track. */
export const trackLength = ({ along, count }: Track): number => floatAt(along, count);

/** A length along the track brought between 0 and its whole length. */
function wrapped(track: Track, at: number): number {
  const length = trackLength(track);
  const within = at % length;
  return within < 0 ? within + length : within;
}

/** The last point that lies no farther along than `at`, which is between 0 and the whole length. */
function indexAt({ along, count }: Track, at: number): number {
  let [low, high] = [0, count];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (floatAt(along, middle) <= at) low = middle;
    else high = middle;
  }
  return low;
}

/** Where the track is so far along; lengths below 0 and beyond the whole go round. */
export function placeAt(track: Track, at: number): Point {
  const { x, y, along, count } = track;
  const s = wrapped(track, at);
  const i = indexAt(track, s);
  const j = i + 1 === count ? 0 : i + 1;
  const [from, to] = [floatAt(along, i), floatAt(along, i + 1)];
  const t = to > from ? (s - from) / (to - from) : 0;
  return {
    x: floatAt(x, i) + t * (floatAt(x, j) - floatAt(x, i)),
    y: floatAt(y, i) + t * (floatAt(y, j) - floatAt(y, i)),
  };
}

/** The points between two lengths along the track, `from` before `to` (which may lie beyond the whole), ends excluded. */
export function pointsBetween(track: Track, from: number, to: number): Point[] {
  const out: Point[] = [];
  const length = trackLength(track);
  if (!(to > from) || length === 0) return out;
  const turn = Math.floor(from / length);
  let i = indexAt(track, wrapped(track, from)) + 1;
  let base = turn * length;
  for (let guard = 0; guard <= 2 * track.count; guard++) {
    if (i === track.count) {
      i = 0;
      base += length;
    }
    const s = base + floatAt(track.along, i);
    if (s >= to) break;
    if (s > from) out.push({ x: floatAt(track.x, i), y: floatAt(track.y, i) });
    i++;
  }
  return out;
}

/** `n` places at equal lengths along the track. */
export function sampled(
  { x, y, along, count }: Track,
  n: number,
): { readonly x: Float64Array; readonly y: Float64Array } {
  const out = { x: new Float64Array(n), y: new Float64Array(n) };
  const step = floatAt(along, count) / n;
  for (let k = 0, i = 0; k < n; k++) {
    const at = k * step;
    while (i + 1 < count && floatAt(along, i + 1) <= at) i++;
    const j = i + 1 === count ? 0 : i + 1;
    const [from, to] = [floatAt(along, i), floatAt(along, i + 1)];
    const t = to > from ? (at - from) / (to - from) : 0;
    out.x[k] = floatAt(x, i) + t * (floatAt(x, j) - floatAt(x, i));
    out.y[k] = floatAt(y, i) + t * (floatAt(y, j) - floatAt(y, i));
  }
  return out;
}
