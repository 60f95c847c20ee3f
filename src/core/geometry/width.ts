/**
 * True widths of a region, and of the gaps between its parts: at points along the outlines, the largest disc that touches
 * the outline there from inside and another stretch of outline facing it. Its diameter is the local width, what the
 * medial axis gives (twice its radius). The disc is found by shrinking it until it holds no facing outline any more (Ma,
 * Bae and Choi 2012, "3D medial axis point approximation using nearest neighbors and the normal field").
 */
import type Flatbush from 'flatbush';
import { indexChords } from './chord-index';
import { floatAt, numberAt } from './elements';
import type { Path } from './path';
import { type Box, boxesMeet, growBox, type Point } from './point';
import { pointAt, stepsWithin, tangentAt } from './segment';

/** A narrow place: the two points of outline that face each other and the width of the disc between them. */
export type Narrow = {
  /** Outline and distance along it, in mm, of the point asked at. */
  readonly path: number;
  readonly along: number;
  readonly from: Point;
  /** Where the disc touches the other side. */
  readonly to: Point;
  readonly toPath: number;
  readonly toAlong: number;
  readonly width: number;
};

/** Outlines face each other when their inward directions are at least this far apart (cosine). */
const FACING = -0.35;
/** Corners that turn in by more than this (sine) are asked at over their whole fan of directions. */
const CORNER = 0.05;
/** Directions over the fan of a corner are this many degrees apart. */
const FAN_DEG = 3;
const ROUNDS = 12;
/** Points asked at per greatest width, at first and where it turns out narrow. */
const COARSE = 3;
const FINE = 16;

type Spot = {
  readonly path: number;
  readonly along: number;
  readonly x: number;
  readonly y: number;
  readonly nx: number;
  readonly ny: number;
};

/**
 * Places narrower than `most` mm: of the region (`side` inside) or of the gaps in and around it (outside). The paths are
 * a clean region's, counter-clockwise around material. In order along each outline, about `most` / 16 mm apart. Only
 * points within a box are asked at where one is given; the paths must then be all that come near it.
 */
export function narrowPlaces(
  paths: readonly Path[],
  most: number,
  side: 'inside' | 'outside',
  within: Box | null = null,
): Narrow[] {
  if (!(most > 0) || paths.length === 0) return [];
  const near = within && growBox(within, 2 * most);
  const walls = new Walls(paths, side === 'inside' ? 1 : -1, Math.min(0.002, most / 200), near);
  const isAsked = ({ x, y }: Spot) =>
    !within || (x >= within.minX && x <= within.maxX && y >= within.minY && y <= within.maxY);
  const out: Narrow[] = [];
  paths.forEach((path, index) => {
    const coarse = walls.spots(path, index, most / COARSE);
    const narrow = coarse.map((spot) => (isAsked(spot) ? walls.discAt(spot, most) : null));
    // Narrow places are asked at again, finer, with the points beside them.
    coarse.forEach((spot, i) => {
      const n = coarse.length;
      if (![i - 1, i, i + 1].some((k) => narrow[(k + n) % n])) return;
      if (narrow[i]) out.push(narrow[i] as Narrow);
      const next = coarse[(i + 1) % n] as Spot;
      for (const between of walls.between(path, index, { a: spot, b: next, step: most / FINE })) {
        const found = walls.discAt(between, most);
        if (found) out.push(found);
      }
    });
  });
  return out;
}

/** The narrowest place of a region or its gaps, as far as it is narrower than `most`; null when nothing is. */
export function narrowest(places: readonly Narrow[]): Narrow | null {
  return places.reduce<Narrow | null>((best, p) => (best === null || p.width < best.width ? p : best), null);
}

const LENGTH_STEPS = 12;

/** Where each segment of a path ends along it in mm, by chords: what `along` counts in. The last is the whole length. */
export function pathStops(path: Path): number[] {
  let along = 0;
  return path.segments.map((s) => {
    const n = s.kind === 'line' ? 1 : LENGTH_STEPS;
    let from = pointAt(s, 0);
    for (let i = 1; i <= n; i++) {
      const to = pointAt(s, i / n);
      along += Math.hypot(to.x - from.x, to.y - from.y);
      from = to;
    }
    return along;
  });
}

