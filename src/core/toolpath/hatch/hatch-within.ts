/** The lines of a filling that lie in some of what is filled: letters that are worked by themselves, or what is left without them. */
import type { Drawable } from '../../geometry/drawable';
import { floatAt, intAt } from '../../geometry/elements';
import { type Path, pathLength } from '../../geometry/path';
import type { Point } from '../../geometry/point';
import { pointAt, type Segment } from '../../geometry/segment';
import { countStrokes, lengthsOf, StrokeBuilder, type Strokes } from '../../geometry/strokes';
import { type Filling, fillingsInOrder } from './in-order';

/** A filling with its lines in the order they are drawn in, and their length in mm. */
export type OrderedFilling = Filling & { readonly drawn: readonly Drawable[]; readonly drawnMm: number };

/** The lines of a filling whose middles are in a region, in an order of their own; none cross from one region to another. */
export function hatchWithin(hatch: Filling, isIn: (at: Point) => boolean): OrderedFilling {
  const strokes = strokesWithin(hatch.strokes, isIn);
  const overMissed = strokesWithin(hatch.overMissed, isIn);
  const rings = hatch.rings.filter((path) => isIn(onPath(path)));
  const edge = hatch.edge.filter((path) => isIn(onPath(path)));
  const { spacingMm, edgeFirst } = hatch;
  const filling: Filling = { strokes, overMissed, rings, edge, spacingMm, edgeFirst };
  return {
    ...filling,
    drawn: fillingsInOrder([filling]).map(({ drawable }) => drawable),
    drawnMm:
      lengthsOf(strokes).drawn +
      lengthsOf(overMissed).drawn +
      [...rings, ...edge].reduce((sum, path) => sum + pathLength(path), 0),
  };
}

const onPath = ({ segments }: Path): Point => pointAt(segments[0] as Segment, 0.5);

function strokesWithin(strokes: Strokes, isIn: (at: Point) => boolean): Strokes {
  const { xy, start } = strokes;
  const kept = new StrokeBuilder();
  for (let s = 0; s < countStrokes(strokes); s++) {
    const [from, to] = [intAt(start, s), intAt(start, s + 1)];
    const middle = {
      x: (floatAt(xy, 2 * from) + floatAt(xy, 2 * from + 2)) / 2,
      y: (floatAt(xy, 2 * from + 1) + floatAt(xy, 2 * from + 3)) / 2,
    };
    if (!isIn(middle)) continue;
    for (let i = from; i < to; i++) kept.add(floatAt(xy, 2 * i), floatAt(xy, 2 * i + 1));
    kept.lift();
  }
  return kept.done();
}
