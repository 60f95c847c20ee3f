/**
 * Bridges put in without any boolean: both outlines are cut exactly where the sides of the bridge meet them, what lies
 * between the cuts is dropped, and the ends are joined along the sides. Everything else stays as it is, segment by segment.
 */
import type { LabelledPath } from '../../geometry/boolean/labelled';
import { numberAt } from '../../geometry/elements';
import { closedPath, stretchesBetween } from '../../geometry/path';
import type { Point } from '../../geometry/point';
import { arcBetween, line, pointAt, type Segment, subSegment, tangentAt } from '../../geometry/segment';
import type { VoidEdges } from './edges';
import type { Landing, Span } from './span';

/** What the sides of a bridge are like, and how they meet the edges. */
export type Sides = {
  readonly shape: 'straight' | 'waisted';
  readonly joints: 'square' | 'filleted';
};

/** A span to be put in; its sides take the label of a source and swing in by so many mm. */
export type Inlay = { readonly span: Span; readonly label: number; readonly flare: number };

/** Fillets have this radius in bridge widths; one that does not fit is halved down to a part of it. */
const FILLET = 0.3;
const FILLET_HALVINGS = 3;
/** The edge is followed for so many radii, in steps of a part of one. */
const FARTHEST = 1.5;
const STEP = 0.4;
/** How far the sides of a waisted bridge swing out at its ends: a share of its width, but no more than of its length. */
const WAIST = 0.22;
const WAIST_OF_LENGTH = 0.3;
/** Pieces of a segment shorter than this are dropped with what is cut out. */
const SLIVER_MM = 1e-5;
/** A side ends in the node of an outline that it would pass closer than this. */
const SNAPPED_MM = 0.01;

/** How much wider than its waist a bridge of a width and a length is at its ends, on each side, in mm. */
export const flareOf = (sides: Sides, width: number, length: number): number =>
  sides.shape === 'waisted' ? Math.min(WAIST * width, WAIST_OF_LENGTH * length) : 0;

/** How much of the edges beside it a bridge may take for its fillets, in shares of its width. */
export const besideOf = (sides: Sides): number =>
  sides.shape === 'straight' && sides.joints === 'filleted' ? FARTHEST * FILLET : 0;

/** A place on an outline: segment and parameter. */
type Cut = { readonly segment: number; readonly t: number; readonly at: Point };
type End = { readonly outline: number; readonly first: Cut; readonly last: Cut };
/** Segments that lead from a first cut to a last cut: across, along the side of a bridge. */
type Joined = { readonly segments: readonly Segment[]; readonly label: number };

/** The outlines that spans start or end on, with all spans put in. Spans must not overlap. */
export function rewire(
  paths: readonly LabelledPath[],
  edges: VoidEdges,
  inlays: readonly Inlay[],
  sides: Sides,
): LabelledPath[] {
  const ends: End[] = [];
  const acrossFrom: Joined[] = [];
  // Ends 2k and 2k + 1 are those of bridge k: from the first cut of one to the last cut of the other.
  for (const { span, label, flare } of inlays) {
    const a = endOf(edges, span, span.from);
    const b = endOf(edges, span, span.to);
    const over = sideBetween(edges, span, { a, b, sides, sag: flare, hand: edges.voidLeft ? 1 : -1 });
    const back = sideBetween(edges, span, { a: b, b: a, sides, sag: flare, hand: edges.voidLeft ? -1 : 1 });
    ends.push({ ...a, first: over.from, last: back.to }, { ...b, first: back.from, last: over.to });
    acrossFrom.push({ segments: over.segments, label }, { segments: back.segments, label });
  }
  const onOutline = new Map<number, number[]>();
  ends.forEach((end, i) => {
    const list = onOutline.get(end.outline);
    if (list) list.push(i);
    else onOutline.set(end.outline, [i]);
  });
  for (const list of onOutline.values()) list.sort((i, j) => before((ends[i] as End).first, (ends[j] as End).first));
  // The end whose first cut comes next along the outline after the last cut of an end.
  const nextEnd = new Map<number, number>();
  for (const list of onOutline.values())
    list.forEach((i, k) => {
      nextEnd.set(i, numberAt(list, (k + 1) % list.length));
    });
  const out: LabelledPath[] = [];
  const done = new Set<number>();
  for (let start = 0; start < ends.length; start++) {
    if (done.has(start)) continue;
    const segments: Segment[] = [];
    const labels: number[] = [];
    // From the last cut of an end along its outline to the next first cut, over the bridge there, and so on.
    let end = start;
    do {
      done.add(end);
      const next = nextEnd.get(end) as number;
      const source = paths[(ends[end] as End).outline] as LabelledPath;
      takeBetween(source, { from: (ends[end] as End).last, to: (ends[next] as End).first, segments, out: labels });
      const { segments: side, label } = acrossFrom[next] as Joined;
      for (const s of side) {
        segments.push(s);
        labels.push(label);
      }
      end = next ^ 1;
    } while (end !== start);
    out.push({ path: closedPath(closed(segments)), labels });
  }
  return out;
}

