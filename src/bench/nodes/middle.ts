/** The true middle of the letter whose lines are worked on: drawn as a guide, and what dragged nodes snap to. */
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { Path } from '@/core/geometry/path';
import type { Point } from '@/core/geometry/point';
import { pathOf } from '@/core/geometry/read-path-data';
import { pointAt } from '@/core/geometry/segment';
import { nearestParameter } from '@/core/geometry/segment-measures';
import { computing } from '@/worker/client';
import type { AtNodes } from '../state';
import { useBench } from '../store';

const NONE: readonly Path[] = [];

/** The true middle of the letter whose lines are worked on, on the sheet. */
export function useMiddle(at: AtNodes | null): readonly Path[] {
  const letter = at?.letter ?? null;
  // It hangs on the words and their place, not on the lines that are drawn.
  const place = useBench((s) => {
    const seen = s.view?.parts.find((p) => p.id === at?.partId)?.centerline?.letters.find((l) => l.key === letter);
    return seen ? JSON.stringify([seen.matrix, seen.alike]) : null;
  });
  const { data } = useQuery({
    queryKey: ['middle', at?.partId, letter, place],
    queryFn: () => computing().middleOf(useBench.getState().job, at?.partId ?? '', letter ?? ''),
    enabled: letter !== null && place !== null,
  });
  return useMemo(() => (data && letter !== null ? pathOf(data).paths : NONE), [data, letter]);
}

/** The place on the guide nearest to a point, within `reach`; null where there is none. */
export function onMiddle(p: Point, middle: readonly Path[], reach: number): Point | null {
  let best: Point | null = null;
  let least = reach;
  for (const path of middle)
    for (const s of path.segments) {
      const q = pointAt(s, nearestParameter(s, p.x, p.y));
      const d = Math.hypot(q.x - p.x, q.y - p.y);
      if (d < least) [best, least] = [q, d];
    }
  return best;
}
