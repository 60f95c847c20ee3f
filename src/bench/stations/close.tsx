import { partWords } from '@/core/document/part-words';
import type { Part } from '@/core/document/schema';
import { Heading } from '@/ui/heading';
import { useListed } from '@/ui/listed';
import type { PartView } from '@/worker/view';
import { Gaps } from './gaps';
import { NothingYet, PANELS_LISTED, useShownParts } from './shown-parts';
import { StepPanels } from './step-panels';

function PartOutlines({ part, view, alone }: { part: Part; view: PartView; alone: boolean }) {
  const letters = view.members.reduce((sum, m) => sum + m.letters, 0);
  return (
    <>
      <section>
        <Heading beside={`${view.outlines} outline${view.outlines === 1 ? '' : 's'}`}>{partWords(part)}</Heading>
        <StepPanels section="close: outlines" part={part} view={view} />
        <p className="nf-small mb-0">
          <span className="nf-figure">{view.outlines}</span> closed · <span className="nf-figure">{view.open}</span>{' '}
          open
          {letters > 0 && (
            <>
              {' '}
              · <span className="nf-figure">{letters}</span> letter{letters === 1 ? '' : 's'}
            </>
          )}{' '}
          · <span className="nf-figure">{view.segments}</span> segments
        </p>
      </section>
      {alone && <StepPanels section="close: nodes" part={part} view={view} />}
      {part.members.map((member) => {
        const closing = view.members.find((m) => m.id === member.id)?.closing;
        return member.kind === 'artwork' && closing ? (
          <Gaps key={member.id} part={part} member={member} closing={closing} />
        ) : null;
      })}
    </>
  );
}

/** Outlines of the selected part, or of all. */
export function Close() {
  const parts = useShownParts(true);
  const { shown, more } = useListed(parts, PANELS_LISTED);
  if (parts.length === 0) return <NothingYet>No outlines yet: add lettering or a shape first.</NothingYet>;
  return (
    <>
      {shown.map(({ part, view }) => (
        <PartOutlines key={part.id} part={part} view={view} alone={parts.length === 1} />
      ))}
      {more}
    </>
  );
}
