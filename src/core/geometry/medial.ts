/**
 * The medial axis of a clean region: the centres of the largest discs that fit in it, as a graph. From the Delaunay
 * triangulation of points on the outlines, made to contain every stretch between neighbouring points; its inner dual is
 * the axis, pruned by residual (Ogniewicz & Kübler 1995): a stretch stays when going along the outline from one contact
 * to the other is much longer than going straight, so that the noise of the points and blunt corners leave no branches.
 */
import Delaunator from 'delaunator';
import { floatAt, intAt, numberAt } from './elements';
import type { Path } from './path';
import { pointAt, tangentAt } from './segment';
import { segmentLength } from './segment-measures';

/** Points on the outlines of a region, path after path. Lengths in the unit of the region. */
export type Samples = {
  readonly x: ArrayLike<number>;
  readonly y: ArrayLike<number>;
  /** Unit normal into the region; at a corner the mean of both sides. */
  readonly nx: ArrayLike<number>;
  readonly ny: ArrayLike<number>;
  /** How far the outline turns at the point, in radians, positive to the left (a convex corner of an outline). */
  readonly turn: ArrayLike<number>;
  readonly path: ArrayLike<number>;
  /** Length along its path up to the point. */
  readonly along: ArrayLike<number>;
  readonly next: ArrayLike<number>;
  readonly previous: ArrayLike<number>;
  /** Length of each path. */
  readonly lengths: readonly number[];
};

/**
 * The medial axis of a region as a graph: discs that touch its outlines in at least two places, and which are
 * neighbours.
 */
export type MedialAxis = {
  readonly samples: Samples;
  /** Centres and radii of discs, and of each up to three links. */
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly r: Float64Array;
  readonly links: readonly AxisLink[];
};

/**
 * Two neighbouring discs, and the points of the outline that both touch. `blunt` where it leads into a corner of about a
 * right angle or wider: it tells how far a shape reaches, not where its middle is.
 */
export type AxisLink = {
  readonly a: number;
  readonly b: number;
  readonly p: number;
  readonly q: number;
  readonly blunt: boolean;
};

/** A stretch of the axis stays when the way along the outline exceeds the chord by these shares of the chord and radius. */
const RESIDUAL_OF_CHORD = 0.25;
const RESIDUAL_OF_RADIUS = 0.2;
/** Below these it is blunt. */
const BLUNT_OF_CHORD = 0.5;
const BLUNT_OF_RADIUS = 0.4;
/** Rounds of putting points where the triangulation misses an outline, or where it is coarse for what lies opposite. */
const ROUNDS = 8;
/** Of these, rounds that look for coarse places: what is left coarse after them is so by little. */
const FINER_ROUNDS = 1;
/** Points stand no farther apart than this share of the distance to the other side, and no closer than that of the spacing. */
const SHARE_OF_WIDTH = 0.3;
const FINEST = 1 / 16;
/** Pieces that a stretch between two points is divided into at once, at most. */
const MOST_PIECES = 12;

/** Points as they are collected: plain arrays that grow. */
class Growing {
  readonly x: number[] = [];
  readonly y: number[] = [];
  readonly nx: number[] = [];
  readonly ny: number[] = [];
  readonly turn: number[] = [];
  readonly path: number[] = [];
  readonly along: number[] = [];
  readonly next: number[] = [];
  readonly previous: number[] = [];
  readonly lengths: number[] = [];
  /** Segment and parameter of each point, so that one between two can be put exactly on the curve. */
  private readonly segment: number[] = [];
  private readonly t: number[] = [];

  constructor(
    private readonly paths: readonly Path[],
    spacing: number,
  ) {
    paths.forEach((path, k) => {
      const first = this.x.length;
      let along = 0;
      path.segments.forEach((s, i) => {
        const length = segmentLength(s);
        const n = Math.max(s.kind === 'line' ? 1 : 3, Math.ceil(length / spacing));
        for (let m = 0; m < n; m++) this.push(k, i, m / n, along + (length * m) / n);
        along += length;
      });
      this.lengths.push(along);
      const end = this.x.length;
      for (let i = first; i < end; i++) {
        this.next.push(i + 1 < end ? i + 1 : first);
        this.previous.push(i > first ? i - 1 : end - 1);
      }
    });
  }

