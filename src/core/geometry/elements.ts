/**
 * Elements of lists of numbers at an index that is known to lie in them. One function for each kind of list: a function that meets
 * several kinds is compiled to a slow general access. The hottest loops over plain arrays (boolean sessions, edges of voids) keep to
 * the bare access.
 */

/** The number at an index of an array; the index lies in it. */
export const numberAt = (list: readonly number[], i: number): number => list[i] as number;

/** The number at an index of a packed list of floating-point numbers; the index lies in it. */
export const floatAt = (list: Float64Array, i: number): number => list[i] as number;

/** The number at an index of a packed list of whole numbers; the index lies in it. */
export const intAt = (list: Int32Array, i: number): number => list[i] as number;