const before = (a: Cut, b: Cut): number => a.segment - b.segment || a.t - b.t;

/** Every start exactly on the end before it; they differ by no more than rounding. */
function closed(segments: readonly Segment[]): Segment[] {
  return segments.map((s, i) => {
    const last = segments[(i + segments.length - 1) % segments.length] as Segment;
    return s.x0 === last.x1 && s.y0 === last.y1 ? s : { ...s, x0: last.x1, y0: last.y1 };
  });
}

/** The stretch of an outline from one cut on to another, round its start if need be. */
function takeBetween(
  { path, labels }: LabelledPath,
  {
    from,
    to,
    segments,
    out,
  }: { readonly from: Cut; readonly to: Cut; readonly segments: Segment[]; readonly out: number[] },
): void {
  for (const { segment, from: t0, to: t1 } of stretchesBetween(path.segments.length, from, to)) {
    if (t1 <= t0) continue;
    const piece = subSegment(path.segments[segment] as Segment, t0, t1);
    const isSliver = Math.hypot(piece.x1 - piece.x0, piece.y1 - piece.y0) < SLIVER_MM;
    if ((t0 > 0 || t1 < 1) && isSliver && t1 - t0 < 0.5) continue;
    segments.push(piece);
    out.push(numberAt(labels, segment));
  }
}

/** Signed distance from the middle line of a span to the left. */
const acrossOf = ({ from: { middle }, way }: Span, p: Point): number =>
  -(p.x - middle.x) * way.y + (p.y - middle.y) * way.x;
const alongOf = ({ from: { middle }, way }: Span, p: Point): number =>
  (p.x - middle.x) * way.x + (p.y - middle.y) * way.y;

function endOf(edges: VoidEdges, span: Span, landing: Landing): End {
  // Where the span starts, an outline with the void on its left enters at u > 0; where it ends, at u < 0.
  const enters = (edges.voidLeft ? 1 : -1) * (landing === span.from ? 1 : -1);
  return {
    outline: landing.outline,
    first: exactCut(edges, span, { chord: landing.firstChord, hand: enters, keptEnd: 0 }),
    last: exactCut(edges, span, { chord: landing.lastChord, hand: -enters, keptEnd: 1 }),
  };
}

/**
 * Where the side of a span (1: u > 0) meets the curve of a chord that it crosses; at the end of the segment that is kept
 * (t 0 or 1) when that is nearer than what is worth a segment of its own.
 */
