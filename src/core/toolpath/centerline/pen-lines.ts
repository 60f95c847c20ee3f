/**
 * Lines that a pen of even width followed, from the edges it left: half its width inside every point of an edge is a point of
 * the line, wherever the edge is seen at all. So each line is known as long as either of its edges is, even where strokes hide
 * in each other or a loop is filled; the two edges of a stroke give the same line twice, and one of them is kept.
 */
import Flatbush from 'flatbush';
import type { Samples } from '../../geometry/medial';
import { type Cap, capAt } from './caps';
import type { Edges } from './edges';
import { rayOf } from './rays';
import type { TrackPoint } from './track';

/** What a line comes to at an end: the end of the pen's way, another line that it leaves, or a place where no edge is seen. */
export type LineEnd = 'tip' | 'on' | 'hidden';

export type PenLine = {
  readonly points: readonly TrackPoint[];
  readonly closed: boolean;
  readonly ends: readonly [LineEnd, LineEnd];
};

/** The pen fits at a place when no outline is nearer than this many radii. */
const FITS = 0.955;
/** Places nearer to each other than this are one; those farther apart are not one edge. In radii. */
const SAME = 0.07;
const APART = 1.3;
/** An edge turns back at a tip, or about a corner, within this many radii; by more than these, in radians. */
const TURNS_WITHIN = 0.16;
const TIP = (172 * Math.PI) / 180;
const CORNER = (35 * Math.PI) / 180;
/** An edge that turns by this much about a place shows it, in radians. */
const LEAST_ARC = (40 * Math.PI) / 180;
/** Two edges give the same line when they lie this close beside each other, and run along each other within this. */
const BESIDE = 0.1;
const ALONG = Math.cos((25 * Math.PI) / 180);
/** How far about a place to look for another edge, in radii. */
const LOOK = 0.45;
/** Edges shorter than this tell nothing, in radii. */
const LEAST = 0.2;
/** What leaves another line and ends after fewer radii than this is its edge bending, no stroke. */
const SLIVER = 0.6;
/** A point this close to a line is on it, in radii. */
const ON = 0.2;
/** A cut-off end is as wide as the pen, within these. */
const CUT_WIDTH = [1.8, 2.2] as const;
/** The edge across a cut-off end: no longer than this, this far ahead of the end and beside it, in radii. */
const CAP_LENGTH = 1.4;
const CAP_AHEAD = [0.5, 1.6] as const;
const CAP_BESIDE = 1.35;
const CAP_ACROSS = Math.cos((45 * Math.PI) / 180);
/** A line that leaves another is followed back until it lies this close to it, in radii. */
const LEAVES = 0.02;

type Place = {
  readonly x: number;
  readonly y: number;
  /** Direction of the outline here. */
  readonly ux: number;
  readonly uy: number;
  readonly corner: boolean;
  /** The line it belongs to; -1 for none yet. */
  line: number;
};

/** Where the pen stood still while its edge turns: it ended there, or turned a corner, and hardly more of it is seen. */
export type PenPoint = {
  readonly x: number;
  readonly y: number;
  /** The middle of the ways it can have come from. */
  readonly dx: number;
  readonly dy: number;
  /** How far the edge turns about it, in radians. */
  readonly turn: number;
  /** It is where a stroke is cut off, so that the way it came is known. */
  readonly cut: boolean;
};

/** Places inside an edge, in order, and whether the edge turns back at its start or end, or goes all the way round. */
type Run = { readonly places: readonly Place[]; readonly tips: readonly [boolean, boolean]; readonly closed: boolean };

const apart = (a: { x: number; y: number }, b: { x: number; y: number }) => Math.hypot(a.x - b.x, a.y - b.y);

/** Tells how near the outline is to a place, up to `most`. */
export function nearOutline(samples: Samples, most: number): (x: number, y: number) => number {
  const n = samples.x.length;
  const index = new Flatbush(n);
  for (let i = 0; i < n; i++) index.add(samples.x[i] as number, samples.y[i] as number);
  index.finish();
  return (x, y) => {
    const [i] = index.neighbors(x, y, 1, most);
    if (i === undefined) return most;
    let least = Infinity;
    for (const [a, b] of [
      [samples.previous[i] as number, i],
      [i, samples.next[i] as number],
    ] as const) {
      const [ax, ay] = [samples.x[a] as number, samples.y[a] as number];
      const [dx, dy] = [(samples.x[b] as number) - ax, (samples.y[b] as number) - ay];
      const size = dx * dx + dy * dy;
      const t = size > 0 ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / size)) : 0;
      least = Math.min(least, Math.hypot(ax + t * dx - x, ay + t * dy - y));
    }
    return least;
  };
}

