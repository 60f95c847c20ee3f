/**
 * Lines that a pen of even width followed, from the edges it left: half its width inside every point of an edge is a point of
 * the line, wherever the edge is seen at all. So each line is known as long as either of its edges is, even where strokes hide
 * in each other or a loop is filled; the two edges of a stroke give the same line twice, and one of them is kept.
 */
import Flatbush from 'flatbush';
import { type Box, boxesMeet, distance, growBox } from '../../geometry/point';
import type { DepthInside } from './depth-inside';
import type { SampledEdges } from './edges';
import { capsOf, isAcross, isCap, isRetraced, isSliver } from './pen-caps';
import { ALONG, type EdgePoint, type PenPoint, penEdges, type Run } from './pen-edges';
import type { PenLine, PenLineEnd } from './pen-line';
import { distanceTo, polylineLength, type TrackPoint } from './track';

/** Two edges give the same line when they lie this close beside each other. */
const BESIDE = 0.1;
/** How far about a place to look for another edge, in radii. */
const LOOK = 0.45;
/** Edges shorter than this tell nothing, in radii. */
const LEAST = 0.2;
/** A point this close to a line is on it, in radii. */
const ON = 0.2;
/** A line that leaves another is followed back until it lies this close to it, in radii. */
const LEAVES = 0.02;
/** A bend that is not known counts as this much, in radians; every radius that an edge leads on, up to so many, makes up for this. */
const UNKNOWN = (15 * Math.PI) / 180;
const PER_RADIUS = (1.5 * Math.PI) / 180;
const FAR = 8;
/** A line goes on along another edge when that leads on by more than this, in radii. */
const ON_BY = 0.07;

/** Where a place is among all: its run, and which of its places. */
type Where = { readonly run: number; readonly at: number };

/** A stretch of a run, by its first and last place. */
type Stretch = { readonly run: number; readonly from: number; readonly to: number; readonly length: number };

/** A line as it grows: places in order, with the directions it runs in there. */
type Growing = { x: number; y: number; ux: number; uy: number; corner: boolean }[];

/** How a line goes on: over which places, what it comes to there (null: nothing yet), and whether it is closed by that. */
type WayOn = { readonly places: Growing; readonly end: PenLineEnd | null; readonly isRing: boolean };

class Lines {
  readonly made: PenLine[] = [];
  private readonly index: Flatbush;
  private readonly where: Where[] = [];
  /** The longest stretch of each run that belongs to no line yet; undefined where that has changed. */
  private readonly untaken: (Stretch | null | undefined)[] = [];

  constructor(
    private readonly runs: readonly Run[],
    private readonly r: number,
  ) {
    runs.forEach((run, k) => {
      for (let i = 0; i < run.places.length; i++) this.where.push({ run: k, at: i });
    });
    this.index = new Flatbush(Math.max(1, this.where.length));
    if (this.where.length === 0) this.index.add(0, 0);
    for (const w of this.where) {
      const p = this.place(w);
      this.index.add(p.x, p.y);
    }
    this.index.finish();
  }

  private place({ run, at }: Where): EdgePoint {
    return (this.runs[run] as Run).places[at] as EdgePoint;
  }

  /** Places about a point of a line that lie on the line through it in its direction. */
  private beside({ x, y, ux, uy }: Growing[number]): Where[] {
    const reach = LOOK * this.r;
    return this.index.search(x - reach, y - reach, x + reach, y + reach).flatMap((i) => {
      const w = this.where[i];
      if (!w) return [];
      const p = this.place(w);
      const [dx, dy] = [p.x - x, p.y - y];
      return Math.abs(ux * dy - uy * dx) < BESIDE * this.r &&
        Math.abs(ux * dx + uy * dy) < reach &&
        (p.corner || Math.abs(ux * p.ux + uy * p.uy) > ALONG)
        ? [w]
        : [];
    });
  }

  private claim(line: Growing, id: number): void {
    line.forEach((point, i) => {
      for (const w of this.beside(point)) {
        const p = this.place(w);
        const ahead = (p.x - point.x) * point.ux + (p.y - point.y) * point.uy;
        // What lies beyond its ends is for another line, or for this one to go on along.
        if ((i === 0 && ahead < 0) || (i === line.length - 1 && ahead > 0)) continue;
        if (p.line >= 0) continue;
        p.line = id;
        this.untaken[w.run] = undefined;
      }
    });
  }

