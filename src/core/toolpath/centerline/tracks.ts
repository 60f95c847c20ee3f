/**
 * Branches of the axis made into tracks: lines down the middle of a stroke, only where the middle is known.
 *
 * Where a stroke is met by another, the axis bends towards that one, because a disc there touches the corner between the
 * two instead of the stroke's own edge. A contact that stays at such a corner is "held". With one contact held, the other
 * edge still tells where the middle is: half a stroke inside it. With both held, nothing does, and the track stops; what
 * lies between is for joints.ts. So a bar runs straight over the stem that hangs from it.
 *
 * Two strokes that meet at a small angle share a stretch of the axis in which discs are larger than either stroke. There
 * each goes on along its own edge until they have become one, or end in a common tip.
 */
import type { Samples } from '../../geometry/medial';
import { type Cap, capsBeside } from './caps';
import { cornerOf, rayOf } from './rays';
import type { AxisPoint, Branch, Skeleton } from './skeleton';

export type TrackPoint = {
  readonly x: number;
  readonly y: number;
  /** Half the width of the stroke. */
  readonly r: number;
  /** Angle between the two contacts seen from here, in radians; π where the edges are parallel. 0 where not known. */
  readonly open: number;
};

/** The end of a track: its first point (0) or its last (1). */
export type Port = { readonly track: number; readonly end: 0 | 1 };

export type Tracks = {
  readonly tracks: readonly (readonly TrackPoint[])[];
  /** Ends that come together; one that is in none is free. */
  readonly meetings: readonly (readonly Port[])[];
  /** Pairs of ends that are known to be one stroke. */
  readonly through: readonly (readonly [Port, Port])[];
  /** Pairs of ends that share an edge which runs on past their joint. */
  readonly alongEdge: readonly (readonly [Port, Port])[];
};

/** A contact is held where the outline turns inwards by this much within this many radii either way. */
const HELD_TURN = (35 * Math.PI) / 180;
const HELD_WITHIN = 0.3;
/** Edges of one stroke turn by no more than this from one contact to the next, or there is a corner. */
const CORNER_TURN = (25 * Math.PI) / 180;
/** Tracks shorter than this many radii between two meetings, or at an end, tell nothing. */
const SHORT = 1.1;
const SHORT_END = 0.3;
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
/** How many radii of a branch tell its width. */
const LOOK = 8;
/** How many radii two strokes may run into each other until they are one. */
const MERGE_WITHIN = 16;
/** A common tip goes on for no more than this many radii. */
const TIP = 0.6;
const MEAN_OF = 5;
/** Discs that are this much larger than their stroke lie in the way into another, for this many radii at most. */
const FILLET = 1.05;
const FILLET_WITHIN = 4;
/** An edge that turns less than this past a joint runs straight, in radians. */
const STRAIGHT_EDGE = (20 * Math.PI) / 180;
/** A pen is even when two fifths of its discs are less than this much larger than the least tenth. */
const EVEN = 1.06;
const NEAR_PEN = 1.12;
/** Contacts that are at least this far apart lie on the two edges of one stroke, in radians. */
const ALONG = (150 * Math.PI) / 180;
/** How long the way round a tip may be that the axis cuts, in radii. */
const ROUND_TIP = 3;
/** Samples around a tip at most. */
const MOST_AROUND = 400;
/** An edge runs on past a joint when it is free for this many radii. */
const RUNS_ON = 0.8;

/** How far the outline turns at each sample, in radians, positive to the left. */
function turnsOf(s: Samples): Float64Array {
  const turns = new Float64Array(s.x.length);
  for (let i = 0; i < turns.length; i++) {
    const [p, q] = [s.previous[i] as number, s.next[i] as number];
    const [ux, uy] = [(s.x[i] as number) - (s.x[p] as number), (s.y[i] as number) - (s.y[p] as number)];
    const [vx, vy] = [(s.x[q] as number) - (s.x[i] as number), (s.y[q] as number) - (s.y[i] as number)];
    turns[i] = Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);
  }
  return turns;
}

