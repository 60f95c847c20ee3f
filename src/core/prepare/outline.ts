/** Clean outlines with what everything downstream asks of them: bounds, area, length and nesting. */
import type { LabelledPath } from '../geometry/boolean/labelled';
import { numberAt } from '../geometry/elements';
import { nestMeasured } from '../geometry/nesting';
import {
  countSegments,
  DROPPED_MM,
  joinedExactly,
  type Path,
  pathArea,
  pathBox,
  transformPath,
} from '../geometry/path';
import { type Box, determinant, EMPTY_BOX, type Matrix, uniteBoxes } from '../geometry/point';
import { isTiny, type Segment } from '../geometry/segment';

/**
 * A clean closed path with its bounds, area, label and nesting: counter-clockwise around material, clockwise around a
 * hole.
 */
export type Outline = {
  /** Closed; counter-clockwise around material of the region, clockwise around a hole in it. */
  readonly path: Path;
  /** For each segment the index of its source (a letter or a shape) in the part's source list; -1 for none. */
  readonly labels: readonly number[];
  readonly box: Box;
  /** Signed, in mm². */
  readonly area: number;
  /** Index of the smallest outline around this one in the same list, or -1. */
  readonly parent: number;
  /** How many outlines lie around it. */
  readonly depth: number;
};

/** The closed paths of a clean region as outlines: measured and nested; each keeps the way it runs, and has no segments of no length. */
export function measureOutlines(paths: readonly LabelledPath[]): Outline[] {
  const measured = paths
    .map(withoutTiny)
    .map(({ path, labels }) => ({ path, labels, box: pathBox(path), area: pathArea(path) }));
  const { parent, depth } = nestMeasured(measured);
  return measured.map((o, i) => ({ ...o, parent: numberAt(parent, i), depth: numberAt(depth, i) }));
}

/** A closed path and the labels of its segments without those too short to be drawn. */
function withoutTiny<P extends LabelledPath>(labelled: P): P {
  const { path, labels } = labelled;
  const joined = joinedExactly(path);
  if (joined.segments.length === path.segments.length)
    return joined === path ? labelled : { ...labelled, path: joined };
  return {
    ...labelled,
    path: joined,
    labels: labels.filter((_, i) => !isTiny(path.segments[i] as Segment, DROPPED_MM)),
  };
}

/** Outlines with their nesting found anew over the whole list. */
export function nestAgain(outlines: readonly Outline[]): Outline[] {
  const { parent, depth } = nestMeasured(outlines);
  return outlines.map((o, i) => ({ ...o, parent: numberAt(parent, i), depth: numberAt(depth, i) }));
}

/** Bounds of outlines: those of the outer ones, which hold the others. */
export const boundsOf = (outlines: readonly Outline[]): Box =>
  outlines.reduce<Box>((box, o) => (o.depth === 0 ? uniteBoxes(box, o.box) : box), EMPTY_BOX);

/** Numbers a segment with its label takes. */
const NUMBERS_PER_SEGMENT = 16;

/** What outlines weigh in a memory. */
export const weighOutlines = (outlines: readonly Outline[]): number =>
  outlines.reduce((sum, o) => sum + NUMBERS_PER_SEGMENT * (o.path.segments.length + 1), 0);

/** What paths weigh where they are remembered, in numbers. */
export const weighPaths = (paths: readonly Path[]): number =>
  NUMBERS_PER_SEGMENT * (countSegments(paths) + paths.length);

/** Move outlines to another place in a list: their parents by `firstIndex`, their labels by `firstLabel`. */
export function relabel(outlines: readonly Outline[], firstIndex: number, firstLabel: number): readonly Outline[] {
  if (firstIndex === 0 && firstLabel === 0) return outlines;
  return outlines.map((o) => {
    if (firstLabel === 0 && o.parent < 0) return o;
    return {
      ...o,
      parent: o.parent < 0 ? -1 : o.parent + firstIndex,
      labels: firstLabel === 0 ? o.labels : o.labels.map((label) => (label < 0 ? -1 : label + firstLabel)),
    };
  });
}

/** Apply a similarity (move, turn, mirror, equal scale). Mirrored outlines are reversed, so that orientation keeps its meaning. */
export function transformOutlines(outlines: readonly Outline[], m: Matrix): Outline[] {
  const mirrored = determinant(m) < 0;
  const scale = Math.abs(determinant(m));
  const upright = m.b === 0 && m.c === 0;
  return outlines.map((o) => {
    const { path, labels } = withoutTiny({
      path: transformPath(o.path, m, mirrored),
      labels: mirrored ? [...o.labels].reverse() : o.labels,
    });
    return {
      path,
      labels,
      box: upright ? transformUpright(o.box, m) : pathBox(path),
      area: o.area * scale,
      parent: o.parent,
      depth: o.depth,
    };
  });
}

const transformUpright = (b: Box, m: Matrix): Box => {
  const x0 = m.a * b.minX + m.e;
  const x1 = m.a * b.maxX + m.e;
  const y0 = m.d * b.minY + m.f;
  const y1 = m.d * b.maxY + m.f;
  return { minX: Math.min(x0, x1), maxX: Math.max(x0, x1), minY: Math.min(y0, y1), maxY: Math.max(y0, y1) };
};
