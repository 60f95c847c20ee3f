/** The medial axis as branches between joints and ends, small branches taken off. */

import { floatAt, intAt, numberAt } from '../../geometry/elements';
import type { AxisLink, MedialAxis } from '../../geometry/medial';
import { capsBeside } from './caps';

/** A disc on the axis and the points of the outline it touches on either side of the way along the branch. */
export type AxisPoint = {
  readonly x: number;
  readonly y: number;
  readonly r: number;
  readonly leftContact: number;
  readonly rightContact: number;
};

/** A branch of a skeleton between two nodes. */
export type Branch = {
  /** Discs at its ends; the same one for a ring without joints. */
  readonly from: number;
  readonly to: number;
  readonly points: readonly AxisPoint[];
  /** Where it leads into a blunt corner at its end: the disc there. Its points stop before. */
  readonly tip: AxisPoint | null;
};

/** The medial axis of a region as branches between joints and ends, without those that mean nothing. */
export type Skeleton = {
  readonly axis: MedialAxis;
  readonly branches: readonly Branch[];
  /** How many branches end at a disc: 1 at an end, 3 at a joint. */
  readonly degree: Uint8Array;
};

type Graph = {
  readonly axis: MedialAxis;
  readonly at: Int32Array;
  readonly degree: Uint8Array;
};

const graphOf = (axis: MedialAxis): Graph => {
  const at = new Int32Array(3 * axis.x.length).fill(-1);
  const degree = new Uint8Array(axis.x.length);
  axis.links.forEach(({ a, b }, i) => {
    for (const node of [a, b]) {
      at[3 * node + (degree[node] as number)] = i;
      (degree[node] as number) += 1;
    }
  });
  return { axis, at, degree };
};

const unlink = ({ at, degree }: Graph, node: number, link: number): void => {
  const last = (degree[node] as number) - 1;
  for (let k = 0; k <= last; k++)
    if (at[3 * node + k] === link) {
      at[3 * node + k] = intAt(at, 3 * node + last);
      at[3 * node + last] = -1;
      degree[node] = last;
      return;
    }
};

type Run = { readonly from: number; readonly to: number; readonly links: readonly number[] };

/** Follow the graph from a disc over a link to the next disc that is no mere passage, or once around. */
function follow({ axis, at, degree }: Graph, from: number, first: number, seen: Uint8Array): Run {
  const links = [first];
  seen[first] = 1;
  const across = (link: number, node: number) => {
    const l = axis.links[link] as AxisLink;
    return l.a === node ? l.b : l.a;
  };
  let node = across(first, from);
  let link = first;
  while (degree[node] === 2 && node !== from) {
    const next = (at[3 * node] === link ? at[3 * node + 1] : at[3 * node]) as number;
    if (seen[next]) break;
    seen[next] = 1;
    links.push(next);
    node = across(next, node);
    link = next;
  }
  return { from, to: node, links };
}

function runsOf(graph: Graph): Run[] {
  const { at, degree, axis } = graph;
  const seen = new Uint8Array(axis.links.length);
  const runs: Run[] = [];
  const start = (node: number) => {
    for (let k = 0; k < (degree[node] as number); k++) {
      const link = intAt(at, 3 * node + k);
      if (!seen[link]) runs.push(follow(graph, node, link, seen));
    }
  };
  for (let node = 0; node < degree.length; node++) if (degree[node] === 1 || degree[node] === 3) start(node);
  for (let node = 0; node < degree.length; node++) if (degree[node] === 2) start(node);
  return runs;
}

function lengthOf({ axis }: Graph, run: Run): number {
  let length = 0;
  for (const i of run.links) {
    const { a, b } = axis.links[i] as AxisLink;
    length += Math.hypot(floatAt(axis.x, a) - floatAt(axis.x, b), floatAt(axis.y, a) - floatAt(axis.y, b));
  }
  return length;
}

const ROUNDS = 40;

/**
 * Take off branches that reach less than `detail` radii beyond the disc of the joint they come from; the least first, one
 * at each joint a round, since what is left there may be no joint any more.
 */
