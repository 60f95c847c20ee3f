import { Fragment } from 'react';
import { useListed } from '@/ui/listed';
import { NothingYet, PANELS_LISTED, useShownParts } from './shown-parts';
import { StepPanels } from './step-panels';

/** What happens to the area inside the outlines. */
export function FillStation() {
  const parts = useShownParts(true);
  const { shown, more } = useListed(parts, PANELS_LISTED);
  if (parts.length === 0) return <NothingYet>Nothing to fill yet: add lettering or a shape first.</NothingYet>;
  return (
    <>
      {shown.map(({ part, view }) => (
        <Fragment key={part.id}>
          <StepPanels section="fill: inside" part={part} view={view} />
          <StepPanels section="fill: lines" part={part} view={view} />
        </Fragment>
      ))}
      {more}
    </>
  );
}
