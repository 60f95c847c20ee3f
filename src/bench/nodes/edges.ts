/** Edges in the pictures on the sheet, which the pen keeps to. */
import { useQueries } from '@tanstack/react-query';
import { useMemo } from 'react';
import { turnInto } from '@/core/geometry/measure';
import type { Path } from '@/core/geometry/path';
import { type Box, distance, outsideBox, type Point } from '@/core/geometry/point';
import { pathOf } from '@/core/geometry/read-path-data';
import { pointAt, type Segment } from '@/core/geometry/segment';
import { nearestParameter, segmentBox } from '@/core/geometry/segment-measures';
import { computing } from '@/worker/client';
import { useBench } from '../store';

/** What the pen keeps to: edges piece by piece with their bounds, and the corners they turn. */
export type PictureEdges = {
  readonly pieces: readonly { readonly segment: Segment; readonly box: Box }[];
  readonly corners: readonly Point[];
};

/** An edge that turns by more than this turns a corner, in radians. */
const CORNER = 0.4;

const cornersOf = (paths: readonly Path[]): Point[] =>
  paths.flatMap(({ segments }) =>
    segments.flatMap((s, i) => {
      const before = segments[(i + segments.length - 1) % segments.length] as Segment;
      return Math.abs(turnInto(before, s)) > CORNER ? [{ x: s.x0, y: s.y0 }] : [];
    }),
  );

/** The edges in all pictures that are shown on the sheet, as far as they are found. */
export function usePictureEdges(): PictureEdges {
  const pictures = useBench((s) => s.job.pictures);
  const found = useQueries({
    queries: pictures
      .filter((p) => p.shown)
      .map(({ id, pixels, crop, scale, placement }) => ({
        queryKey: ['edges', pixels, crop, scale, placement],
        queryFn: () => computing().edgesOf(useBench.getState().job, id),
        staleTime: Number.POSITIVE_INFINITY,
      })),
    combine: (results) => results.map((r) => r.data ?? '').join(''),
  });
  return useMemo(() => {
    const { paths } = pathOf(found);
    const pieces = paths.flatMap((p) => p.segments.map((segment) => ({ segment, box: segmentBox(segment) })));
    return { pieces, corners: cornersOf(paths) };
  }, [found]);
}

/** The corner, else the place on an edge, that is nearest to a point within `reach`; null where there is none. */
export function onEdge(p: Point, { pieces, corners }: PictureEdges, reach: number): Point | null {
  let best: Point | null = null;
  let least = reach;
  for (const q of corners) {
    const d = distance(p, q);
    if (d < least) [best, least] = [q, d];
  }
  if (best) return best;
  // Asked at every move of the pointer: most pieces are nowhere near.
  for (const { segment, box } of pieces) {
    if (outsideBox(p, box) >= least) continue;
    const q = pointAt(segment, nearestParameter(segment, p.x, p.y));
    const d = distance(p, q);
    if (d < least) [best, least] = [q, d];
  }
  return best;
}