const boxOfChord = (p: Point, q: Point): Box => ({
  minX: Math.min(p.x, q.x),
  minY: Math.min(p.y, q.y),
  maxX: Math.max(p.x, q.x),
  maxY: Math.max(p.y, q.y),
});

type Touch = { readonly x: number; readonly y: number; readonly wall: number; readonly along: number };

/** The outlines as chords with the direction inwards, and as corners; asked for what faces a point. */
class Walls {
  private readonly ax: Float64Array;
  private readonly ay: Float64Array;
  private readonly bx: Float64Array;
  private readonly by: Float64Array;
  private readonly path: number[] = [];
  private readonly along: number[] = [];
  private readonly index: Flatbush;
  private readonly stops: readonly (readonly number[])[];

  constructor(
    paths: readonly Path[],
    private readonly way: 1 | -1,
    toleranceMm: number,
    near: Box | null,
  ) {
    this.stops = paths.map(pathStops);
    const ends: number[] = [];
    paths.forEach((p, k) => {
      p.segments.forEach((s, segment) => {
        const n = stepsWithin(s, toleranceMm);
        const along = this.startOf(k, segment);
        const length = this.endOf(k, segment) - along;
        let from = pointAt(s, 0);
        for (let i = 0; i < n; i++) {
          const to = pointAt(s, (i + 1) / n);
          if (near && !boxesMeet(near, boxOfChord(from, to))) {
            from = to;
            continue;
          }
          ends.push(from.x, from.y, to.x, to.y);
          this.path.push(k);
          this.along.push(along + (length * i) / n);
          from = to;
        }
      });
    });
    const column = (of: number) => Float64Array.from(this.path, (_, i) => numberAt(ends, 4 * i + of));
    const [ax, ay, bx, by] = [column(0), column(1), column(2), column(3)];
    [this.ax, this.ay, this.bx, this.by] = [ax, ay, bx, by];
    this.index = indexChords(ax.length, (i, put) =>
      put(floatAt(ax, i), floatAt(ay, i), floatAt(bx, i), floatAt(by, i)),
    );
  }

  private startOf(path: number, segment: number): number {
    return segment === 0 ? 0 : this.endOf(path, segment - 1);
  }

  private endOf(path: number, segment: number): number {
    return this.stops[path]?.[segment] as number;
  }

  /** Points along a path at most `step` mm apart, with the direction inwards; corners that turn in as fans. */
  spots(path: Path, index: number, step: number): Spot[] {
    const out: Spot[] = [];
    path.segments.forEach((s, i) => {
      const along = this.startOf(index, i);
      const end = this.endOf(index, i);
      const length = end - along;
      const n = Math.max(1, Math.ceil(length / step));
      for (let k = 0; k < n; k++) out.push(this.spot(s, (k + 0.5) / n, index, along + (length * (k + 0.5)) / n));
      const next = path.segments[(i + 1) % path.segments.length] as (typeof path.segments)[number];
      out.push(
        ...this.fan(tangentAt(s, 1), { u: tangentAt(next, 0), at: { x: s.x1, y: s.y1 }, path: index, along: end }),
      );
    });
    return out;
  }

  /** Points between two neighbouring spots of a path, at most `step` mm apart. */
  between(
    path: Path,
    index: number,
    { a, b, step }: { readonly a: Spot; readonly b: Spot; readonly step: number },
  ): Spot[] {
    const out: Spot[] = [];
    const stops = this.stops[index] as readonly number[];
    // The pair that closes the outline runs from the last spot to its end; what follows lies before the first.
    const until = b.along < a.along ? Infinity : b.along;
    for (let i = firstAbove(stops, a.along); i < path.segments.length; i++) {
      const s = path.segments[i] as Path['segments'][number];
      const along = this.startOf(index, i);
      if (along >= until) break;
      const length = numberAt(stops, i) - along;
      const from = Math.max(a.along, along);
      const to = Math.min(until, along + length);
      if (to > from && length > 0) {
        const n = Math.ceil((to - from) / step);
        for (let k = 1; k < n; k++) {
          const at = from + ((to - from) * k) / n;
          out.push(this.spot(s, (at - along) / length, index, at));
        }
      }
    }
    return out;
  }