function exactCut(
  edges: VoidEdges,
  span: Span,
  { chord, hand, keptEnd }: { readonly chord: number; readonly hand: number; readonly keptEnd: 0 | 1 },
): Cut {
  const outline = numberAt(edges.outline, chord);
  const index = numberAt(edges.segment, chord);
  const segment = edges.paths[outline]?.segments[index] as Segment;
  const side = (hand * span.width) / 2;
  const ends = [numberAt(edges.t0, chord), numberAt(edges.t1, chord)] as const;
  const t = rootBetween((x) => acrossOf(span, pointAt(segment, x)) - side, ...ends);
  const at = pointAt(segment, t);
  const node = pointAt(segment, keptEnd);
  if (Math.hypot(at.x - node.x, at.y - node.y) < SNAPPED_MM) return { segment: index, t: keptEnd, at: node };
  return { segment: index, t, at };
}

/** A root of a function whose signs at both ends differ, by halving; the nearer end when they do not. */
function rootBetween(f: (x: number) => number, from: number, to: number): number {
  let [lo, hi] = [from, to];
  const [flo, fhi] = [f(lo), f(hi)];
  if (flo === 0) return lo;
  if (fhi === 0) return hi;
  if (flo > 0 === fhi > 0) return Math.abs(flo) < Math.abs(fhi) ? lo : hi;
  for (let k = 0; k < 60; k++) {
    const mid = (lo + hi) / 2;
    if (mid === lo || mid === hi) break;
    if (f(mid) > 0 === flo > 0) lo = mid;
    else hi = mid;
  }
  return (lo + hi) / 2;
}

type Side = { readonly from: Cut; readonly to: Cut; readonly segments: readonly Segment[] };

/** The side of a span from the first cut of one end to the last cut of the other; `hand` is 1 where u > 0. */
function sideBetween(
  edges: VoidEdges,
  span: Span,
  {
    a,
    b,
    sides,
    sag,
    hand,
  }: { readonly a: End; readonly b: End; readonly sides: Sides; readonly sag: number; readonly hand: number },
): Side {
  const from = a.first;
  const to = b.last;
  const straight = (): Side => ({ from, to, segments: [line(from.at.x, from.at.y, to.at.x, to.at.y)] });
  if (sides.shape === 'waisted') {
    // The span is as wide as its ends are; its sides swing in to the waist.
    const chord = Math.hypot(to.at.x - from.at.x, to.at.y - from.at.y);
    if (sag <= 0 || chord <= 2 * sag) return straight();
    const bend = 4 * Math.atan((2 * sag) / chord);
    const middleLeft = arcBetween(from.at, to.at, bend);
    const inwards = Math.abs(acrossOf(span, pointAt(middleLeft, 0.5))) < span.width / 2;
    return { from, to, segments: [inwards ? middleLeft : arcBetween(from.at, to.at, -bend)] };
  }
  if (sides.joints !== 'filleted') return straight();
  const room = Math.abs(alongOf(span, to.at) - alongOf(span, from.at));
  const fit = (end: End, cut: Cut, ahead: boolean): Fillet | null => {
    for (let k = 0, radius = FILLET * span.width; k <= FILLET_HALVINGS; k++, radius /= 2) {
      const found = fillet(edges, span, { outline: end.outline, cut, ahead, radius, hand });
      if (found && Math.abs(alongOf(span, found.onSide) - alongOf(span, cut.at)) < 0.48 * room) return found;
    }
    return null;
  };
  // Where the outline comes in, the fillet starts before the cut; where it goes on, it ends after it.
  const one = fit(a, from, false);
  const other = fit(b, to, true);
  const segments: Segment[] = [];
  const p = one?.onSide ?? from.at;
  const q = other?.onSide ?? to.at;
  if (one) segments.push(arcAround(one.centre, one.cut.at, one.onSide));
  segments.push(line(p.x, p.y, q.x, q.y));
  if (other) segments.push(arcAround(other.centre, other.onSide, other.cut.at));
  return { from: one?.cut ?? from, to: other?.cut ?? to, segments };
}