  private push(path: number, segment: number, t: number, along: number): void {
    const { segments } = this.paths[path] as Path;
    const s = segments[segment] as Path['segments'][number];
    const p = pointAt(s, t);
    let way = tangentAt(s, t);
    let turn = 0;
    if (t === 0) {
      const before = segments[(segment + segments.length - 1) % segments.length] as typeof s;
      const into = tangentAt(before, 1);
      turn = Math.atan2(into.x * way.y - into.y * way.x, into.x * way.x + into.y * way.y);
      const [x, y] = [into.x + way.x, into.y + way.y];
      const size = Math.hypot(x, y);
      if (size > 1e-6) way = { x: x / size, y: y / size };
    }
    this.x.push(p.x);
    this.y.push(p.y);
    this.nx.push(-way.y);
    this.ny.push(way.x);
    this.turn.push(turn);
    this.path.push(path);
    this.along.push(along);
    this.segment.push(segment);
    this.t.push(t);
  }

  /** Put points between one and the next, so that there are so many equal pieces. */
  divide(i: number, pieces: number): void {
    const j = numberAt(this.next, i);
    const path = numberAt(this.path, i);
    const segment = numberAt(this.segment, i);
    const from = numberAt(this.t, i);
    const to = this.segment[j] === segment && numberAt(this.t, j) > from ? numberAt(this.t, j) : 1;
    const length = numberAt(this.lengths, path);
    const along = numberAt(this.along, i);
    const step = (numberAt(this.along, j) - along + length) % length || length;
    let before = i;
    for (let n = 1; n < pieces; n++) {
      const k = this.x.length;
      this.push(path, segment, from + ((to - from) * n) / pieces, along + (step * n) / pieces);
      this.next.push(j);
      this.previous.push(before);
      this.next[before] = k;
      before = k;
    }
    this.previous[j] = before;
  }
}

/** Coordinates are shifted by this share of the spacing, so that no four points lie on one circle. */
const JITTER = 1e-6;

function coordinatesOf(points: Growing, spacing: number): Float64Array {
  const out = new Float64Array(2 * points.x.length);
  let seed = 1;
  for (let i = 0; i < out.length; i++) {
    seed = (Math.imul(seed, 1103515245) + 12345) & 0x7fffffff;
    out[i] = numberAt(i & 1 ? points.y : points.x, i >> 1) + (seed / 0x7fffffff - 0.5) * JITTER * spacing;
  }
  return out;
}

const nextEdge = (e: number): number => (e % 3 === 2 ? e - 2 : e + 1);

/**
 * The axis of a clean region (outlines counter-clockwise, holes clockwise), with points on its outlines about `spacing`
 * apart, closer where the region is narrow. Null when there is nothing to triangulate.
 */
export function medialAxis(region: readonly Path[], spacing: number): MedialAxis | null {
  const points = new Growing(region, spacing);
  if (points.x.length < 3) return null;
  let triangulation = triangulate(points, spacing);
  for (let round = 0; round < ROUNDS && refine(points, triangulation, spacing, round < FINER_ROUNDS); round++)
    triangulation = triangulate(points, spacing);
  return dualOf(points, triangulation);
}

type Triangulation = { readonly triangles: Uint32Array; readonly halfedges: Int32Array; readonly coords: Float64Array };

function triangulate(points: Growing, spacing: number): Triangulation {
  const coords = coordinatesOf(points, spacing);
  const { triangles, halfedges } = new Delaunator(coords);
  return { triangles, halfedges, coords };
}

/** Put points where neighbours are not joined, and, when `finer`, where they stand far apart for what lies opposite; whether any was. */
function refine(points: Growing, { triangles, halfedges }: Triangulation, spacing: number, finer: boolean): boolean {
  const n = points.x.length;
  const joined = new Uint8Array(n);
  const coarse = new Uint8Array(n).fill(1);
  const finest = spacing * FINEST;
  for (let e = 0; e < triangles.length; e++) {
    const p = triangles[e] as number;
    const q = triangles[nextEdge(e)] as number;
    // Triangles run clockwise in coordinates that look up, so an edge along the outline has the region on its other side.
    const back = points.next[q] === p;
    const i = back ? q : points.next[p] === q ? p : -1;
    if (i < 0) continue;
    joined[i] = 1;
    const inner = back ? e : intAt(halfedges, e);
    if (inner < 0) continue;
    const o = triangles[nextEdge(nextEdge(inner))] as number;
    if (points.next[q] === o || points.next[p] === o || points.next[o] === p || points.next[o] === q) continue;
    const [px, py] = [numberAt(points.x, p), numberAt(points.y, p)];
    const [ex, ey] = [numberAt(points.x, q) - px, numberAt(points.y, q) - py];
    const length = Math.hypot(ex, ey);
    if (length <= finest) continue;
    const height = Math.abs(ex * (numberAt(points.y, o) - py) - ey * (numberAt(points.x, o) - px)) / length;
    const fit = Math.max(finest, SHARE_OF_WIDTH * height);
    if (length > 1.5 * fit) coarse[i] = Math.min(MOST_PIECES, Math.ceil(length / fit));
  }
  let changed = false;
  for (let i = 0; i < n; i++) {
    const pieces = Math.max(finer ? (coarse[i] as number) : 1, joined[i] ? 1 : 2);
    if (pieces === 1) continue;
    points.divide(i, pieces);
    changed = true;
  }
  return changed;
}

