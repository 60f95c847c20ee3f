/**
 * What is drawn: by a beam or tool, on the screen, in a file. One vocabulary for all of them. A drawable is finite and
 * continuous, and says itself how large and how long it is, in mm.
 */
import { floatAt, intAt } from './elements';
import { JOINT_MM, type Path, pathBox, pathLength, transformPath } from './path';
import {
  applyMatrix,
  type Box,
  determinant,
  EMPTY_BOX,
  isIdentity,
  type Matrix,
  type Point,
  uniteBoxes,
} from './point';
import { isTiny, type Segment, spanOf } from './segment';
import { countStrokes, lengthsOf, type Strokes, strokePaths, strokesBox, transformStrokes } from './strokes';

/** A closed path with stock on one side of it. */
export type OutlineDrawable = {
  readonly kind: 'outline';
  readonly path: Path;
  readonly box: Box;
};

/** Lines that part no stock: one path of exact segments, or many straight ones, packed, in the order they are drawn. */
export type PolylineDrawable = {
  readonly kind: 'polyline';
  readonly geometry: Path | Strokes;
  readonly box: Box;
};

/** A dot: a circle, or where `r` is null a point. */
export type DotDrawable = { readonly kind: 'dot'; readonly at: Point; readonly r: number | null; readonly box: Box };

/** What is inside closed paths by the non-zero rule. */
export type AreaDrawable = {
  readonly kind: 'area';
  readonly paths: readonly Path[];
  readonly box: Box;
  readonly areaMm2: number;
};

/** What a beam or tool draws: an outline to cut along, a polyline, a dot, or an area to be scanned. */
export type Drawable = OutlineDrawable | PolylineDrawable | DotDrawable | AreaDrawable;

const isPacked = (lines: Path | Strokes): lines is Strokes => 'xy' in lines;

/** An open line, or one that ends where it begins, as a drawable. */
export const polyline = (path: Path): PolylineDrawable => ({ kind: 'polyline', geometry: path, box: pathBox(path) });

/** Packed lines; none where there are none. */
export const polylines = (strokes: Strokes): PolylineDrawable[] =>
  countStrokes(strokes) > 0 ? [{ kind: 'polyline', geometry: strokes, box: strokesBox(strokes) }] : [];

/** A dot as a drawable: a circle of radius `r`, or a point where that is null. */
export const dot = ({ x, y }: Point, r: number | null): DotDrawable => {
  const around = r ?? 0;
  return {
    kind: 'dot',
    at: { x, y },
    r,
    box: { minX: x - around, minY: y - around, maxX: x + around, maxY: y + around },
  };
};

/** The length of line that is drawn, in mm; an area has none. */
export function drawnLength(d: Drawable): number {
  switch (d.kind) {
    case 'outline':
      return pathLength(d.path);
    case 'polyline':
      return isPacked(d.geometry) ? lengthsOf(d.geometry).drawn : pathLength(d.geometry);
    case 'dot':
      return 2 * Math.PI * (d.r ?? 0);
    case 'area':
      return 0;
  }
}

/** Where the tool is set down for a drawable, and where it is lifted; null for an area, which is scanned as the machine will. */
export function endsOf(d: Drawable): { readonly from: Point; readonly to: Point } | null {
  if (d.kind === 'area') return null;
  if (d.kind === 'dot') {
    const at = { x: d.at.x + (d.r ?? 0), y: d.at.y };
    return { from: at, to: at };
  }
  if (d.kind === 'polyline' && isPacked(d.geometry)) {
    const { xy } = d.geometry;
    const last = xy.length - 2;
    return { from: { x: floatAt(xy, 0), y: floatAt(xy, 1) }, to: { x: floatAt(xy, last), y: floatAt(xy, last + 1) } };
  }
  const { segments } = d.kind === 'outline' ? d.path : (d.geometry as Path);
  const [first, last] = [segments[0], segments[segments.length - 1]];
  return first && last ? { from: { x: first.x0, y: first.y0 }, to: { x: last.x1, y: last.y1 } } : null;
}

/** Where several are begun, and where they end; areas are gone over together, from the lower left. */
export function endsOfAll(drawn: readonly Drawable[]): { readonly from: Point; readonly to: Point } {
  const { minX: x, minY, maxY } = drawnBox(drawn);
  const ends = drawn.map((d) => endsOf(d) ?? { from: { x, y: minY }, to: { x, y: maxY } });
  return { from: ends[0]?.from ?? { x: 0, y: 0 }, to: ends[ends.length - 1]?.to ?? { x: 0, y: 0 } };
}

/**
 * The way the tool moves without drawing, from one thing to the next in their order, in mm. `inside` gives the way within packed
 * lines, for callers that know it.
 */
export function travelThrough(
  drawn: Iterable<Drawable>,
  inside: (lines: Strokes) => number = (lines) => lengthsOf(lines).travel,
): number {
  let travel = 0;
  let at: Point | null = null;
  for (const d of drawn) {
    const ends = endsOf(d);
    if (!ends) continue;
    if (at) travel += Math.hypot(ends.from.x - at.x, ends.from.y - at.y);
    if (d.kind === 'polyline' && isPacked(d.geometry)) travel += inside(d.geometry);
    at = ends.to;
  }
  return travel;
}

/** The area that is filled as a whole, in mm². */
export const filledArea = (d: Drawable): number => (d.kind === 'area' ? d.areaMm2 : 0);

