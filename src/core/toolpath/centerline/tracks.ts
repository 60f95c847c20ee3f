/**
 * Branches of the axis made into tracks: lines down the middle of a stroke, only where the middle is known.
 *
 * Where a stroke is met by another, the axis bends towards that one, because a disc there touches the corner between the
 * two instead of the stroke's own edge. With one contact held at such a corner, the other edge still tells where the middle
 * is: half a stroke inside it. With both held, nothing does, and the track stops; what lies between is for joints.ts. So a bar
 * runs straight over the stem that hangs from it.
 */
import { numberAt } from '../../geometry/elements';
import { distance } from '../../geometry/point';
import { type BranchEnd, Building } from './building';
import { type Cap, capsBeside } from './caps';
import { CORNER_TURN } from './edges';
import { type End, isReliable, leftOf, type Marked, MEAN_OF, marked, rightOf, runsOn } from './marks';
import { followBoth } from './merge';
import type { AxisPoint, Branch, Skeleton } from './skeleton';
import { type Port, polylineLength, type TrackPoint, type Tracks } from './track';

/** Tracks shorter than this many radii between two meetings, or at an end, tell nothing. */
const SHORT = 1.1;
const SHORT_END = 0.3;
/** How long the way round a tip may be that the axis cuts, in radii. */
const ROUND_TIP = 3;

/**
 * Half the width of the stroke at each point of a branch: as it is where sure, else from the sure ones before and after. Where
 * the edge that tells turns a corner on the way, as where a stem ends on an arm, the width changes there; else bit by bit.
 */
function widthsOf(marked: readonly Marked[], usual: number, building: Building): number[] {
  const reliable = marked.flatMap((m, i) => (isReliable(m) ? [i] : []));
  const corners = cornersAlong(marked, building);
  const mean = (from: number, step: -1 | 1): number => {
    let [sum, n] = [0, 0];
    for (let k = from; k >= 0 && k < reliable.length && n < MEAN_OF; k += step) {
      sum += (marked[numberAt(reliable, k)] as Marked).point.r;
      n++;
    }
    return sum / n;
  };
  let k = 0;
  return marked.map((m, i) => {
    if (isReliable(m)) return m.point.r;
    while (k < reliable.length && numberAt(reliable, k) < i) k++;
    const before = k > 0 ? mean(k - 1, -1) : null;
    const after = k < reliable.length ? mean(k, 1) : null;
    let r = usual;
    if (before !== null && after !== null) {
      const [p, q] = [numberAt(reliable, k - 1), numberAt(reliable, k)];
      const corner = corners.find((c) => c > p && c <= q);
      r = corner === undefined ? before + ((after - before) * (i - p)) / (q - p) : i < corner ? before : after;
    } else r = before ?? after ?? usual;
    return Math.min(r, m.point.r);
  });
}

/** The discs of a branch where either edge has turned a corner outwards since the disc before. */
function cornersAlong(marked: readonly Marked[], building: Building): number[] {
  return marked.flatMap(({ point }, i) => {
    const before = marked[i - 1]?.point;
    if (!before) return [];
    const { leftContact: l, rightContact: r } = point;
    const turn = Math.max(
      building.cornerBetween(before.leftContact, l),
      building.cornerBetween(before.rightContact, r),
    );
    return turn > CORNER_TURN ? [i] : [];
  });
}

