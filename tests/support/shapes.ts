/** Closed shapes of straight lines. */
import type { Path } from '../../src/core/geometry/path';
import { line } from '../../src/core/geometry/segment';

type Place = readonly [x: number, y: number];

/** The polygon through some places. */
export const polygon = (...places: readonly Place[]): Path => ({
  closed: true,
  segments: places.map((place, i) => line(...place, ...(places[(i + 1) % places.length] as Place))),
});

/** A rectangle by its corner, counter-clockwise, or with `way` -1 clockwise. */
export function rectangle(x: number, y: number, width: number, height: number, way: 1 | -1 = 1): Path {
  const places: Place[] = [
    [x, y],
    [x + width, y],
    [x + width, y + height],
    [x, y + height],
  ];
  return polygon(...(way === 1 ? places : places.reverse()));
}
