/**
 * The outlines around stock and voids as chords that know their place on the exact curves: what bridges are looked for
 * in. Lengths in mm.
 */
import type Flatbush from 'flatbush';
import { indexChords } from '../../geometry/chord-index';
import type { Path } from '../../geometry/path';
import type { Point } from '../../geometry/point';
import { pointAt, stepsWithin } from '../../geometry/segment';

/** Where an outline turns by more than this within a short way, it has a corner; in degrees. */
const CORNER_DEG = 40;
/** Rays look so many times as far as corners are wide at first: over most strokes. */
const NEAR = 16;
/** Hits nearer than this to where a ray starts are the start itself. */
const START_MM = 1e-6;

/** Where a ray meets an edge: which chord, how far along that (0 to 1), and how far away in mm. */
export type Hit = { readonly chord: number; readonly along: number; readonly distance: number };

/** The outlines around a void as chords in an index, each knowing its place on its curve. */
export class VoidEdges {
  /** Ends of chord i and where it lies: its outline, its segment and the stretch of it. */
  readonly ax: number[] = [];
  readonly ay: number[] = [];
  readonly bx: number[] = [];
  readonly by: number[] = [];
  readonly outline: number[] = [];
  readonly segment: number[] = [];
  readonly t0: number[] = [];
  readonly t1: number[] = [];
  /** Distance along its outline at which chord i starts. */
  readonly start: number[] = [];
  /** First chord and length of each outline; after the last, where the list ends. */
  readonly firstChord: number[] = [];
  readonly length: number[] = [];
  /** Corners of each outline by their distance along it, ascending; found when first asked for. */
  private readonly corners: (readonly number[] | undefined)[] = [];
  private readonly index: Flatbush;
  /** How far rays look at first. */
  private readonly nearMm: number;

  /**
   * `voidLeft`: whether the void lies to the left of the outlines as they run. What turns within `cornerMm` as far as a
   * corner does counts as one, however round it is.
   */
  constructor(
    readonly paths: readonly Path[],
    readonly voidLeft: boolean,
    toleranceMm: number,
    private readonly cornerMm: number,
  ) {
    paths.forEach((path, k) => {
      this.firstChord.push(this.ax.length);
      let along = 0;
      path.segments.forEach((s, i) => {
        const n = stepsWithin(s, toleranceMm);
        let from = pointAt(s, 0);
        for (let c = 0; c < n; c++) {
          const to = pointAt(s, (c + 1) / n);
          this.ax.push(from.x);
          this.ay.push(from.y);
          this.bx.push(to.x);
          this.by.push(to.y);
          this.outline.push(k);
          this.segment.push(i);
          this.t0.push(c / n);
          this.t1.push((c + 1) / n);
          this.start.push(along);
          along += Math.hypot(to.x - from.x, to.y - from.y);
          from = to;
        }
      });
      this.length.push(along);
    });
    this.firstChord.push(this.ax.length);
    this.nearMm = NEAR * cornerMm;
    this.index = indexChords(this.ax.length, (i, put) => put(this.x0(i), this.y0(i), this.x1(i), this.y1(i)));
  }

  x0(i: number): number {
    return this.ax[i] as number;
  }
  y0(i: number): number {
    return this.ay[i] as number;
  }
  x1(i: number): number {
    return this.bx[i] as number;
  }
  y1(i: number): number {
    return this.by[i] as number;
  }

  private cornersOf(outline: number): readonly number[] {
    let known = this.corners[outline];
    if (!known) {
      known = this.findCorners(outline, this.cornerMm);
      this.corners[outline] = known;
    }
    return known;
  }

  private findCorners(outline: number, withinMm: number): number[] {
    const first = this.firstChord[outline] as number;
    const n = (this.firstChord[outline + 1] as number) - first;
    const whole = this.length[outline] as number;
    const heading: number[] = [];
    for (let i = first; i < first + n; i++) heading.push(Math.atan2(this.y1(i) - this.y0(i), this.x1(i) - this.x0(i)));
    // turn[i] is how far the outline turns where chord i starts.
    const turn = heading.map((h, i) => turnTo(h - (heading[(i + n - 1) % n] as number)));
    const startOf = (i: number) => (this.start[first + (i % n)] as number) + (i >= n ? whole : 0);
    const corners: number[] = [];
    for (let i = 0; i < n; i++) {
      let sum = 0;
      let weighed = 0;
      for (let j = i; j < i + n && startOf(j) - startOf(i) <= withinMm; j++) {
        sum += turn[j % n] as number;
        weighed += (turn[j % n] as number) * (startOf(j) - startOf(i));
      }
      if (Math.abs(sum) < (CORNER_DEG * Math.PI) / 180) continue;
      const at = (startOf(i) + weighed / sum) % whole;
      const last = corners.at(-1);
      if (last === undefined || at < last || at - last > withinMm / 2) corners.push(at);
    }
    return corners.sort((a, b) => a - b);
  }

