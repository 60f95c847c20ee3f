/** The polygon clipper by itself, to measure against. */
import type { PathsD } from 'clipper2-wasm/dist/clipper2z';
import startClipper from 'clipper2-wasm/dist/es/clipper2z.js';
import { flattenPath, type Path } from '../../src/core/geometry/path';

export const clipper = await startClipper();

/** Polygons as the clipper takes them: x, y and a tag that is not used. */
export const polygonsOf = (paths: readonly Path[], toleranceMm: number): Float64Array[] =>
  paths.map((path) => Float64Array.from(flattenPath(path, toleranceMm).flatMap((p) => [p.x, p.y, 0])));

export function toPaths(polygons: readonly Float64Array[]): PathsD {
  const paths = new clipper.PathsD();
  for (const polygon of polygons) {
    const path = new clipper.PathD();
    path.assign(polygon);
    paths.push_back(path);
    path.delete();
  }
  return paths;
}

/** All vertices read out as plain numbers, as one who uses them would; how many there are. */
export function readOut(paths: PathsD): number {
  let vertices = 0;
  for (let i = 0; i < paths.size(); i++) {
    const path = paths.get(i);
    vertices += Float64Array.from(path.view()).length / 3;
    path.delete();
  }
  return vertices;
}
