/**
 * The polygon clipper under the exact booleans. Two engines do the same: Clipper2 as WebAssembly (fast, used where it
 * loads) and Clipper2 in TypeScript (needs nothing, its twin in the tests).
 */

/** What is made of two regions. */
export type ClipOperation = 'union' | 'difference' | 'intersection';

/** Inside is what is wound round any number of times; more often counter-clockwise than clockwise; an odd number of times. */
export type WindingRule = 'nonzero' | 'positive' | 'evenodd';

/** A closed polygon as x, y, tag triplets. Tag 0 marks a vertex the clipper made itself. */
export type TaggedPolygon = Float64Array;

/** A polygon clipper that carries a tag on each vertex; polygons are in mm, and are rounded to its grid. */
export type ClipEngine = {
  readonly name: string;
  /** The same rule on both sides; collinear vertices are kept, tags of input vertices come through. */
  readonly clip: (
    operation: ClipOperation,
    subject: readonly TaggedPolygon[],
    clip: readonly TaggedPolygon[],
    rule: WindingRule,
  ) => TaggedPolygon[];
  /**
   * Clean polygons, holes the other way round, grown by `by` mm with round corners (shrunk where negative), in chords within `withinMm`
   * of circles; tags are lost.
   */
  readonly inflate: (polygons: readonly TaggedPolygon[], by: number, withinMm: number) => TaggedPolygon[];
};

/** Steps per millimetre of the clipper's grid: 0.1 µm. */
export const GRID_PER_MM = 1e4;
/** Decimal places of that grid. */
export const GRID_DIGITS = 4;