class Building {
  readonly tracks: TrackPoint[][] = [];
  /** Half the width of the pen that drew it all; null where widths differ. */
  pen: number | null = null;
  readonly through: [Port, Port][] = [];
  readonly alongEdge: [Port, Port][] = [];
  private readonly leaders: number[] = [];
  /** The meeting each end of each track belongs to; -1 for none. */
  readonly at: [number, number][] = [];
  readonly samples: Samples;
  private readonly turns: Float64Array;

  constructor(samples: Samples) {
    this.samples = samples;
    this.turns = turnsOf(samples);
  }

  newMeeting(): number {
    this.leaders.push(this.leaders.length);
    return this.leaders.length - 1;
  }
  meeting(id: number): number {
    let at = id;
    while (this.leaders[at] !== at) at = this.leaders[at] as number;
    return at;
  }
  unite(a: number, b: number): void {
    if (a >= 0 && b >= 0) this.leaders[this.meeting(a)] = this.meeting(b);
  }
  add(points: TrackPoint[], from: number, to: number): number {
    this.tracks.push(points);
    this.at.push([from, to]);
    return this.tracks.length - 1;
  }

  held(sample: number, r: number): boolean {
    const { next, previous, along, path, lengths } = this.samples;
    const length = lengths[path[sample] as number] as number;
    const from = along[sample] as number;
    let sum = this.turns[sample] as number;
    let least = sum;
    for (const step of [next, previous]) {
      let part = 0;
      for (let i = step[sample] as number; i !== sample; i = step[i] as number) {
        const d = Math.abs((along[i] as number) - from);
        if (Math.min(d, length - d) > HELD_WITHIN * r) break;
        part += this.turns[i] as number;
        least = Math.min(least, sum + part);
      }
      sum += part;
    }
    return Math.min(least, sum) < -HELD_TURN;
  }

  /** The middle of a stroke `r` wide on either side that has a sample on its edge. */
  inside(sample: number, r: number): TrackPoint {
    const { x, y, nx, ny } = this.samples;
    return {
      x: (x[sample] as number) + r * (nx[sample] as number),
      y: (y[sample] as number) + r * (ny[sample] as number),
      r,
      open: 0,
    };
  }

  openAt({ x, y, left, right }: AxisPoint): number {
    const s = this.samples;
    const [ax, ay] = [(s.x[left] as number) - x, (s.y[left] as number) - y];
    const [bx, by] = [(s.x[right] as number) - x, (s.y[right] as number) - y];
    return Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
  }

  /** The way inside the outline along one sample after another, where there is no corner between; else null. */
  around(from: number, to: number, r: number, step: ArrayLike<number>): TrackPoint[] | null {
    const out: TrackPoint[] = [];
    for (let i = from; i !== to; i = step[i] as number) {
      if (Math.abs(this.turns[i] as number) > CORNER_TURN || out.length > MOST_AROUND) return null;
      out.push(this.inside(i, r));
    }
    return out;
  }

  normalsApart(i: number, j: number): number {
    const { nx, ny } = this.samples;
    const dot = (nx[i] as number) * (nx[j] as number) + (ny[i] as number) * (ny[j] as number);
    return Math.acos(Math.max(-1, Math.min(1, dot)));
  }
}

/**
 * Half the width of the pen, where a letter looks drawn with one: then nothing is thinner than the pen, and much of the rest
 * just as wide. Null where widths differ.
 */
function penOf(sorted: readonly number[]): number | null {
  const at = (share: number) => sorted[Math.floor(share * (sorted.length - 1))];
  const [low, more] = [at(0.1), at(0.4)];
  return low !== undefined && more !== undefined && more < EVEN * low ? (at(0.2) as number) : null;
}

type Marked = { readonly point: AxisPoint; heldLeft: boolean; heldRight: boolean };

const isSure = (m: Marked): boolean => !m.heldLeft && !m.heldRight;

