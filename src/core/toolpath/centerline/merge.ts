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

/** A branch that two strokes may have in common, with what is known of both. */
type Common = {
  readonly common: End;
  readonly leftMate: End;
  readonly rightMate: End;
  /** Half the width of either. */
  readonly rl: number;
  readonly rr: number;
  /** The track of the branch, which goes all its way, and at which of its ends the joint is. */
  readonly port: Port;
  /** The first disc whose two contacts both tell. */
  readonly first: number;
};

/** The branch as one that two strokes may have in common; null where its joint or its discs say that it is not. */
function commonOf(common: End, ends: readonly End[], reachOf: (end: End) => BranchEnd): Common | null {
  const leftMate = ends.find((e) => e !== common && rightOf(e) === leftOf(common));
  const rightMate = ends.find((e) => e !== common && leftOf(e) === rightOf(common));
  if (!leftMate || !rightMate || leftMate === rightMate) return null;
  const [rl, rr, reach] = [radiusOf(leftMate), radiusOf(rightMate), reachOf(common)];
  if (rl === null || rr === null || !reach?.whole) return null;
  const { marks } = common;
  const [most, both] = [Math.max(rl, rr), rl + rr];
  const first = marks.findIndex(isReliable);
  const start = marks[first];
  if (!start || polylineLength(marks.slice(0, first + 1).map((m) => m.point)) > 1.5 * most) return null;
  const { r } = start.point;
  const holdsBoth = r > LARGER * most && r >= LEAST_BOTH * both && r <= MOST_BOTH * both;
  return holdsBoth ? { common, leftMate, rightMate, rl, rr, port: reach.port, first } : null;
}

/** Whether both strokes run into the branch at a small angle, as far as their tracks tell. */
function runInto(
  { common, leftMate, rightMate }: Common,
  building: Building,
  reachOf: (end: End) => BranchEnd,
): boolean {
  const trackOf = (end: End) => {
    const mine = reachOf(end);
    return mine && { points: building.tracks[mine.port.track] as TrackPoint[], end: mine.port.end };
  };
  const own = trackOf(common);
  return [leftMate, rightMate].every((mate) => {
    const other = trackOf(mate);
    if (!own || !other || own.points.length < 2 || other.points.length < 2) return true;
    const [p, q] = [wayInto(own.points, own.end), wayInto(other.points, other.end)];
    return -(p.x * q.x + p.y * q.y) >= RUNS_INTO;
  });
}

/** How far two strokes share a branch: up to which disc, which one is that of one stroke (-1 for none), and how long that is. */
type Shared = { readonly last: number; readonly one: number; readonly length: number };

/** Follows the discs until they are those of one stroke, or nothing tells any more; null where that takes too long or round a corner. */
function sharedWay({ common: { marks }, first, rl, rr }: Common, building: Building): Shared | null {
  const most = Math.max(rl, rr);
  let length = 0;
  let last = first;
  for (let i = first; i < marks.length; i++) {
    const m = marks[i] as Marked;
    if (m.fixedLeft && m.fixedRight) break;
    if (i > first && turnsCorner(building, (marks[i - 1] as Marked).point, m.point)) return null;
    if (i > first) length += distance((marks[i - 1] as Marked).point, m.point);
    if (length > MERGE_WITHIN * most) return null;
    last = i;
    if (isReliable(m) && m.point.r < (1 + ONE) * most) return { last, one: i, length };
  }
  return { last, one: -1, length };
}

/** Whether either edge turns a corner from one disc to the next: two strokes do not go on together round it. */
const turnsCorner = (building: Building, from: AxisPoint, to: AxisPoint): boolean =>
  (['leftContact', 'rightContact'] as const).some((c) => building.cornerBetween(from[c], to[c]) > CORNER);
const CORNER = (45 * Math.PI) / 180;

/**
 * A branch whose discs are larger than either of the other two strokes of its joint holds both: each goes on along its own
 * edge, until they are one, or end in a common tip, or nothing tells. Whether the branch is such a one; if so, `building` has both.
 */
