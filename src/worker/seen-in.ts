/** What is seen of a job that was computed, as far as commands ask for it. */
import type { Job } from '../core/document/schema';
import { boxCentre, isEmptyBox } from '../core/geometry/point';
import type { Measure } from '../core/kinds/step';
import type { Seen } from '../core/rules/rule';
import type { JobView, PartView } from './view';

/** What the first values of a part's steps are made from: its largest capital, or a third of its height. */
export function measureOf(job: Job, view: Pick<PartView, 'members' | 'box'> | undefined): Measure {
  const capitals = (view?.members ?? []).flatMap((m) => (m.capHeightMm === null ? [] : [m.capHeightMm]));
  const box = view?.box;
  const height = box && box.maxY > box.minY ? (box.maxY - box.minY) / 3 : 10;
  return {
    capHeightMm: capitals.length > 0 ? Math.max(...capitals) : height,
    leastWidthMm: job.sheet.leastWidth,
    kerfMm: job.sheet.kerf,
  };
}

/** What mending is told of a job and its view. */
export function seenIn(job: Job, view: JobView): Seen {
  const partOf = (id: string) => view.parts.find((p) => p.id === id);
  return {
    middleOf: (partId) => {
      const box = partOf(partId)?.ownBox;
      return box && !isEmptyBox(box) ? boxCentre(box) : { x: 0, y: 0 };
    },
    capHeightOf: (partId, memberId) => partOf(partId)?.members.find((m) => m.id === memberId)?.capHeightMm ?? undefined,
    bridgesOf: (partId) => {
      const part = partOf(partId);
      return { bridges: part?.bridges.bridges ?? [], keys: part?.bridges.keys ?? [], measure: measureOf(job, part) };
    },
  };
}
