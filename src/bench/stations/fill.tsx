'use client';

import { Fragment } from 'react';
import type { Part } from '@/core/document/schema';
import { Choice } from '@/ui/fields';
import { formatArea } from '@/ui/figures';
import { Heading } from '@/ui/heading';
import type { PartView } from '@/worker/view';
import { partWords } from '../part-words';
import { change, useBench } from '../store';
import { Centerline } from './lines/centerline';
import { Dots } from './lines/dots';
import { NothingYet, useShownParts } from './shown-parts';

const NOTHING = '-';

function PartFill({ part, view }: { part: Part; view: PartView }) {
  const operations = useBench((s) => s.job.operations);
  const units = useBench((s) => s.job.units);
  const engraving = operations.filter((o) => o.kind === 'engrave');
  const now = part.work.find((w) => w.what === 'fill')?.operation ?? NOTHING;
  const elsewhere = now !== NOTHING && !engraving.some((o) => o.id === now);
  const setFill = (operation: string) =>
    change((job) => {
      const draft = job.parts.find((p) => p.id === part.id);
      if (!draft) return;
      draft.work = draft.work.filter((w) => w.what !== 'fill');
      if (operation !== NOTHING) draft.work.unshift({ what: 'fill', operation });
    });
  return (
    <section>
      <Heading beside={view.areaMm2 > 0 ? formatArea(view.areaMm2, units) : ''}>{partWords(part)}</Heading>
      {view.areaMm2 === 0 ? (
        <p className="nf-muted nf-small">Lines only: there is no inside to fill.</p>
      ) : engraving.length === 0 || elsewhere ? (
        <p className="nf-muted nf-small">
          {elsewhere
            ? `Filled by ${operations.find((o) => o.id === now)?.name}.`
            : 'There is no engraving operation; add one at station Assign.'}
        </p>
      ) : (
        <Choice
          label="Inside"
          value={now}
          options={[
            { value: NOTHING, word: 'left alone' },
            ...engraving.map((o) => ({
              value: o.id,
              word: o.name.toLowerCase(),
              title: 'The whole area inside the outlines',
            })),
          ]}
          onChange={setFill}
        />
      )}
    </section>
  );
}

/** What happens to the area inside the outlines. */
export function Fill() {
  const parts = useShownParts(true);
  if (parts.length === 0) return <NothingYet>Nothing to fill yet: add lettering or a shape first.</NothingYet>;
  return (
    <>
      {parts.map(({ part, view }) => (
        <Fragment key={part.id}>
          <PartFill part={part} view={view} />
          <Centerline part={part} view={view} />
          <Dots part={part} view={view} />
        </Fragment>
      ))}
    </>
  );
}
