/** What makes a positive one piece: a bar, joints between letters, ties. What holds already is said, and only the rest is offered. */
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { Part } from '@/core/document/schema';
import { startSentence } from '@/core/inspect/names';
import { stepIn } from '@/core/kinds/steps';
import { Heading } from '@/ui/heading';
import type { PartView } from '@/worker/view';
import { readableWords } from '../readable';
import { StepPanels } from '../step-panels';
import { CloseUpOf } from './close-up';
import hold from './hold.module.css';
import { whatHolds } from './what-holds';

/** The ways to make a part one piece. */
export function OnePiece({ part, view }: { part: Part; view: PartView }) {
  const [isAsked, setIsAsked] = useState(false);
  const holds = whatHolds({
    hasBar: stepIn(part, 'bar')?.on ?? false,
    isClosedUp: part.members.some((m) => m.kind === 'lettering' && m.closeUp !== null),
    isTied: stepIn(part, 'tie')?.on ?? false,
    letters: view.letters,
    away: view.away,
    awayCount: view.islands + view.loose,
    overlaps: view.overlaps,
  });
  const offersAll = holds === null || isAsked;
  return (
    <section aria-label="One piece">
      <Heading beside={readableWords(view)}>One piece</Heading>
      {holds && (
        <p className={holds.isAll ? hold.whole : 'nf-small'}>
          {holds.isAll ? '✓ ' : ''}
          {startSentence(holds.words)}
        </p>
      )}
      {offersAll && <CloseUpOf part={part} view={view} />}
      <StepPanels section="hold: bar" part={part} view={view} />
      {(offersAll || !holds.isAll) && <StepPanels section="hold: ties" part={part} view={view} />}
      {holds && !isAsked && (
        <Button variant="word" onClick={() => setIsAsked(true)}>
          Join letters all the same
        </Button>
      )}
    </section>
  );
}
