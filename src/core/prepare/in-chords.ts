/**
 * Outlines grown and shrunk in chords, for what is only measured: areas, and what hangs together. Groups that lie apart are worked on by
 * themselves, and those of one shape once: the same letters come out alike anywhere.
 */
import { meetingBoxes } from '../geometry/apart';
import type { ClipEngine, TaggedPolygon } from '../geometry/boolean/engine';
import { floatAt } from '../geometry/elements';
import { closedPath, flattenPath } from '../geometry/path';
import { type Box, translation } from '../geometry/point';
import { line } from '../geometry/segment';
import { shapeKey } from '../geometry/shape-key';
import { measureOutlines, type Outline, relabel, transformOutlines } from './outline';

/** How far chords stray from curves, in mm. */
export const CHORDS_MM = 0.01;

/**
 * A clean region grown by one distance after the other (shrunk where one is negative), corners round, in chords; labels are lost. Its
 * places are within `CHORDS_MM` of where they are, for each distance.
 */
export function grownInChords(
  engine: ClipEngine,
  outlines: readonly Outline[],
  distances: readonly number[],
): readonly Outline[] {
  const asked = distances.filter((by) => by !== 0);
  if (asked.length === 0) return outlines;
  // What is grown may come to meet what it lay apart from.
  const reach = asked.reduce((most, by) => most + Math.max(0, by), 0);
  const boxes = outlines.map((o): Box => o.box);
  const known = new Map<string, { readonly x: number; readonly y: number; readonly grown: readonly Outline[] }>();
  const out: Outline[] = [];
  for (const group of meetingBoxes(boxes, 2 * reach)) {
    const own = group.map((i) => outlines[i] as Outline);
    const key = shapeKey(...own.map((o) => o.path));
    const { x0, y0 } = own[0]?.path.segments[0] ?? { x0: 0, y0: 0 };
    const same = known.get(key) ?? { x: x0, y: y0, grown: grownGroup(engine, own, asked) };
    known.set(key, same);
    const moved = transformOutlines(same.grown, translation(x0 - same.x, y0 - same.y));
    out.push(...relabel(moved, out.length, 0));
  }
  return out;
}

function grownGroup(engine: ClipEngine, outlines: readonly Outline[], distances: readonly number[]): Outline[] {
  let polygons = outlines.map(({ path }): TaggedPolygon => {
    const points = flattenPath(path, CHORDS_MM);
    return Float64Array.from(points.flatMap(({ x, y }) => [x, y, 0]));
  });
  for (const by of distances) polygons = engine.inflate(polygons, by, CHORDS_MM);
  return measureOutlines(polygons.map(pathOf).map((path) => ({ path, labels: path.segments.map(() => -1) })));
}

function pathOf(polygon: TaggedPolygon) {
  const n = polygon.length;
  return closedPath(
    Array.from({ length: n / 3 }, (_, i) => {
      const next = (3 * i + 3) % n;
      return line(
        floatAt(polygon, 3 * i),
        floatAt(polygon, 3 * i + 1),
        floatAt(polygon, next),
        floatAt(polygon, next + 1),
      );
    }),
  );
}