  /** The longest stretch of an edge that belongs to no line yet. */
  private longestLeft(): Stretch | null {
    let best: Stretch | null = null;
    this.runs.forEach((_, run) => {
      const mine = this.untaken[run] === undefined ? this.longestOf(run) : (this.untaken[run] as Stretch | null);
      this.untaken[run] = mine;
      if (mine && mine.length > (best?.length ?? LEAST * this.r)) best = mine;
    });
    return best;
  }

  private longestOf(run: number): Stretch | null {
    const { places } = this.runs[run] as Run;
    let best: Stretch | null = null;
    for (let from = 0; from < places.length; from++) {
      if ((places[from] as EdgePoint).line >= 0) continue;
      let to = from;
      while (to + 1 < places.length && (places[to + 1] as EdgePoint).line < 0) to++;
      const length = polylineLength(places.slice(from, to + 1));
      if (length > (best?.length ?? 0)) best = { run, from, to, length };
      from = to;
    }
    return best;
  }

  makeAll(): void {
    for (let stretch = this.longestLeft(); stretch; stretch = this.longestLeft()) this.make(stretch);
  }

  private make({ run, from, to }: Stretch): void {
    const id = this.made.length;
    const { places, tips, closed } = this.runs[run] as Run;
    const line: Growing = places.slice(from, to + 1).map((p) => ({ ...p }));
    for (let i = from; i <= to; i++) (places[i] as EdgePoint).line = id;
    this.untaken[run] = undefined;
    this.claim(line, id);
    if (closed && from === 0 && to === places.length - 1) {
      this.put(line, true, ['on', 'on']);
      return;
    }
    const endAt = (step: 1 | -1): PenLineEnd => {
      const last = step === 1 ? to : from;
      const next = places[last + step];
      if (!next && !closed) return tips[step === 1 ? 1 : 0] ? 'tip' : 'hidden';
      return next ? this.leave(line, { run, at: last }, step) : 'hidden';
    };
    let end = endAt(1);
    let ring = false;
    if (end === 'hidden') [end, ring] = this.extend(line, id);
    if (ring) {
      this.put(line, true, ['on', 'on']);
      return;
    }
    flip(line);
    let start = endAt(-1);
    if (start === 'hidden') [start, ring] = this.extend(line, id);
    flip(line);
    this.put(line, ring, [start, end]);
  }

  /** The end of a line that leaves another is followed along its edge, in the direction `step`, to where it lies on that one. */
  private leave(line: Growing, { run, at }: Where, step: 1 | -1): PenLineEnd {
    const { places } = this.runs[run] as Run;
    const back: Growing = [];
    for (let i = at + step; places[i]; i += step) {
      const p = places[i] as EdgePoint;
      const other = this.made[p.line];
      back.push({ ...p, ux: p.ux * step, uy: p.uy * step });
      if (!other || distanceTo(p, other.points) < LEAVES * this.r || polylineLength(back) > 3 * this.r) break;
    }
    line.push(...back);
    return 'on';
  }

  /** Follows other edges from the end of a line on, as long as there are any; what it comes to, and whether it is a ring. */
  private extend(line: Growing, id: number): [PenLineEnd, boolean] {
    for (let round = 0; round < this.where.length; round++) {
      const best = this.bestWayOn(line, id);
      if (!best) return ['hidden', false];
      line.push(...best.places);
      this.claim(best.places, id);
      if (best.isRing) return ['on', true];
      if (best.end) return [best.end, false];
    }
    return ['hidden', false];
  }

  /**
   * The cheapest way on from the end of a line along the edges beside it; null where none leads on. Where two strokes cross,
   * edges of both do: then it is the one that goes on straightest.
   */
  private bestWayOn(line: Growing, id: number): WayOn | null {
    const { r } = this;
    const last = line[line.length - 1] as Growing[number];
    let best: WayOn | null = null;
    let least = Infinity;
    for (const where of this.beside(last)) {
      const way = this.wayOn(line, id, where);
      const [first] = way.places;
      const ringMm = way.isRing ? 2 * ON_BY * r : 0;
      const length = first ? distance(last, first) + polylineLength(way.places) : ringMm;
      if (length <= ON_BY * r) continue;
      const edge = (this.runs[where.run] as Run).places[where.at] as EdgePoint;
      const bend = edge.corner ? UNKNOWN : Math.acos(Math.min(1, Math.abs(edge.ux * last.ux + edge.uy * last.uy)));
      const aside = Math.abs((edge.x - last.x) * last.uy - (edge.y - last.y) * last.ux) / r;
      const cost = bend + aside - PER_RADIUS * Math.min(length / r, FAR);
      if (cost < least) [best, least] = [way, cost];
    }
    return best;
  }

