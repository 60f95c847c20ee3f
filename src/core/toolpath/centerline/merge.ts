/**
 * Two strokes that meet at a small angle share a stretch of the axis in which discs are larger than either stroke. There each
 * goes on along its own edge until they have become one, or end in a common tip.
 */
import { distance } from '../../geometry/point';
import type { BranchEnd, Building } from './building';
import { type End, isReliable, leftOf, type Marked, radiusOf, rightOf } from './marks';
import { cornerOf, rayOf } from './rays';
import type { AxisPoint } from './skeleton';
import { type Port, polylineLength, type TrackPoint, wayInto } from './track';

/** Two strokes have become one when discs are no larger than this share more than those of one. */
const ONE = 0.05;
/** Discs this many times as large as those of either stroke hold both. */
const LARGER = 1.12;
/** Discs that hold both are this large against both strokes together: less, and they meet at no small angle. */
const LEAST_BOTH = 0.64;
const MOST_BOTH = 1.1;
/** Either runs into the common stretch within this cosine. */
const RUNS_INTO = 0.45;
/** Where both go on to cross, discs get smaller by this much on the way. */
const CROSSES = 1.15;
/** Where they end in a common tip, discs have shrunk to this share there. */
const NARROWS = 0.88;
/** A tip longer than this many radii is a stroke of its own unless it narrows. */
const LONG_TIP = 2.5;
/** How many radii two strokes may run into each other until they are one. */
const MERGE_WITHIN = 16;
/** A common tip goes on for no more than this many radii. */
const TIP = 0.6;
/** Where strokes cross no farther than this many radii from the last disc, they end. */
const APEX = 1.4;

/**
 * A branch whose discs are larger than either of the other two strokes of its joint holds both: each goes on along its own
 * edge, until they are one, or end in a common tip, or nothing tells. Whether the branch is such a one.
 */
