/** What the bench shows of cuts: where each begins, and where it leaves tabs, to be moved there. */
import type { Matrix, Point } from '../core/geometry/point';
import type { CutOfPart } from '../core/job/drawn';
import type { PartResult } from '../core/job/part-result';

/** A place on an outline: where it lies on the sheet, which way the cut runs there, and what it is kept by. */
export type PlaceView = {
  readonly at: Point;
  readonly tangent: Point;
  /** The letter it is on, and from that letter's own coordinates to the sheet. */
  readonly letter: string;
  readonly matrix: Matrix;
  /** Which of the part's places by hand it is; null for one that was found. */
  readonly byHand: number | null;
};

/** A cut along one outline. */
export type CutView = {
  readonly partId: string;
  /** Which of the part's outlines it is. */
  readonly nth: number;
  readonly start: (PlaceView & { readonly pierced: Point }) | null;
  readonly tabs: readonly (PlaceView & { readonly widthMm: number })[];
  /** The side it is cut on, and a place on it by which that is kept. */
  readonly side: Omit<PlaceView, 'tangent'> & { readonly is: 'usual' | 'line' | 'other' };
};

/** Parts that are made, by id. */
export type PartsById = ReadonlyMap<string, PartResult>;

/** What the bench shows of the cuts of an operation. */
export function cutViews(cuts: readonly CutOfPart[], parts: PartsById): CutView[] {
  const frames = new Map<string, ReadonlyMap<string, Matrix>>();
  const frameOf = (partId: string, letter: string): Matrix | undefined => {
    let known = frames.get(partId);
    if (!known) {
      known = new Map(parts.get(partId)?.frames.map(({ key, matrix }) => [key, matrix]));
      frames.set(partId, known);
    }
    return known.get(letter);
  };
  const counts = new Map<string, number>();
  return cuts.flatMap(({ partId, start, tabs, side }): CutView[] => {
    const nth = counts.get(partId) ?? 0;
    counts.set(partId, nth + 1);
    const placed = <P extends { readonly letter: string }>(place: P): (P & { readonly matrix: Matrix })[] => {
      const matrix = frameOf(partId, place.letter);
      return matrix ? [{ ...place, matrix }] : [];
    };
    const own = placed(side)[0];
    if (!own) return [];
    return [{ partId, nth, start: start ? (placed(start)[0] ?? null) : null, tabs: tabs.flatMap(placed), side: own }];
  });
}
