/**
 * Booleans on exact curves. Outlines are flattened with every vertex tagged by its source segment and parameter, the
 * polygon clipper decides what stays, and each run of vertices of one segment is given back as the exact piece of that
 * segment, cut at the true crossing. A session keeps the tags over a chain of operations, so that only one rebuild is
 * needed at the end.
 */
import type Flatbush from 'flatbush';
import { indexChords } from '../chord-index';
import { isThread, type Path } from '../path';
import type { Point } from '../point';
import { line, pointAt, type Segment, spanOf, stepsWithin, subSegment, tangentAt, withEnds } from '../segment';
import { crossingNear, nearestParameter } from '../segment-measures';
import { type ClipEngine, type ClipOperation, GRID_PER_MM, type TaggedPolygon, type WindingRule } from './engine';
import { joinRuns } from './join';
import type { LabelledPath } from './labelled';
import { snapTogether } from './snap';
import { tidyLoops } from './tidy';

/** Chords of the flattening stay within this of the curve, in mm, unless the session is told otherwise. */
export const FLATTEN_MM = 0.005;
/** A clipped edge belongs to a source chord when both its ends are within this of it, in mm. */
const ON_CHORD_MM = 3 / GRID_PER_MM;
/** Runs no longer than this are left over from rounding to the grid. */
const SPECK_MM = 2 / GRID_PER_MM;
/** Gaps between two stretches of one curve up to this long are rounding, in mm. */
const ROUNDED_MM = 4 / GRID_PER_MM;
/** Contours thinner than this on average are left over from rounding to the grid. */
const SLIVER_MM = 5 / GRID_PER_MM;

/** Loops at joints up to this many times the tolerance thick come from chords standing in for curves. */
const THIN_CHORDS = 2;

/** What a rebuild came to, for tests and benches. */
export type RebuildFigures = {
  /** Clipped edges that no source chord was found for; drawn as straight lines. */
  lostEdges: number;
  /** Junctions found as true crossings of two segments. */
  crossings: number;
  /** Junctions that had to be put at the clipper's own point. */
  approximated: number;
};

/** A stretch of one source segment, from `a` to `b` in its parameter. `source` -1 is a straight line of its own. */
type Run = { readonly source: number; a: number; b: number; readonly from: number; to: number };

/** Chords cross no farther from where their curves do than by this many tolerances … */
const OFF_BY = 10;
/** … or by those of both, with this much room, over the sine between them, down to this one. */
const ROOM = 1.25;
const SHALLOW = 0.02;

/**
 * A chain of exact booleans: outlines go in as curves, stay tagged polygons from one operation to the next, and come
 * out as curves once.
 */
export class BooleanSession {
  private readonly sources: Segment[] = [];
  private readonly labels: number[] = [];
  /** Sources by a number of their ends, which hardly any others share. */
  private readonly known = new Map<number, number[]>();
  // One entry per flattened vertex; the chord that starts there covers t0..t1 of its source.
  private readonly x: number[] = [];
  private readonly y: number[] = [];
  private readonly source: number[] = [];
  private readonly t0: number[] = [];
  private readonly t1: number[] = [];
  private readonly next: number[] = [];
  private readonly previous: number[] = [];
  private index: Flatbush | null = null;
  readonly figures: RebuildFigures = { lostEdges: 0, crossings: 0, approximated: 0 };

  constructor(
    private readonly engine: ClipEngine,
    private readonly toleranceMm: number = FLATTEN_MM,
    /** Whether edges that nearly coincide are brought together first: for shapes that may lie along each other. */
    private readonly snap = false,
  ) {}

  /** Enter closed paths; the label comes back on every segment that is left of them. */
  add(paths: readonly Path[], label: number): TaggedPolygon[] {
    return this.addLabelled(paths.map((path) => ({ path, labels: path.segments.map(() => label) })));
  }

  /** Enter closed paths with a label for each of their segments. */
  addLabelled(paths: readonly LabelledPath[]): TaggedPolygon[] {
    this.index = null;
    return paths.map(({ path, labels }) => this.addPath(path, labels)).filter((polygon) => polygon.length >= 9);
  }

  clip(
    operation: ClipOperation,
    subject: readonly TaggedPolygon[],
    clip: readonly TaggedPolygon[] = [],
    rule: WindingRule = 'nonzero',
  ): TaggedPolygon[] {
    if (subject.length === 0 && (operation !== 'union' || clip.length === 0)) return [];
    if (!this.snap) return this.engine.clip(operation, subject, clip, rule);
    const snapped = snapTogether([...subject, ...clip]);
    return this.engine.clip(operation, snapped.slice(0, subject.length), snapped.slice(subject.length), rule);
  }

