/** What a station's panel speaks of: the selected part, or all drawn ones; and what it says while there is none. */
import type { ReactNode } from 'react';
import type { Part } from '@/core/document/schema';
import type { PartView } from '@/worker/view';
import { useBeside } from '../beside';
import { useBench } from '../store';

/** The selected part with what was computed of it; all drawn parts when none is selected. `withLines`: also those of open lines only. */
export function useShownParts(withLines = false): { part: Part; view: PartView }[] {
  const parts = useBench((s) => s.job.parts);
  const views = useBeside((view) => view?.parts);
  const selected = useBench((s) => s.selection.partId);
  return parts
    .filter((p) => !p.reference && (selected === null || p.id === selected))
    .flatMap((part) => {
      const view = views?.find((v) => v.id === part.id);
      return view && view.outlines + (withLines ? view.open : 0) > 0 ? [{ part, view }] : [];
    });
}

/** Parts whose panels are shown at first, and more at each press. */
export const PANELS_LISTED = 12;

/** In place of a panel without parts; the first computing of a job is not mistaken for an empty one. */
export function NothingYet({ children }: { children: ReactNode }) {
  const computing = useBench((s) => s.view === null && s.workerFault === null && s.job.parts.length > 0);
  const isReference = useBench((s) => s.job.parts.find((p) => p.id === s.selection.partId)?.reference === true);
  if (isReference) return <p className="nf-muted">It is shown for reference only: nothing is done to it.</p>;
  return <p className="nf-muted">{computing ? 'Setting the letters …' : children}</p>;
}