const distance = (a: { x: number; y: number }, b: { x: number; y: number }): number => Math.hypot(a.x - b.x, a.y - b.y);

export const lengthOf = (points: readonly { x: number; y: number }[]): number => {
  let length = 0;
  for (let i = 1; i < points.length; i++) length += distance(points[i - 1] as TrackPoint, points[i] as TrackPoint);
  return length;
};

/** Half the width of the stroke at each point of a branch: as it is where sure, else from the sure ones before and after. */
function widthsOf(marked: readonly Marked[], usual: number, pen: number | null): number[] {
  const sure = marked.flatMap((m, i) => (isSure(m) ? [i] : []));
  const mean = (from: number, step: -1 | 1): number => {
    let [sum, n] = [0, 0];
    for (let k = from; k >= 0 && k < sure.length && n < MEAN_OF; k += step) {
      sum += (marked[sure[k] as number] as Marked).point.r;
      n++;
    }
    return sum / n;
  };
  let k = 0;
  return marked.map((m, i) => {
    if (isSure(m)) return m.point.r;
    while (k < sure.length && (sure[k] as number) < i) k++;
    const before = k > 0 ? mean(k - 1, -1) : null;
    const after = k < sure.length ? mean(k, 1) : null;
    let r = usual;
    if (before !== null && after !== null) {
      const [p, q] = [sure[k - 1] as number, sure[k] as number];
      r = before + ((after - before) * (i - p)) / (q - p);
    } else r = before ?? after ?? usual;
    // A local width that is far from the pen's is that of two strokes.
    return Math.min(pen !== null && r > NEAR_PEN * pen ? pen : r, m.point.r);
  });
}

/** What a branch became towards one of its ends: the nearest track, and whether it goes all the way; or none. */
type Reach = { readonly port: Port; readonly whole: boolean } | null;

/** Tracks of a skeleton; `usual` is half the width of a stroke where nothing else tells it. */
export function tracksOf({ axis, branches, degree }: Skeleton, usual: number): Tracks {
  const building = new Building(axis.samples);
  const meetingOf = new Map<number, number>();
  const meetingAt = (node: number): number => {
    if (degree[node] !== 3) return -1;
    let known = meetingOf.get(node);
    if (known === undefined) {
      known = building.newMeeting();
      meetingOf.set(node, known);
    }
    return known;
  };
  const marks = branches.map((branch) =>
    branch.points.map((point) => ({
      point,
      heldLeft: building.held(point.left, point.r),
      heldRight: building.held(point.right, point.r),
    })),
  );
  branches.forEach((branch, i) => {
    const mine = marks[i] as Marked[];
    if (degree[branch.from] === 3) giveUpForeignEdges(mine);
    if (degree[branch.to] === 3) giveUpForeignEdges([...mine].reverse());
  });
  branches.forEach((branch, i) => {
    for (const stump of branch.stumps) giveUpStump(marks[i] as Marked[], stump);
  });
  const joints = jointsOf(branches, degree, marks);
  const sureRadii = marks
    .flatMap((m) => m.filter((one) => isSure(one) && building.openAt(one.point) > ALONG).map((one) => one.point.r))
    .sort((a, b) => a - b);
  const middle = sureRadii[sureRadii.length >> 1] ?? usual;
  building.pen = penOf(sureRadii);
  if (building.pen === null) for (const ends of joints.values()) giveUpFillets(building, ends);
  const reaches = branches.map((branch, i): [Reach, Reach] =>
    addBranch(building, branch, marks[i] as Marked[], middle, meetingAt(branch.from), meetingAt(branch.to)),
  );
  joinSides(building, joints, reaches);
  const meetings = new Map<number, Port[]>();
  building.at.forEach((ends, track) => {
    ends.forEach((id, end) => {
      if (id < 0 || (building.tracks[track] as TrackPoint[]).length === 0) return;
      const root = building.meeting(id);
      const ports = meetings.get(root);
      const port = { track, end: end as 0 | 1 };
      if (ports) ports.push(port);
      else meetings.set(root, [port]);
    });
  });
  const isThere = (pair: readonly [Port, Port]) =>
    pair.every((p) => (building.tracks[p.track] as TrackPoint[]).length > 0);
  return {
    tracks: building.tracks,
    meetings: [...meetings.values()],
    through: building.through.filter(isThere),
    alongEdge: building.alongEdge.filter(isThere),
  };
}

