/**
 * Discs of the axis marked by what their contacts tell. A contact that stays at an inner corner is fixed: it says nothing about
 * the middle of the stroke. Nor does an edge that belongs to another stroke, or that swings into one.
 */
import { numberAt } from '../../geometry/elements';
import { distance } from '../../geometry/point';
import type { SampledEdges } from './edges';
import type { AxisPoint, Branch, Skeleton } from './skeleton';

/** How many radii of a branch tell its width. */
const LOOK = 8;

/** Discs whose mean is taken as a width. */
export const MEAN_OF = 5;
/** Discs that are this much larger than their stroke lie in the way into another, for this many radii at most. */
const FILLET = 1.05;
const FILLET_WITHIN = 4;
/** They get larger by this for each radius towards it. */
const FILLET_SLOPE = 0.06;
/** An edge that turns less than this past a joint runs straight, in radians. */
const STRAIGHT_EDGE = (20 * Math.PI) / 180;
/** Contacts that are at least this far apart lie on the two edges of one stroke, in radians. */
const ALONG = (150 * Math.PI) / 180;
/** An edge runs on past a joint when it is free for this many radii. */
const RUNS_ON = 0.8;

/** Discs of a stroke are this large against the largest of its end, which is so many halves of a usual stroke long. */
const END_WITHIN = 8;
const LARGE = 0.6;
/** What comes from a joint is a stroke when it shows its edges for this many radii; any other for one. */
const TOLD_BY_JOINT = 0.3;
/** Discs of a corner are no larger than this against those of the stroke; those of a ball at its end are. */
const NO_BALL = 1.05;
/** Contacts nearer to each other than this lie on the edges of a corner, in radians. */
const CORNER = (130 * Math.PI) / 180;
/** Where a stroke bends and nothing comes in, its contacts stay at least this far apart, in radians. */
const BENDS = (165 * Math.PI) / 180;

/** A disc of the axis, marked by what its two contacts tell. */
export type Marked = {
  readonly point: AxisPoint;
  /** Angle between the two contacts seen from the disc, in radians; π where the edges are parallel. */
  readonly open: number;
  fixedLeft: boolean;
  fixedRight: boolean;
};

/** Whether both contacts of a disc move along with it: then it tells the middle of the stroke. */
export const isReliable = (m: Marked): boolean => !m.fixedLeft && !m.fixedRight;

/** A branch as seen from one of its joints. */
export type End = {
  readonly branch: number;
  readonly end: 0 | 1;
  /** Marks of the branch from the joint outwards, and contacts on either side seen that way. */
  readonly marks: readonly Marked[];
  readonly leftContact: (m: Marked) => number;
  readonly rightContact: (m: Marked) => number;
};

/** The contact on the left of a branch at its joint, as the index of a sample. */
export const leftOf = (end: End): number => end.leftContact(end.marks[0] as Marked);

/** The contact on the right of a branch at its joint, as the index of a sample. */
export const rightOf = (end: End): number => end.rightContact(end.marks[0] as Marked);

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
        leftContact: (m) => (out ? m.point.leftContact : m.point.rightContact),
        rightContact: (m) => (out ? m.point.rightContact : m.point.leftContact),
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

/** Half the width of the stroke that a branch is away from its joint: a low quartile of what is sure. */
export function radiusOf({ marks }: End): number | null {
  const radii: number[] = [];
  let length = 0;
  for (let i = 0; i < marks.length; i++) {
    const m = marks[i] as Marked;
    if (i > 0) length += distance((marks[i - 1] as Marked).point, m.point);
    if (isReliable(m)) radii.push(m.point.r);
    if (length > LOOK * m.point.r && radii.length > MEAN_OF) break;
  }
  radii.sort((p, q) => p - q);
  return radii[radii.length >> 2] ?? null;
}

/** Whether an edge is free for a stretch from the joint outwards. */
export function runsOn({ marks, ...end }: End, side: 'leftContact' | 'rightContact'): boolean {
  const first = (marks[0] as Marked).point;
  let length = 0;
  for (let i = 0; i < marks.length && length < RUNS_ON * first.r; i++) {
    const m = marks[i] as Marked;
    if (i > 0) length += distance((marks[i - 1] as Marked).point, m.point);
    if (end[side](m) === m.point.leftContact ? m.fixedLeft : m.fixedRight) return false;
  }
  return true;
}

/** Whether the edge that two ends share hardly turns for a radius either way. */
function runsStraight(edges: SampledEdges, a: End, b: End): boolean {
  const r = (a.marks[0] as Marked).point.r;
  const { nx, ny } = edges.samples;
  const normalAt = (end: End, side: 'leftContact' | 'rightContact') => {
    let length = 0;
    for (let i = 1; i < end.marks.length; i++) {
      length += distance((end.marks[i - 1] as Marked).point, (end.marks[i] as Marked).point);
      if (length > r || i === end.marks.length - 1) return end[side](end.marks[i] as Marked);
    }
    return end[side](end.marks[0] as Marked);
  };
  const [p, q] = [normalAt(a, 'leftContact'), normalAt(b, 'rightContact')];
  const dot = (nx[p] as number) * (nx[q] as number) + (ny[p] as number) * (ny[q] as number);
  return dot > Math.cos(STRAIGHT_EDGE);
}