  /** How far it is along an outline from a place to the next corner ahead, or behind; Infinity without corners. */
  toCorner(outline: number, distance: number, ahead: boolean): number {
    const corners = this.cornersOf(outline);
    const whole = this.length[outline] as number;
    let least = Infinity;
    for (const corner of corners) {
      const way = ahead ? corner - distance : distance - corner;
      least = Math.min(least, ((way % whole) + whole) % whole);
    }
    return least;
  }

  /** How many corners lie on a stretch of an outline, `to` not before `from`. */
  cornersBetween(outline: number, from: number, to: number): number {
    const whole = this.length[outline] as number;
    return this.cornersOf(outline).filter((c) => (((c - from) % whole) + whole) % whole < to - from).length;
  }

  /** The chord after one on its outline, and the one before. */
  next(i: number): number {
    const o = this.outline[i] as number;
    return i + 1 < (this.firstChord[o + 1] as number) ? i + 1 : (this.firstChord[o] as number);
  }

  previous(i: number): number {
    const o = this.outline[i] as number;
    return i > (this.firstChord[o] as number) ? i - 1 : (this.firstChord[o + 1] as number) - 1;
  }

  chordLength(i: number): number {
    return Math.hypot(this.x1(i) - this.x0(i), this.y1(i) - this.y0(i));
  }

  /** The unit direction from a chord into the void. */
  intoVoid(i: number): Point {
    const length = this.chordLength(i) || 1;
    const side = this.voidLeft ? 1 : -1;
    return { x: (-side * (this.y1(i) - this.y0(i))) / length, y: (side * (this.x1(i) - this.x0(i))) / length };
  }

  pointOn(i: number, along: number): Point {
    return {
      x: this.x0(i) + along * (this.x1(i) - this.x0(i)),
      y: this.y0(i) + along * (this.y1(i) - this.y0(i)),
    };
  }

  /** The chord of an outline at a distance along it, and how far along the chord that is, 0 to 1. */
  at(outline: number, distance: number): { readonly chord: number; readonly along: number } {
    const whole = this.length[outline] as number;
    const wanted = ((distance % whole) + whole) % whole;
    let lo = this.firstChord[outline] as number;
    let hi = (this.firstChord[outline + 1] as number) - 1;
    while (lo < hi) {
      const mid = (lo + hi + 1) >> 1;
      if ((this.start[mid] as number) <= wanted) lo = mid;
      else hi = mid - 1;
    }
    const length = this.chordLength(lo) || 1;
    return { chord: lo, along: Math.min(1, (wanted - (this.start[lo] as number)) / length) };
  }

  /** Chords whose bounds meet a box. */
  within(minX: number, minY: number, maxX: number, maxY: number): number[] {
    return this.index.search(minX, minY, maxX, maxY);
  }

  /** The first chord a ray meets, no farther than `most`; `but` is the chord it starts on. Most hits are near. */
  ray(from: Point, way: Point, most: number, but = -1): Hit | null {
    for (let reach = Math.min(most, this.nearMm); ; reach = Math.min(most, 4 * reach)) {
      const hit = this.rayWithin(from, way, reach, but);
      if (hit || reach >= most) return hit;
    }
  }

  private rayWithin(from: Point, way: Point, most: number, but: number): Hit | null {
    const toX = from.x + most * way.x;
    const toY = from.y + most * way.y;
    let best: Hit | null = null;
    for (const i of this.within(
      Math.min(from.x, toX),
      Math.min(from.y, toY),
      Math.max(from.x, toX),
      Math.max(from.y, toY),
    )) {
      if (i === but) continue;
      const dx = this.x1(i) - this.x0(i);
      const dy = this.y1(i) - this.y0(i);
      const cross = way.x * dy - way.y * dx;
      if (cross === 0) continue;
      const ex = this.x0(i) - from.x;
      const ey = this.y0(i) - from.y;
      const along = (ex * way.y - ey * way.x) / cross;
      if (along < 0 || along > 1) continue;
      const distance = (ex * dy - ey * dx) / cross;
      if (distance <= START_MM || distance > most || (best && distance >= best.distance)) continue;
      best = { chord: i, along, distance };
    }
    return best;
  }

  /** The place of some outlines nearest to a point. */
  nearest(p: Point, outlines: Iterable<number>): Hit | null {
    let best: Hit | null = null;
    for (const o of outlines)
      for (let i = this.firstChord[o] as number; i < (this.firstChord[o + 1] as number); i++) {
        const dx = this.x1(i) - this.x0(i);
        const dy = this.y1(i) - this.y0(i);
        const l = dx * dx + dy * dy;
        const along = l === 0 ? 0 : Math.min(1, Math.max(0, ((p.x - this.x0(i)) * dx + (p.y - this.y0(i)) * dy) / l));
        const distance = Math.hypot(this.x0(i) + along * dx - p.x, this.y0(i) + along * dy - p.y);
        if (!best || distance < best.distance) best = { chord: i, along, distance };
      }
    return best;
  }
}

/** An angle brought to −π … π. */
const turnTo = (angle: number): number => angle - 2 * Math.PI * Math.round(angle / (2 * Math.PI));
