/**
 * What is drawn: by a beam or tool, on the screen, in a file. One vocabulary for all of them. A drawable is finite and
 * continuous, and says itself how large and how long it is, in mm.
 */
import { isContinuous, type Path, pathBox, pathLength, transformPath } from './path';
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

const isFinitePoint = ({ x, y }: Point): boolean => Number.isFinite(x) && Number.isFinite(y);

/** Whether it is finite, each segment starts where the one before ends, and what is to be closed is. */
export function isSound(d: Drawable): boolean {
  if (d.kind === 'dot') return isFinitePoint(d.at) && (d.r === null || (Number.isFinite(d.r) && d.r > 0));
  const isClosed = d.kind !== 'polyline';
  return drawnPaths(d).every(
    (path) =>
      path.segments.length > 0 &&
      (path.closed || !isClosed) &&
      isContinuous(path) &&
      path.segments.every((s) => Object.values(s).every((v) => typeof v !== 'number' || Number.isFinite(v))),
  );
}
