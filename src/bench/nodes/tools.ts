/** What can be done to the chosen nodes, each in one press. */

import {
  before,
  breakAt,
  cornered,
  joined,
  moveNodes,
  nodeAt,
  nodeCount,
  removeNodes,
  smoothed,
  straightened,
} from '@/core/geometry/nodes';
import { type Path, reversePath } from '@/core/geometry/path';
import { pathOf } from '@/core/geometry/read-path-data';
import { refitPath } from '@/core/prepare/closing/refit';
import { type LineEnd, mergedLines, pulledToTip, runThrough } from '@/core/toolpath/centerline/mend';
import { useBench, workOnNodes } from '../store';
import { chosenNodesOf, nodeKey, parseKey } from './chosen';
import { editedPaths, pathsInHand, putPaths } from './hand';

function nowInHand(): { paths: Path[]; chosen: ReadonlySet<string> } | null {
  const { job, view, atNodes } = useBench.getState();
  const hand = pathsInHand(job, view, atNodes);
  return hand && atNodes ? { paths: editedPaths(hand), chosen: atNodes.chosen } : null;
}

function put(paths: readonly Path[], chosen: Iterable<string> = []): void {
  const { atNodes } = useBench.getState();
  putPaths(paths);
  if (atNodes) workOnNodes({ ...atNodes, chosen: new Set(chosen) });
}

/** Paths that hold chosen nodes; all of them when none is chosen. */
function eachChosen(change: (path: Path, nodes: ReadonlySet<number>) => readonly Path[], keep = false): void {
  const now = nowInHand();
  if (!now) return;
  const next = now.paths.flatMap((path, i) => {
    const nodes = chosenNodesOf(now.chosen, i);
    return nodes.size === 0 && now.chosen.size > 0 ? [path] : change(path, nodes);
  });
  put(next, keep ? now.chosen : []);
}

/** Take the chosen nodes out. */
export const deleteNodes = (): void => {
  const now = nowInHand();
  if (!now || now.chosen.size === 0) return;
  eachChosen((path, nodes) => {
    const remaining = removeNodes(path, nodes);
    return remaining ? [remaining] : [];
  });
};

/** Make the chosen nodes smooth. */
export const smoothNodes = (): void =>
  eachChosen((path, nodes) => [[...nodes].reduce((p, node) => smoothed(p, node), path)], true);

/** Make the chosen nodes corners. */
export const cornerNodes = (): void =>
  eachChosen((path, nodes) => [[...nodes].reduce((p, node) => cornered(p, node), path)], true);

/** Segments both of whose ends are chosen; those on both sides where only one node is. */
export const straightenSegments = (): void =>
  eachChosen((path, nodes) => {
    const n = path.segments.length;
    const between = path.segments.flatMap((_, i) => {
      const end = path.closed ? (i + 1) % n : i + 1;
      return nodes.has(i) && nodes.has(end) ? [i] : [];
    });
    const [only] = nodes;
    const beside = nodes.size === 1 && only !== undefined ? [before(path, only), only] : [];
    return [straightened(path, new Set(between.length > 0 ? between : beside))];
  }, true);

/** Break paths at their chosen nodes. */
export const breakNodes = (): void => {
  const now = nowInHand();
  if (!now || now.chosen.size === 0) return;
  eachChosen((path, nodes) => {
    let pieces: Path[] = [path];
    // From the last to the first, so that numbers before it stay; a closed path is opened first.
    const sorted = [...nodes].sort((a, b) => b - a);
    if (path.closed) {
      const first = sorted.pop() as number;
      pieces = breakAt(path, first);
      const nodesAfter = sorted.map((node) => node - first).filter((node) => node > 0);
      return nodesAfter
        .sort((a, b) => b - a)
        .reduce<Path[]>(([head, ...tail], node) => [...breakAt(head as Path, node), ...tail], pieces);
    }
    return sorted.reduce<Path[]>(([head, ...tail], node) => [...breakAt(head as Path, node), ...tail], pieces);
  });
};

/** Join two chosen ends, or close an open path whose node is chosen. */
export function joinNodes(): void {
  const now = nowInHand();
  if (!now) return;
  const ends = [...now.chosen].map(parseKey).filter(([p, node]) => {
    const path = now.paths[p];
    return path && !path.closed && (node === 0 || node === nodeCount(path) - 1);
  });
  const [a, b] = ends;
  if (!a) return;
  const first = now.paths[a[0]] as Path;
  if (!b || a[0] === b[0]) {
    put(now.paths.map((path, i) => (i === a[0] ? joined(first, null) : path)));
    return;
  }
  const second = now.paths[b[0]] as Path;
  const head = a[1] === 0 ? reversePath(first) : first;
  const tail = b[1] === 0 ? second : reversePath(second);
  put(now.paths.flatMap((path, i) => (i === a[0] ? [joined(head, tail)] : i === b[0] ? [] : [path])));
}

/** Let the paths with chosen nodes run the other way. */
export const reversePaths = (): void => eachChosen((path) => [reversePath(path)]);

/** Lay smoother curves through the paths with chosen nodes, within a tolerance in mm. */
export const simplifyPaths = (tolerance: number): void => eachChosen((path) => [refitPath(path, tolerance)]);

