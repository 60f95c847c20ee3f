/** A bar under or through each line of the lettering of a part, as long as the line. */
import { type Path, transformPath } from '../geometry/path';
import { boxCentre, boxWidth, compose, type Matrix, translation } from '../geometry/point';
import type { Layout } from '../lettering/layout';
import { roundedRectangle } from './shape';

/** Lengths in mm. */
export type BarSettings = {
  readonly at: 'under' | 'through';
  readonly height: number;
  /** How deep letters stand in it, and how far it reaches beyond the words. */
  readonly overlap: number;
  readonly beyond: number;
  readonly ends: 'square' | 'round';
};

/** Where a bar through the letters lies: its middle, as a share of the capital height above the baseline. */
const THROUGH = 0.34;

/** The bars of one lettering, on the sheet. */
export function barsOf(layout: Layout, matrix: Matrix, step: BarSettings): Path[] {
  return layout.lines.flatMap((line) => {
    const length = boxWidth(line.box) * layout.scale + 2 * step.beyond;
    if (length <= 0) return [];
    const baseline = line.y * layout.scale;
    const middle =
      step.at === 'under'
        ? baseline + step.overlap - step.height / 2
        : baseline + THROUGH * (line.capital * layout.scale);
    const corner = step.ends === 'round' ? Math.min(step.height, length) / 2 : 0;
    return [
      transformPath(
        roundedRectangle(length, step.height, corner),
        compose(translation(boxCentre(line.box).x * layout.scale, middle), matrix),
      ),
    ];
  });
}
