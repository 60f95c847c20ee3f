/** What a station's panel speaks of: what is chosen, or all drawn parts; and what it says while there is none. */
import type { ReactNode } from 'react';
import { partWords } from '@/core/document/part-words';
import { Heading } from '@/ui/heading';
import { VirtualRows } from '@/ui/virtual-rows';
import styles from '../bench.module.css';
import { useBeside } from '../beside';
import { select, useBench } from '../store';
import { type Shown, type StepProps, shownIn } from './hold/use-step';

/** The chosen parts with what was computed of them; all drawn parts when none is chosen. `withLines`: also those of open lines only. */
export function useShownParts(withLines = false): Shown[] {
  const parts = useBench((s) => s.job.parts);
  const views = useBeside((view) => view?.parts);
  const { partId, others } = useBench((s) => s.selection);
  const byId = new Map(views?.map((view) => [view.id, view]));
  return parts
    .filter((p) => !p.reference && (partId === null || p.id === partId || others.includes(p.id)))
    .flatMap((part) => {
      const view = byId.get(part.id);
      return view && view.outlines + (withLines ? view.open : 0) > 0 ? [{ part, view }] : [];
    });
}

/** Parts as panels are given them: the first, and the others when there are some. Of several, locked ones are left out. */
export function asProps(parts: readonly Shown[]): StepProps | null {
  const free = parts.filter(({ part }) => !part.locked);
  const [first, ...also] = parts.length > 1 && free.length > 0 ? free : parts;
  return first ? { ...first, ...(also.length > 0 && { also }) } : null;
}

/** In place of what would change parts that are all locked. */
export const Locked = () => <p className="nf-muted nf-small mt-2">It is locked: it is not changed by hand.</p>;

/** Whether nothing of what a panel is for may be changed. */
export const areLocked = (props: StepProps): boolean => shownIn(props).every(({ part }) => part.locked);

/** Parts whose panels are shown at first, and more at each press. */
export const PANELS_LISTED = 12;

/** In place of a panel without parts; the first computing of a job is not mistaken for an empty one. */
export function NothingYet({ children }: { children: ReactNode }) {
  const computing = useBench((s) => s.view === null && s.workerFault === null && s.job.parts.length > 0);
  const isReference = useBench((s) => s.job.parts.find((p) => p.id === s.selection.partId)?.reference === true);
  if (isReference) return <p className="nf-muted">It is shown for reference only: nothing is done to it.</p>;
  return <p className="nf-muted">{computing ? 'Setting the letters …' : children}</p>;
}

/** What stands beside a part in a short list, and whether it is something to look at. */
export type InShort = { readonly words: string; readonly isTrouble?: boolean };

/** All parts in a line each, to be chosen from. */
export function ShortList({
  parts,
  ask,
  inShort,
}: {
  parts: readonly Shown[];
  /** What a press is for. */
  ask: string;
  inShort: (shown: Shown) => InShort;
}) {
  const byId = new Map(parts.map((shown) => [shown.part.id, shown]));
  return (
    <>
      <Heading beside={parts.length}>Parts</Heading>
      <p className="nf-muted nf-small mb-2">{ask}</p>
      <VirtualRows label="Parts in short" keys={[...byId.keys()]} estimate={34}>
        {(id) => {
          const shown = byId.get(id);
          if (!shown) return null;
          const { words, isTrouble } = inShort(shown);
          return (
            <button type="button" className={styles.inShort} onClick={() => select(id)}>
              <span title={partWords(shown.part)}>{partWords(shown.part)}</span>
              <span className={isTrouble ? 'text-danger' : 'nf-muted'}>{words}</span>
            </button>
          );
        }}
      </VirtualRows>
    </>
  );
}