/**
 * From a joint outwards: an edge that soon comes to a corner was the edge of another stroke up to there, so it says no more
 * about this one than the corner does.
 */
function giveUpForeignEdges(marked: readonly Marked[]): void {
  const first = (marked[0] as Marked).point;
  let length = 0;
  const cornerAt = { heldLeft: -1, heldRight: -1 };
  for (let i = 0; i < marked.length && length < RUNS_ON * first.r; i++) {
    const m = marked[i] as Marked;
    if (i > 0) length += distance((marked[i - 1] as Marked).point, m.point);
    for (const side of ['heldLeft', 'heldRight'] as const) if (m[side] && cornerAt[side] < 0) cornerAt[side] = i;
  }
  for (const side of ['heldLeft', 'heldRight'] as const)
    for (let i = 0; i < cornerAt[side]; i++) (marked[i] as Marked)[side] = true;
}

/**
 * Where a small branch was taken off, the edge on that side bulges: as far as discs are larger there than on both sides, it
 * says nothing about the middle.
 */
function giveUpStump(marked: readonly Marked[], { at, side }: Branch['stumps'][number]): void {
  const radius = (marked[at] as Marked).point.r;
  const beyond = (step: -1 | 1): AxisPoint | null => {
    let length = 0;
    for (let i = at; marked[i + step]; i += step) {
      length += distance((marked[i] as Marked).point, (marked[i + step] as Marked).point);
      if (length > BULGE * radius) return (marked[i + step] as Marked).point;
    }
    return null;
  };
  const [p, q] = [beyond(-1), beyond(1)];
  if (p === null || q === null || Math.abs(p.r - q.r) > EVEN_SIDES * Math.max(p.r, q.r)) return;
  // A bend is no bulge: both halves of the way past it are as long as the way itself.
  const here = (marked[at] as Marked).point;
  if (distance(p, here) + distance(here, q) > STRAIGHT_PAST * distance(p, q)) return;
  const clean = Math.max(p.r, q.r);
  for (const step of [-1, 1] as const) {
    let length = 0;
    for (let i = step === 1 ? at : at - 1; marked[i]; i += step) {
      const m = marked[i] as Marked;
      if (m.point.r < FILLET * clean || length > BULGE * radius) break;
      m[side === 'left' ? 'heldLeft' : 'heldRight'] = true;
      const next = marked[i + step];
      if (next) length += distance(m.point, next.point);
    }
  }
}
/** A bulge where a branch was taken off is over after this many radii. */
const BULGE = 1.5;
/** It is one where the stroke is as wide before as after, within this share. */
const EVEN_SIDES = 0.06;
/** Past a bulge the way is straight: no longer than this much more than from end to end. */
const STRAIGHT_PAST = 1.03;

