'use client';

import { partWords } from '@/core/document/part-words';
import type { Part } from '@/core/document/schema';
import { Switch } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import type { PartView } from '@/worker/view';
import { NodesPanel } from '../nodes/panel';
import { change, useBench } from '../store';
import { Gaps } from './gaps';
import { NothingYet, useShownParts } from './shown-parts';

function PartOutlines({ part, view, alone }: { part: Part; view: PartView; alone: boolean }) {
  const memberId = useBench((s) => (s.selection.partId === part.id ? s.selection.memberId : null));
  const weld = part.steps.find((s) => s.kind === 'weld')?.on ?? true;
  const mustWeld = part.members.some((m) => m.role !== 'join');
  const setWeld = (on: boolean) =>
    change((job) => {
      const draft = job.parts.find((p) => p.id === part.id);
      if (!draft) return;
      draft.steps = [...draft.steps.filter((s) => s.kind !== 'weld'), { kind: 'weld', on }];
    });
  const letters = view.members.reduce((sum, m) => sum + m.letters, 0);
  return (
    <>
      <section>
        <Heading beside={`${view.outlines} outline${view.outlines === 1 ? '' : 's'}`}>{partWords(part)}</Heading>
        <Switch
          label="Weld what overlaps"
          on={weld || mustWeld}
          disabled={mustWeld}
          onChange={setWeld}
          note={
            mustWeld
              ? 'Always, where something is cut out or kept within.'
              : view.overlaps
                ? 'Off: letters overlap, and each overlap would be cut.'
                : weld
                  ? 'Overlapping letters become one outline. The words stay words.'
                  : 'Off: every letter keeps its own outline. None overlap.'
          }
        />
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
      {alone && <NodesPanel partId={part.id} memberId={memberId} />}
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
  if (parts.length === 0) return <NothingYet>No outlines yet: add lettering or a shape first.</NothingYet>;
  return (
    <>
      {parts.map(({ part, view }) => (
        <PartOutlines key={part.id} part={part} view={view} alone={parts.length === 1} />
      ))}
    </>
  );
}