  /** Exact outlines of clipped polygons: outlines counter-clockwise, holes clockwise. */
  rebuild(polygons: readonly TaggedPolygon[]): LabelledPath[] {
    const out: LabelledPath[] = [];
    for (const polygon of polygons) {
      const rebuilt = this.rebuildPolygon(polygon);
      if (rebuilt && !isThread(rebuilt.path, SLIVER_MM)) out.push(rebuilt);
    }
    return out;
  }

  private addPath(path: Path, labels: readonly number[]): TaggedPolygon {
    const first = this.x.length;
    for (let k = 0; k < path.segments.length; k++) {
      const segment = path.segments[k] as Segment;
      const id = this.sourceOf(segment, labels[k] ?? -1);
      const n = stepsWithin(segment, this.toleranceMm);
      for (let i = 0; i < n; i++) {
        const p = i === 0 ? null : pointAt(segment, i / n);
        const x = Math.round((p ? p.x : segment.x0) * GRID_PER_MM) / GRID_PER_MM;
        const y = Math.round((p ? p.y : segment.y0) * GRID_PER_MM) / GRID_PER_MM;
        const last = this.x.length - 1;
        if (last >= first && this.x[last] === x && this.y[last] === y && this.source[last] === id) {
          this.t1[last] = (i + 1) / n;
          continue;
        }
        this.x.push(x);
        this.y.push(y);
        this.source.push(id);
        this.t0.push(i / n);
        this.t1.push((i + 1) / n);
      }
    }
    const end = this.x.length;
    const polygon = new Float64Array((end - first) * 3);
    for (let i = first; i < end; i++) {
      this.next[i] = i + 1 < end ? i + 1 : first;
      this.previous[i] = i > first ? i - 1 : end - 1;
      const at = 3 * (i - first);
      polygon[at] = this.x[i] as number;
      polygon[at + 1] = this.y[i] as number;
      polygon[at + 2] = i + 1;
    }
    return polygon;
  }

  /** The index of a segment among the sources. Where shapes may lie along each other, the same segment is one source. */
  private sourceOf(segment: Segment, label: number): number {
    const id = this.sources.length;
    if (this.snap) {
      const ends = segment.x0 + 3.1 * segment.y0 + 7.3 * segment.x1 + 17.9 * segment.y1;
      const alike = this.known.get(ends);
      const known = alike?.find((i) => isSame(this.sources[i] as Segment, segment));
      if (known !== undefined) return known;
      if (alike) alike.push(id);
      else this.known.set(ends, [id]);
    }
    this.sources.push(segment);
    this.labels.push(label);
    return id;
  }

  /** Length of the control polygon of a source: no less than its own. */
  private sizeOf(source: number): number {
    return spanOf(this.sources[source] as Segment);
  }

  /** How far along chord `e` a point lies, 0 to 1, or -1 when it is not on it. */
  private along(e: number, px: number, py: number): number {
    const j = this.next[e] as number;
    const ax = this.x[e] as number;
    const ay = this.y[e] as number;
    const dx = (this.x[j] as number) - ax;
    const dy = (this.y[j] as number) - ay;
    const l = dx * dx + dy * dy;
    if (l === 0) return -1;
    const u = Math.min(1, Math.max(0, ((px - ax) * dx + (py - ay) * dy) / l));
    const ex = ax + u * dx - px;
    const ey = ay + u * dy - py;
    return ex * ex + ey * ey <= ON_CHORD_MM * ON_CHORD_MM ? u : -1;
  }

  private parameter(e: number, u: number): number {
    const from = this.t0[e] as number;
    return from + u * ((this.t1[e] as number) - from);
  }

  /** The source stretch under a clipped edge: first by the tags of its ends, then by looking around its middle. */
  private locate(
    px: number,
    py: number,
    p: number,
    qx: number,
    qy: number,
    q: number,
  ): readonly [number, number, number] | null {
    if (p >= 0 && q >= 0) {
      if (this.next[p] === q) return [this.source[p] as number, this.t0[p] as number, this.t1[p] as number];
      if (this.next[q] === p) return [this.source[q] as number, this.t1[q] as number, this.t0[q] as number];
    } else if (p >= 0) {
      const ahead = this.along(p, qx, qy);
      if (ahead > 0) return [this.source[p] as number, this.t0[p] as number, this.parameter(p, ahead)];
      const e = this.previous[p] as number;
      const behind = this.along(e, qx, qy);
      if (behind >= 0 && behind < 1) return [this.source[e] as number, this.t1[e] as number, this.parameter(e, behind)];
    } else if (q >= 0) {
      const ahead = this.along(q, px, py);
      if (ahead > 0) return [this.source[q] as number, this.parameter(q, ahead), this.t0[q] as number];
      const e = this.previous[q] as number;
      const behind = this.along(e, px, py);
      if (behind >= 0 && behind < 1) return [this.source[e] as number, this.parameter(e, behind), this.t1[e] as number];
    }
    return this.search(px, py, qx, qy);
  }

