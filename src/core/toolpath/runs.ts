/** Lines in the order a pen draws them: those that meet end to end in one go, and the nearest next, from either end. */
import { DROPPED_MM, joinedExactly, type Path, reversePath } from '../geometry/path';
import type { Point } from '../geometry/point';
import { PointTree } from '../geometry/point-tree';
import { isTiny } from '../geometry/segment';

/** Ends this near each other are one place, in mm. */
const SAME_MM = 0.005;

const startOf = (p: Path): Point => ({ x: p.segments[0]?.x0 ?? 0, y: p.segments[0]?.y0 ?? 0 });
const endOf = (p: Path): Point => {
  const last = p.segments[p.segments.length - 1];
  return { x: last?.x1 ?? 0, y: last?.y1 ?? 0 };
};
const keyOf = (p: Point): string => `${Math.round(p.x / SAME_MM)},${Math.round(p.y / SAME_MM)}`;

/** Open lines that meet end to end made one, exactly; closed ones stay, what has no length goes. Where more than two meet, the straightest go on. */
export function joinedRuns(paths: readonly Path[]): Path[] {
  type End = { readonly path: number; readonly end: 0 | 1; readonly way: Point };
  const at = new Map<string, End[]>();
  paths.forEach((path, i) => {
    const [first, last] = [path.segments[0], path.segments[path.segments.length - 1]];
    if (path.closed || !first || !last) return;
    for (const end of [0, 1] as const) {
      const p = end === 0 ? startOf(path) : endOf(path);
      const q = end === 0 ? { x: first.x1, y: first.y1 } : { x: last.x0, y: last.y0 };
      const size = Math.hypot(p.x - q.x, p.y - q.y) || 1;
      const made: End = { path: i, end, way: { x: (p.x - q.x) / size, y: (p.y - q.y) / size } };
      const key = keyOf(p);
      const ends = at.get(key);
      if (ends) ends.push(made);
      else at.set(key, [made]);
    }
  });
  const links = new Map<string, End>();
  const name = (e: { readonly path: number; readonly end: 0 | 1 }) => `${e.path}:${e.end}`;
  for (const ends of at.values()) {
    const pairs = ends.flatMap((a, i) =>
      ends.slice(i + 1).map((b) => ({ a, b, straight: -(a.way.x * b.way.x + a.way.y * b.way.y) })),
    );
    pairs.sort((p, q) => q.straight - p.straight);
    for (const { a, b } of pairs) {
      if (a.path === b.path || links.has(name(a)) || links.has(name(b))) continue;
      links.set(name(a), b);
      links.set(name(b), a);
    }
  }
  const done = new Uint8Array(paths.length);
  const out: Path[] = [];
  const add = (path: Path) => {
    // Ends that count as one place are made one.
    const joined = joinedExactly(path, SAME_MM * Math.SQRT2);
    if (joined.segments.some((s) => !isTiny(s, DROPPED_MM))) out.push(joined);
  };
  const walk = (path: number, from: 0 | 1) => {
    const segments: Path['segments'][number][] = [];
    let [at, end] = [path, from];
    for (;;) {
      done[at] = 1;
      segments.push(...(end === 0 ? (paths[at] as Path) : reversePath(paths[at] as Path)).segments);
      const next = links.get(`${at}:${end === 0 ? 1 : 0}`);
      if (!next || done[next.path]) {
        const closed = next !== undefined && next.path === path && next.end === from && segments.length > 1;
        add({ segments, closed });
        return;
      }
      [at, end] = [next.path, next.end];
    }
  };
  paths.forEach((path, i) => {
    if (done[i]) return;
    if (path.closed) {
      done[i] = 1;
      add(path);
    } else if (!links.has(`${i}:0`)) walk(i, 0);
    else if (!links.has(`${i}:1`)) walk(i, 1);
  });
  paths.forEach((_, i) => {
    if (!done[i]) walk(i, 0);
  });
  return out;
}

/** Places that wait to be visited, all of them to begin with. */
const waiting = (places: readonly Point[]): PointTree =>
  new PointTree(
    Float64Array.from(places, (p) => p.x),
    Float64Array.from(places, (p) => p.y),
    true,
  );

/** Lines in the order of the nearest next (greedy, from a place); open ones are turned to begin at their nearer end. */
export function nearestNext(paths: readonly Path[], from: Point = { x: 0, y: 0 }): Path[] {
  // Two places a line: its start and its end; a closed one is only begun where it starts.
  const unvisited = waiting(paths.flatMap((p) => [startOf(p), endOf(p)]));
  paths.forEach((p, i) => {
    if (p.closed) unvisited.put(2 * i + 1, false);
  });
  const out: Path[] = [];
  let here: Point = from;
  for (let next = unvisited.nearest(from.x, from.y); next >= 0; next = unvisited.nearest(here.x, here.y)) {
    const path = paths[next >> 1] as Path;
    for (const end of [next, next ^ 1]) unvisited.put(end, false);
    const taken = next % 2 === 1 ? reversePath(path) : path;
    out.push(taken);
    here = endOf(taken);
  }
  return out;
}

/** Points along a way that visits the nearest next (greedy, from the origin). */
export function greedyPointOrder<T extends Point>(points: readonly T[]): T[] {
  const unvisited = waiting(points);
  const out: T[] = [];
  for (let next = unvisited.nearest(0, 0); next >= 0; ) {
    const taken = points[next] as T;
    unvisited.put(next, false);
    out.push(taken);
    next = unvisited.nearest(taken.x, taken.y);
  }
  return out;
}
