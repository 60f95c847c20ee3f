/** An outline as points along it, walked either way round, with the place on the path that each of them is. */
import { numberAt } from '../../geometry/elements';
import type { OnPath, Path } from '../../geometry/path';
import type { Point } from '../../geometry/point';
import { pointAt, type Segment } from '../../geometry/segment';
import { segmentLength } from '../../geometry/segment-measures';

/** An outline as points along it. */
export class OutlinePoints {
  readonly x: number[] = [];
  readonly y: number[] = [];
  /** Length along the outline up to each point. */
  readonly s: number[] = [];
  readonly places: OnPath[] = [];
  readonly count: number;
  readonly length: number;

  constructor(
    private readonly path: Path,
    step: number,
  ) {
    let s = 0;
    path.segments.forEach((segment, i) => {
      const length = segmentLength(segment);
      const n = Math.max(1, Math.ceil(length / step));
      for (let k = 0; k < n; k++) {
        const { x, y } = pointAt(segment, k / n);
        this.x.push(x);
        this.y.push(y);
        this.s.push(s + (length * k) / n);
        this.places.push({ segment: i, t: k / n });
      }
      s += length;
    });
    this.count = this.x.length;
    this.length = s;
  }

  at(i: number): number {
    return ((i % this.count) + this.count) % this.count;
  }

  point(i: number): Point {
    const k = this.at(i);
    return { x: numberAt(this.x, k), y: numberAt(this.y, k) };
  }

  /** How far it is from one point on to another that lies `way` of it. */
  between(from: number, to: number, way: 1 | -1): number {
    const d = way * (numberAt(this.s, this.at(to)) - numberAt(this.s, this.at(from)));
    return d < 0 ? d + this.length : d;
  }

  /** The length along the outline a share of the way from a point to its neighbour. */
  lengthAt(i: number, way: 1 | -1, share: number): number {
    const here = numberAt(this.s, this.at(i));
    return here + way * share * this.between(i, i + way, way);
  }

  pointAlong(length: number): Point {
    const { segment, t } = this.placeAt(length);
    return pointAt(this.path.segments[segment] as Segment, t);
  }

  /** Where on the path a length along it is. */
  placeAt(length: number): OnPath {
    const s = ((length % this.length) + this.length) % this.length;
    let [low, high] = [0, this.count - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (numberAt(this.s, middle) <= s) low = middle;
      else high = middle - 1;
    }
    const here = this.places[low] as OnPath;
    const next = this.places[low + 1];
    const to = next && next.segment === here.segment ? next.t : 1;
    const end = low + 1 < this.count ? numberAt(this.s, low + 1) : this.length;
    const size = end - numberAt(this.s, low);
    return { segment: here.segment, t: here.t + (size > 0 ? ((s - numberAt(this.s, low)) / size) * (to - here.t) : 0) };
  }
}

/** How far it is from a point straight on to the nearest of some outlines; infinite where there is none. */
export function freeFrom(outlines: readonly OutlinePoints[], { x, y }: Point, u: Point): number {
  let least = Infinity;
  for (const { x: xs, y: ys, count } of outlines) {
    let [ax, ay] = [numberAt(xs, count - 1) - x, numberAt(ys, count - 1) - y];
    let before = u.x * ay - u.y * ax;
    for (let k = 0; k < count; k++) {
      const bx = numberAt(xs, k) - x;
      const by = numberAt(ys, k) - y;
      const side = u.x * by - u.y * bx;
      if (side > 0 !== before > 0) {
        const ahead0 = u.x * ax + u.y * ay;
        const ahead = ahead0 + ((u.x * bx + u.y * by - ahead0) * before) / (before - side);
        if (ahead > 0 && ahead < least) least = ahead;
      }
      ax = bx;
      ay = by;
      before = side;
    }
  }
  return least;
}