  private search(px: number, py: number, qx: number, qy: number): readonly [number, number, number] | null {
    const index = this.indexed();
    const mx = (px + qx) / 2;
    const my = (py + qy) / 2;
    const length = Math.hypot(px - qx, py - qy);
    let best: readonly [number, number, number] | null = null;
    let least = ON_CHORD_MM * 4;
    for (const e of index.search(mx - ON_CHORD_MM, my - ON_CHORD_MM, mx + ON_CHORD_MM, my + ON_CHORD_MM)) {
      const u = this.along(e, px, py);
      if (u < 0) continue;
      const v = this.along(e, qx, qy);
      if (v < 0) continue;
      const j = this.next[e] as number;
      const chord = Math.hypot(
        (this.x[j] as number) - (this.x[e] as number),
        (this.y[j] as number) - (this.y[e] as number),
      );
      const misfit = Math.abs(Math.abs(u - v) * chord - length);
      if (misfit < least) {
        least = misfit;
        best = [this.source[e] as number, this.parameter(e, u), this.parameter(e, v)];
      }
    }
    return best;
  }

  private indexed(): Flatbush {
    if (this.index) return this.index;
    const { x, y, next } = this;
    const index = indexChords(x.length, (i, put) => {
      const j = next[i] as number;
      put(x[i] as number, y[i] as number, x[j] as number, y[j] as number);
    });
    this.index = index;
    return index;
  }

  private rebuildPolygon(v: TaggedPolygon): LabelledPath | null {
    const runs = this.runsOf(v);
    const n = runs.length;
    if (n === 0) return null;
    const joints = runs.map((run, i) => this.junction(run, runs[(i + 1) % n] as Run, v));
    const segments: Segment[] = [];
    const labels: number[] = [];
    runs.forEach((run, i) => {
      const start = joints[(i + n - 1) % n] as Point;
      const end = joints[i] as Point;
      if (Math.hypot(start.x - end.x, start.y - end.y) < 1e-9 && (run.source < 0 || Math.abs(run.b - run.a) < 0.5))
        return;
      if (run.source < 0) {
        segments.push(line(start.x, start.y, end.x, end.y));
        labels.push(-1);
      } else {
        segments.push(withEnds(subSegment(this.sources[run.source] as Segment, run.a, run.b), start, end));
        labels.push(this.labels[run.source] as number);
      }
    });
    if (segments.length === 0) return null;
    const tidied = tidyLoops({ path: { segments, closed: true }, labels }, THIN_CHORDS * this.toleranceMm);
    return joinRuns(tidied);
  }

  private runsOf(v: TaggedPolygon): Run[] {
    const m = v.length / 3;
    const runs: Run[] = [];
    let last: Run | null = null;
    for (let k = 0; k < m && m >= 3; k++) {
      const to = k + 1 < m ? k + 1 : 0;
      const px = v[3 * k] as number;
      const py = v[3 * k + 1] as number;
      const qx = v[3 * to] as number;
      const qy = v[3 * to + 1] as number;
      if (px === qx && py === qy) continue;
      const p = (v[3 * k + 2] as number) - 1;
      const q = (v[3 * to + 2] as number) - 1;
      let source = -1;
      let a = 0;
      let b = 1;
      // Nearly every edge is a chord as it went in.
      if (p >= 0 && this.next[p] === q) {
        source = this.source[p] as number;
        a = this.t0[p] as number;
        b = this.t1[p] as number;
      } else {
        const found = this.locate(px, py, p, qx, qy, q);
        if (found) [source, a, b] = found;
        else this.figures.lostEdges++;
      }
      if (last && this.goesOn(last, source, a, b)) {
        last.b = b;
        last.to = to;
      } else {
        last = { source, a, b, from: k, to };
        runs.push(last);
      }
    }
    // The polygon may begin within a run.
    const [first] = runs;
    if (runs.length > 1 && first && last && this.goesOn(last, first.source, first.a, first.b)) {
      last.b = first.b;
      last.to = first.to;
      runs.shift();
    }
    if (runs.length <= 2) return runs;
    return runs.filter((run) => {
      const dx = (v[3 * run.from] as number) - (v[3 * run.to] as number);
      const dy = (v[3 * run.from + 1] as number) - (v[3 * run.to + 1] as number);
      return Math.hypot(dx, dy) > SPECK_MM || Math.abs(run.b - run.a) > 0.5;
    });
  }

