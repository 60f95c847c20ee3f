/** Points, boxes and affine matrices. Lengths in mm, angles in degrees, y upwards. */

/** A point or a vector of the plane; x to the right, y upwards. */
export type Point = { readonly x: number; readonly y: number };

/** An axis-parallel box; empty when `maxX < minX`. */
export type Box = { readonly minX: number; readonly minY: number; readonly maxX: number; readonly maxY: number };

/** Bounds of nothing: united with a box they give that box. */
export const EMPTY_BOX: Box = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };

/** Whether bounds are those of nothing; a box of a single point is not empty. */
export const isEmptyBox = (b: Box): boolean => !(b.maxX >= b.minX && b.maxY >= b.minY);

/** Width of bounds; 0 where they are empty. */
export const boxWidth = (b: Box): number => (isEmptyBox(b) ? 0 : b.maxX - b.minX);

/** Height of bounds; 0 where they are empty. */
export const boxHeight = (b: Box): number => (isEmptyBox(b) ? 0 : b.maxY - b.minY);

/** Middle of bounds; not a number where they are empty. */
export const boxCentre = (b: Box): Point => ({ x: (b.minX + b.maxX) / 2, y: (b.minY + b.maxY) / 2 });

/** Bounds of both. */
export const uniteBoxes = (a: Box, b: Box): Box => ({
  minX: Math.min(a.minX, b.minX),
  minY: Math.min(a.minY, b.minY),
  maxX: Math.max(a.maxX, b.maxX),
  maxY: Math.max(a.maxY, b.maxY),
});

/** Bounds moved outwards on all sides; inwards where `by` is negative. */
export const growBox = (b: Box, by: number): Box => ({
  minX: b.minX - by,
  minY: b.minY - by,
  maxX: b.maxX + by,
  maxY: b.maxY + by,
});

/** Whether two boxes have a point in common, their edges included. */
export const boxesMeet = (a: Box, b: Box): boolean =>
  a.minX <= b.maxX && b.minX <= a.maxX && a.minY <= b.maxY && b.minY <= a.maxY;

/** Whether one box lies in another, edges included. */
export const boxContains = (outer: Box, inner: Box): boolean =>
  outer.minX <= inner.minX && outer.minY <= inner.minY && outer.maxX >= inner.maxX && outer.maxY >= inner.maxY;

/** An affine map of the plane. x′ = a·x + c·y + e, y′ = b·x + d·y + f, the order SVG and PDF use. */
export type Matrix = {
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly d: number;
  readonly e: number;
  readonly f: number;
};

/** The matrix that moves nothing. */
export const IDENTITY: Matrix = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };

/** Whether a matrix moves nothing at all. */
export const isIdentity = ({ a, b, c, d, e, f }: Matrix): boolean =>
  a === 1 && b === 0 && c === 0 && d === 1 && e === 0 && f === 0;

/** The matrix that moves by x and y. */
export const translation = (x: number, y: number): Matrix => ({ a: 1, b: 0, c: 0, d: 1, e: x, f: y });

/** The matrix that sizes about the origin; by the same in both directions when one factor is given. */
export const scaling = (sx: number, sy = sx): Matrix => ({ a: sx, b: 0, c: 0, d: sy, e: 0, f: 0 });

/** A turn counter-clockwise; quarter turns are exact. */
export function rotation(degrees: number): Matrix {
  const quarter = ((degrees % 360) + 360) % 360;
  const exact: Record<number, readonly [number, number]> = { 0: [1, 0], 90: [0, 1], 180: [-1, 0], 270: [0, -1] };
  const [cos, sin] = exact[quarter] ?? [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return { a: cos, b: sin, c: -sin, d: cos, e: 0, f: 0 };
}

/** The matrix that applies `first`, then `then`. */
export const compose = (first: Matrix, then: Matrix): Matrix => ({
  a: then.a * first.a + then.c * first.b,
  b: then.b * first.a + then.d * first.b,
  c: then.a * first.c + then.c * first.d,
  d: then.b * first.c + then.d * first.d,
  e: then.a * first.e + then.c * first.f + then.e,
  f: then.b * first.e + then.d * first.f + then.f,
});

/** A point where a matrix takes it. */
export const applyMatrix = (m: Matrix, p: Point): Point => ({
  x: m.a * p.x + m.c * p.y + m.e,
  y: m.b * p.x + m.d * p.y + m.f,
});

/** How far a point is outside a box; 0 within it, infinite from an empty one. */
export const outsideBox = (p: Point, b: Box): number =>
  isEmptyBox(b)
    ? Infinity
    : Math.hypot(Math.max(b.minX - p.x, 0, p.x - b.maxX), Math.max(b.minY - p.y, 0, p.y - b.maxY));

/** Bounds of a box after a matrix; an empty one stays empty. */
export function transformedBox(b: Box, m: Matrix): Box {
  if (isEmptyBox(b)) return EMPTY_BOX;
  const corners = [b.minX, b.maxX].flatMap((x) => [b.minY, b.maxY].map((y) => applyMatrix(m, { x, y })));
  return {
    minX: Math.min(...corners.map((p) => p.x)),
    minY: Math.min(...corners.map((p) => p.y)),
    maxX: Math.max(...corners.map((p) => p.x)),
    maxY: Math.max(...corners.map((p) => p.y)),
  };
}

/** Factor of areas under a matrix; negative where it mirrors. */
export const determinant = (m: Matrix): number => m.a * m.d - m.b * m.c;

/** The matrix that undoes another; one that flattens everything has none and gives the identity. */
export function invert(m: Matrix): Matrix {
  const det = determinant(m);
  if (det === 0) return IDENTITY;
  return {
    a: m.d / det,
    b: -m.b / det,
    c: -m.c / det,
    d: m.a / det,
    e: (m.c * m.f - m.d * m.e) / det,
    f: (m.b * m.e - m.a * m.f) / det,
  };
}

/** Apply a matrix to a direction: places are left out, lengths become 1. */
export function turnWith(m: Matrix, way: Point): Point {
  const x = m.a * way.x + m.c * way.y;
  const y = m.b * way.x + m.d * way.y;
  const length = Math.hypot(x, y) || 1;
  return { x: x / length, y: y / length };
}

/** Distance of two points, in their unit. Square roots are taken directly: `Math.hypot` is several times slower. */
export const distance = (a: Point, b: Point): number => Math.sqrt((a.x - b.x) ** 2 + (a.y - b.y) ** 2);