/** The places half a pen inside the outline where the pen fits, edge by edge. */
function edgesOf(edges: Edges, r: number, near: (x: number, y: number) => number): { runs: Run[]; points: PenPoint[] } {
  const s = edges.samples;
  const runs: Run[] = [];
  const points: PenPoint[] = [];
  const put = (places: readonly Place[], ring: boolean) => {
    const made = turned(places, r, ring);
    runs.push(...made);
    const point = made.length === 0 && !ring ? pointOf(places) : null;
    if (point) points.push(point);
  };
  const seen = new Uint8Array(s.x.length);
  const placeAt = (i: number): Place | null => {
    if (edges.held(i, r)) return null;
    const { x, y } = edges.inside(i, r);
    if (near(x, y) < FITS * r) return null;
    return { x, y, ux: s.ny[i] as number, uy: -(s.nx[i] as number), corner: false, line: -1 };
  };
  for (let first = 0; first < s.x.length; first++) {
    if (seen[first]) continue;
    const ring: number[] = [];
    for (let i = first; !seen[i]; i = s.next[i] as number) {
      seen[i] = 1;
      ring.push(i);
    }
    const places = ring.map(placeAt);
    const n = places.length;
    const breaks = (i: number): boolean => {
      const [p, q] = [places[(i + n - 1) % n], places[i]];
      return !p || !q || apart(p, q) > APART * r;
    };
    let start = 0;
    while (start < n && !breaks(start)) start++;
    if (start === n) {
      put(places as Place[], true);
      continue;
    }
    let run: Place[] = [];
    for (let k = 0; k < n; k++) {
      const i = (start + k) % n;
      const p = places[i];
      if (breaks(i) && run.length > 0) {
        put(run, false);
        run = [];
      }
      if (p) run.push(p);
    }
    if (run.length > 0) put(run, false);
  }
  return { runs, points };
}

/** A stretch of edge whose places are one: how far it turns there, and from where. */
function pointOf(places: readonly Place[]): PenPoint | null {
  const [first, last] = [places[0] as Place, places[places.length - 1] as Place];
  let turn = 0;
  for (let i = 1; i < places.length; i++) {
    const [p, q] = [places[i - 1] as Place, places[i] as Place];
    turn += Math.atan2(p.ux * q.uy - p.uy * q.ux, p.ux * q.ux + p.uy * q.uy);
  }
  if (turn < LEAST_ARC) return null;
  // The inward normal half way: the pen came from there.
  const half = turn / 2;
  const [ux, uy] = [
    first.ux * Math.cos(half) - first.uy * Math.sin(half),
    first.ux * Math.sin(half) + first.uy * Math.cos(half),
  ];
  return { x: (first.x + last.x) / 2, y: (first.y + last.y) / 2, dx: -uy, dy: ux, turn, cut: false };
}