  /** Whether a stretch of a source goes on with another: where it ended, but for what the grid rounds off. */
  private goesOn(p: Run, source: number, a: number, b: number): boolean {
    return (
      p.source >= 0 &&
      p.source === source &&
      (p.b - p.a) * (b - a) >= 0 &&
      (Math.abs(p.b - a) < 1e-6 || Math.abs(p.b - a) * this.sizeOf(source) <= ROUNDED_MM)
    );
  }

  /** How far chords may cross from where their curves do, in mm: the farther, the nearer to each other's direction they run. */
  private offBy(a: Point, b: Point): number {
    const sine = Math.abs(a.x * b.y - a.y * b.x);
    return this.toleranceMm * Math.max(OFF_BY, (2 * ROOM) / Math.max(sine, SHALLOW));
  }

  /** The point where run `p` hands over to run `q`; trims both to it. */
  private junction(p: Run, q: Run, v: TaggedPolygon): Point {
    const made = { x: v[3 * q.from] as number, y: v[3 * q.from + 1] as number };
    if (p.source < 0 || q.source < 0) {
      if (q.source >= 0) return pointAt(this.sources[q.source] as Segment, q.a);
      if (p.source >= 0) return pointAt(this.sources[p.source] as Segment, p.b);
      return made;
    }
    const a = this.sources[p.source] as Segment;
    const b = this.sources[q.source] as Segment;
    const pAtEnd = p.b === 0 || p.b === 1;
    const qAtEnd = q.a === 0 || q.a === 1;
    if (pAtEnd && qAtEnd) return pointAt(b, q.a);
    const crossing = p.source === q.source ? null : crossingNear(a, b, p.b, q.a);
    if (crossing) {
      const [ta, tb] = crossing;
      const at = pointAt(a, ta);
      const keepsDirection = (ta - p.a) * (p.b - p.a) >= 0 && (q.b - tb) * (q.b - q.a) >= 0;
      if (keepsDirection && Math.hypot(at.x - made.x, at.y - made.y) < this.offBy(tangentAt(a, ta), tangentAt(b, tb))) {
        this.figures.crossings++;
        p.b = ta;
        q.a = tb;
        return at;
      }
    }
    this.figures.approximated++;
    if (pAtEnd) {
      const end = pointAt(a, p.b);
      q.a = nearestParameter(b, end.x, end.y, Math.max(0, q.a - 0.05), Math.min(1, q.a + 0.05));
      return end;
    }
    if (qAtEnd) {
      const startOfB = pointAt(b, q.a);
      p.b = nearestParameter(a, startOfB.x, startOfB.y, Math.max(0, p.b - 0.05), Math.min(1, p.b + 0.05));
      return startOfB;
    }
    p.b = nearestParameter(a, made.x, made.y, Math.max(0, p.b - 0.05), Math.min(1, p.b + 0.05));
    q.a = nearestParameter(b, made.x, made.y, Math.max(0, q.a - 0.05), Math.min(1, q.a + 0.05));
    const onA = pointAt(a, p.b);
    const onB = pointAt(b, q.a);
    return { x: (onA.x + onB.x) / 2, y: (onA.y + onB.y) / 2 };
  }
}

/** Whether two segments are the same to the last digit. */
function isSame(a: Segment, b: Segment): boolean {
  if (a.kind !== b.kind || a.x0 !== b.x0 || a.y0 !== b.y0 || a.x1 !== b.x1 || a.y1 !== b.y1) return false;
  if (a.kind === 'arc' && b.kind === 'arc') return a.cx === b.cx && a.cy === b.cy && a.sweep === b.sweep;
  if (a.kind === 'quadratic' && b.kind === 'quadratic') return a.ax === b.ax && a.ay === b.ay;
  if (a.kind === 'cubic' && b.kind === 'cubic') return a.ax === b.ax && a.ay === b.ay && a.bx === b.bx && a.by === b.by;
  return a.kind === 'line';
}