  private spot(s: Path['segments'][number], t: number, path: number, along: number): Spot {
    const p = pointAt(s, t);
    const d = tangentAt(s, t);
    return { path, along, x: p.x, y: p.y, nx: -d.y * this.way, ny: d.x * this.way };
  }

  private fan(
    t: Point,
    { u, at, path, along }: { readonly u: Point; readonly at: Point; readonly path: number; readonly along: number },
  ): Spot[] {
    const turn = Math.atan2(t.x * u.y - t.y * u.x, t.x * u.x + t.y * u.y);
    // Material sees a corner that turns away from it; seen from the gaps it is the other way round.
    if (turn * this.way > -CORNER) return [];
    const n = Math.ceil(Math.abs(turn) / ((FAN_DEG * Math.PI) / 180));
    return Array.from({ length: n + 1 }, (_, k) => {
      const angle = Math.atan2(t.x * this.way, -t.y * this.way) + (turn * k) / n;
      return { path, along, x: at.x, y: at.y, nx: Math.cos(angle), ny: Math.sin(angle) };
    });
  }

  /** The disc that touches the outline at a spot and what faces it, when it is smaller than `most` across. */
  discAt(spot: Spot, most: number): Narrow | null {
    const { x, y, nx, ny } = spot;
    let radius = most / 2;
    let touch: Touch | null = null;
    const [mx, my] = [x + radius * nx, y + radius * ny];
    // Each disc lies in the one before: what does not reach into that does not reach into it.
    let near = this.index.search(mx - radius, my - radius, mx + radius, my + radius);
    for (let round = 0; round < ROUNDS; round++) {
      const cx = x + radius * nx;
      const cy = y + radius * ny;
      const reach = radius * radius;
      let least = radius * (1 - 1e-7);
      let found: Touch | null = null;
      const within: number[] = [];
      for (const i of near) {
        const ax = floatAt(this.ax, i);
        const ay = floatAt(this.ay, i);
        const dx = floatAt(this.bx, i) - ax;
        const dy = floatAt(this.by, i) - ay;
        const square = dx * dx + dy * dy;
        if (square === 0) continue;
        const u = Math.min(1, Math.max(0, ((cx - ax) * dx + (cy - ay) * dy) / square));
        const qx = ax + u * dx;
        const qy = ay + u * dy;
        const apartSquare = (qx - cx) * (qx - cx) + (qy - cy) * (qy - cy);
        if (apartSquare <= reach) within.push(i);
        if (apartSquare >= least * least) continue;
        const ahead = (qx - x) * nx + (qy - y) * ny;
        if (ahead <= 0) continue;
        // In the middle of a chord its own direction counts; at an end, that of the disc that touches there.
        const l = Math.sqrt(square);
        const apart = (qx - x) ** 2 + (qy - y) ** 2;
        const facing =
          u > 0 && u < 1 ? ((-dy * nx + dx * ny) * this.way) / l : 1 - (2 * ahead * ahead) / Math.max(apart, 1e-18);
        if (facing > FACING) continue;
        least = Math.sqrt(apartSquare);
        found = { x: qx, y: qy, wall: i, along: numberAt(this.along, i) + u * l };
      }
      if (!found) break;
      touch = found;
      near = within;
      const ex = found.x - x;
      const ey = found.y - y;
      radius = (ex * ex + ey * ey) / (2 * (ex * nx + ey * ny));
    }
    if (!touch || !(2 * radius < most)) return null;
    return {
      path: spot.path,
      along: spot.along,
      from: { x, y },
      to: { x: touch.x, y: touch.y },
      toPath: numberAt(this.path, touch.wall),
      toAlong: touch.along,
      width: 2 * radius,
    };
  }
}

/** Index of the first of ascending numbers above a value. */
function firstAbove(ascending: readonly number[], value: number): number {
  let lo = 0;
  let hi = ascending.length;
  while (lo < hi) {
    const mid = (lo + hi) >> 1;
    if (numberAt(ascending, mid) > value) hi = mid;
    else lo = mid + 1;
  }
  return lo;
}
