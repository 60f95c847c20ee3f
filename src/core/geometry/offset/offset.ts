/**
 * Growing and shrinking a region by a distance. Each outline gets its parallel with joints at the corners; that closed
 * curve crosses itself, and where it winds round a point a positive number of times is just the grown (or shrunk)
 * inside (its winding number counts the parts of the shape within reach: Guibas, Ramshaw and Stolfi 1983). Outlines and
 * holes are offset each by itself and then combined, all in one session, so that the result keeps exact curves.
 */
import type { ClipEngine, TaggedPolygon } from '../boolean/engine';
import type { LabelledPath } from '../boolean/labelled';
import { BooleanSession } from '../boolean/session';
import { isThread, type Path, reversePath } from '../path';
import { type Box, boxHeight, boxWidth, type Point } from '../point';
import { arcBetween, line, type Segment, tangentAt } from '../segment';
import { type Parallels, parallel } from './parallel';

/** What grows at a corner: an arc, the edges drawn out until they meet, or a corner cut off square. */
export type Corners = 'round' | 'mitre' | 'square';

/** An outline of a clean region: counter-clockwise around material, clockwise around a hole. */
export type NestedPath = LabelledPath & { readonly box: Box; readonly parent: number; readonly depth: number };

/** Parallels run closer along each other than letters do, so that they are flattened finer. */
const OFFSET_FLATTEN_MM = 0.002;
/** Mitres reach at most this many times the distance from their corner; longer ones are cut off square. */
const MITRE_LIMIT = 4;
/** Ends closer than this meet, in mm. */
const MEET_MM = 1e-7;
/** Outlines thinner than this on average are left over where a parallel closes on itself, in mm. */
const THREAD_MM = 0.004;
/** Turns smaller than this are smooth, in radians. */
const SMOOTH = 1e-6;

/**
 * The region grown by `by` mm (shrunk when negative), as clean outlines. `outerBy` and `holeBy` may give an outline, or a hole, by its
 * index, another distance. Distances under a hundredth of a micrometre change nothing. Outlines thinner than `threadMm` on average are left
 * out: they are where a parallel closes on itself, unless just that is asked. `parallels` finds the parallels of segments.
 */
export function offsetRegion(
  engine: ClipEngine,
  outlines: readonly NestedPath[],
  {
    by,
    corners,
    outerBy = () => by,
    holeBy = () => by,
    threadMm = THREAD_MM,
    parallels = parallel,
  }: {
    readonly by: number;
    readonly corners: Corners;
    readonly outerBy?: (index: number) => number;
    readonly holeBy?: (index: number) => number;
    readonly threadMm?: number | undefined;
    readonly parallels?: Parallels | undefined;
  },
): LabelledPath[] {
  const session = new BooleanSession(engine, OFFSET_FLATTEN_MM);
  const how: How = { corners, parallels };
  const grown: TaggedPolygon[] = [];
  outlines.forEach((outer, i) => {
    if (outer.depth % 2 === 1) return;
    const body = offsetOutline(session, outer, outerBy(i), how);
    if (body.length === 0) return;
    const holes = outlines.flatMap((hole, k) =>
      hole.depth % 2 === 1 && hole.parent === i ? offsetOutline(session, reversed(hole), -holeBy(k), how) : [],
    );
    grown.push(...(holes.length > 0 ? session.clip('difference', body, holes) : body));
  });
  return session.rebuild(session.clip('union', grown)).filter((o) => !isThread(o.path, threadMm));
}

/** How outlines are grown: what grows at corners, and what finds the parallels of their segments. */
type How = { readonly corners: Corners; readonly parallels: Parallels };

const reversed = (o: NestedPath): NestedPath => ({ ...o, path: reversePath(o.path), labels: [...o.labels].reverse() });

/** One outline taken as counter-clockwise, grown by a distance (shrunk when negative), as clean polygons. */
function offsetOutline(session: BooleanSession, o: NestedPath, by: number, how: How): TaggedPolygon[] {
  if (Math.abs(by) < 1e-5) return session.addLabelled([o]);
  // Narrower than the disc that is rolled along inside: nothing is left, though its parallel turns inside out.
  if (by < 0 && Math.min(boxWidth(o.box), boxHeight(o.box)) <= -2 * by) return [];
  return session.clip('union', session.addLabelled([rawOffset(o, by, how)]), [], 'positive');
}

/** The parallel of a closed path with its joints; crosses itself where the path is narrower than the distance. */
function rawOffset({ path, labels }: LabelledPath, distance: number, { corners, parallels }: How): LabelledPath {
  const segments: Segment[] = [];
  const labelled: number[] = [];
  const push = (pieces: readonly Segment[], label: number) => {
    for (const s of pieces) {
      segments.push(s);
      labelled.push(label);
    }
  };
  const pieces = path.segments.map((s) => parallels(s, distance));
  path.segments.forEach((s, i) => {
    const after = (i + 1) % path.segments.length;
    const next = path.segments[after] as Segment;
    const label = labels[i] ?? -1;
    const own = pieces[i] as readonly Segment[];
    push(own, label);
    const from = endOf(own.at(-1) as Segment);
    const to = startOf((pieces[after] as readonly Segment[])[0] as Segment);
    push(
      joint({ x: s.x1, y: s.y1 }, { from, to, t: tangentAt(s, 1), u: tangentAt(next, 0), distance, corners }),
      label,
    );
  });
  return { path: closed(segments), labels: labelled };
}

const startOf = (s: Segment): Point => ({ x: s.x0, y: s.y0 });
const endOf = (s: Segment): Point => ({ x: s.x1, y: s.y1 });
const closed = (segments: readonly Segment[]): Path => ({ segments, closed: true });

/** What joins the parallels of two segments that meet at `at`. */
function joint(
  at: Point,
  {
    from,
    to,
    t,
    u,
    distance,
    corners,
  }: {
    readonly from: Point;
    readonly to: Point;
    readonly t: Point;
    readonly u: Point;
    readonly distance: number;
    readonly corners: Corners;
  },
): Segment[] {
  if (Math.hypot(to.x - from.x, to.y - from.y) < MEET_MM) return [];
  const turn = Math.atan2(t.x * u.y - t.y * u.x, t.x * u.x + t.y * u.y);
  const straight = (p: Point, q: Point) => line(p.x, p.y, q.x, q.y);
  if (Math.abs(turn) < SMOOTH) return [straight(from, to)];
  // A turn away from the parallel leaves a gap; a turn towards it makes a loop, which goes by way of the corner itself.
  if (turn * distance < 0) return [straight(from, at), straight(at, to)];
  const reach = 1 / Math.cos(turn / 2);
  if (corners === 'round') return [arcBetween(from, to, turn)];
  if (corners === 'mitre' && reach <= MITRE_LIMIT && reach > 0) {
    const k = distance * Math.tan(turn / 2);
    const tip = { x: from.x + k * t.x, y: from.y + k * t.y };
    return [straight(from, tip), straight(tip, to)];
  }
  // Cut off square: the edge at the distance itself, across the middle of the turn.
  const k = distance * Math.tan(turn / 4);
  const p = { x: from.x + k * t.x, y: from.y + k * t.y };
  const q = { x: to.x - k * u.x, y: to.y - k * u.y };
  return [straight(from, p), straight(p, q), straight(q, to)];
}
