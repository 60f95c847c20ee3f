/** What happens to the inside of a part: nothing, scanned as an area, or filled with lines. */

import { interiorOf, setInside } from '@/core/commands/interior';
import { common } from '@/core/commands/several';
import { partWords } from '@/core/document/part-words';
import type { Operation, Part } from '@/core/document/schema';
import { workOn } from '@/core/kinds/works';
import { Choice, NumberField, QuantityField, Switch } from '@/ui/fields';
import { formatArea } from '@/ui/figures';
import { Heading } from '@/ui/heading';
import { change, useBench } from '../../store';
import { editAll, type StepProps, shownIn } from '../hold/use-step';
import { DoneBy } from '../lines/done-by';
import { HatchPanel } from './hatch-panel';

/** How the inside of a part is worked. */
export function InteriorPanel(props: StepProps) {
  const { part, also = [] } = props;
  const units = useBench((s) => s.job.units);
  const none = useBench((s) => s.job.operations.length === 0);
  const all = shownIn(props);
  const area = all.reduce((sum, { view }) => sum + view.areaMm2, 0);
  const inside = common(all.map((shown) => interiorOf(shown.part)));
  const filledBy = common(all.map((shown) => workOn(shown.part.work, 'fill')?.operation));
  return (
    <section aria-label="Inside">
      <Heading beside={area > 0 ? formatArea(area, units) : ''}>
        {also.length > 0 ? `${all.length} parts` : partWords(part)}
      </Heading>
      {area === 0 ? (
        <p className="nf-muted nf-small">Lines only: there is no inside to fill.</p>
      ) : none ? (
        <p className="nf-muted nf-small">There is no operation to fill it; add one at station Assign.</p>
      ) : (
        <>
          <Choice
            label="Inside"
            {...inside}
            disabled={all.every((shown) => shown.part.locked)}
            options={[
              { value: 'alone', word: 'left alone' },
              { value: 'area', word: 'an area', title: 'Handed over as a whole, for a beam that scans it' },
              { value: 'lines', word: 'lines', title: 'Filled with lines that a pen or tool follows' },
            ]}
            onChange={(value) => editAll(props, (job, id, measure) => setInside(job, id, value, measure))}
          />
          {inside.value === 'area' && !inside.mixed && (
            <>
              <DoneBy {...props} what="fill" label="Done by" />
              {!filledBy.mixed && <Scan part={part} />}
            </>
          )}
          {inside.value === 'lines' && !inside.mixed && <HatchPanel {...props} />}
        </>
      )}
    </section>
  );
}

/** How a beam scans the area: kept with the operation, so that all it scans is alike. */
function Scan({ part }: { readonly part: Part }) {
  const unit = useBench((s) => s.job.units);
  const id = workOn(part.work, 'fill')?.operation;
  const operation = useBench((s) => s.job.operations.find((o) => o.id === id));
  if (!operation) return null;
  const edit = (values: Partial<NonNullable<Operation['scan']>> | null, merge: string | null = null) =>
    change((job) => {
      const draft = job.operations.find((o) => o.id === id);
      if (draft) draft.scan = values && { interval: 0.1, direction: 0, ...draft.scan, ...values };
    }, merge && `scan:${id}:${merge}`);
  return (
    <>
      <Switch
        label="Say how it is scanned"
        on={operation.scan !== null}
        onChange={(on) => edit(on ? {} : null)}
        note={operation.scan ? `For everything ${operation.name} does; written into the files.` : undefined}
      />
      {operation.scan && (
        <>
          <QuantityField
            label="Lines apart"
            unit={unit}
            value={operation.scan.interval}
            least={0.001}
            most={100}
            digits={unit === 'mm' ? 3 : 4}
            stepMm={0.01}
            onChange={(interval) => edit({ interval }, 'interval')}
          />
          <NumberField
            label="Direction"
            suffix="°"
            value={operation.scan.direction}
            least={-360}
            most={360}
            step={5}
            onChange={(direction) => edit({ direction }, 'direction')}
          />
        </>
      )}
    </>
  );
}
