/**
 * Hairs: islands that hang on a neck of stock so thin that no beam or tool leaves it standing. The neck is cut through, so
 * that they are islands like any other and get a bridge.
 */
import type { LabelledPath } from '../../geometry/boolean/labelled';
import { numberAt } from '../../geometry/elements';
import { closedPath, pathArea, stretchesBetween } from '../../geometry/path';
import type { Point } from '../../geometry/point';
import { line, pointAt, type Segment, subSegment } from '../../geometry/segment';
import { measureOutlines, nestAgain, type Outline } from '../outline';
import { VoidEdges } from './edges';

/** Necks thinner than this are cut through, this wide. */
const HAIR_MM = 0.1;
/** What is no larger does not count as an island: the point of a narrow angle, for one. */
const LEAST_MM2 = 0.25;
/** Places nearer than this along the outline are the same bend of it. */
const APART_MM = 10 * HAIR_MM;
const CHORD_MM = 0.01;

/** A neck of stock too thin to hold, and its width in mm. */
export type Hair = { readonly at: Point; readonly width: number };

/**
 * A shape with its hairs cut through, and where they were. `stockInside`: whether the shape is what stays, or what is
 * cut away. Untouched outlines are the same objects.
 */
export function cutHairs(
  shape: readonly Outline[],
  stockInside: boolean,
): { readonly shape: readonly Outline[]; readonly hairs: readonly Hair[] } {
  const edges = new VoidEdges(
    shape.map((o) => o.path),
    !stockInside,
    CHORD_MM,
    HAIR_MM,
  );
  const suspects = new Set<number>();
  for (let i = 0; i < edges.ax.length; i++) {
    const outline = numberAt(edges.outline, i);
    if (!suspects.has(outline) && facing(edges, i).length > 0) suspects.add(outline);
  }
  const hairs: Hair[] = [];
  const cut: LabelledPath[] = [];
  const touched = new Set<number>();
  for (const outline of suspects) {
    const pieces = splitAll(shape[outline] as Outline, stockInside, hairs);
    if (pieces.length < 2) continue;
    touched.add(outline);
    cut.push(...pieces);
  }
  if (touched.size === 0) return { shape, hairs };
  return { shape: nestAgain([...shape.filter((_, i) => !touched.has(i)), ...measureOutlines(cut)]), hairs };
}

/** Cut at the thinnest neck, then what comes of it again. */
function splitAll(of: LabelledPath, stockInside: boolean, hairs: Hair[]): LabelledPath[] {
  const edges = new VoidEdges([of.path], !stockInside, CHORD_MM, HAIR_MM);
  const necks: Neck[] = [];
  for (let i = 0; i < edges.ax.length; i++) for (const neck of facing(edges, i)) if (neck.j > i) necks.push(neck);
  necks.sort((a, b) => a.width - b.width);
  for (const neck of necks) {
    const halves = splitAt(edges, of, neck);
    if (!halves) continue;
    hairs.push({ at: neck.at, width: neck.width });
    return halves.flatMap((half) => splitAll(half, stockInside, hairs));
  }
  return [of];
}

type Neck = {
  readonly i: number;
  readonly j: number;
  /** How far along each chord. */
  readonly ti: number;
  readonly tj: number;
  readonly width: number;
  readonly at: Point;
};

