/** Edges in the pictures on the sheet, which the pen keeps to. */
import { useQueries } from '@tanstack/react-query';
import { useMemo } from 'react';
import { turnInto } from '@/core/geometry/measure';
import type { Path } from '@/core/geometry/path';
import { pathOf } from '@/core/geometry/path-data';
import type { Point } from '@/core/geometry/point';
import type { Segment } from '@/core/geometry/segment';
import { computing } from '@/worker/client';
import { useBench } from '../store';
import { onMiddle } from './middle';

/** What the pen keeps to: edges, and the corners they turn. */
export type PictureEdges = { readonly paths: readonly Path[]; readonly corners: readonly Point[] };

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
    return { paths, corners: cornersOf(paths) };
  }, [found]);
}

/** The corner, else the place on an edge, that is nearest to a point within `reach`; null where there is none. */
export function onEdge(p: Point, { paths, corners }: PictureEdges, reach: number): Point | null {
  let best: Point | null = null;
  let least = reach;
  for (const q of corners) {
    const d = Math.hypot(q.x - p.x, q.y - p.y);
    if (d < least) [best, least] = [q, d];
  }
  return best ?? onMiddle(p, paths, reach);
}