/** Choose all nodes. */
export function chooseAll(): void {
  const { atNodes } = useBench.getState();
  const now = nowInHand();
  if (now && atNodes)
    workOnNodes({
      ...atNodes,
      chosen: new Set(now.paths.flatMap((path, i) => Array.from({ length: nodeCount(path) }, (_, n) => nodeKey(i, n)))),
    });
}

/** The next node along its path, so that nodes can be gone through by key. */
export function chooseNext(step: 1 | -1): void {
  const { atNodes } = useBench.getState();
  const now = nowInHand();
  if (!now || !atNodes || now.paths.length === 0) return;
  const all = now.paths.flatMap((path, i) => Array.from({ length: nodeCount(path) }, (_, n) => nodeKey(i, n)));
  const [first] = atNodes.chosen;
  const at = first === undefined ? -1 : all.indexOf(first);
  const next = all[(at + step + all.length) % all.length];
  if (next !== undefined) workOnNodes({ ...atNodes, chosen: new Set([next]) });
}

/** Where the one chosen node is; null when there are none or several. */
export function chosenPlace(paths: readonly Path[], chosen: ReadonlySet<string>): { x: number; y: number } | null {
  const [only, ...more] = chosen;
  if (only === undefined || more.length > 0) return null;
  const [i, node] = parseKey(only);
  const path = paths[i];
  return path && node < nodeCount(path) ? nodeAt(path, node) : null;
}

/** Move the chosen nodes; whether there were any. */
export function nudgeNodes(dx: number, dy: number): boolean {
  const now = nowInHand();
  if (!now || now.chosen.size === 0) return false;
  putPaths(
    now.paths.map((path, i) => {
      const mine = chosenNodesOf(now.chosen, i);
      return mine.size > 0 ? moveNodes(path, mine, dx, dy) : path;
    }),
    'nodes',
  );
  return true;
}

/** Also the nodes between two chosen ones, along their path, the shorter way round. */
export function chooseBetween(): void {
  const { atNodes } = useBench.getState();
  const now = nowInHand();
  if (!now || !atNodes) return;
  const next = new Set(now.chosen);
  now.paths.forEach((path, i) => {
    const mine = [...chosenNodesOf(now.chosen, i)].sort((a, b) => a - b);
    const [first, last] = [mine[0], mine[mine.length - 1]];
    if (first === undefined || last === undefined || first === last) return;
    const n = nodeCount(path);
    const goesOver = path.closed && last - first > n / 2;
    const [from, count] = goesOver ? [last, n - (last - first)] : [first, last - first];
    for (let k = 0; k <= count; k++) next.add(nodeKey(i, (from + k) % n));
  });
  workOnNodes({ ...atNodes, chosen: next });
}

/** Chosen nodes that are ends of open paths. */
const endsIn = (paths: readonly Path[], chosen: ReadonlySet<string>): LineEnd[] =>
  [...chosen].map(parseKey).flatMap(([i, node]): LineEnd[] => {
    const path = paths[i];
    if (!path || path.closed) return [];
    return node === 0 ? [{ path: i, end: 0 }] : node === nodeCount(path) - 1 ? [{ path: i, end: 1 }] : [];
  });

/** Take the chosen ends on straight to the outline of their letter. */
export function pullToTip(): void {
  const now = nowInHand();
  const { view, atNodes } = useBench.getState();
  const d = view?.parts.find((p) => p.id === atNodes?.partId)?.d;
  if (!now || !d) return;
  const outlines = pathOf(d).paths;
  const ends = endsIn(now.paths, now.chosen);
  put(
    now.paths.map((path, i) =>
      ends
        .filter((e) => e.path === i)
        // The end first, so that numbers before it stay.
        .sort((a, b) => b.end - a.end)
        .reduce((p, e) => pulledToTip(p, e.end, outlines, TIP_MM), path),
    ),
  );
}
const TIP_MM = 0.005;

/** Let strokes run through each other: the chosen ends joined smoothly, two by two. */
export function letRunThrough(): void {
  const now = nowInHand();
  if (!now) return;
  const ends = endsIn(now.paths, now.chosen);
  if (ends.length >= 2) put(runThrough(now.paths, ends));
}

/** Make one line of the two that hold chosen nodes. */
export function mergeLines(): void {
  const now = nowInHand();
  if (!now) return;
  const [a, b, ...more] = [...new Set([...now.chosen].map((key) => parseKey(key)[0]))].sort((p, q) => p - q);
  if (a === undefined || b === undefined || more.length > 0) return;
  const [p, q] = [now.paths[a], now.paths[b]];
  if (!p || !q || p.closed || q.closed) return;
  const merged = mergedLines(p, q, MERGE_MM);
  put(now.paths.flatMap((path, i) => (i === a ? [merged] : i === b ? [] : [path])));
}
const MERGE_MM = 0.02;

/** Leave out the lines that hold chosen nodes. */
export function dropLines(): void {
  const now = nowInHand();
  if (!now) return;
  const chosenPaths = new Set([...now.chosen].map((key) => parseKey(key)[0]));
  put(now.paths.filter((_, i) => !chosenPaths.has(i)));
}

/** How many of the chosen nodes are ends, and how many lines hold chosen nodes. */
export const chosenAmong = (paths: readonly Path[], chosen: ReadonlySet<string>): { ends: number; lines: number } => ({
  ends: endsIn(paths, chosen).length,
  lines: new Set([...chosen].map((key) => parseKey(key)[0])).size,
});