  /** Where an edge beside the end of a line leads: to its own end, to another line, or back to where this one begins. */
  private wayOn(line: Growing, id: number, { run, at }: Where): WayOn {
    const { r } = this;
    const { places, tips, closed } = this.runs[run] as Run;
    const [begin, last] = [line[0] as Growing[number], line[line.length - 1] as Growing[number]];
    const edge = places[at] as EdgePoint;
    const step = edge.ux * last.ux + edge.uy * last.uy > 0 ? 1 : -1;
    const on: Growing = [];
    for (let k = 0; k < places.length; k++) {
      const i = at + step * k;
      const p = closed ? (places[(i + places.length) % places.length] as EdgePoint) : places[i];
      if (!p) return { places: on, end: tips[step === 1 ? 1 : 0] ? 'tip' : null, isRing: false };
      const place = { ...p, ux: p.ux * step, uy: p.uy * step };
      const ahead = (p.x - last.x) * last.ux + (p.y - last.y) * last.uy;
      if (on.length === 0 && ahead < ON_BY * r) continue;
      const isBack =
        p.line === id && distance(p, begin) < LOOK * r && polylineLength(line) + polylineLength(on) > 2 * r;
      if (isBack) return { places: on, end: null, isRing: place.ux * begin.ux + place.uy * begin.uy > ALONG };
      if (p.line === id) return { places: on, end: null, isRing: false };
      if (p.line >= 0) return { places: [...on, place], end: 'on', isRing: false };
      on.push(place);
    }
    return { places: on, end: null, isRing: false };
  }

  private put(line: Growing, closed: boolean, ends: readonly [PenLineEnd, PenLineEnd]): void {
    const { r } = this;
    this.made.push({ points: line.map(({ x, y, corner }) => ({ x, y, r, open: Math.PI, corner })), closed, ends });
  }
}

const flip = (line: Growing): void => {
  line.reverse();
  for (const p of line) [p.ux, p.uy] = [-p.ux, -p.uy];
};

const boxOfPoints = (points: readonly TrackPoint[]): Box =>
  points.reduce(
    (b, { x, y }) => ({
      minX: Math.min(b.minX, x),
      minY: Math.min(b.minY, y),
      maxX: Math.max(b.maxX, x),
      maxY: Math.max(b.maxY, y),
    }),
    { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity },
  );

/** The lines of a pen of half-width `r`, as far as its edges show them, and points that it came to besides. */
export function penLines(
  edges: SampledEdges,
  r: number,
  room: DepthInside,
): { lines: readonly PenLine[]; points: readonly PenPoint[] } {
  const { runs, points } = penEdges(edges, r, room);
  const lines = new Lines(runs, r);
  lines.makeAll();
  const caps = capsOf(edges.samples, r, room);
  const made = lines.made
    .filter((line) => !isSliver(line, r) && !isAcross(line, caps, edges.samples, r) && !isCap(line, lines.made, r))
    .map((line) => ({ line, box: boxOfPoints(line.points) }))
    .filter(({ line, box }, i, all) => {
      const about = all.slice(0, i).filter((o) => boxesMeet(o.box, growBox(box, r)));
      return !isRetraced(
        line,
        about.map((o) => o.line),
        r,
      );
    })
    .map(({ line }) => line);
  const cuts = caps.map((c): PenPoint => {
    const back = Math.min(c.straight, r);
    return { x: c.x - back * c.dx, y: c.y - back * c.dy, dx: -c.dx, dy: -c.dy, turn: Math.PI, cut: true };
  });
  const isNew = (p: PenPoint, i: number, before: readonly PenPoint[]) =>
    [...cuts, ...before.slice(0, i)].every((q) => distance(p, q) > ON * r) &&
    made.every((l) => distanceTo(p, l.points) > ON * r);
  return { lines: made, points: [...cuts, ...points.filter(isNew)] };
}