/** Tracks of a skeleton; `half` is half the width of a stroke where nothing else tells it. */
export function tracksOf(skeleton: Skeleton, half: number): Tracks {
  const { axis, branches, degree } = skeleton;
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
  const { marks, joints, usual } = marked(skeleton, building, half);
  const reaches = branches.map((branch, i): [BranchEnd, BranchEnd] =>
    addBranch(building, branch, {
      marked: marks[i] as readonly Marked[],
      usual,
      from: meetingAt(branch.from),
      to: meetingAt(branch.to),
    }),
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

/** Cut a branch where its middle is not known, and add what is left as tracks. */
function addBranch(
  building: Building,
  branch: Branch,
  {
    marked,
    usual,
    from,
    to,
  }: { readonly marked: readonly Marked[]; readonly usual: number; readonly from: number; readonly to: number },
): [BranchEnd, BranchEnd] {
  const widths = widthsOf(marked, usual, building);
  type Piece = {
    readonly points: TrackPoint[];
    readonly first: number;
    last: number;
    /** The inner corner that all its discs are held at; −1 where there is none. */
    held: number;
    readonly afterCorner: boolean;
    beforeCorner: boolean;
  };
  const pieces: Piece[] = [];
  let piece: Piece | null = null;
  let edge = -1;
  marked.forEach((m, i) => {
    if (m.fixedLeft && m.fixedRight) {
      piece = null;
      edge = -1;
      return;
    }
    let afterCorner = false;
    let next: TrackPoint;
    let nextEdge = -1;
    if (isReliable(m)) next = { x: m.point.x, y: m.point.y, r: m.point.r, open: m.open };
    else {
      nextEdge = m.fixedLeft ? m.point.rightContact : m.point.leftContact;
      if (nextEdge === edge) {
        if (piece) piece.last = i;
        return;
      }
      next = building.inside(nextEdge, numberAt(widths, i));
      const before = piece?.points[piece.points.length - 1];
      if (
        edge >= 0 &&
        before &&
        building.normalsApart(edge, nextEdge) > CORNER_TURN &&
        distance(before, next) > 0.15 * next.r
      ) {
        // The axis takes a short cut past a tip; the edge goes round it, and the stroke with it.
        const { next: onwards, previous } = building.samples;
        const round = building.around(edge, nextEdge, next.r, m.fixedLeft ? onwards : previous);
        if (round && polylineLength(round) < ROUND_TIP * next.r) piece?.points.push(...round);
        else {
          afterCorner = true;
          if (piece) piece.beforeCorner = true;
          piece = null;
        }
      }
    }
    edge = nextEdge;
    const held = m.fixedLeft ? m.point.leftContact : m.fixedRight ? m.point.rightContact : -1;
    if (piece) {
      piece.points.push(next);
      piece.last = i;
      if (piece.held !== held) piece.held = -1;
    } else {
      piece = { points: [next], first: i, last: i, held, afterCorner, beforeCorner: false };
      pieces.push(piece);
    }
  });
  const kept = pieces.filter(({ points, first, last, held, afterCorner, beforeCorner }) => {
    // What is flat outside about one corner inside is that corner, cut off.
    if (held >= 0 && afterCorner && beforeCorner) return false;
    const isFree = (first === 0 && from < 0) || (last === marked.length - 1 && to < 0);
    return polylineLength(points) > (isFree ? SHORT_END : SHORT) * (points[0] as TrackPoint).r;
  });
  if (kept.length === 0) {
    if (from < 0 !== to < 0) return addStub(building, branch, { usual, from, to });
    const guessed = from >= 0 && to >= 0 ? guessedTrack(branch, usual) : null;
    if (guessed) {
      const track = building.add(guessed, from, to);
      return [
        { port: { track, end: 0 }, whole: false },
        { port: { track, end: 1 }, whole: false },
      ];
    }
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
    (building.at[numberAt(ids, 0)] as [number, number])[0] = meeting;
    (building.at[numberAt(ids, ids.length - 1)] as [number, number])[1] = meeting;
  }
  const [first, last] = [kept[0] as Piece, kept[kept.length - 1] as Piece];
  return [
    { port: { track: numberAt(ids, 0), end: 0 }, whole: first.first === 0 },
    { port: { track: numberAt(ids, ids.length - 1), end: 1 }, whole: last.last === marked.length - 1 },
  ];
}

/**
 * Where nothing tells the middle of a branch that leads from one joint to another, its axis over the middle of its way: a stroke is
 * there, whatever its middle is. Null for one that is too short to be a stroke.
 */
function guessedTrack({ points }: Branch, usual: number): TrackPoint[] | null {
  const length = polylineLength(points);
  if (length < GUESSED * usual) return null;
  const out: TrackPoint[] = [];
  let along = 0;
  points.forEach((p, i) => {
    if (i > 0) along += distance(points[i - 1] as AxisPoint, p);
    const isMiddle = along > GUESSED_WITHIN * length && along < (1 - GUESSED_WITHIN) * length;
    if (isMiddle) out.push({ x: p.x, y: p.y, r: Math.min(usual, p.r), open: 0 });
  });
  return out.length > 1 ? out : null;
}
/** In halves of a usual stroke, and as a share of the way left out at either end. */
const GUESSED = 1.5;
const GUESSED_WITHIN = 0.25;

/** A short branch with an end of its own, too short to show its edges: from the joint towards where it ends. */
function addStub(
  building: Building,
  { points, tip }: Branch,
  { usual, from, to }: { readonly usual: number; readonly from: number; readonly to: number },
): [BranchEnd, BranchEnd] {
  const root = (to < 0 ? points[0] : points[points.length - 1]) as AxisPoint;
  if (!tip) return [null, null];
  const r = Math.min(usual, root.r);
  const cap = [tip.leftContact, tip.rightContact]
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

/** Ends that share an edge which runs on past the joint are one stroke; two strokes that share a third are followed into it. */
function joinSides(
  building: Building,
  joints: ReadonlyMap<number, readonly End[]>,
  reaches: readonly [BranchEnd, BranchEnd][],
): void {
  const reachOf = (end: End): BranchEnd => (reaches[end.branch] as [BranchEnd, BranchEnd])[end.end];
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
          !building.isFixed(shared, a.marks[0]?.point.r ?? 0) &&
          runsOn(a, 'leftContact') &&
          runsOn(b, 'rightContact')
        )
          building.alongEdge.push([ra.port, rb.port]);
      }
}