/** Cut a branch where its middle is not known, and add what is left as tracks. */
function addBranch(
  building: Building,
  branch: Branch,
  marked: readonly Marked[],
  usual: number,
  from: number,
  to: number,
): [Reach, Reach] {
  const widths = widthsOf(marked, usual, building.pen);
  type Piece = { points: TrackPoint[]; first: number; last: number };
  const pieces: Piece[] = [];
  let piece: Piece | null = null;
  let edge = -1;
  marked.forEach((m, i) => {
    if (m.heldLeft && m.heldRight) {
      piece = null;
      edge = -1;
      return;
    }
    let next: TrackPoint;
    let nextEdge = -1;
    if (isSure(m)) next = { x: m.point.x, y: m.point.y, r: m.point.r, open: building.openAt(m.point) };
    else {
      nextEdge = m.heldLeft ? m.point.right : m.point.left;
      if (nextEdge === edge) {
        if (piece) piece.last = i;
        return;
      }
      next = building.inside(nextEdge, widths[i] as number);
      const before = piece?.points[piece.points.length - 1];
      if (
        edge >= 0 &&
        before &&
        building.normalsApart(edge, nextEdge) > CORNER_TURN &&
        distance(before, next) > 0.15 * next.r
      ) {
        // The axis takes a short cut past a tip; the edge goes round it, and the stroke with it.
        const { next: onwards, previous } = building.samples;
        const round = building.around(edge, nextEdge, next.r, m.heldLeft ? onwards : previous);
        if (round && lengthOf(round) < ROUND_TIP * next.r) piece?.points.push(...round);
        else piece = null;
      }
    }
    edge = nextEdge;
    if (piece) {
      piece.points.push(next);
      piece.last = i;
    } else {
      piece = { points: [next], first: i, last: i };
      pieces.push(piece);
    }
  });
  const kept = pieces.filter(({ points, first, last }) => {
    const isFree = (first === 0 && from < 0) || (last === marked.length - 1 && to < 0);
    return lengthOf(points) > (isFree ? SHORT_END : SHORT) * (points[0] as TrackPoint).r;
  });
  if (kept.length === 0) {
    if (from < 0 !== to < 0) return addStub(building, branch, usual, from, to);
    building.unite(from, to);
    return [null, null];
  }
  let at = from;
  const ids = kept.map(({ points }, k) => {
    const after = k + 1 < kept.length ? building.newMeeting() : to;
    const start = k === 0 && kept[0]?.first !== 0 && from < 0 ? -1 : at;
    at = after;
    return building.add(points, start, after);
  });
  // A ring without joints that is known all the way round is one closed track.
  if (branch.from === branch.to && from < 0) {
    const meeting = building.newMeeting();
    (building.at[ids[0] as number] as [number, number])[0] = meeting;
    (building.at[ids[ids.length - 1] as number] as [number, number])[1] = meeting;
  }
  const [first, last] = [kept[0] as Piece, kept[kept.length - 1] as Piece];
  return [
    { port: { track: ids[0] as number, end: 0 }, whole: first.first === 0 },
    { port: { track: ids[ids.length - 1] as number, end: 1 }, whole: last.last === marked.length - 1 },
  ];
}

/** A short branch with an end of its own, too short to show its edges: from the joint towards where it ends. */
function addStub(building: Building, { points, tip }: Branch, usual: number, from: number, to: number): [Reach, Reach] {
  const root = (to < 0 ? points[0] : points[points.length - 1]) as AxisPoint;
  if (!tip) return [null, null];
  const r = Math.min(usual, root.r);
  const cap = [tip.left, tip.right]
    .flatMap((i) => capsBeside(building.samples, i, r))
    .reduce<Cap | null>((best, one) => {
      const fit = (c: Cap) => (c.dx * (c.x - root.x) + c.dy * (c.y - root.y)) / (distance(c, root) || 1);
      return best && fit(best) >= fit(one) ? best : one;
    }, null);
  const d = distance(root, tip);
  if (!cap && d === 0) return [null, null];
  const [dx, dy] = cap ? [cap.dx, cap.dy] : [(tip.x - root.x) / d, (tip.y - root.y) / d];
  const end = cap ?? tip;
  const back = cap ? cap.straight : 0.3 * r;
  const stub = [
    { x: end.x - back * dx, y: end.y - back * dy, r, open: 0 },
    { x: end.x - 0.3 * back * dx, y: end.y - 0.3 * back * dy, r, open: 0 },
  ];
  const track = building.add(to < 0 ? stub : stub.reverse(), from, to);
  const port = { track, end: to < 0 ? 0 : 1 } as const;
  return to < 0 ? [{ port, whole: false }, null] : [null, { port, whole: false }];
}

