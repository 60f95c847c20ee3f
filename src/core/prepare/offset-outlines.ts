/**
 * Outlines grown or shrunk, each with its holes remembered wherever it lies: an edit grows anew what it changed, and what that grows
 * into. Those that come near others are grown together with them.
 */
import { meetingBoxes } from '../geometry/apart';
import type { ClipEngine } from '../geometry/boolean/engine';
import type { LabelledPath } from '../geometry/boolean/labelled';
import { numberAt } from '../geometry/elements';
import { type Corners, offsetRegion } from '../geometry/offset/offset';
import { type Path, pathBox, transformPath } from '../geometry/path';
import { type Box, EMPTY_BOX, type Point, translation, uniteBoxes } from '../geometry/point';
import type { Segment } from '../geometry/segment';
import { type RoundedPath, roundedFrom } from '../geometry/shape-key';
import type { Memory, Stage } from '../memo';
import { measureOutlines, type Outline, weighPaths } from './outline';
import { parallelsIn } from './parallels';

/** How outlines are moved: outwards by so many mm, inwards where that is negative; an outline or a hole by its index another way. */
export type OffsetBy = {
  readonly by: number;
  readonly corners: Corners;
  readonly outerBy?: (index: number) => number;
  readonly holeBy?: (index: number) => number;
};

/** Results nearer to each other than this are made together, in mm. */
const NEAR_MM = 0.01;

/** An outline of some that are grown together, from where the first of them starts: what it is, as text and as a path. */
type LocalOutline = RoundedPath & {
  /** Which of them it is a hole of; -1 where it is none. */
  readonly holeOf: number;
  readonly by: number;
};

type GrownInput = {
  readonly engine: ClipEngine;
  readonly outlines: readonly LocalOutline[];
  readonly corners: Corners;
};

/** Outlines with their holes grown, from where the first one started; labels count the segments of their paths. */
const GROWN: Stage<GrownInput, readonly LabelledPath[]> = {
  name: 'outlines grown',
  key: ({ outlines, corners }) => `${corners}|${outlines.map((o) => `${o.by}/${o.holeOf}/${o.key}`).join('#')}`,
  run({ engine, outlines, corners }, memory) {
    let count = 0;
    const nested = outlines.map(({ path, holeOf }) => ({
      path,
      labels: path.segments.map(() => count++),
      box: pathBox(path),
      parent: holeOf,
      depth: holeOf < 0 ? 0 : 1,
    }));
    const byOf = (i: number): number => (outlines[i] as LocalOutline).by;
    return offsetRegion(engine, nested, {
      by: byOf(0),
      corners,
      outerBy: byOf,
      holeBy: byOf,
      parallels: parallelsIn(memory),
    });
  },
  weigh: (paths) => weighPaths(paths.map(({ path }) => path)),
};

/** Outlines moved outwards, or inwards, and what is left measured and nested. Those that grow into each other are one. */
export function offsetOutlines(
  engine: ClipEngine,
  outlines: readonly Outline[],
  offset: OffsetBy,
  memory: Memory,
): Outline[] {
  const { by, corners, outerBy = () => by, holeBy = () => by } = offset;
  /** Some outlines grown together, by their indices. */
  const grown = (indices: readonly number[], isAlone: boolean): readonly LabelledPath[] => {
    const own = indices.map((i) => outlines[i] as Outline);
    const { x0, y0 } = (own[0] as Outline).path.segments[0] as Segment;
    const local = own.map((o, k): LocalOutline => {
      const index = numberAt(indices, k);
      const isHole = o.depth % 2 === 1;
      return {
        ...memory.get(ROUNDED, { path: o.path, x0, y0, isAlone }),
        holeOf: isHole ? indices.indexOf(o.parent) : -1,
        by: isHole ? holeBy(index) : outerBy(index),
      };
    });
    return placed(memory.get(GROWN, { engine, outlines: local, corners }), { x: x0, y: y0 }, own);
  };
  const groups = groupsOf(outlines);
  const alone = groups.map((group) => grown(group, true));
  const boxes = alone.map((paths) => paths.reduce<Box>((box, { path }) => uniteBoxes(box, pathBox(path)), EMPTY_BOX));
  const made = meetingBoxes(boxes, NEAR_MM).flatMap((near): readonly LabelledPath[] =>
    near.length === 1
      ? (alone[numberAt(near, 0)] as readonly LabelledPath[])
      : grown(
          near.flatMap((g) => groups[g] as readonly number[]),
          false,
        ),
  );
  return measureOutlines(fromTheTop(made));
}

/** Outer outlines, each with the holes that lie in it, by their indices. */
function groupsOf(outlines: readonly Outline[]): number[][] {
  const groups = outlines.map((o, i): number[] => (o.depth % 2 === 0 ? [i] : []));
  outlines.forEach((o, i) => {
    if (o.depth % 2 === 1) groups[o.parent]?.push(i);
  });
  return groups.filter((group) => group.length > 0);
}

type RoundedInput = { readonly path: Path; readonly x0: number; readonly y0: number; readonly isAlone: boolean };

/** A path from a place, and its name. Of each path the newest is remembered, by itself and among others. */
const ROUNDED: Stage<RoundedInput, RoundedPath> = {
  name: 'rounded outline',
  key: ({ path, x0, y0 }, idOf) => `${idOf(path)}|${x0},${y0}`,
  slot: ({ path, isAlone }, idOf) => `${idOf(path)}|${isAlone}`,
  run: ({ path, x0, y0 }) => roundedFrom(path, x0, y0),
  weigh: ({ key, path }) => key.length / 8 + weighPaths([path]),
};

/** What was grown where it starts from a place, labelled as what it was made of is. */
function placed(grown: readonly LabelledPath[], { x, y }: Point, from: readonly Outline[]): LabelledPath[] {
  const labels = from.flatMap((o) => o.labels);
  const to = translation(x, y);
  return grown.map((one) => ({
    path: transformPath(one.path, to),
    labels: one.labels.map((label) => (label < 0 ? -1 : numberAt(labels, label))),
  }));
}

/** Paths from the highest down, and from left to right: the order in which one sweep over all would find them. */
function fromTheTop(paths: readonly LabelledPath[]): LabelledPath[] {
  const boxes = new Map(paths.map((p) => [p, pathBox(p.path)]));
  const at = (p: LabelledPath) => boxes.get(p) as Box;
  // What lies level but for rounding is level.
  const level = (p: LabelledPath) => Math.round(at(p).maxY / ROUNDING_MM);
  return [...paths].sort((a, b) => level(b) - level(a) || at(a).minX - at(b).minX);
}

const ROUNDING_MM = 1e-4;