function prune(graph: Graph, detail: number, half: number): void {
  const { axis, degree } = graph;
  for (let round = 0; round < ROUNDS; round++) {
    const small: { run: Run; joint: number; reach: number }[] = [];
    const leaves = new Map<number, number>();
    for (const run of runsOf(graph)) {
      const ends = [run.from, run.to].map((node) => degree[node]);
      if ((ends[0] === 1) === (ends[1] === 1)) continue;
      const [leaf, joint] = ends[0] === 1 ? [run.from, run.to] : [run.to, run.from];
      if (degree[joint] !== 3) continue;
      const radius = floatAt(axis.r, joint);
      const reach = (lengthOf(graph, run) + floatAt(axis.r, leaf) - radius) / radius;
      if (reach < CORNER_REACH) leaves.set(joint, (leaves.get(joint) ?? 0) + 1);
      if (reach < detail) small.push({ run, joint, reach });
    }
    keepCaps(graph, small, leaves, half);
    if (small.length === 0) return;
    small.sort((a, b) => a.reach - b.reach);
    const touched = new Set<number>();
    for (const { run, joint } of small) {
      if (touched.has(joint)) continue;
      touched.add(joint);
      for (const i of run.links) {
        const { a, b } = axis.links[i] as AxisLink;
        unlink(graph, a, i);
        unlink(graph, b, i);
      }
    }
  }
}

/**
 * Leave out of the small branches those that lead to the cut-off end of a stroke that just sticks out of another: one for
 * each such end. The two corners of an end as such are no strokes.
 */
function keepCaps(
  { axis, degree }: Graph,
  small: { run: Run; joint: number }[],
  leaves: ReadonlyMap<number, number>,
  half: number,
): void {
  const claimed = new Set<string>();
  const isStub = ({ run, joint }: { run: Run; joint: number }): boolean => {
    if (leaves.get(joint) !== 1) return false;
    const last = numberAt(run.links, degree[run.to] === 1 ? run.links.length - 1 : 0);
    const { p, q } = axis.links[last] as AxisLink;
    const [jx, jy] = [floatAt(axis.x, joint), floatAt(axis.y, joint)];
    for (const cap of [p, q].flatMap((sample) => capsBeside(axis.samples, sample, half))) {
      const ahead = (cap.x - jx) * cap.dx + (cap.y - jy) * cap.dy;
      const beside = Math.abs((cap.x - jx) * cap.dy - (cap.y - jy) * cap.dx);
      const fits =
        cap.width > LEAST_CAP * half &&
        cap.width < MOST_CAP * half &&
        cap.straight > CAP_EDGE * half &&
        cap.spread < CAP_SPREAD &&
        ahead > half &&
        beside < half;
      const name = cap.corners.join();
      if (!fits || claimed.has(name)) continue;
      claimed.add(name);
      return true;
    }
    return false;
  };
  const branchesKept = small.filter((one) => !isStub(one));
  small.splice(0, small.length, ...branchesKept);
}
/** Width of a cut-off end against half a stroke, and how long its edges are at least. */
const LEAST_CAP = 1;
/** Branches into the corners of an end reach no farther than this many radii. */
const CORNER_REACH = 1.5;
const MOST_CAP = 3.2;
const CAP_EDGE = 0.25;
const CAP_SPREAD = (10 * Math.PI) / 180;

/** Branches of an axis, those without that reach less than `detail` radii beyond their joint; `half` is half a usual stroke. */
export function skeletonOf(axis: MedialAxis, detail: number, half: number): Skeleton {
  const graph = graphOf(axis);
  prune(graph, detail, half);
  const branches = runsOf(graph).map((run): Branch => {
    let node = run.from;
    const all = run.links.map((i) => {
      const { a, b, p, q, blunt } = axis.links[i] as AxisLink;
      const forth = a === node;
      node = forth ? b : a;
      const x = (floatAt(axis.x, a) + floatAt(axis.x, b)) / 2;
      const y = (floatAt(axis.y, a) + floatAt(axis.y, b)) / 2;
      const r = Math.hypot(x - (axis.samples.x[p] as number), y - (axis.samples.y[p] as number));
      return { x, y, r, leftContact: forth ? p : q, rightContact: forth ? q : p, blunt };
    });
    const [startsFree, endsFree] = [graph.degree[run.from] === 1, graph.degree[run.to] === 1];
    let [first, last] = [0, all.length - 1];
    if (endsFree) while (last > first && all[last]?.blunt) last--;
    if (startsFree) while (first < last && all[first]?.blunt) first++;
    const tip = endsFree ? all[all.length - 1] : startsFree ? all[0] : null;
    return {
      from: run.from,
      to: run.to,
      points: all.slice(first, last + 1),
      tip: tip ?? null,
    };
  });
  return { axis, branches, degree: graph.degree };
}