/** An edge cut where it turns back around a tip, its corners marked, places that are one put together. */
function turned(all: readonly Place[], r: number, ring: boolean): Run[] {
  const kept: Place[] = [];
  all.forEach((p, i) => {
    const last = kept[kept.length - 1];
    if (last && apart(p, last) < SAME * r) {
      // An edge that ends on its way about a place tells no direction there.
      if (last.ux * p.ux + last.uy * p.uy < ALONG) kept[kept.length - 1] = { ...last, corner: i === all.length - 1 };
      return;
    }
    kept.push(p);
  });
  if (ring && kept.length > 2 && apart(kept[0] as Place, kept[kept.length - 1] as Place) < SAME * r) kept.pop();
  const n = kept.length;
  if (n < 2) return [];
  const at = (i: number) => kept[((i % n) + n) % n] as Place;
  const turnAt = (i: number): number => {
    if (!ring && (i <= 0 || i >= n - 1)) return 0;
    const here = at(i);
    const reach = (step: 1 | -1): Place => {
      let k = i + step;
      while (apart(at(k), here) < TURNS_WITHIN * r && (ring ? Math.abs(k - i) < n / 2 : k + step >= 0 && k + step < n))
        k += step;
      return at(k);
    };
    const [p, q] = [reach(-1), reach(1)];
    const [ux, uy, vx, vy] = [here.x - p.x, here.y - p.y, q.x - here.x, q.y - here.y];
    return Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy));
  };
  const turns = kept.map((_, i) => turnAt(i));
  const isMost = (i: number) => {
    const turn = turns[i] as number;
    for (const step of [-1, 1])
      for (let k = 1; k < n; k++) {
        const j = i + step * k;
        if (!ring && (j < 0 || j >= n)) break;
        if (apart(at(j), at(i)) > TURNS_WITHIN * r) break;
        const other = turns[((j % n) + n) % n] as number;
        if (other > turn || (other === turn && step < 0)) return false;
      }
    return true;
  };
  const tips = turns.flatMap((t, i) => (t > TIP && isMost(i) ? [i] : []));
  const marked = kept.map((p, i) => {
    const turn = turns[i] as number;
    return turn > CORNER && turn <= TIP && isMost(i) ? { ...p, corner: true } : p;
  });
  if (tips.length === 0) return [{ places: marked, tips: [false, false], closed: ring }];
  const out: Run[] = [];
  const cut = (from: number, to: number, tipsThere: [boolean, boolean]) => {
    const places: Place[] = [];
    for (let i = from; i <= to; i++) places.push({ ...(marked[i % n] as Place) });
    // At a tip the outline runs across the line.
    const across = (p: Place, q: Place): Place => {
      const d = apart(p, q) || 1;
      return { ...p, ux: (q.x - p.x) / d, uy: (q.y - p.y) / d, corner: false };
    };
    const m = places.length;
    if (m < 2) return;
    if (tipsThere[0]) places[0] = across(places[0] as Place, places[1] as Place);
    if (tipsThere[1]) {
      const made = across(places[m - 1] as Place, places[m - 2] as Place);
      places[m - 1] = { ...made, ux: -made.ux, uy: -made.uy };
    }
    out.push({ places, tips: tipsThere, closed: false });
  };
  const stops = ring ? [...tips, (tips[0] as number) + n] : [0, ...tips, n - 1];
  for (let k = 1; k < stops.length; k++)
    cut(stops[k - 1] as number, stops[k] as number, [ring || k > 1, ring || k < stops.length - 1]);
  return out;
}

const lengthOf = (places: readonly { x: number; y: number }[]): number => {
  let length = 0;
  for (let i = 1; i < places.length; i++) length += apart(places[i - 1] as Place, places[i] as Place);
  return length;
};

/** Where a place is among all: its run, and which of its places. */
type Where = { readonly run: number; readonly at: number };

/** A line as it grows: places in order, with the directions it runs in there. */
type Growing = { x: number; y: number; ux: number; uy: number; corner: boolean }[];

class Lines {
  readonly made: PenLine[] = [];
  private readonly index: Flatbush;
  private readonly where: Where[] = [];

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

  private place({ run, at }: Where): Place {
    return (this.runs[run] as Run).places[at] as Place;
  }

  /** Places about a point that lie on a line through it in a direction. */
  private beside(x: number, y: number, ux: number, uy: number): Where[] {
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
    line.forEach(({ x, y, ux, uy }, i) => {
      for (const w of this.beside(x, y, ux, uy)) {
        const p = this.place(w);
        const ahead = (p.x - x) * ux + (p.y - y) * uy;
        // What lies beyond its ends is for another line, or for this one to go on along.
        if ((i === 0 && ahead < 0) || (i === line.length - 1 && ahead > 0)) continue;
        if (p.line < 0) p.line = id;
      }
    });
  }

  /** The longest stretch of an edge that belongs to no line yet. */
  private longestLeft(): { run: number; from: number; to: number } | null {
    let best: { run: number; from: number; to: number } | null = null;
    let most = LEAST * this.r;
    this.runs.forEach(({ places }, run) => {
      for (let from = 0; from < places.length; from++) {
        if ((places[from] as Place).line >= 0) continue;
        let to = from;
        while (to + 1 < places.length && (places[to + 1] as Place).line < 0) to++;
        const length = lengthOf(places.slice(from, to + 1));
        if (length > most) [best, most] = [{ run, from, to }, length];
        from = to;
      }
    });
    return best;
  }

