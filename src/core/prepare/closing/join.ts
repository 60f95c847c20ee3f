/**
 * Bringing two loose ends together: moved onto each other where they nearly meet, cut back to where they cross, run on
 * until they meet, or bridged by a line.
 */
import { distance, type Point } from '../../geometry/point';
import {
  type Arc,
  arcRadius,
  line,
  pointAt,
  type Segment,
  subSegment,
  tangentAt,
  withEnds,
} from '../../geometry/segment';
import { crossingNear, nearestParameter } from '../../geometry/segment-measures';

/**
 * How two ends are joined: snapped together, trimmed where they cross, extended until they meet, or by a line
 * between.
 */
export type JoinKind = 'snap' | 'trim' | 'extend' | 'line';

/** A join that can be made: its kind, and the segments that come of it. */
export type Join = {
  readonly kind: JoinKind;
  /** Both run outwards and end in the same point. */
  readonly a: readonly Segment[];
  readonly b: readonly Segment[];
  /** How far anything moves or is added, in mm. */
  readonly reach: number;
};

/** Ends this close are moved together without a line between them, in mm. */
const SNAP_MM = 0.02;
/** Ends that run straight on into each other turn by less than this. */
const STRAIGHT = Math.cos((20 * Math.PI) / 180);
/** How much farther than the gap ends may run on to meet. */
const RUN_ON = 2;

/** Join two segments that run outwards to their ends. */
export function joinEnds(a: Segment, b: Segment): Join {
  const p = { x: a.x1, y: a.y1 };
  const q = { x: b.x1, y: b.y1 };
  const gap = distance(p, q);
  if (gap <= SNAP_MM) return snap(a, b, gap);
  const ta = tangentAt(a, 1);
  const tb = tangentAt(b, 1);
  const towards = { x: (q.x - p.x) / gap, y: (q.y - p.y) / gap };
  const runsOn = ta.x * towards.x + ta.y * towards.y > STRAIGHT && tb.x * towards.x + tb.y * towards.y < -STRAIGHT;
  if (!runsOn) {
    const met = meeting(a, b, RUN_ON * gap);
    if (met) return met;
  }
  return { kind: 'line', a: [a], b: [b, line(q.x, q.y, p.x, p.y)], reach: gap };
}

function snap(a: Segment, b: Segment, gap: number): Join {
  const middle = { x: (a.x1 + b.x1) / 2, y: (a.y1 + b.y1) / 2 };
  return {
    kind: 'snap',
    a: [withEnds(a, { x: a.x0, y: a.y0 }, middle)],
    b: [withEnds(b, { x: b.x0, y: b.y0 }, middle)],
    reach: gap,
  };
}

/** A segment's last stretch and what runs on from it; `along` counts from its end, negative inside. */
type Stretch = { readonly segment: Segment; readonly part: 'inside' | 'beyond' };

function stretches(s: Segment, reach: number): Stretch[] {
  const inside: Stretch = { segment: s, part: 'inside' };
  if (s.kind === 'arc') return [inside, { segment: runOnArc(s, reach), part: 'beyond' }];
  const t = tangentAt(s, 1);
  return [inside, { segment: line(s.x1, s.y1, s.x1 + t.x * reach, s.y1 + t.y * reach), part: 'beyond' }];
}

function runOnArc(s: Arc, reach: number): Segment {
  const r = arcRadius(s);
  const turn = Math.sign(s.sweep) * Math.min(reach / r, Math.PI / 2);
  const angle = Math.atan2(s.y1 - s.cy, s.x1 - s.cx) + turn;
  return {
    kind: 'arc',
    x0: s.x1,
    y0: s.y1,
    x1: s.cx + r * Math.cos(angle),
    y1: s.cy + r * Math.sin(angle),
    cx: s.cx,
    cy: s.cy,
    sweep: turn,
  };
}

const GUESSES = [0.02, 0.25, 0.6, 1];
const ANY_GUESS = [0.25];

/** The nearest place where both meet, inside or run on; null when there is none within reach. */
function meeting(a: Segment, b: Segment, reach: number): Join | null {
  const p = { x: a.x1, y: a.y1 };
  const q = { x: b.x1, y: b.y1 };
  let best: Join | null = null;
  for (const sa of stretches(a, reach))
    for (const sb of stretches(b, reach)) {
      const crossing = firstCrossing(sa, sb, { p, q, reach });
      if (!crossing) continue;
      const { at, t, u } = crossing;
      const moved = Math.max(distance(at, p), distance(at, q));
      if (best && moved >= best.reach) continue;
      const bothInside = sa.part === 'inside' && sb.part === 'inside';
      best = {
        kind: bothInside ? 'trim' : 'extend',
        a: ended(a, sa, t, at),
        b: ended(b, sb, u, at),
        reach: moved,
      };
    }
  return best;
}

function firstCrossing(
  sa: Stretch,
  sb: Stretch,
  { p, q, reach }: { readonly p: Point; readonly q: Point; readonly reach: number },
): { at: Point; t: number; u: number } | null {
  let best: { at: Point; t: number; u: number } | null = null;
  let least = reach;
  // Where two lines cross is found from anywhere.
  const guesses = sa.segment.kind === 'line' && sb.segment.kind === 'line' ? ANY_GUESS : GUESSES;
  for (const g of guesses)
    for (const h of guesses) {
      const t = sa.part === 'inside' ? 1 - g * shareWithin(sa.segment, reach) : g;
      const u = sb.part === 'inside' ? 1 - h * shareWithin(sb.segment, reach) : h;
      const found = crossingNear(sa.segment, sb.segment, t, u);
      if (!found) continue;
      const at = pointAt(sa.segment, found[0]);
      const moved = Math.max(distance(at, p), distance(at, q));
      if (moved <= least) {
        least = moved;
        best = { at, t: found[0], u: found[1] };
      }
    }
  return best;
}

/** About which share of a segment lies within a distance of its end. */
const shareWithin = (s: Segment, reach: number): number => {
  const size = Math.hypot(s.x1 - s.x0, s.y1 - s.y0) || reach;
  return Math.min(1, reach / size);
};

/** A segment cut back or run on to a place. */
function ended(s: Segment, stretch: Stretch, t: number, at: Point): readonly Segment[] {
  const start = { x: s.x0, y: s.y0 };
  if (stretch.part === 'inside') return [withEnds(subSegment(s, 0, t), start, at)];
  if (s.kind === 'line') return [line(s.x0, s.y0, at.x, at.y)];
  if (s.kind === 'arc')
    return [withEnds({ ...s, x1: at.x, y1: at.y, sweep: s.sweep + (stretch.segment as Arc).sweep * t }, start, at)];
  return [s, line(s.x1, s.y1, at.x, at.y)];
}

/** The end of a segment cut back to, or run on to, the middle of another line; null when that is not within reach. */
export function meetLine(
  a: Segment,
  by: Segment,
  reach: number,
): { readonly pieces: readonly Segment[]; readonly moved: number } | null {
  const p = { x: a.x1, y: a.y1 };
  const foot = nearestParameter(by, p.x, p.y);
  let best: { pieces: readonly Segment[]; moved: number } | null = null;
  for (const stretch of stretches(a, reach))
    for (const g of GUESSES) {
      const t = stretch.part === 'inside' ? 1 - g * shareWithin(a, reach) : g;
      const found = crossingNear(stretch.segment, by, t, foot);
      if (!found) continue;
      const at = pointAt(stretch.segment, found[0]);
      const moved = distance(at, p);
      if (moved <= reach && (!best || moved < best.moved)) best = { pieces: ended(a, stretch, found[0], at), moved };
    }
  return best;
}
