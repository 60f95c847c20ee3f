/** Where the pen was half a width inside the edges that it left. */

import { numberAt } from '../../geometry/elements';
import type { Samples } from '../../geometry/medial';
import { distance } from '../../geometry/point';
import type { DepthInside } from './depth-inside';
import type { SampledEdges } from './edges';

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
/** The edge across an end begins at a corner of this much and is no longer than this many radii; it is straight within the third. */
const END_CORNER = (70 * Math.PI) / 180;
const ACROSS = 2.1;
const STRAIGHT = (2 * Math.PI) / 180;
/** It runs on into another edge with a turn inwards of this much, in radians. */
const RUNS_ON = [(-6 * Math.PI) / 180, (-40 * Math.PI) / 180] as const;
const INWARDS = (8 * Math.PI) / 180;
/** An edge tells a direction when it runs along it within this. */
export const ALONG = Math.cos((25 * Math.PI) / 180);

/** A point of an outline, with its direction and whether it is a corner. */
export type EdgePoint = {
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
export type Run = {
  readonly places: readonly EdgePoint[];
  readonly tips: readonly [boolean, boolean];
  readonly closed: boolean;
};

/** The places half a pen inside the outline where the pen fits, edge by edge. */
export function penEdges(edges: SampledEdges, r: number, room: DepthInside): { runs: Run[]; points: PenPoint[] } {
  const s = edges.samples;
  const runs: Run[] = [];
  const points: PenPoint[] = [];
  const put = (places: readonly EdgePoint[], ring: boolean) => {
    const made = turned(places, r, ring);
    runs.push(...made);
    const point = made.length === 0 && !ring ? pointOf(places) : null;
    if (point) points.push(point);
  };
  const seen = new Uint8Array(s.x.length);
  const ends = acrossEnds(s, r);
  const placeAt = (i: number): EdgePoint | null => {
    // Where an edge turns inwards sharply, however little, another stroke may begin.
    if ((s.turn[i] as number) < -INWARDS || ends.has(i) || edges.isFixed(i, r)) return null;
    const { x, y } = edges.inside(i, r);
    if (room({ x, y }) < FITS * r) return null;
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
      return !p || !q || distance(p, q) > APART * r;
    };
    let start = 0;
    while (start < n && !breaks(start)) start++;
    if (start === n) {
      put(places as EdgePoint[], true);
      continue;
    }
    let run: EdgePoint[] = [];
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

/**
 * Samples of edges across a cut-off end that run on into the edge of another stroke at a small angle: one end of such an edge
 * is a corner, the other that place.
 */
function acrossEnds(s: Samples, r: number): Set<number> {
  const out = new Set<number>();
  const apart = (i: number, k: number) =>
    Math.hypot((s.x[k] as number) - (s.x[i] as number), (s.y[k] as number) - (s.y[i] as number));
  for (let corner = 0; corner < s.x.length; corner++) {
    if ((s.turn[corner] as number) < END_CORNER) continue;
    for (const step of [s.next, s.previous]) {
      const edge = [corner, step[corner] as number];
      let last = numberAt(edge, 1);
      while (last !== corner && Math.abs(s.turn[last] as number) < STRAIGHT && apart(corner, last) < ACROSS * r) {
        last = step[last] as number;
        edge.push(last);
      }
      const turn = s.turn[last] as number;
      if (last === corner || apart(corner, last) > ACROSS * r || turn > RUNS_ON[0] || turn < RUNS_ON[1]) continue;
      for (const i of edge) out.add(i);
    }
  }
  return out;
}

/** A stretch of edge whose places are one: how far it turns there, and from where. */
function pointOf(places: readonly EdgePoint[]): PenPoint | null {
  const [first, last] = [places[0] as EdgePoint, places[places.length - 1] as EdgePoint];
  let turn = 0;
  for (let i = 1; i < places.length; i++) {
    const [p, q] = [places[i - 1] as EdgePoint, places[i] as EdgePoint];
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
function turned(all: readonly EdgePoint[], r: number, ring: boolean): Run[] {
  const kept: EdgePoint[] = [];
  all.forEach((p, i) => {
    const last = kept[kept.length - 1];
    if (last && distance(p, last) < SAME * r) {
      // An edge that begins or ends on its way about a place tells no direction there.
      const isEnd = !ring && (kept.length === 1 || i === all.length - 1);
      if (isEnd && last.ux * p.ux + last.uy * p.uy < ALONG) kept[kept.length - 1] = { ...last, corner: true };
      return;
    }
    kept.push(p);
  });
  if (ring && kept.length > 2 && distance(kept[0] as EdgePoint, kept[kept.length - 1] as EdgePoint) < SAME * r)
    kept.pop();
  const n = kept.length;
  if (n < 2) return [];
  const at = (i: number) => kept[((i % n) + n) % n] as EdgePoint;
  const turnAt = (i: number): number => {
    if (!ring && (i <= 0 || i >= n - 1)) return 0;
    const here = at(i);
    const reach = (step: 1 | -1): EdgePoint => {
      let k = i + step;
      while (
        distance(at(k), here) < TURNS_WITHIN * r &&
        (ring ? Math.abs(k - i) < n / 2 : k + step >= 0 && k + step < n)
      )
        k += step;
      return at(k);
    };
    const [p, q] = [reach(-1), reach(1)];
    const [ux, uy, vx, vy] = [here.x - p.x, here.y - p.y, q.x - here.x, q.y - here.y];
    return Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy));
  };
  const turns = kept.map((_, i) => turnAt(i));
  const isMost = (i: number) => {
    const turn = numberAt(turns, i);
    for (const step of [-1, 1])
      for (let k = 1; k < n; k++) {
        const j = i + step * k;
        if (!ring && (j < 0 || j >= n)) break;
        if (distance(at(j), at(i)) > TURNS_WITHIN * r) break;
        const other = numberAt(turns, ((j % n) + n) % n);
        if (other > turn || (other === turn && step < 0)) return false;
      }
    return true;
  };
  const tips = turns.flatMap((t, i) => (t > TIP && isMost(i) ? [i] : []));
  const marked = kept.map((p, i) => {
    const turn = numberAt(turns, i);
    return turn > CORNER && turn <= TIP && isMost(i) ? { ...p, corner: true } : p;
  });
  if (tips.length === 0) return [{ places: marked, tips: [false, false], closed: ring }];
  const out: Run[] = [];
  const cut = (from: number, to: number, tipsThere: [boolean, boolean]) => {
    const places: EdgePoint[] = [];
    for (let i = from; i <= to; i++) places.push({ ...(marked[i % n] as EdgePoint) });
    // At a tip the outline runs across the line.
    const across = (p: EdgePoint, q: EdgePoint): EdgePoint => {
      const d = distance(p, q) || 1;
      return { ...p, ux: (q.x - p.x) / d, uy: (q.y - p.y) / d, corner: false };
    };
    const m = places.length;
    if (m < 2) return;
    if (tipsThere[0]) places[0] = across(places[0] as EdgePoint, places[1] as EdgePoint);
    if (tipsThere[1]) {
      const made = across(places[m - 1] as EdgePoint, places[m - 2] as EdgePoint);
      places[m - 1] = { ...made, ux: -made.ux, uy: -made.uy };
    }
    out.push({ places, tips: tipsThere, closed: false });
  };
  const stops = ring ? [...tips, numberAt(tips, 0) + n] : [0, ...tips, n - 1];
  for (let k = 1; k < stops.length; k++)
    cut(numberAt(stops, k - 1), numberAt(stops, k), [ring || k > 1, ring || k < stops.length - 1]);
  return out;
}