/**
 * From a joint outwards: an edge that soon comes to a corner was the edge of another stroke up to there, so it says no more
 * about this one than the corner does.
 */
function giveUpForeignEdges(marked: readonly Marked[]): void {
  const first = (marked[0] as Marked).point;
  let length = 0;
  const cornerAt = { fixedLeft: -1, fixedRight: -1 };
  for (let i = 0; i < marked.length && length < RUNS_ON * first.r; i++) {
    const m = marked[i] as Marked;
    if (i > 0) length += distance((marked[i - 1] as Marked).point, m.point);
    for (const side of ['fixedLeft', 'fixedRight'] as const) if (m[side] && cornerAt[side] < 0) cornerAt[side] = i;
  }
  for (const side of ['fixedLeft', 'fixedRight'] as const)
    for (let i = 0; i < cornerAt[side]; i++) (marked[i] as Marked)[side] = true;
}

/**
 * From a joint outwards: where the edge soon turns a corner, as from the side of a stem into that of its arm, it was the edge
 * of another stroke up to there. What comes after is to be longer: it may be the end of a stroke that turns there.
 */
function giveUpEdgesBeforeCorner(marked: readonly Marked[], edges: SampledEdges): void {
  const { r } = (marked[0] as Marked).point;
  const lengths = lengthsAlong(marked);
  const whole = numberAt(lengths, lengths.length - 1);
  for (const [side, contact] of SIDES)
    for (let i = 1; i < marked.length && numberAt(lengths, i) < CORNER_WITHIN * r; i++) {
      const [before, here] = [marked[i - 1] as Marked, marked[i] as Marked];
      if (Math.abs(edges.cornerBetween(before.point[contact], here.point[contact])) < EDGE_CORNER) continue;
      if (before[side] || here[side] || whole - numberAt(lengths, i) < CORNER_BEFORE * r) break;
      for (const m of marked.slice(0, i)) m[side] = true;
      break;
    }
}
const SIDES = [
  ['fixedLeft', 'leftContact'],
  ['fixedRight', 'rightContact'],
] as const;
/** Edges turn a corner by this much, no farther from the joint than this and with so much after it, in radii of its disc. */
const EDGE_CORNER = (18 * Math.PI) / 180;
const CORNER_WITHIN = 2.5;
const CORNER_BEFORE = 2;

/** Length along discs up to each of them. */
const lengthsAlong = (marked: readonly Marked[]): number[] => {
  let length = 0;
  return marked.map((m, i) => {
    if (i > 0) length += distance((marked[i - 1] as Marked).point, m.point);
    return length;
  });
};

/**
 * Where one edge turns a sharp corner and the other goes round it in a bracket, discs are larger than those of the strokes on
 * either side: there the bracket says nothing about the middle of either.
 */
function giveUpBrackets(marked: readonly Marked[], edges: SampledEdges): void {
  for (const [side, contact] of SIDES) {
    const [inner, opposite] = side === 'fixedLeft' ? SIDES[1] : SIDES[0];
    for (let i = 1; i < marked.length; i++) {
      const [before, here] = [marked[i - 1] as Marked, marked[i] as Marked];
      if (edges.cornerBetween(before.point[contact], here.point[contact]) < SHARP_CORNER) continue;
      const [back, on] = [bracketAlong(marked.slice(0, i).reverse()), bracketAlong(marked.slice(i))];
      const bracket = marked.slice(i - back.length, i + on.length);
      // A corner of the end of a stroke has a straight edge opposite.
      const about = marked.slice(Math.max(0, i - back.length - BESIDE), i + on.length + BESIDE);
      let turn = 0;
      for (let k = 1; k < about.length; k++)
        turn += edges.cornerBetween((about[k - 1] as Marked).point[opposite], (about[k] as Marked).point[opposite]);
      if (turn < -SHARP_CORNER) for (const m of bracket) m[inner] = true;
    }
  }
}
const SHARP_CORNER = (45 * Math.PI) / 180;
/** So many discs on either side are looked at too. */
const BESIDE = 3;

/** The discs from a corner outwards that are larger than those of the stroke they lead to. */
function bracketAlong(way: readonly Marked[]): readonly Marked[] {
  const lengths = lengthsAlong(way);
  const start = way[0];
  if (!start) return [];
  const within = way.filter((_, i) => numberAt(lengths, i) < FILLET_WITHIN * start.point.r);
  const least = Math.min(...within.map((m) => m.point.r));
  const end = within.findIndex((m) => m.point.r < FILLET * least);
  return within.slice(0, end);
}

/**
 * From a free end inwards: edges that run towards each other are those of a corner of the end, not of the stroke. A stroke that
 * narrows all along has no others. One that comes from a joint may be short itself: `whole` where it does not.
 */