/** A branch as seen from one of its joints. */
type End = {
  readonly branch: number;
  readonly end: 0 | 1;
  /** Marks of the branch from the joint outwards, and contacts on either side seen that way. */
  readonly marks: readonly Marked[];
  readonly left: (m: Marked) => number;
  readonly right: (m: Marked) => number;
};

/** The branch ends at each joint. */
function jointsOf(
  branches: readonly Branch[],
  degree: Uint8Array,
  marks: readonly (readonly Marked[])[],
): Map<number, End[]> {
  const joints = new Map<number, End[]>();
  branches.forEach((branch, i) => {
    const mine = marks[i] as Marked[];
    const put = (node: number, end: 0 | 1) => {
      if (degree[node] !== 3) return;
      const out = end === 0;
      const made: End = {
        branch: i,
        end,
        marks: out ? mine : [...mine].reverse(),
        left: (m) => (out ? m.point.left : m.point.right),
        right: (m) => (out ? m.point.right : m.point.left),
      };
      const ends = joints.get(node);
      if (ends) ends.push(made);
      else joints.set(node, [made]);
    };
    put(branch.from, 0);
    put(branch.to, 1);
  });
  return joints;
}

/**
 * Where one edge runs on straight past a joint, what bulges on the other side is the way into the third stroke, even where
 * it is rounded so wide that no corner shows: it says nothing about the middle of either.
 */
function giveUpFillets(building: Building, ends: readonly End[]): void {
  const straight: [End, End][] = [];
  for (const a of ends)
    for (const b of ends)
      if (
        a !== b &&
        leftOf(a) === rightOf(b) &&
        runsOn(a, 'left') &&
        runsOn(b, 'right') &&
        runsStraight(building, a, b)
      )
        straight.push([a, b]);
  const [only] = straight;
  if (!only || straight.length > 1) return;
  const [a, b] = only;
  for (const end of ends) {
    const clean = radiusOf(end);
    if (clean === null) continue;
    let length = 0;
    for (let i = 0; i < end.marks.length; i++) {
      const m = end.marks[i] as Marked;
      if (i > 0) length += distance((end.marks[i - 1] as Marked).point, m.point);
      if (m.point.r < FILLET * clean || length > FILLET_WITHIN * clean) break;
      const left = end.left(m) === m.point.left;
      if (end !== a) m[left ? 'heldLeft' : 'heldRight'] = true;
      if (end !== b) m[left ? 'heldRight' : 'heldLeft'] = true;
    }
  }
}

/** Whether the edge that two ends share hardly turns for a radius either way. */
function runsStraight(building: Building, a: End, b: End): boolean {
  const r = (a.marks[0] as Marked).point.r;
  const { nx, ny } = building.samples;
  const normalAt = (end: End, side: 'left' | 'right') => {
    let length = 0;
    for (let i = 1; i < end.marks.length; i++) {
      length += distance((end.marks[i - 1] as Marked).point, (end.marks[i] as Marked).point);
      if (length > r || i === end.marks.length - 1) return end[side](end.marks[i] as Marked);
    }
    return end[side](end.marks[0] as Marked);
  };
  const [p, q] = [normalAt(a, 'left'), normalAt(b, 'right')];
  const dot = (nx[p] as number) * (nx[q] as number) + (ny[p] as number) * (ny[q] as number);
  return dot > Math.cos(STRAIGHT_EDGE);
}

/** Whether an edge is free for a stretch from the joint outwards. */
function runsOn({ marks, ...end }: End, side: 'left' | 'right'): boolean {
  const first = (marks[0] as Marked).point;
  let length = 0;
  for (let i = 0; i < marks.length && length < RUNS_ON * first.r; i++) {
    const m = marks[i] as Marked;
    if (i > 0) length += distance((marks[i - 1] as Marked).point, m.point);
    if (end[side](m) === m.point.left ? m.heldLeft : m.heldRight) return false;
  }
  return true;
}

