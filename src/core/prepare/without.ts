/** Stock without what is cut out of it. */
import type { ClipEngine } from '../geometry/boolean/engine';
import type { LabelledPath } from '../geometry/boolean/labelled';
import { BooleanSession, FLATTEN_MM } from '../geometry/boolean/session';
import { flattenPath, type Path, reversePath } from '../geometry/path';
import { type Box, boxesMeet, EMPTY_BOX, isEmptyBox, uniteBoxes } from '../geometry/point';
import { windingAt } from '../geometry/winding';
import { type Memory, NO_MEMORY } from '../memo';
import { measureOutlines, nestAgain, type Outline } from './outline';

const boundsOf = (outlines: readonly Outline[]): Box =>
  outlines.reduce<Box>((box, o) => (o.depth === 0 ? uniteBoxes(box, o.box) : box), EMPTY_BOX);

/** Whether a box lies within a closed counter-clockwise path, touching it nowhere. */
function liesWithin(box: Box, rim: Path): boolean {
  const { minX, minY, maxX, maxY } = box;
  for (const [x, y] of [
    [minX, minY],
    [maxX, minY],
    [maxX, maxY],
    [minX, maxY],
  ] as const)
    if (windingAt(rim, x, y) === 0) return false;
  // No corner of the rim's polygon and no edge of it reaches into the box.
  const points = flattenPath(rim, 0.05);
  return points.every((p, i) => {
    const q = points[(i + 1) % points.length] as typeof p;
    const edge = {
      minX: Math.min(p.x, q.x),
      minY: Math.min(p.y, q.y),
      maxX: Math.max(p.x, q.x),
      maxY: Math.max(p.y, q.y),
    };
    if (!boxesMeet(edge, box)) return true;
    // The corners of the box all lie on one side of an edge that passes it by.
    const side = (x: number, y: number) => (q.x - p.x) * (y - p.y) - (q.y - p.y) * (x - p.x);
    return [side(minX, minY), side(maxX, minY), side(maxX, maxY), side(minX, maxY)].every((s) => s > 0);
  });
}

const outerBoxes = (shape: readonly Outline[]): Box[] => shape.filter((o) => o.depth === 0).map((o) => o.box);

function isWithin(shape: readonly Outline[], rim: Path): boolean {
  const box = boundsOf(shape);
  return isEmptyBox(box) || liesWithin(box, rim) || outerBoxes(shape).every((b) => liesWithin(b, rim));
}

function areApart(a: readonly Outline[], b: readonly Outline[]): boolean {
  const [all, others] = [boundsOf(a), boundsOf(b)];
  if (isEmptyBox(all) || isEmptyBox(others) || !boxesMeet(all, others)) return true;
  return outerBoxes(a).every((p) => !boxesMeet(p, others) || outerBoxes(b).every((q) => !boxesMeet(p, q)));
}

/**
 * The same outlines as holes in something around them: turned round, one deeper, at another place in the list. An outline that
 * stayed is turned round to the same object every time, so that what lies behind knows it.
 */
const asHoles = (shape: readonly Outline[], firstIndex: number, memory: Memory): Outline[] =>
  shape.map((o) => ({
    ...o,
    path: memory.of(o.path, 'turned round', () => reversePath(o.path)),
    labels: [...o.labels].reverse(),
    area: -o.area,
    parent: o.parent < 0 ? 0 : o.parent + firstIndex,
    depth: o.depth + 1,
  }));

/**
 * What is inside a closed path without several shapes. Where they lie within it and apart from each other, the outlines
 * are taken as they are; else they are cut exactly where they meet.
 */
export function without(
  engine: ClipEngine,
  rim: Path,
  shapes: readonly (readonly Outline[])[],
  memory: Memory = NO_MEMORY,
): Outline[] {
  const rimOutline: LabelledPath = { path: rim, labels: rim.segments.map(() => -1) };
  const isApart =
    shapes.every((shape) => isWithin(shape, rim)) &&
    shapes.every((a, i) => shapes.slice(i + 1).every((b) => areApart(a, b)));
  if (isApart) {
    const [outer] = measureOutlines([rimOutline]) as [Outline];
    const out: Outline[] = [outer];
    for (const shape of shapes) out.push(...asHoles(shape, out.length, memory));
    return out;
  }
  return cutOut(engine, [rimOutline], shapes);
}

/** A clean region without several shapes, cut exactly where they meet. */
export const regionWithout = (
  engine: ClipEngine,
  region: readonly Outline[],
  shapes: readonly (readonly Outline[])[],
): readonly Outline[] => (shapes.length === 0 ? region : cutOut(engine, region, shapes));

function cutOut(
  engine: ClipEngine,
  region: readonly LabelledPath[],
  shapes: readonly (readonly Outline[])[],
): Outline[] {
  const session = new BooleanSession(engine, FLATTEN_MM, true);
  const subject = session.addLabelled(region);
  const taken = session.addLabelled(shapes.flat());
  const merged = shapes.length > 1 ? session.clip('union', taken) : taken;
  return nestAgain(measureOutlines(session.rebuild(session.clip('difference', subject, merged))));
}
