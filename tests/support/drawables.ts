/** Drawables made by hand. */
import type { AreaDrawable, OutlineDrawable } from '../../src/core/geometry/drawable';
import { type Path, pathArea, pathBox, regionBox } from '../../src/core/geometry/path';

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
