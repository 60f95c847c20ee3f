/**
 * Working on the nodes of a path: each function takes a path and gives a new one. Node i is where segment i starts; the
 * last node of an open path is where its last segment ends. Nothing is changed but what is asked for: curves keep their
 * handles, arcs stay arcs where they can.
 */
import { numberAt } from './elements';
import { fitCubics } from './fit-cubic';
import type { Path } from './path';
import type { Point } from './point';
import {
  arcToCubics,
  type Cubic,
  cubic,
  line,
  pointAt,
  quadraticToCubic,
  type Segment,
  subSegment,
  tangentAt,
  withEnds,
} from './segment';

/** How many nodes a path has: one a segment, and one more at the end of an open one. */
export const nodeCount = ({ segments, closed }: Path): number => segments.length + (closed ? 0 : 1);

/** The place of a node, numbered from the start of its path. */
export function nodeAt({ segments, closed }: Path, i: number): Point {
  const s = segments[i];
  if (s) return { x: s.x0, y: s.y0 };
  const last = segments[segments.length - 1] as Segment;
  return closed ? { x: (segments[0] as Segment).x0, y: (segments[0] as Segment).y0 } : { x: last.x1, y: last.y1 };
}

/** The places of all nodes of a path, in order. */
export const nodesOf = (path: Path): Point[] => Array.from({ length: nodeCount(path) }, (_, i) => nodeAt(path, i));

const wrap = (i: number, n: number): number => ((i % n) + n) % n;

/** Index of the segment that ends in a node, or -1 at the start of an open path. */
export const before = ({ segments, closed }: Path, node: number): number =>
  node > 0 ? node - 1 : closed ? segments.length - 1 : -1;

/**
 * A segment as one cubic: exactly, but for arcs. Those of up to a quarter are off by at most 0.0003 of their radius; longer
 * ones keep only their ends and directions.
 */
export function asCubic(s: Segment): Cubic {
  if (s.kind === 'cubic') return s;
  if (s.kind === 'quadratic') return quadraticToCubic(s);
  if (s.kind === 'line')
    return cubic(
      s.x0,
      s.y0,
      s.x0 + (s.x1 - s.x0) / 3,
      s.y0 + (s.y1 - s.y0) / 3,
      s.x1 - (s.x1 - s.x0) / 3,
      s.y1 - (s.y1 - s.y0) / 3,
      s.x1,
      s.y1,
    );
  const [only, ...more] = arcToCubics(s, 1e9);
  if (only && more.length === 0) return only;
  // An arc of more than a quarter: one cubic with the same ends and directions.
  const k = (4 / 3) * Math.tan(s.sweep / 4);
  const [px, py] = [s.x0 - s.cx, s.y0 - s.cy];
  const [qx, qy] = [s.x1 - s.cx, s.y1 - s.cy];
  return cubic(s.x0, s.y0, s.x0 - k * py, s.y0 + k * px, s.x1 + k * qy, s.y1 - k * qx, s.x1, s.y1);
}

/** Move nodes; handles beside them go along. */
export function moveNodes(path: Path, nodes: ReadonlySet<number>, dx: number, dy: number): Path {
  const { closed, segments } = path;
  const n = segments.length;
  const to = (i: number): Point => {
    const p = nodeAt(path, i);
    return nodes.has(i) ? { x: p.x + dx, y: p.y + dy } : p;
  };
  return {
    closed,
    segments: segments.map((s, i) => {
      const end = closed ? wrap(i + 1, n) : i + 1;
      return nodes.has(i) || nodes.has(end) ? withEnds(s, to(i), to(end)) : s;
    }),
  };
}

/** Put a node into a segment; the shape stays. */
export function addNode(path: Path, segment: number, t: number): Path {
  const s = path.segments[segment];
  if (!s || !(t > 0 && t < 1)) return path;
  const halves = [subSegment(s, 0, t), subSegment(s, t, 1)];
  return { ...path, segments: [...path.segments.slice(0, segment), ...halves, ...path.segments.slice(segment + 1)] };
}

/** Fitting goes on until it is this near, in mm, or as near as one curve gets. */
const FINE_MM = 1e-6;
const NO_HALVING = 99;
/** Arcs whose centres lie closer than this are of one circle, in mm. */
const SAME_CENTRE_MM = 1e-6;

/** One arc in place of arcs of one circle that go on in one direction. */
function asOneArc(run: readonly Segment[]): Segment | null {
  const first = run[0];
  if (first?.kind !== 'arc') return null;
  let sweep = 0;
  for (const s of run) {
    if (s.kind !== 'arc' || s.sweep * first.sweep < 0) return null;
    if (Math.hypot(s.cx - first.cx, s.cy - first.cy) > SAME_CENTRE_MM) return null;
    sweep += s.sweep;
  }
  const last = run[run.length - 1] as Segment;
  return Math.abs(sweep) < 2 * Math.PI - 1e-3 ? { ...first, x1: last.x1, y1: last.y1, sweep } : null;
}