/** Ends that share an edge which runs on past the joint are one stroke; two strokes that share a third are followed into it. */
function joinSides(
  building: Building,
  joints: ReadonlyMap<number, readonly End[]>,
  reaches: readonly [Reach, Reach][],
): void {
  const reachOf = (end: End): Reach => (reaches[end.branch] as [Reach, Reach])[end.end];
  const merged = new Set<End>();
  for (const ends of joints.values()) {
    for (const common of ends) if (followBoth(building, common, ends, reachOf)) merged.add(common);
  }
  for (const ends of joints.values())
    for (const a of ends)
      for (const b of ends) {
        const [ra, rb] = [reachOf(a), reachOf(b)];
        if (a === b || !ra?.whole || !rb?.whole || merged.has(a) || merged.has(b)) continue;
        // Seen from the joint outwards, the left edge of one is the right edge of the next.
        const shared = leftOf(a);
        if (
          shared === rightOf(b) &&
          !building.held(shared, a.marks[0]?.point.r ?? 0) &&
          runsOn(a, 'left') &&
          runsOn(b, 'right')
        )
          building.alongEdge.push([ra.port, rb.port]);
      }
}

const leftOf = (end: End): number => end.left(end.marks[0] as Marked);
const rightOf = (end: End): number => end.right(end.marks[0] as Marked);

/** Half the width of the stroke that a branch is away from its joint: a low quartile of what is sure. */
function radiusOf({ marks }: End): number | null {
  const sure: number[] = [];
  let length = 0;
  for (let i = 0; i < marks.length; i++) {
    const m = marks[i] as Marked;
    if (i > 0) length += distance((marks[i - 1] as Marked).point, m.point);
    if (isSure(m)) sure.push(m.point.r);
    if (length > LOOK * m.point.r && sure.length > MEAN_OF) break;
  }
  sure.sort((p, q) => p - q);
  return sure[sure.length >> 2] ?? null;
}

/**
 * A branch whose discs are larger than either of the other two strokes of its joint holds both: each goes on along its own
 * edge, until they are one, or end in a common tip, or nothing tells. Whether the branch is such a one.
 */
