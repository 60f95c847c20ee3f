/** Affine maps of space, and the arbitrary axis algorithm by which DXF places flat things in it. */
import type { Matrix } from '../../geometry/point';

/** A point or direction in space. */
export type Vector = readonly [x: number, y: number, z: number];

/** Where the axes and the origin come to lie. */
export type Space = { readonly x: Vector; readonly y: Vector; readonly z: Vector; readonly o: Vector };

/** The space of the drawing itself. */
export const WORLD: Space = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1], o: [0, 0, 0] };

/** The z axis. */
export const UP: Vector = [0, 0, 1];

const add = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];

/** A vector made longer. */
export const times = (a: Vector, k: number): Vector => [a[0] * k, a[1] * k, a[2] * k];

/** The cross product. */
export const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const unit = (a: Vector): Vector => {
  const length = Math.hypot(...a);
  return length > 0 ? times(a, 1 / length) : UP;
};

const direction = (s: Space, v: Vector): Vector => add(add(times(s.x, v[0]), times(s.y, v[1])), times(s.z, v[2]));

/** A point of a space in the world. */
export const place = (s: Space, p: Vector): Vector => (s === WORLD ? p : add(direction(s, p), s.o));

/** The map that does `first`, then `then`. */
export const after = (first: Space, then: Space): Space =>
  first === WORLD
    ? then
    : then === WORLD
      ? first
      : {
          x: direction(then, first.x),
          y: direction(then, first.y),
          z: direction(then, first.z),
          o: place(then, first.o),
        };

/** The space whose origin is moved. */
export const movedSpace = (by: Vector): Space => ({ ...WORLD, o: by });

/** The space whose axes are sized. */
export const scaledSpace = (x: number, y: number, z: number): Space => ({
  x: [x, 0, 0],
  y: [0, y, 0],
  z: [0, 0, z],
  o: [0, 0, 0],
});

/** The space turned about z, in degrees counter-clockwise; by multiples of 90 exactly. */
export const turnedSpace = (degrees: number): Space => {
  const angle = (degrees * Math.PI) / 180;
  const exact = degrees % 90 === 0;
  const cos = exact ? Math.round(Math.cos(angle)) : Math.cos(angle);
  const sin = exact ? Math.round(Math.sin(angle)) : Math.sin(angle);
  return { x: [cos, sin, 0], y: [-sin, cos, 0], z: UP, o: [0, 0, 0] };
};

/** Closer to the z axis than this, the x axis is found from y (the published algorithm). */
const NEAR_Z = 1 / 64;

/** The space of a flat thing by its extrusion direction. */
export function objectSpace(extrusion: Vector): Space {
  if (extrusion === UP) return WORLD;
  const z = unit(extrusion);
  if (z[0] === 0 && z[1] === 0 && z[2] === 1) return WORLD;
  const helper: Vector = Math.abs(z[0]) < NEAR_Z && Math.abs(z[1]) < NEAR_Z ? [0, 1, 0] : UP;
  const x = unit(cross(helper, z));
  return { x, y: unit(cross(z, x)), z, o: [0, 0, 0] };
}

/** Seen from above: what becomes of the plane at a height. */
export const fromAbove = (s: Space, height = 0): Matrix => ({
  a: s.x[0],
  b: s.x[1],
  c: s.y[0],
  d: s.y[1],
  e: s.z[0] * height + s.o[0],
  f: s.z[1] * height + s.o[1],
});