  makeAll(): void {
    for (let left = this.longestLeft(); left; left = this.longestLeft()) this.make(left);
  }

  private make({ run, from, to }: { run: number; from: number; to: number }): void {
    const id = this.made.length;
    const { places, tips, closed } = this.runs[run] as Run;
    const line: Growing = places.slice(from, to + 1).map((p) => ({ ...p }));
    for (let i = from; i <= to; i++) (places[i] as Place).line = id;
    this.claim(line, id);
    if (closed && from === 0 && to === places.length - 1) {
      this.put(line, true, ['on', 'on']);
      return;
    }
    const endAt = (step: 1 | -1): LineEnd => {
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
  private leave(line: Growing, { run, at }: Where, step: 1 | -1): LineEnd {
    const { places } = this.runs[run] as Run;
    const back: Growing = [];
    for (let i = at + step; places[i]; i += step) {
      const p = places[i] as Place;
      const other = this.made[p.line];
      back.push({ ...p, ux: p.ux * step, uy: p.uy * step });
      if (!other || distanceTo(p, other.points) < LEAVES * this.r || lengthOf(back) > 3 * this.r) break;
    }
    line.push(...back);
    return 'on';
  }

  /** Follow other edges from the end of a line on, as long as there are any. */
  private extend(line: Growing, id: number): [LineEnd, boolean] {
    const { r } = this;
    for (let round = 0; round < this.where.length; round++) {
      const e = line[line.length - 1] as Growing[number];
      let best: { on: Growing; end: LineEnd | null; ring: boolean } | null = null;
      let most = SAME * r;
      for (const w of this.beside(e.x, e.y, e.ux, e.uy)) {
        const { places, tips, closed } = this.runs[w.run] as Run;
        const from = places[w.at] as Place;
        const step = from.ux * e.ux + from.uy * e.uy > 0 ? 1 : -1;
        const on: Growing = [];
        let end: LineEnd | null = null;
        let ring = false;
        for (let k = 0; k < places.length; k++) {
          const i = w.at + step * k;
          const p = closed ? (places[(i + places.length) % places.length] as Place) : places[i];
          if (!p) {
            if (tips[step === 1 ? 1 : 0]) end = 'tip';
            break;
          }
          const ahead = (p.x - e.x) * e.ux + (p.y - e.y) * e.uy;
          if (on.length === 0 && ahead < SAME * r) continue;
          const first = line[0] as Growing[number];
          if (p.line === id && apart(p, first) < LOOK * r && lengthOf(line) + lengthOf(on) > 2 * r) {
            ring = p.ux * step * first.ux + p.uy * step * first.uy > ALONG;
            break;
          }
          if (p.line >= 0) {
            if (p.line !== id) {
              on.push({ ...p, ux: p.ux * step, uy: p.uy * step });
              end = 'on';
            }
            break;
          }
          on.push({ ...p, ux: p.ux * step, uy: p.uy * step });
        }
        const length = on.length === 0 ? (ring ? 2 * SAME * r : 0) : apart(e, on[0] as Place) + lengthOf(on);
        if (length > most) [best, most] = [{ on, end, ring }, length];
      }
      if (!best) return ['hidden', false];
      line.push(...best.on);
      this.claim(best.on, id);
      if (best.ring) return ['on', true];
      if (best.end) return [best.end, false];
    }
    return ['hidden', false];
  }

  private put(line: Growing, closed: boolean, ends: readonly [LineEnd, LineEnd]): void {
    const { r } = this;
    this.made.push({ points: line.map(({ x, y, corner }) => ({ x, y, r, open: Math.PI, corner })), closed, ends });
  }
}

const flip = (line: Growing): void => {
  line.reverse();
  for (const p of line) [p.ux, p.uy] = [-p.ux, -p.uy];
};

export function distanceTo(p: { x: number; y: number }, points: readonly { x: number; y: number }[]): number {
  let least = Infinity;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1] as TrackPoint, points[i] as TrackPoint];
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const size = dx * dx + dy * dy;
    const t = size > 0 ? Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / size)) : 0;
    least = Math.min(least, Math.hypot(a.x + t * dx - p.x, a.y + t * dy - p.y));
  }
  return least;
}