function followBoth(building: Building, common: End, ends: readonly End[], reachOf: (end: End) => Reach): boolean {
  const leftMate = ends.find((e) => e !== common && rightOf(e) === leftOf(common));
  const rightMate = ends.find((e) => e !== common && leftOf(e) === rightOf(common));
  if (!leftMate || !rightMate || leftMate === rightMate) return false;
  const rl = building.pen ?? radiusOf(leftMate);
  const rr = building.pen ?? radiusOf(rightMate);
  if (rl === null || rr === null) return false;
  const most = Math.max(rl, rr);
  const { marks } = common;
  const reach = reachOf(common);
  if (!reach?.whole) return false;
  // From the first sure place on: how far it is larger, and where the two have become one.
  let first = 0;
  while (first < marks.length && !isSure(marks[first] as Marked)) first++;
  const start = marks[first];
  if (!start || lengthOf(marks.slice(0, first + 1).map((m) => m.point)) > 1.5 * most) return false;
  const both = rl + rr;
  const least = building.pen === null ? LEAST_BOTH * both : 0;
  if (!(start.point.r > LARGER * most) || start.point.r < least || start.point.r > MOST_BOTH * both) return false;
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
    if (m.heldLeft && m.heldRight) break;
    if (i > first) length += distance((marks[i - 1] as Marked).point, m.point);
    if (length > MERGE_WITHIN * most) return false;
    last = i;
    if (isSure(m) && m.point.r < (1 + ONE) * most) {
      one = i;
      break;
    }
  }
  const { track: id, end: near } = reach.port;
  const far = near === 0 ? 1 : 0;
  const places = building.at[id] as [number, number];
  const isLeaf = last === marks.length - 1 && places[far] < 0;
  const end = (marks[last] as Marked).point.r;
  if (one < 0 && !isLeaf && (places[far] < 0 || (building.pen === null && start.point.r < CROSSES * end))) return false;
  // A stroke that is as wide at its end as at the joint is one thick stroke.
  if (one < 0 && isLeaf && building.pen === null && length > LONG_TIP * most && end > NARROWS * start.point.r)
    return false;
  const after = one < 0 ? [] : marks.slice(one);
  const isTip = (isLeaf || (one >= 0 && places[far] < 0)) && lengthOf(after.map((m) => m.point)) <= TIP * most;
  const stop = one < 0 || isTip ? last : one;
  const along = (side: (m: Marked) => number, r: number): TrackPoint[] => {
    const out: TrackPoint[] = [];
    let before = -1;
    for (let i = 0; i <= (isTip ? marks.length - 1 : stop); i++) {
      const m = marks[i] as Marked;
      const sample = side(m);
      if (sample === before || (sample === m.point.left ? m.heldLeft : m.heldRight)) continue;
      out.push(building.inside(sample, r));
      before = sample;
    }
    return out;
  };
  const left = along(common.left, rl);
  const right = along(common.right, rr);
  if (left.length === 0 || right.length === 0) return false;
  const here = places[near];
  const join = (mate: End, port: Port) => {
    const mine = reachOf(mate);
    if (mine) building.through.push([mine.port, port]);
  };
  if (isTip) {
    const tip = marks[marks.length - 1] as Marked;
    const round =
      building.pen === null
        ? apexOf(left, right, tip.point)
        : building.around(common.right(tip), common.left(tip), (rl + rr) / 2, building.samples.next);
    if (round) {
      const whole = building.add([...right, ...round, ...left.reverse()], here, here);
      join(rightMate, { track: whole, end: 0 });
      join(leftMate, { track: whole, end: 1 });
    } else {
      const tip = building.newMeeting();
      const [l, r] = [building.add(left, here, tip), building.add(right, here, tip)];
      join(leftMate, { track: l, end: 0 });
      join(rightMate, { track: r, end: 0 });
      building.through.push([
        { track: l, end: 1 },
        { track: r, end: 1 },
      ]);
    }
    (building.tracks[id] as TrackPoint[]).length = 0;
    return true;
  }
  const meeting = one < 0 ? (places[far] as number) : building.newMeeting();
  const [l, r] = [building.add(left, here, meeting), building.add(right, here, meeting)];
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
  const rest = outwards.slice(Math.max(0, from));
  track.splice(0, track.length, ...(near === 0 ? rest : rest.reverse()));
  places[near] = meeting;
  const [wl, wr, w] = [wayInto(left, 1), wayInto(right, 1), wayInto(track, near)];
  const straight = (v: { x: number; y: number }) => -(v.x * w.x + v.y * w.y);
  building.through.push([reach.port, { track: straight(wl) >= straight(wr) ? l : r, end: 1 }]);
  return true;
}

/**
 * Where strokes of changing width end in a common tip, both run to one point: where they cross, when that is near the last
 * disc, else its middle. Points of either that lie at it are taken off.
 */
function apexOf(left: TrackPoint[], right: TrackPoint[], tip: AxisPoint): TrackPoint[] {
  const crossing = left.length > 1 && right.length > 1 ? cornerOf(rayOf(left, 1), rayOf(right, 1)) : null;
  const { x, y } = crossing && distance(crossing, tip) < APEX * tip.r ? crossing : tip;
  for (const track of [left, right])
    while (track.length > 1 && distance(track[track.length - 1] as TrackPoint, { x, y }) < 0.5 * tip.r) track.pop();
  return [{ x, y, r: tip.r, open: 0 }];
}
const APEX = 1.4;

/** The direction in which a track runs into its end, over the last radius. */
function wayInto(points: readonly TrackPoint[], end: 0 | 1): { x: number; y: number } {
  const n = points.length;
  const at = (k: number) => points[end === 1 ? n - 1 - k : k] as TrackPoint;
  const tip = at(0);
  let k = 1;
  while (k < n - 1 && distance(at(k), tip) < tip.r) k++;
  const from = at(Math.min(k, n - 1));
  const length = distance(tip, from) || 1;
  return { x: (tip.x - from.x) / length, y: (tip.y - from.y) / length };
}
