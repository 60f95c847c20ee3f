/** What closes when outlines grow: holes, openings of letters, and the white between them. */
import type { Path } from '../geometry/path';
import { type Box, boxContains, uniteBoxes } from '../geometry/point';
import { windingAt } from '../geometry/winding';
import type { Outline } from './outline';

/** White that is no more: a hole, an opening that closed to a hole, or what parted pieces that are one now. */
export type ClosedWhite = {
  readonly kind: 'hole' | 'opening' | 'between';
  /** The letters it belongs to, by their labels. */
  readonly labels: readonly number[];
  readonly box: Box;
};

const isHole = (o: Outline): boolean => o.depth % 2 === 1;
const labelsOf = (outlines: readonly Outline[]): number[] =>
  [...new Set(outlines.flatMap((o) => o.labels.filter((l) => l >= 0)))].sort((a, b) => a - b);

/** Whether an outline that crosses no edge of a path lies within it. */
function lies(within: Path, { path, box }: Outline, around: Box): boolean {
  const [first] = path.segments;
  return first !== undefined && boxContains(around, box) && windingAt(within, first.x0, first.y0) !== 0;
}

/**
 * What closed between a clean shape and the same one grown. Holes for which `isHardly` are left over from where letters meet: nobody
 * misses them.
 */
export function closedByGrowing(
  before: readonly Outline[],
  after: readonly Outline[],
  isHardly: (hole: Outline) => boolean,
): ClosedWhite[] {
  const holesBefore = before.filter(isHole);
  const holesAfter = after.filter(isHole);
  const isOf = (hole: Outline, old: Outline) => lies(old.path, hole, old.box);
  const closed = holesBefore.filter((old) => !holesAfter.some((hole) => isOf(hole, old)) && !isHardly(old));
  const enclosed = holesAfter.filter((hole) => !holesBefore.some((old) => isOf(hole, old)));
  const outers = before.filter((o) => !isHole(o));
  const grownTogether = after
    .filter((o) => !isHole(o))
    .map((o) => outers.filter((old) => lies(o.path, old, o.box)))
    // What stands in a hole of another lies within its outline too.
    .map((inside) => inside.filter((old) => !inside.some((other) => other !== old && lies(other.path, old, other.box))))
    .filter((inside) => inside.length > 1);
  return [
    ...closed.map((o): ClosedWhite => ({ kind: 'hole', labels: labelsOf([o]), box: o.box })),
    ...enclosed.map((o): ClosedWhite => ({ kind: 'opening', labels: labelsOf([o]), box: o.box })),
    ...grownTogether.map(
      (inside): ClosedWhite => ({
        kind: 'between',
        labels: labelsOf(inside),
        box: inside.map((o) => o.box).reduce(uniteBoxes),
      }),
    ),
  ];
}
