'use client';

/** What happens to the inside of a part: nothing, scanned as an area, or filled with lines. */
import type { Part } from '@/core/document/schema';
import { Choice } from '@/ui/fields';
import { formatArea } from '@/ui/figures';
import { Heading } from '@/ui/heading';
import type { PartView } from '@/worker/view';
import { insideOf, setInside } from '../../fill-edits';
import { partWords } from '../../part-words';
import { useBench } from '../../store';
import { DoneBy } from '../lines/done-by';
import { HatchSettings } from './hatch';

export function Inside({ part, view }: { readonly part: Part; readonly view: PartView }) {
  const units = useBench((s) => s.job.units);
  const none = useBench((s) => s.job.operations.length === 0);
  const inside = insideOf(part);
  return (
    <section aria-label="Inside">
      <Heading beside={view.areaMm2 > 0 ? formatArea(view.areaMm2, units) : ''}>{partWords(part)}</Heading>
      {view.areaMm2 === 0 ? (
        <p className="nf-muted nf-small">Lines only: there is no inside to fill.</p>
      ) : none ? (
        <p className="nf-muted nf-small">There is no operation to fill it; add one at station Assign.</p>
      ) : (
        <>
          <Choice
            label="Inside"
            value={inside}
            disabled={part.locked}
            options={[
              { value: 'alone', word: 'left alone' },
              { value: 'area', word: 'an area', title: 'Handed over as a whole, for a beam that scans it' },
              { value: 'lines', word: 'lines', title: 'Filled with lines that a pen or tool follows' },
            ]}
            onChange={(value) => setInside(part.id, value, view)}
          />
          {inside === 'area' && <DoneBy part={part} what="fill" label="Done by" />}
          {inside === 'lines' && <HatchSettings part={part} view={view} />}
        </>
      )}
    </section>
  );
}