/** The lines of a pen of half-width `r`, as far as its edges show them, and points that it came to besides. */
export function penLines(
  edges: Edges,
  r: number,
  near: (x: number, y: number) => number,
): { lines: readonly PenLine[]; points: readonly PenPoint[] } {
  const { runs, points } = edgesOf(edges, r, near);
  const lines = new Lines(runs, r);
  lines.makeAll();
  const caps = capsOf(edges.samples, r);
  const made = lines.made.filter(
    (line) => !isSliver(line, r) && !isAcross(line, caps, edges.samples, r) && !isCap(line, lines.made, r),
  );
  const cuts = caps.map((c): PenPoint => {
    const back = Math.min(c.straight, r);
    return { x: c.x - back * c.dx, y: c.y - back * c.dy, dx: -c.dx, dy: -c.dy, turn: Math.PI, cut: true };
  });
  const isNew = (p: PenPoint, i: number, before: readonly PenPoint[]) =>
    [...cuts, ...before.slice(0, i)].every((q) => apart(p, q) > ON * r) &&
    made.every((l) => distanceTo(p, l.points) > ON * r);
  return { lines: made, points: [...cuts, ...points.filter(isNew)] };
}

/** The ends that are cut off as wide as the pen. */
function capsOf(s: Samples, r: number): Cap[] {
  const caps = new Map<string, Cap>();
  for (let i = 0; i < s.x.length; i++) {
    if ((s.turn[i] as number) < CORNER) continue;
    const cap = capAt(s, i, r);
    if (cap && cap.width > CUT_WIDTH[0] * r && cap.width < CUT_WIDTH[1] * r) caps.set(cap.corners.join(), cap);
  }
  return [...caps.values()];
}

/** Whether a line comes from the edge across one of these ends. */
const isAcross = ({ points, ends }: PenLine, caps: readonly Cap[], s: Samples, r: number): boolean =>
  !ends.includes('tip') &&
  caps.some(({ x, y, dx, dy, corners: [a, b] }) => {
    const [wx, wy] = [(s.x[b] as number) - (s.x[a] as number), (s.y[b] as number) - (s.y[a] as number)];
    const size = Math.hypot(wx, wy);
    // Places half a pen inside that edge.
    return points.every((p) => {
      const [px, py] = [p.x - x, p.y - y];
      const across = Math.abs(px * wy - py * wx) / size;
      return px * dx + py * dy < 0 && Math.abs(across - r) < 0.1 * r && Math.abs(px * wx + py * wy) / size < size / 2;
    });
  });

const isSliver = ({ points, ends }: PenLine, r: number): boolean =>
  ends.includes('on') && ends.includes('hidden') && lengthOf(points) < SLIVER * r;

/** Whether a line comes from the edge across the end of another: its edge lies ahead of that end, within its width. */
function isCap(line: PenLine, all: readonly PenLine[], r: number): boolean {
  const { points, ends, closed } = line;
  if (closed || ends.includes('tip') || lengthOf(points) > CAP_LENGTH * r) return false;
  const first = points[0] as TrackPoint;
  const last = points[points.length - 1] as TrackPoint;
  const size = apart(first, last) || 1;
  const [ux, uy] = [(last.x - first.x) / size, (last.y - first.y) / size];
  return all.some((other) => {
    if (other === line || other.closed || lengthOf(other.points) < lengthOf(points)) return false;
    return ([0, 1] as const).some((end) => {
      if (other.ends[end] !== 'hidden') return false;
      const ray = rayOf(other.points, end);
      if (Math.abs(ux * ray.dx + uy * ray.dy) > CAP_ACROSS) return false;
      // Its edge lies half a pen ahead of it as seen from the end.
      const side = Math.sign(-uy * ray.dx + ux * ray.dy);
      return [first, last].every((p) => {
        const [x, y] = [p.x - side * r * uy - ray.x, p.y + side * r * ux - ray.y];
        const along = x * ray.dx + y * ray.dy;
        return along > CAP_AHEAD[0] * r && along < CAP_AHEAD[1] * r && Math.abs(x * ray.dy - y * ray.dx) < CAP_BESIDE * r;
      });
    });
  });
}