export function followBoth(
  building: Building,
  branch: End,
  ends: readonly End[],
  reachOf: (end: End) => BranchEnd,
): boolean {
  const common = commonOf(branch, ends, reachOf);
  if (!common || !runInto(common, building, reachOf)) return false;
  const shared = sharedWay(common, building);
  if (!shared) return false;
  const { marks } = branch;
  const { rl, rr, port, first, leftMate, rightMate } = common;
  const { last, one, length } = shared;
  const most = Math.max(rl, rr);
  const near = port.end;
  const places = building.at[port.track] as [number, number];
  const place = places[near === 0 ? 1 : 0];
  const isFree = place < 0;
  const isLeaf = last === marks.length - 1 && isFree;
  const [startR, endR] = [(marks[first] as Marked).point.r, (marks[last] as Marked).point.r];
  if (one < 0 && !isLeaf && (isFree || startR < CROSSES * endR)) return false;
  // A stroke that is as wide at its end as at the joint is one thick stroke.
  if (one < 0 && isLeaf && length > LONG_TIP * most && endR > NARROWS * startR) return false;
  const after = one < 0 ? [] : marks.slice(one);
  const isTip = (isLeaf || (one >= 0 && isFree)) && polylineLength(after.map((m) => m.point)) <= TIP * most;
  const upTo = isTip ? marks.length - 1 : last;
  const left = alongEdge(building, marks.slice(0, upTo + 1), branch.leftContact, rl);
  const right = alongEdge(building, marks.slice(0, upTo + 1), branch.rightContact, rr);
  if (left.length === 0 || right.length === 0) return false;

  const here = places[near];
  const track = building.tracks[port.track] as TrackPoint[];
  const join = (mate: End, end: Port) => {
    const mine = reachOf(mate);
    if (mine) building.through.push([mine.port, end]);
  };
  if (isTip) {
    const tip = (marks[marks.length - 1] as Marked).point;
    const whole = building.add([...right, ...apexOf(left, right, tip), ...left.reverse()], here, here);
    join(rightMate, { track: whole, end: 0 });
    join(leftMate, { track: whole, end: 1 });
    track.length = 0;
    return true;
  }
  const meeting = one < 0 ? place : building.newMeeting();
  const [l, r] = [building.add(left, here, meeting), building.add(right, here, meeting)];
  join(leftMate, { track: l, end: 0 });
  join(rightMate, { track: r, end: 0 });
  if (one < 0) {
    track.length = 0;
    return true;
  }
  beginAt(track, near, (marks[one] as Marked).point);
  places[near] = meeting;
  const ahead = wayInto(track, near);
  const straight = (points: TrackPoint[]) => {
    const way = wayInto(points, 1);
    return -(way.x * ahead.x + way.y * ahead.y);
  };
  building.through.push([port, { track: straight(left) >= straight(right) ? l : r, end: 1 }]);
  return true;
}

/** The middle of a stroke half as wide as `r` along one of its edges: places inside the contacts that move along. */
function alongEdge(
  building: Building,
  marks: readonly Marked[],
  contact: (m: Marked) => number,
  r: number,
): TrackPoint[] {
  const out: TrackPoint[] = [];
  let before = -1;
  for (const m of marks) {
    const sample = contact(m);
    if (sample === before || (sample === m.point.leftContact ? m.fixedLeft : m.fixedRight)) continue;
    out.push(building.inside(sample, r));
    before = sample;
  }
  return out;
}

/** Cuts a track that starts at its end `near`, so that it begins at a point of it. */
function beginAt(track: TrackPoint[], near: 0 | 1, point: AxisPoint): void {
  const outwards = near === 0 ? [...track] : [...track].reverse();
  const from = outwards.findIndex((p) => p.x === point.x && p.y === point.y);
  const outer = outwards.slice(Math.max(0, from));
  track.splice(0, track.length, ...(near === 0 ? outer : outer.reverse()));
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