/** How often the tool is set down: once for each outline, line and dot. */
export function setDowns(d: Drawable): number {
  switch (d.kind) {
    case 'outline':
    case 'dot':
      return 1;
    case 'polyline':
      return isPacked(d.geometry) ? countStrokes(d.geometry) : 1;
    case 'area':
      return 0;
  }
}

/** Bounds of several, in mm; empty for none. */
export const drawnBox = (all: Iterable<Drawable>): Box => {
  let box = EMPTY_BOX;
  for (const d of all) box = uniteBoxes(box, d.box);
  return box;
};

/** The paths that are gone along, or that bound the area; none of a dot. Packed lines are unpacked. */
export function drawnPaths(d: Drawable): readonly Path[] {
  switch (d.kind) {
    case 'outline':
      return [d.path];
    case 'polyline':
      return isPacked(d.geometry) ? strokePaths(d.geometry) : [d.geometry];
    case 'area':
      return d.paths;
    case 'dot':
      return [];
  }
}

/** Whether lines are packed: too many to be told one by one. */
export const isHatch = (d: Drawable): boolean => d.kind === 'polyline' && isPacked(d.geometry);

/**
 * A drawable moved, turned or mirrored; closed paths of what was mirrored run the other way, so that stock stays on
 * its side.
 */
export function moveDrawable<D extends Drawable>(d: D, m: Matrix): D;
export function moveDrawable(d: Drawable, m: Matrix): Drawable {
  if (isIdentity(m)) return d;
  const closed = (path: Path): Path => transformPath(path, m, determinant(m) < 0);
  switch (d.kind) {
    case 'outline': {
      const path = closed(d.path);
      return { ...d, path, box: pathBox(path) };
    }
    case 'polyline': {
      if (isPacked(d.geometry)) {
        const lines = transformStrokes(d.geometry, m);
        return { ...d, geometry: lines, box: strokesBox(lines) };
      }
      const lines = transformPath(d.geometry, m);
      return { ...d, geometry: lines, box: pathBox(lines) };
    }
    case 'dot':
      return dot(applyMatrix(m, d.at), d.r);
    case 'area': {
      const paths = d.paths.map(closed);
      return { ...d, paths, box: paths.reduce<Box>((box, p) => uniteBoxes(box, pathBox(p)), EMPTY_BOX) };
    }
  }
}

/** What can be wrong with a drawable, so that it must not be written. */
export type DrawableFault = {
  readonly what: 'not finite' | 'empty' | 'open' | 'gap' | 'tiny';
  /** Where, in mm; null where there is no telling. */
  readonly at: Point | null;
  /** How wide the gap is, or how long what is tiny, in mm; 0 for other faults. */
  readonly mm: number;
};

/** Nothing shorter than this is drawn but points, in mm; it is also how exactly segments join. */
const LEAST_DRAWN_MM = JOINT_MM;

const fault = (what: DrawableFault['what'], at: Point | null = null, mm = 0): DrawableFault => ({ what, at, mm });

const isFiniteSegment = (s: Segment): boolean => {
  for (const value of Object.values(s)) if (typeof value === 'number' && !Number.isFinite(value)) return false;
  return true;
};

function pathFault({ segments, closed }: Path, isToClose: boolean): DrawableFault | null {
  const first = segments[0];
  if (!first) return fault('empty');
  if (isToClose && !closed) return fault('open', { x: first.x0, y: first.y0 });
  let before = closed ? segments[segments.length - 1] : undefined;
  for (const s of segments) {
    if (!isFiniteSegment(s)) return fault('not finite');
    const at = { x: s.x0, y: s.y0 };
    const gap = before ? Math.hypot(before.x1 - s.x0, before.y1 - s.y0) : 0;
    // Written so that a gap that is no number is one.
    if (!(gap <= JOINT_MM)) return fault('gap', at, gap);
    if (isTiny(s, LEAST_DRAWN_MM)) return fault('tiny', at, spanOf(s));
    before = s;
  }
  return null;
}

function strokesFault({ xy, start }: Strokes): DrawableFault | null {
  if (start.length < 2) return fault('empty');
  for (const value of xy) if (!Number.isFinite(value)) return fault('not finite');
  for (let s = 0; s + 1 < start.length; s++) {
    const [from, to] = [intAt(start, s), intAt(start, s + 1)];
    if (to - from < 2) return fault('empty');
    for (let i = from + 1; i < to; i++) {
      const [x, y] = [floatAt(xy, 2 * i), floatAt(xy, 2 * i + 1)];
      const length = Math.hypot(x - floatAt(xy, 2 * i - 2), y - floatAt(xy, 2 * i - 1));
      if (length < LEAST_DRAWN_MM) return fault('tiny', { x, y }, length);
    }
  }
  return null;
}

/**
 * The first thing wrong with a drawable, or null: it must be finite, each segment start where the one before ends (1e-6 mm), what
 * is to be closed be so, and nothing but points be shorter than 1e-6 mm. Formats would each write something else of it.
 */
export function faultOf(d: Drawable): DrawableFault | null {
  if (d.kind === 'dot') {
    if (!Number.isFinite(d.at.x) || !Number.isFinite(d.at.y)) return fault('not finite');
    if (d.r === null) return null;
    if (!Number.isFinite(d.r)) return fault('not finite');
    return d.r < LEAST_DRAWN_MM ? fault('tiny', d.at, d.r) : null;
  }
  if (d.kind === 'polyline' && isPacked(d.geometry)) return strokesFault(d.geometry);
  const paths = drawnPaths(d);
  if (paths.length === 0) return fault('empty');
  for (const path of paths) {
    const found = pathFault(path, d.kind !== 'polyline');
    if (found) return found;
  }
  return null;
}
