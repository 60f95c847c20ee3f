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
import { type Box, EMPTY_BOX, translation, uniteBoxes } from '../geometry/point';
import type { Segment } from '../geometry/segment';
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

/** Outlines are told apart, and reckoned with, as whole numbers of this many to a mm from where the outer one starts. */
const PER_MM = 1e9;
/** Results nearer to each other than this are made together, in mm. */
const NEAR_MM = 0.01;

/** An outer outline with its holes, as indices of a list. */
type Group = { readonly outer: number; readonly holes: readonly number[] };

/** A group from where its outer outline starts: what it is, as text, and as paths. */
type LocalGroup = { readonly key: string; readonly paths: readonly Path[] };

type AloneInput = {
  readonly engine: ClipEngine;
  readonly local: LocalGroup;
  readonly outerBy: number;
  readonly holesBy: readonly number[];
  readonly corners: Corners;
};

/** A group grown by itself, from where its outer outline started; labels count the segments of its paths. */
const GROWN_ALONE: Stage<AloneInput, readonly LabelledPath[]> = {
  name: 'outline grown',
  key: ({ local, outerBy, holesBy, corners }) => `${outerBy}|${holesBy.join()}|${corners}|${local.key}`,
  run({ engine, local, outerBy, holesBy, corners }, memory) {
    let count = 0;
    const nested = local.paths.map((path, i) => ({
      path,
      labels: path.segments.map(() => count++),
      box: pathBox(path),
      parent: i === 0 ? -1 : 0,
      depth: i === 0 ? 0 : 1,
    }));
    return offsetRegion(engine, nested, {
      by: outerBy,
      corners,
      holeBy: (i) => numberAt(holesBy, i - 1),
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
  const groups = groupsOf(outlines);
  const alone = groups.map((group) => {
    const outer = outlines[group.outer] as Outline;
    const [start] = outer.path.segments;
    const local = localOf(outlines, group, memory);
    const grown = memory.get(GROWN_ALONE, {
      engine,
      local,
      outerBy: outerBy(group.outer),
      holesBy: group.holes.map(holeBy),
      corners,
    });
    return placed(grown, start as Segment, [outer, ...group.holes.map((k) => outlines[k] as Outline)]);
  });
  const boxes = alone.map((paths) => paths.reduce<Box>((box, { path }) => uniteBoxes(box, pathBox(path)), EMPTY_BOX));
  const made = meetingBoxes(boxes, NEAR_MM).flatMap((cluster): readonly LabelledPath[] => {
    if (cluster.length === 1) return alone[numberAt(cluster, 0)] as readonly LabelledPath[];
    const indices = cluster.flatMap((g) => {
      const { outer, holes } = groups[g] as Group;
      return [outer, ...holes];
    });
    return offsetRegion(
      engine,
      indices.map((i) => ({ ...(outlines[i] as Outline), parent: indices.indexOf((outlines[i] as Outline).parent) })),
      {
        by,
        corners,
        outerBy: (i) => outerBy(numberAt(indices, i)),
        holeBy: (i) => holeBy(numberAt(indices, i)),
        parallels: parallelsIn(memory),
      },
    );
  });
  return measureOutlines(fromTheTop(made));
}

/** Outer outlines with the holes that lie in each. */
function groupsOf(outlines: readonly Outline[]): Group[] {
  const holes = outlines.map((): number[] => []);
  outlines.forEach((o, i) => {
    if (o.depth % 2 === 1) holes[o.parent]?.push(i);
  });
  return outlines.flatMap((o, i) => (o.depth % 2 === 0 ? [{ outer: i, holes: holes[i] as number[] }] : []));
}

function localOf(outlines: readonly Outline[], { outer, holes }: Group, memory: Memory): LocalGroup {
  const { path } = outlines[outer] as Outline;
  const { x0, y0 } = path.segments[0] as Segment;
  const from = `from ${x0},${y0}`;
  const parts = [outer, ...holes].map((i) => {
    const own = (outlines[i] as Outline).path;
    return memory.of(own, from, () => roundedFrom(own, x0, y0));
  });
  return { key: parts.map((p) => p.key).join('#'), paths: parts.map((p) => p.path) };
}

/** A path from a place, rounded to whole numbers; these are its name. */
function roundedFrom(
  { segments, closed }: Path,
  x0: number,
  y0: number,
): { readonly key: string; readonly path: Path } {
  let key = '';
  const x = (value: number): number => {
    const whole = Math.round(PER_MM * (value - x0));
    key += `${whole},`;
    return whole / PER_MM;
  };
  const y = (value: number): number => {
    const whole = Math.round(PER_MM * (value - y0));
    key += `${whole},`;
    return whole / PER_MM;
  };
  const rounded = (s: Segment): Segment => {
    key += s.kind.charAt(0);
    const ends = { x0: x(s.x0), y0: y(s.y0), x1: x(s.x1), y1: y(s.y1) };
    switch (s.kind) {
      case 'line':
        return { kind: 'line', ...ends };
      case 'quadratic':
        return { kind: 'quadratic', ...ends, ax: x(s.ax), ay: y(s.ay) };
      case 'cubic':
        return { kind: 'cubic', ...ends, ax: x(s.ax), ay: y(s.ay), bx: x(s.bx), by: y(s.by) };
      case 'arc': {
        const sweep = Math.round(PER_MM * s.sweep);
        key += `${sweep},`;
        return { kind: 'arc', ...ends, cx: x(s.cx), cy: y(s.cy), sweep: sweep / PER_MM };
      }
    }
  };
  const local = segments.map(rounded);
  return { key, path: { segments: local, closed } };
}

/** What was grown where it starts from a place, labelled as what it was made of is. */
function placed(grown: readonly LabelledPath[], { x0, y0 }: Segment, from: readonly Outline[]): LabelledPath[] {
  const labels = from.flatMap((o) => o.labels);
  const to = translation(x0, y0);
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
