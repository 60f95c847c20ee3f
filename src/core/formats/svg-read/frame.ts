import { closedPath, type Path } from '../../geometry/path';
import { line } from '../../geometry/segment';

/** A plain rectangle by its corner and sides. */
export const plainRectangle = (x: number, y: number, width: number, height: number): Path =>
  closedPath([
    line(x, y, x + width, y),
    line(x + width, y, x + width, y + height),
    line(x + width, y + height, x, y + height),
    line(x, y + height, x, y),
  ]);