/** No less than the length of a segment: that of its control polygon. */
function roughLength(s: Segment): number {
  if (s.kind === 'arc') return Math.abs(s.sweep) * Math.hypot(s.x0 - s.cx, s.y0 - s.cy);
  if (s.kind === 'line') return Math.hypot(s.x1 - s.x0, s.y1 - s.y0);
  const [bx, by] = s.kind === 'cubic' ? [s.bx, s.by] : [s.ax, s.ay];
  return Math.hypot(s.ax - s.x0, s.ay - s.y0) + Math.hypot(bx - s.ax, by - s.ay) + Math.hypot(s.x1 - bx, s.y1 - by);
}

type Fillet = { readonly cut: Cut; readonly centre: Point; readonly onSide: Point };

/** The shorter arc about a centre from one point to another. */
function arcAround(centre: Point, from: Point, to: Point): Segment {
  const sweep = Math.atan2(
    (from.x - centre.x) * (to.y - centre.y) - (from.y - centre.y) * (to.x - centre.x),
    (from.x - centre.x) * (to.x - centre.x) + (from.y - centre.y) * (to.y - centre.y),
  );
  return arcBetween(from, to, sweep);
}

/**
 * The circle of a radius in the void that touches the side of a span and the edge beside a cut: its centre lies a radius
 * off the side and on the curve a radius off the edge. Null when the edge bends away or ends before.
 */
function fillet(
  edges: VoidEdges,
  span: Span,
  {
    outline,
    cut,
    ahead,
    radius,
    hand,
  }: {
    readonly outline: number;
    readonly cut: Cut;
    readonly ahead: boolean;
    readonly radius: number;
    readonly hand: number;
  },
): Fillet | null {
  const { segments } = edges.paths[outline] as { readonly segments: readonly Segment[] };
  const wanted = span.width / 2 + radius;
  const intoVoid = edges.voidLeft ? 1 : -1;
  const centreAt = (s: Segment, t: number): Point => {
    const p = pointAt(s, t);
    const d = tangentAt(s, t);
    return { x: p.x - intoVoid * radius * d.y, y: p.y + intoVoid * radius * d.x };
  };
  const off = (s: Segment, t: number): number => hand * acrossOf(span, centreAt(s, t)) - wanted;
  let index = cut.segment;
  let t = cut.t;
  let walked = 0;
  const startOff = off(segments[index] as Segment, t);
  if (startOff >= 0) return null;
  while (walked < FARTHEST * radius) {
    const s = segments[index] as Segment;
    const end = ahead ? 1 : 0;
    const begin = t;
    // Steps short against the radius, however long the segment is: the first place is the one beside the cut.
    const steps = Math.max(2, Math.ceil(roughLength(s) / (STEP * radius)));
    for (let k = 1; k <= steps && walked < FARTHEST * radius; k++) {
      const next = begin + ((end - begin) * k) / steps;
      const [p, q] = [pointAt(s, t), pointAt(s, next)];
      walked += Math.hypot(q.x - p.x, q.y - p.y);
      if (off(s, next) >= 0) {
        const root = rootBetween((x) => off(s, x), t, next);
        if (walked > FARTHEST * radius) return null;
        // What would be left of the segment beside it must be worth one.
        const touch = pointAt(s, root);
        const node = pointAt(s, end);
        if (Math.hypot(touch.x - node.x, touch.y - node.y) < SNAPPED_MM) return null;
        const centre = centreAt(s, root);
        const across = hand * acrossOf(span, centre) - span.width / 2;
        const n = { x: -span.way.y * hand, y: span.way.x * hand };
        return {
          cut: { segment: index, t: root, at: touch },
          centre,
          onSide: { x: centre.x - across * n.x, y: centre.y - across * n.y },
        };
      }
      t = next;
    }
    if (t !== end) return null;
    const joint = tangentAt(s, end);
    index = (index + (ahead ? 1 : segments.length - 1)) % segments.length;
    const on = tangentAt(segments[index] as Segment, ahead ? 0 : 1);
    // A fillet does not go round a corner.
    if (joint.x * on.x + joint.y * on.y < 0.97) return null;
    t = ahead ? 0 : 1;
  }
  return null;
}