/** The cubic that was cut into these, where there is one (de Casteljau backwards). */
function asOneCubic(run: readonly Segment[]): Segment | null {
  if (run.some((s) => s.kind === 'line' || s.kind === 'arc')) return null;
  let whole = asCubic(run[0] as Segment);
  for (const s of run.slice(1)) {
    const next = asCubic(s);
    const before = Math.hypot(whole.x1 - whole.bx, whole.y1 - whole.by);
    const after = Math.hypot(next.ax - next.x0, next.ay - next.y0);
    const t = before / (before + after);
    if (!(t > 0 && t < 1)) return null;
    const one = cubic(
      whole.x0,
      whole.y0,
      whole.x0 + (whole.ax - whole.x0) / t,
      whole.y0 + (whole.ay - whole.y0) / t,
      next.x1 + (next.bx - next.x1) / (1 - t),
      next.y1 + (next.by - next.y1) / (1 - t),
      next.x1,
      next.y1,
    );
    const again = subSegment(one, 0, t) as Cubic;
    const size = Math.hypot(one.x1 - one.x0, one.y1 - one.y0) + before + after;
    const off =
      Math.hypot(again.bx - whole.bx, again.by - whole.by) + Math.hypot(again.x1 - whole.x1, again.y1 - whole.y1);
    if (off > 1e-6 * size) return null;
    whole = one;
  }
  return whole;
}

/** One segment in place of several that follow each other, as near to them as one cubic gets. */
function asOne(run: readonly Segment[]): Segment {
  const first = run[0] as Segment;
  const last = run[run.length - 1] as Segment;
  if (run.length === 1) return first;
  if (run.every((s) => s.kind === 'line')) return line(first.x0, first.y0, last.x1, last.y1);
  const exact = asOneArc(run) ?? asOneCubic(run);
  if (exact) return exact;
  const at = (u: number) => {
    const i = Math.min(run.length - 1, Math.floor(u));
    const s = run[i] as Segment;
    const p = pointAt(s, u - i);
    const t = tangentAt(s, u - i);
    return { x: p.x, y: p.y, tx: t.x, ty: t.y };
  };
  return fitCubics(at, { from: 0, to: run.length, tolerance: FINE_MM, depth: NO_HALVING })[0] as Segment;
}

/** Take nodes out; what lay on both sides is fitted by one curve each. Null when no path is left. */
export function removeNodes(path: Path, nodes: ReadonlySet<number>): Path | null {
  const { segments, closed } = path;
  const n = segments.length;
  const kept = Array.from({ length: nodeCount(path) }, (_, i) => i).filter((i) => !nodes.has(i));
  if (kept.length < 2) return null;
  const out: Segment[] = [];
  kept.forEach((from, k) => {
    const to = kept[k + 1] ?? (closed ? numberAt(kept, 0) + n : -1);
    if (to < 0) return;
    out.push(asOne(Array.from({ length: to - from }, (_, i) => segments[wrap(from + i, n)] as Segment)));
  });
  return { segments: out, closed };
}

/** Part a path at a node: a closed one opens there, an open one falls in two. */
export function breakAt(path: Path, node: number): Path[] {
  const { segments, closed } = path;
  if (closed) return [{ closed: false, segments: [...segments.slice(node), ...segments.slice(0, node)] }];
  if (node <= 0 || node >= segments.length) return [path];
  return [
    { closed: false, segments: segments.slice(0, node) },
    { closed: false, segments: segments.slice(node) },
  ];
}

/** Join the end of one open path to the start of another by a line, or close one path; ends that lie together just meet. */
export function joined(a: Path, b: Path | null): Path {
  const link = (from: readonly Segment[], to: Segment): Segment[] => {
    const last = from[from.length - 1] as Segment;
    return last.x1 === to.x0 && last.y1 === to.y0 ? [] : [line(last.x1, last.y1, to.x0, to.y0)];
  };
  if (!b) return { closed: true, segments: [...a.segments, ...link(a.segments, a.segments[0] as Segment)] };
  return { closed: false, segments: [...a.segments, ...link(a.segments, b.segments[0] as Segment), ...b.segments] };
}

/** Make segments straight. */
export const straightened = (path: Path, chosen: ReadonlySet<number>): Path => ({
  ...path,
  segments: path.segments.map((s, i) => (chosen.has(i) ? line(s.x0, s.y0, s.x1, s.y1) : s)),
});

/** Lengths of handles on a node made smooth, as a share of the segment beside it, where it had none. */
const HANDLE = 1 / 3;