function giveUpCorner(marked: readonly Marked[], whole: boolean, usual: number): void {
  const lengths = lengthsAlong(marked);
  const largest = marked.reduce(
    (r, m, i) => (numberAt(lengths, i) > END_WITHIN * usual ? r : Math.max(r, m.point.r)),
    0,
  );
  const isStroke = (m: Marked) => m.open > ALONG && m.point.r > LARGE * largest;
  const first = marked.findIndex(isStroke);
  if (first < 0) return;
  const { r } = (marked[first] as Marked).point;
  const enough = whole ? r : TOLD_BY_JOINT * r;
  let told = 0;
  for (let i = first + 1; i < marked.length && told < enough; i++)
    if (isStroke(marked[i] as Marked)) told += distance((marked[i - 1] as Marked).point, (marked[i] as Marked).point);
  if (told < enough) return;
  for (const m of marked.slice(0, first))
    if (m.open < CORNER && m.point.r < NO_BALL * r) [m.fixedLeft, m.fixedRight] = [true, true];
}

/**
 * Where one edge runs on straight past a joint, what bulges on the other side is the way into the third stroke, even where
 * it is rounded so wide that no corner shows: it says nothing about the middle of either.
 */
function giveUpFillets(edges: SampledEdges, ends: readonly End[]): void {
  const straight: [End, End][] = [];
  for (const a of ends)
    for (const b of ends)
      if (
        a !== b &&
        leftOf(a) === rightOf(b) &&
        runsOn(a, 'leftContact') &&
        runsOn(b, 'rightContact') &&
        runsStraight(edges, a, b)
      )
        straight.push([a, b]);
  const [only] = straight;
  if (!only || straight.length > 1) return;
  const [a, b] = only;
  for (const end of ends) {
    const clean = radiusOf(end);
    if (clean === null) continue;
    const lengths = lengthsAlong(end.marks);
    for (let i = 0; i < end.marks.length; i++) {
      const m = end.marks[i] as Marked;
      const length = numberAt(lengths, i);
      if (m.point.r < FILLET * clean || length > FILLET_WITHIN * clean) break;
      // A stroke that gets wider towards the joint all along does so by less.
      const on = end.marks[lengths.findIndex((l) => l > length + clean)];
      if (on && m.point.r - on.point.r < FILLET_SLOPE * clean) break;
      const isLeft = end.leftContact(m) === m.point.leftContact;
      if (end !== a) m[isLeft ? 'fixedLeft' : 'fixedRight'] = true;
      if (end !== b) m[isLeft ? 'fixedRight' : 'fixedLeft'] = true;
    }
  }
}

/**
 * Radii of the discs that touch both edges of one stroke, the least first; with those that touch an inner corner right opposite an edge,
 * which tell how wide what is between them is, if not where its middle lies.
 */
const sureRadii = (marks: readonly (readonly Marked[])[]): number[] =>
  marks
    .flatMap((m) =>
      m.filter((one) => (isReliable(one) || one.open > BENDS) && one.open > ALONG).map((one) => one.point.r),
    )
    .sort((a, b) => a - b);

/** A skeleton with its discs marked, and what its branch ends at each joint are. */
export type MarkedSkeleton = {
  /** For each branch its discs. */
  readonly marks: readonly (readonly Marked[])[];
  /** The branch ends at each joint. */
  readonly joints: ReadonlyMap<number, readonly End[]>;
  /** Half the width of a stroke where nothing else tells it. */
  readonly usual: number;
  /** Half the widths of strokes at all places where they are sure, the least first. */
  readonly reliableRadii: readonly number[];
};

/** A skeleton with its discs marked; `usual` is half the width of a stroke where not one disc is sure. */
export function marked({ branches, degree }: Skeleton, edges: SampledEdges, usual: number): MarkedSkeleton {
  const marks = branches.map((branch) =>
    branch.points.map((point) => {
      // Where both edges run along each other, they tell the middle even where they bend: no other stroke comes in.
      const open = edges.openAt(point);
      const isBend = open > BENDS && ![point.leftContact, point.rightContact].some((c) => edges.isInnerCorner(c));
      if (isBend) return { point, open, fixedLeft: false, fixedRight: false };
      return {
        point,
        open,
        fixedLeft: edges.isFixed(point.leftContact, point.r),
        fixedRight: edges.isFixed(point.rightContact, point.r),
      };
    }),
  );
  branches.forEach((branch, i) => {
    const mine = marks[i] as Marked[];
    const back = [...mine].reverse();
    giveUpBrackets(mine, edges);
    if (degree[branch.from] === 3) giveUpForeignEdges(mine);
    if (degree[branch.to] === 3) giveUpForeignEdges(back);
    if (degree[branch.from] === 3) giveUpEdgesBeforeCorner(mine, edges);
    if (degree[branch.to] === 3) giveUpEdgesBeforeCorner(back, edges);
    if (degree[branch.from] === 1) giveUpCorner(mine, degree[branch.to] === 1, usual);
    if (degree[branch.to] === 1) giveUpCorner(back, degree[branch.from] === 1, usual);
  });
  const joints = jointsOf(branches, degree, marks);
  const reliableRadii = sureRadii(marks);
  for (const ends of joints.values()) giveUpFillets(edges, ends);
  return { marks, joints, usual: reliableRadii[reliableRadii.length >> 1] ?? usual, reliableRadii: reliableRadii };
}