function dualOf(points: Growing, { triangles, halfedges, coords }: Triangulation): MedialAxis {
  const count = triangles.length / 3;
  const inside = insideOf(points, triangles, halfedges);
  const x = new Float64Array(count);
  const y = new Float64Array(count);
  const r = new Float64Array(count);
  for (let t = 0; t < count; t++) {
    if (inside[t] !== 1) continue;
    const [i, j, k] = [
      2 * (triangles[3 * t] as number),
      2 * (triangles[3 * t + 1] as number),
      2 * (triangles[3 * t + 2] as number),
    ];
    const [ax, ay] = [floatAt(coords, i), floatAt(coords, i + 1)];
    const [dx, dy] = [floatAt(coords, j) - ax, floatAt(coords, j + 1) - ay];
    const [ex, ey] = [floatAt(coords, k) - ax, floatAt(coords, k + 1) - ay];
    const [d, e, f] = [dx * dx + dy * dy, ex * ex + ey * ey, 0.5 / (dx * ey - dy * ex)];
    const [ux, uy] = [(ey * d - dy * e) * f, (dx * e - ex * d) * f];
    x[t] = ax + ux;
    y[t] = ay + uy;
    r[t] = Math.hypot(ux, uy);
  }
  const links: AxisLink[] = [];
  for (let e = 0; e < triangles.length; e++) {
    const other = intAt(halfedges, e);
    if (other < e) continue;
    const [a, b] = [Math.floor(e / 3), Math.floor(other / 3)];
    if (inside[a] !== 1 || inside[b] !== 1) continue;
    const p = triangles[e] as number;
    const q = triangles[nextEdge(e)] as number;
    if (points.next[p] === q || points.next[q] === p) continue;
    const chord = Math.hypot(
      numberAt(points.x, p) - numberAt(points.x, q),
      numberAt(points.y, p) - numberAt(points.y, q),
    );
    let way = Infinity;
    if (points.path[p] === points.path[q]) {
      const d = Math.abs(numberAt(points.along, p) - numberAt(points.along, q));
      way = Math.min(d, numberAt(points.lengths, numberAt(points.path, p)) - d);
    }
    const residual = way - chord;
    const radius = Math.min(floatAt(r, a), floatAt(r, b));
    if (residual > RESIDUAL_OF_CHORD * chord && residual > RESIDUAL_OF_RADIUS * radius) {
      const blunt = residual <= BLUNT_OF_CHORD * chord || residual <= BLUNT_OF_RADIUS * radius;
      links.push({ a, b, p, q, blunt });
    }
  }
  return { samples: points, x, y, r, links };
}

/** 1 for triangles in the region, -1 for those outside, spread from the outlines. */
function insideOf(points: Growing, triangles: Uint32Array, halfedges: Int32Array): Int8Array {
  const inside = new Int8Array(triangles.length / 3);
  const toVisit: number[] = [];
  const outline = new Uint8Array(triangles.length);
  for (let e = 0; e < triangles.length; e++) {
    const p = triangles[e] as number;
    const q = triangles[nextEdge(e)] as number;
    const forth = points.next[p] === q;
    if (!forth && points.next[q] !== p) continue;
    outline[e] = 1;
    const t = Math.floor(e / 3);
    if (inside[t] !== 0) continue;
    inside[t] = forth ? -1 : 1;
    toVisit.push(t);
  }
  for (let t = toVisit.pop(); t !== undefined; t = toVisit.pop())
    for (let e = 3 * t; e < 3 * t + 3; e++) {
      if (outline[e]) continue;
      const other = intAt(halfedges, e);
      if (other < 0) continue;
      const u = Math.floor(other / 3);
      if (inside[u] !== 0) continue;
      inside[u] = inside[t] as number;
      toVisit.push(u);
    }
  return inside;
}
