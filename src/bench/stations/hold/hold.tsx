import { setHangs } from '@/core/commands/hangs';
import { hangsTogether } from '@/core/document/hangs';
import { partWords } from '@/core/document/part-words';
import type { Part } from '@/core/document/schema';
import { sticks } from '@/core/document/sticks';
import { isCut } from '@/core/kinds/works';
import { Choice, Switch } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { useListed } from '@/ui/listed';
import type { PartView } from '@/worker/view';
import { change, dispatch, useBench } from '../../store';
import { NothingYet, PANELS_LISTED, useShownParts } from '../shown-parts';
import { StepPanels } from '../step-panels';
import { Islands } from './islands';
import { OnePiece } from './one-piece';
import { StrengthOf } from './strength';

/** How a part comes off: whether in one piece, and whether it is to. What would come away is named by the findings. */
function PartPieces({ part, view }: { part: Part; view: PartView }) {
  const operations = useBench((s) => s.job.operations);
  const comesOff = isCut(part.work, operations);
  const { islands, loose } = view;
  const hangs = hangsTogether(part);
  const words =
    islands + loose === 0
      ? 'one piece'
      : [
          `${1 + islands + loose} pieces`,
          islands > 0 ? `${islands} will drop out` : '',
          loose > 0 && hangs === 'yes' ? `${loose} loose` : '',
        ]
          .filter(Boolean)
          .join(' · ');
  return (
    <section>
      <Heading beside={comesOff ? words : 'not cut'}>{partWords(part)}</Heading>
      <Choice
        label="What stays"
        value={part.keep}
        options={[
          { value: 'inside', word: 'the shape', title: 'A positive: the letters themselves' },
          {
            value: 'outside',
            word: 'the stock',
            title: 'A negative: the letters are cut out of the sheet, or of a plate',
          },
        ]}
        onChange={(keep) =>
          change((job) => {
            const draft = job.parts.find((p) => p.id === part.id);
            if (draft) draft.keep = keep;
          })
        }
      />
      {comesOff && part.keep === 'inside' && (loose > 0 || part.hangsTogether !== null) && (
        <Choice
          label="Hangs together"
          value={hangs ?? 'asked'}
          options={[
            { value: 'yes', word: 'yes', title: 'It is to come off as one piece' },
            { value: 'no', word: 'no', title: 'It comes off in pieces, as it is meant to' },
          ]}
          onChange={(answer) => dispatch((job) => setHangs(job, part.id, answer as 'yes' | 'no'))}
        />
      )}
      {!comesOff ? (
        <p className="nf-muted nf-small">Nothing of it is cut, so nothing can fall apart.</p>
      ) : view.overlaps ? (
        <p className="nf-muted nf-small">Its letters overlap and are not welded; weld them at station Close.</p>
      ) : islands + loose === 0 ? (
        <p className="nf-small" style={{ color: 'var(--nf-good)' }}>
          ✓ It comes off as one piece.
        </p>
      ) : sticks(part) ? (
        <p className="nf-small" style={{ color: 'var(--nf-good)' }}>
          ✓ Its islands stay on their backing.
        </p>
      ) : islands === 0 && hangs === 'no' ? (
        <p className="nf-small" style={{ color: 'var(--nf-good)' }}>
          ✓ It comes off in {1 + loose} pieces, as it is meant to.
        </p>
      ) : null}
    </section>
  );
}

/** What makes a part one strong piece: for a negative its plate and its bridges. */
function Ways({ part, view }: { part: Part; view: PartView }) {
  if (part.locked) return <p className="nf-muted nf-small mt-2">It is locked: it is not changed by hand.</p>;
  return (
    <>
      {part.keep === 'outside' && (
        <>
          <StepPanels section="hold: plate" part={part} view={view} />
          <Switch
            label="Self-adhesive"
            on={part.selfAdhesive}
            onChange={(on) =>
              change((job) => {
                const draft = job.parts.find((p) => p.id === part.id);
                if (draft) draft.selfAdhesive = on;
              })
            }
            note="The stock sticks where it is used: islands need no bridges."
          />
        </>
      )}
      <Islands part={part} view={view} />
      <StepPanels section="hold: bridges" part={part} view={view} />
      {part.keep === 'inside' && <OnePiece part={part} view={view} />}
      <section aria-label="Strength">
        <Heading>Strength</Heading>
        <StepPanels section="hold: strength" part={part} view={view} />
        <StrengthOf part={part} view={view} />
      </section>
    </>
  );
}

/** Whether what is kept hangs together, part by part; the ways to mend it for the one that is selected. */
export function Hold() {
  const parts = useShownParts();
  const { shown, more } = useListed(parts, PANELS_LISTED);
  const [only] = parts;
  if (!only) return <NothingYet>Nothing to hold yet: add lettering or a shape first.</NothingYet>;
  return (
    <>
      {shown.map(({ part, view }) => (
        <PartPieces key={part.id} part={part} view={view} />
      ))}
      {more}
      {parts.length === 1 ? (
        <Ways key={only.part.id} part={only.part} view={only.view} />
      ) : (
        <p className="nf-muted nf-small mt-3">
          Select a part to bridge its islands, close it up, tie it or thicken it.
        </p>
      )}
    </>
  );
}
