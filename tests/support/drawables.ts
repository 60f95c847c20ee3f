/** Drawables made by hand. */
import type { AreaDrawable, OutlineDrawable } from '../../src/core/geometry/drawable';
import { closedPath, type Path, pathArea, pathBox, regionBox } from '../../src/core/geometry/path';
import { arcBetween, cubic, line, quadratic } from '../../src/core/geometry/segment';

/** A closed path of every kind of segment. */
export const BLOB: Path = closedPath([
  line(10, 10, 30, 10),
  arcBetween({ x: 30, y: 10 }, { x: 30, y: 20 }, Math.PI),
  quadratic(30, 20, 20, 30, 15, 22),
  cubic(15, 22, 12, 24, 8, 14, 10, 10),
]);

export const outline = (path: Path): OutlineDrawable => ({
  kind: 'outline',
  path,
  box: pathBox(path),
});

export const area = (...paths: Path[]): AreaDrawable => ({
  kind: 'area',
  paths,
  box: regionBox(paths),
  areaMm2: paths.reduce((sum, p) => sum + pathArea(p), 0),
});
