/** Giving a part an overall width, or leaving that to its members. */
import type { Job } from '../document/schema';
import { growPart } from '../document/sizes';
import { changed, partOf } from './changed';

/**
 * Size a part to an overall width in mm, whatever becomes of its words; null: its members are as large as they say. `scale` is
 * how many times as large as that it is now, so that nothing changes its size when the width is let go.
 */
export const setOverallWidth = (job: Job, partId: string, mm: number | null, scale: number): Job =>
  changed(job, (draft) => {
    const part = partOf(draft, partId);
    if (!part || part.locked || part.overallWidth === mm) return;
    if (mm === null) growPart(part, scale, false);
    part.overallWidth = mm;
  });