export function followBoth(
  building: Building,
  common: End,
  ends: readonly End[],
  reachOf: (end: End) => BranchEnd,
): boolean {
  const leftMate = ends.find((e) => e !== common && rightOf(e) === leftOf(common));
  const rightMate = ends.find((e) => e !== common && leftOf(e) === rightOf(common));
  if (!leftMate || !rightMate || leftMate === rightMate) return false;
  const rl = radiusOf(leftMate);
  const rr = radiusOf(rightMate);
  if (rl === null || rr === null) return false;
  const most = Math.max(rl, rr);
  const { marks } = common;
  const reach = reachOf(common);
  if (!reach?.whole) return false;
  // From the first sure place on: how far it is larger, and where the two have become one.
  let first = 0;
  while (first < marks.length && !isReliable(marks[first] as Marked)) first++;
  const start = marks[first];
  if (!start || polylineLength(marks.slice(0, first + 1).map((m) => m.point)) > 1.5 * most) return false;
  const both = rl + rr;
  if (!(start.point.r > LARGER * most) || start.point.r < LEAST_BOTH * both || start.point.r > MOST_BOTH * both)
    return false;
  const trackOf = (end: End) => {
    const mine = reachOf(end);
    return mine && { points: building.tracks[mine.port.track] as TrackPoint[], end: mine.port.end };
  };
  const own = trackOf(common);
  for (const mate of [leftMate, rightMate]) {
    const other = trackOf(mate);
    if (!own || !other || own.points.length < 2 || other.points.length < 2) continue;
    const [p, q] = [wayInto(own.points, own.end), wayInto(other.points, other.end)];
    if (-(p.x * q.x + p.y * q.y) < RUNS_INTO) return false;
  }
  let length = 0;
  let last = first;
  let one = -1;
  for (let i = first; i < marks.length; i++) {
    const m = marks[i] as Marked;
    if (m.fixedLeft && m.fixedRight) break;
    if (i > first) length += distance((marks[i - 1] as Marked).point, m.point);
    if (length > MERGE_WITHIN * most) return false;
    last = i;
    if (isReliable(m) && m.point.r < (1 + ONE) * most) {
      one = i;
      break;
    }
  }
  const { track: id, end: near } = reach.port;
  const far = near === 0 ? 1 : 0;
  const places = building.at[id] as [number, number];
  const isLeaf = last === marks.length - 1 && places[far] < 0;
  const end = (marks[last] as Marked).point.r;
  if (one < 0 && !isLeaf && (places[far] < 0 || start.point.r < CROSSES * end)) return false;
  // A stroke that is as wide at its end as at the joint is one thick stroke.
  if (one < 0 && isLeaf && length > LONG_TIP * most && end > NARROWS * start.point.r) return false;
  const after = one < 0 ? [] : marks.slice(one);
  const isTip = (isLeaf || (one >= 0 && places[far] < 0)) && polylineLength(after.map((m) => m.point)) <= TIP * most;
  const stop = one < 0 || isTip ? last : one;
  const along = (side: (m: Marked) => number, r: number): TrackPoint[] => {
    const out: TrackPoint[] = [];
    let before = -1;
    for (let i = 0; i <= (isTip ? marks.length - 1 : stop); i++) {
      const m = marks[i] as Marked;
      const sample = side(m);
      if (sample === before || (sample === m.point.leftContact ? m.fixedLeft : m.fixedRight)) continue;
      out.push(building.inside(sample, r));
      before = sample;
    }
    return out;
  };
  const leftTrack = along(common.leftContact, rl);
  const right = along(common.rightContact, rr);
  if (leftTrack.length === 0 || right.length === 0) return false;
  const here = places[near];
  const join = (mate: End, port: Port) => {
    const mine = reachOf(mate);
    if (mine) building.through.push([mine.port, port]);
  };
  if (isTip) {
    const tip = marks[marks.length - 1] as Marked;
    const whole = building.add([...right, ...apexOf(leftTrack, right, tip.point), ...leftTrack.reverse()], here, here);
    join(rightMate, { track: whole, end: 0 });
    join(leftMate, { track: whole, end: 1 });
    (building.tracks[id] as TrackPoint[]).length = 0;
    return true;
  }
  const meeting = one < 0 ? (places[far] as number) : building.newMeeting();
  const [l, r] = [building.add(leftTrack, here, meeting), building.add(right, here, meeting)];
  join(leftMate, { track: l, end: 0 });
  join(rightMate, { track: r, end: 0 });
  const track = building.tracks[id] as TrackPoint[];
  if (one < 0) {
    track.length = 0;
    return true;
  }
  // What is left of the common branch begins where the two are one.
  const cut = (marks[one] as Marked).point;
  const outwards = near === 0 ? [...track] : [...track].reverse();
  const from = outwards.findIndex((p) => p.x === cut.x && p.y === cut.y);
  const outer = outwards.slice(Math.max(0, from));
  track.splice(0, track.length, ...(near === 0 ? outer : outer.reverse()));
  places[near] = meeting;
  const [wl, wr, w] = [wayInto(leftTrack, 1), wayInto(right, 1), wayInto(track, near)];
  const straight = (v: { x: number; y: number }) => -(v.x * w.x + v.y * w.y);
  building.through.push([reach.port, { track: straight(wl) >= straight(wr) ? l : r, end: 1 }]);
  return true;
}

/**
 * Where strokes of changing width end in a common tip, both run to one point: where they cross, when that is near the last
 * disc, else its middle. Points of either that lie at it are taken off.
 */
function apexOf(leftTrack: TrackPoint[], right: TrackPoint[], tip: AxisPoint): TrackPoint[] {
  const crossing = leftTrack.length > 1 && right.length > 1 ? cornerOf(rayOf(leftTrack, 1), rayOf(right, 1)) : null;
  const { x, y } = crossing && distance(crossing, tip) < APEX * tip.r ? crossing : tip;
  for (const track of [leftTrack, right])
    while (track.length > 1 && distance(track[track.length - 1] as TrackPoint, { x, y }) < 0.5 * tip.r) track.pop();
  return [{ x, y, r: tip.r, open: 0 }];
}
