/** The region of a job under a point: the panel of an emblem, not the whole emblem. */
import type { Chosen } from '../commands/chosen';
import type { Box, Point } from '../geometry/point';
import { windingAt } from '../geometry/winding';
import { linesToRunAlong } from '../lettering/text-path';
import type { Outline } from '../prepare/outline';
import type { JobResult } from './evaluate';

/** A region of a part. */
export type PartRegion = { readonly partId: string; readonly outline: Outline };

/** The smallest outline around a point, of everything but what is chosen; null when there is none. */
export function regionAt(result: JobResult, at: Point, { partIds, memberId }: Chosen): PartRegion | null {
  let best: PartRegion | null = null;
  for (const part of result.parts) {
    const isChosen = partIds.includes(part.id);
    if (isChosen && memberId === null) continue;
    const outlines = isChosen ? part.members.filter((m) => m.id !== memberId).flatMap((m) => m.outlines) : part.solid;
    for (const o of outlines) {
      const { box } = o;
      if (at.x < box.minX || at.x > box.maxX || at.y < box.minY || at.y > box.maxY) continue;
      if (best && Math.abs(o.area) >= Math.abs(best.outline.area)) continue;
      if (windingAt(o.path, at.x, at.y) !== 0) best = { partId: part.id, outline: o };
    }
  }
  return best;
}

/** A panel: a closed outline of a part, the longest counted first, and its bounds on the sheet. */
export type Panel = { readonly of: string; readonly outline: number; readonly box: Box };

/** The smallest panel around a point, of all parts but one; null when there is none. */
export function panelAt(result: JobResult, at: Point, exceptPart: string): Panel | null {
  const region = regionAt(result, at, { partIds: [exceptPart], memberId: null });
  const part = region && result.parts.find((p) => p.id === region.partId);
  if (!part) return null;
  const ranked = linesToRunAlong(
    part.solid.map((o) => o.path),
    [],
  );
  return { of: part.id, outline: ranked.indexOf(region.outline.path), box: region.outline.box };
}