/** Let a path run through a node without a corner: along the direction between its neighbours' pulls. */
export function smoothed(path: Path, node: number): Path {
  const [i, j] = [before(path, node), node];
  const [a, b] = [path.segments[i], path.segments[j]];
  if (!a || !b || i === j) return path;
  const [into, out] = [asCubic(a), asCubic(b)];
  const pull = (s: Segment, c: Cubic, end: 0 | 1): number => {
    if (s.kind === 'line') return HANDLE * Math.hypot(s.x1 - s.x0, s.y1 - s.y0);
    return end === 1 ? Math.hypot(c.x1 - c.bx, c.y1 - c.by) : Math.hypot(c.ax - c.x0, c.ay - c.y0);
  };
  // Toward the neighbours where a side is straight, along its handle where it is curved.
  const [u, v] = [tangentAt(a, 1), tangentAt(b, 0)];
  const way =
    a.kind === 'line' && b.kind !== 'line'
      ? v
      : b.kind === 'line' && a.kind !== 'line'
        ? u
        : { x: u.x + v.x, y: u.y + v.y };
  const length = Math.hypot(way.x, way.y);
  const d = length > 1e-9 ? { x: way.x / length, y: way.y / length } : { x: -u.y, y: u.x };
  const [p, q] = [pull(a, into, 1), pull(b, out, 0)];
  const segments = [...path.segments];
  segments[i] = { ...into, bx: into.x1 - d.x * p, by: into.y1 - d.y * p };
  segments[j] = { ...out, ax: out.x0 + d.x * q, ay: out.y0 + d.y * q };
  return { ...path, segments };
}

/** Give a node back its corner: the handles beside it point to their other ends. */
export function cornered(path: Path, node: number): Path {
  const [i, j] = [before(path, node), node];
  const segments = [...path.segments];
  const a = segments[i];
  const b = segments[j];
  if (a && a.kind !== 'line') {
    const c = asCubic(a);
    segments[i] = { ...c, bx: c.x1 + (c.ax - c.x1) * HANDLE, by: c.y1 + (c.ay - c.y1) * HANDLE };
  }
  if (b && b.kind !== 'line' && i !== j) {
    const c = asCubic(b);
    segments[j] = { ...c, ax: c.x0 + (c.bx - c.x0) * HANDLE, ay: c.y0 + (c.by - c.y0) * HANDLE };
  }
  return { ...path, segments };
}

/** Whether a path turns in a node by more than it can't be seen to. */
export function isCorner(path: Path, node: number): boolean {
  const [a, b] = [path.segments[before(path, node)], path.segments[node]];
  if (!a || !b) return true;
  const [u, v] = [tangentAt(a, 1), tangentAt(b, 0)];
  return Math.abs(Math.atan2(u.x * v.y - u.y * v.x, u.x * v.x + u.y * v.y)) > 0.01;
}

/** Move a handle of a cubic: the first or the second. Across a smooth node the other side turns along. */
export function moveHandle(path: Path, segment: number, which: 0 | 1, to: Point): Path {
  const s = path.segments[segment];
  if (!s) return path;
  const n = path.segments.length;
  const node = which === 0 ? segment : path.closed ? wrap(segment + 1, n) : segment + 1;
  const wasSmooth = !isCorner(path, node);
  const c = asCubic(s);
  const segments = [...path.segments];
  segments[segment] = which === 0 ? { ...c, ax: to.x, ay: to.y } : { ...c, bx: to.x, by: to.y };
  const otherIndex = which === 0 ? before(path, node) : path.closed ? wrap(segment + 1, n) : segment + 1;
  const other = segments[otherIndex];
  if (wasSmooth && other && other.kind !== 'line' && otherIndex !== segment) {
    const o = asCubic(other);
    const at = which === 0 ? { x: c.x0, y: c.y0 } : { x: c.x1, y: c.y1 };
    const length = Math.hypot(to.x - at.x, to.y - at.y);
    if (length > 1e-9) {
      const d = { x: (to.x - at.x) / length, y: (to.y - at.y) / length };
      if (which === 0) {
        const pull = Math.hypot(o.bx - o.x1, o.by - o.y1);
        segments[otherIndex] = { ...o, bx: at.x - d.x * pull, by: at.y - d.y * pull };
      } else {
        const pull = Math.hypot(o.ax - o.x0, o.ay - o.y0);
        segments[otherIndex] = { ...o, ax: at.x - d.x * pull, ay: at.y - d.y * pull };
      }
    }
  }
  return { ...path, segments };
}

/** Drag a segment itself: the point at `t` goes to a place, its ends stay. */
export function bent(path: Path, segment: number, t: number, to: Point): Path {
  const s = path.segments[segment];
  if (!s) return path;
  const at = Math.min(0.9, Math.max(0.1, t));
  const c = asCubic(s);
  const p = pointAt(c, at);
  const u = 1 - at;
  // Each handle by its share: 3·t·u·(t² + u²) of the way is what the point then moves.
  const k = 1 / (3 * at * u * (at * at + u * u));
  const [dx, dy] = [(to.x - p.x) * k, (to.y - p.y) * k];
  const segments = [...path.segments];
  segments[segment] = { ...c, ax: c.ax + dx * u, ay: c.ay + dy * u, bx: c.bx + dx * at, by: c.by + dy * at };
  return { ...path, segments };
}