/** Chords of the same outline that lie within a hair of one, across stock. */
function facing(edges: VoidEdges, i: number): Neck[] {
  const [ax, ay, bx, by] = [edges.x0(i), edges.y0(i), edges.x1(i), edges.y1(i)];
  const outline = numberAt(edges.outline, i);
  const whole = numberAt(edges.length, outline);
  const found: Neck[] = [];
  for (const j of edges.within(
    Math.min(ax, bx) - HAIR_MM,
    Math.min(ay, by) - HAIR_MM,
    Math.max(ax, bx) + HAIR_MM,
    Math.max(ay, by) + HAIR_MM,
  )) {
    if (j === i || edges.outline[j] !== outline) continue;
    const into = edges.intoVoid(i);
    const other = edges.intoVoid(j);
    if (into.x * other.x + into.y * other.y > -0.3) continue;
    const near = nearest(edges, i, j);
    if (near.width >= HAIR_MM) continue;
    const apart = Math.abs(placeOn(edges, i, near.ti) - placeOn(edges, j, near.tj));
    if (Math.min(apart, whole - apart) < APART_MM) continue;
    // Stock lies between where the way across leads out of the void at both ends.
    const p = edges.pointOn(i, near.ti);
    const q = edges.pointOn(j, near.tj);
    if ((q.x - p.x) * into.x + (q.y - p.y) * into.y > 1e-9) continue;
    found.push({ i, j, ...near, at: { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 } });
  }
  return found;
}

/** How far along the outline a place on a chord is. */
const placeOn = (edges: VoidEdges, chord: number, along: number): number =>
  numberAt(edges.start, chord) + along * edges.chordLength(chord);

/** The nearest places of two chords that do not cross: one of them is an end. */
function nearest(edges: VoidEdges, i: number, j: number): { ti: number; tj: number; width: number } {
  let best = { ti: 0, tj: 0, width: Infinity };
  const foot = (k: number, p: Point): number => {
    const dx = edges.x1(k) - edges.x0(k);
    const dy = edges.y1(k) - edges.y0(k);
    const l = dx * dx + dy * dy;
    return l === 0 ? 0 : Math.min(1, Math.max(0, ((p.x - edges.x0(k)) * dx + (p.y - edges.y0(k)) * dy) / l));
  };
  const take = (ti: number, tj: number) => {
    const p = edges.pointOn(i, ti);
    const q = edges.pointOn(j, tj);
    const width = Math.hypot(q.x - p.x, q.y - p.y);
    if (width < best.width) best = { ti, tj, width };
  };
  for (const t of [0, 1]) {
    take(t, foot(j, edges.pointOn(i, t)));
    take(foot(i, edges.pointOn(j, t)), t);
  }
  return best;
}

/** Both sides of a neck, a hair apart; null when one of them is next to nothing. */
function splitAt(edges: VoidEdges, of: LabelledPath, { i, j, ti, tj }: Neck): [LabelledPath, LabelledPath] | null {
  const [a, b] = [placeOn(edges, i, ti), placeOn(edges, j, tj)];
  const half = HAIR_MM / 2;
  const first = stretch(edges, of, a + half, b - half);
  const second = stretch(edges, of, b + half, a - half);
  return [first, second].every((p) => Math.abs(pathArea(p.path)) >= LEAST_MM2) ? [first, second] : null;
}

/** The outline from one distance along it on to another, closed straight across. */
function stretch(edges: VoidEdges, { path, labels }: LabelledPath, from: number, to: number): LabelledPath {
  const cut = (distance: number) => {
    const { chord, along } = edges.at(0, distance);
    const [t0, t1] = [numberAt(edges.t0, chord), numberAt(edges.t1, chord)];
    return { segment: numberAt(edges.segment, chord), t: t0 + along * (t1 - t0) };
  };
  const [start, end] = [cut(from), cut(to)];
  const segments: Segment[] = [];
  const out: number[] = [];
  for (const { segment, from: t0, to: t1 } of stretchesBetween(path.segments.length, start, end)) {
    if (t1 - t0 < 1e-9) continue;
    segments.push(subSegment(path.segments[segment] as Segment, t0, t1));
    out.push(numberAt(labels, segment));
  }
  const p = pointAt(path.segments[end.segment] as Segment, end.t);
  const q = pointAt(path.segments[start.segment] as Segment, start.t);
  segments.push(line(p.x, p.y, q.x, q.y));
  out.push(numberAt(labels, end.segment));
  return { path: closedPath(segments), labels: out };
}
