/** A plate around what is cut away: its own outline, margins and holes. */
import type { ClipEngine } from '../geometry/boolean/engine';
import { closedPath, type Path, transformPath } from '../geometry/path';
import {
  type Box,
  boxCentre,
  boxHeight,
  boxWidth,
  EMPTY_BOX,
  isEmptyBox,
  translation,
  uniteBoxes,
} from '../geometry/point';
import { measureOutlines, type Outline } from './outline';
import { ellipsePath, roundedRectangle } from './shape';
import { without } from './without';

/** Lengths in mm. */
export type PlateSettings = {
  readonly shape: 'rectangle' | 'ellipse';
  /** Stock left and right of the words, and above and below. */
  readonly across: number;
  readonly upright: number;
  readonly corner: number;
  readonly holes: 'none' | 'corners' | 'top' | 'sides';
  readonly holeWidth: number;
  /** From the edges to the middle of the holes. */
  readonly inset: number;
};

/** An ellipse goes through the corners of the rectangle it stands for: that rectangle's sides times this. */
const AROUND = Math.SQRT2;
const SMALLEST_MM = 0.1;

/** The bounds of the plate around a box. */
function plateBox(words: Box, step: PlateSettings): Box {
  const { x, y } = boxCentre(words);
  const wider = step.shape === 'ellipse' ? AROUND : 1;
  const w = Math.max(SMALLEST_MM, (boxWidth(words) + 2 * step.across) * wider) / 2;
  const h = Math.max(SMALLEST_MM, (boxHeight(words) + 2 * step.upright) * wider) / 2;
  return { minX: x - w, minY: y - h, maxX: x + w, maxY: y + h };
}

/** The holes of a plate. */
function holesOf(plate: Box, step: PlateSettings): Path[] {
  const { minX, minY, maxX, maxY } = plate;
  const { x: cx, y: cy } = boxCentre(plate);
  const [left, right, bottom, top] = [minX + step.inset, maxX - step.inset, minY + step.inset, maxY - step.inset];
  let places: readonly (readonly [number, number])[];
  switch (step.holes) {
    case 'none':
      return [];
    case 'corners':
      places = [
        [left, bottom],
        [right, bottom],
        [right, top],
        [left, top],
      ];
      break;
    case 'top':
      places =
        step.shape === 'ellipse'
          ? [[cx, top]]
          : [
              [left, top],
              [right, top],
            ];
      break;
    case 'sides':
      places = [
        [left, cy],
        [right, cy],
      ];
  }
  // Near the corners of an ellipse there is no plate: its holes lie as far inside it, on its diagonals.
  const onDiagonals = step.shape === 'ellipse' && step.holes === 'corners';
  const share = onDiagonals ? Math.SQRT1_2 : 1;
  const circle = ellipsePath(step.holeWidth, step.holeWidth);
  return places.map(([x, y]) => transformPath(circle, translation(cx + (x - cx) * share, cy + (y - cy) * share)));
}

/** A plate with the shape and its holes cut out of it. */
export function plate(engine: ClipEngine, shape: readonly Outline[], step: PlateSettings): readonly Outline[] {
  const words = shape.reduce<Box>((box, o) => uniteBoxes(box, o.box), EMPTY_BOX);
  if (isEmptyBox(words)) return shape;
  const box = plateBox(words, step);
  const { x, y } = boxCentre(box);
  const [w, h] = [boxWidth(box), boxHeight(box)];
  const outline = step.shape === 'ellipse' ? ellipsePath(w, h) : roundedRectangle(w, h, step.corner);
  const rim = closedPath(transformPath(outline, translation(x, y)).segments);
  const holes = measureOutlines(holesOf(box, step).map((path) => ({ path, labels: path.segments.map(() => -1) })));
  return without(engine, rim, [shape, holes]);
}
