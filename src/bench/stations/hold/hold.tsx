import { changed } from '@/core/commands/changed';
import { newCloseUp } from '@/core/commands/defaults';
import { setHangs } from '@/core/commands/hangs';
import { common } from '@/core/commands/several';
import { hangsTogether } from '@/core/document/hangs';
import { partWords } from '@/core/document/part-words';
import type { CloseUp, Job, Operation, Part } from '@/core/document/schema';
import { sticks } from '@/core/document/sticks';
import { isCut } from '@/core/kinds/works';
import { Choice, QuantityField, Switch } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { useBench } from '../../store';
import { areLocked, asProps, type InShort, Locked, NothingYet, ShortList, useShownParts } from '../shown-parts';
import { StepPanels } from '../step-panels';
import { Islands } from './islands';
import { OnePiece } from './one-piece';
import { StrengthOf } from './strength';
import { editAll, type Shown, type StepProps, shownIn } from './use-step';

/** In how many pieces a part comes off, in a few words. */
function piecesWords({ part, view: { islands, loose } }: Shown, operations: readonly Operation[]): InShort {
  if (!isCut(part.work, operations)) return { words: 'not cut' };
  if (islands + loose === 0) return { words: 'one piece' };
  const isLoose = loose > 0 && hangsTogether(part) === 'yes';
  return {
    words: [
      `${1 + islands + loose} pieces`,
      islands > 0 ? `${islands} will drop out` : '',
      isLoose ? `${loose} loose` : '',
    ]
      .filter(Boolean)
      .join(' · '),
    isTrouble: isLoose || islands > 0,
  };
}

/** Edit the documents of all parts that a panel is for. */
const editParts = (props: StepProps, recipe: (part: Part) => void): void =>
  editAll(props, (job: Job, id) =>
    changed(job, (draft) => {
      const part = draft.parts.find((p) => p.id === id);
      if (part) recipe(part);
    }),
  );

/** What stays of parts, and whether they are to hang together. */
function WhatStays(props: StepProps) {
  const operations = useBench((s) => s.job.operations);
  const all = shownIn(props);
  const keep = common(all.map(({ part }) => part.keep));
  const asked = all.filter(
    ({ part, view }) =>
      isCut(part.work, operations) && part.keep === 'inside' && (view.loose > 0 || part.hangsTogether !== null),
  );
  const hangs = common(asked.map(({ part }) => hangsTogether(part) ?? 'asked'));
  return (
    <>
      <Choice
        label="What stays"
        {...keep}
        disabled={areLocked(props)}
        options={[
          { value: 'inside', word: 'the shape', title: 'A positive: the letters themselves' },
          {
            value: 'outside',
            word: 'the stock',
            title: 'A negative: the letters are cut out of the sheet, or of a plate',
          },
        ]}
        onChange={(value) =>
          editParts(props, (part) => {
            part.keep = value;
          })
        }
      />
      {asked.length > 0 && (
        <Choice
          label="Hangs together"
          {...hangs}
          disabled={areLocked(props)}
          options={[
            { value: 'yes', word: 'yes', title: 'It is to come off as one piece' },
            { value: 'no', word: 'no', title: 'It comes off in pieces, as it is meant to' },
          ]}
          onChange={(answer) => editAll(props, (job, id) => setHangs(job, id, answer as 'yes' | 'no'))}
        />
      )}
    </>
  );
}

/** How a part comes off: whether in one piece, and whether it is to. What would come away is named by the findings. */
function PartPieces({ part, view }: Shown) {
  const operations = useBench((s) => s.job.operations);
  const { islands, loose } = view;
  return (
    <section>
      <Heading beside={piecesWords({ part, view }, operations).words}>{partWords(part)}</Heading>
      <WhatStays part={part} view={view} />
      {!isCut(part.work, operations) ? (
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
      ) : islands === 0 && hangsTogether(part) === 'no' ? (
        <p className="nf-small" style={{ color: 'var(--nf-good)' }}>
          ✓ It comes off in {1 + loose} pieces, as it is meant to.
        </p>
      ) : null}
    </section>
  );
}

/** Whether stock that sticks holds the islands of parts by itself. */
function SelfAdhesive(props: StepProps) {
  const { value, mixed } = common(shownIn(props).map(({ part }) => part.selfAdhesive));
  return (
    <Switch
      label="Self-adhesive"
      on={value && !mixed}
      mixed={mixed}
      onChange={(on) =>
        editParts(props, (part) => {
          part.selfAdhesive = on;
        })
      }
      note="The stock sticks where it is used: islands need no bridges."
    />
  );
}

/** What it hangs by, and what it is mounted by. */
const Mounting = (props: StepProps) => (
  <section aria-label="Hanging and mounting">
    <Heading>Hanging and mounting</Heading>
    <StepPanels section="hold: hang" {...props} />
    <StepPanels section="hold: studs" {...props} />
  </section>
);

/** What makes a part one strong piece: for a negative its plate and its bridges. */
function Ways({ part, view }: Shown) {
  if (part.locked) return <Locked />;
  return (
    <>
      {part.keep === 'outside' && (
        <>
          <StepPanels section="hold: plate" part={part} view={view} />
          <SelfAdhesive part={part} view={view} />
        </>
      )}
      <Islands part={part} view={view} />
      <StepPanels section="hold: bridges" part={part} view={view} />
      {part.keep === 'inside' && <OnePiece part={part} view={view} />}
      <Mounting part={part} view={view} />
      <section aria-label="Strength">
        <Heading>Strength</Heading>
        <StepPanels section="hold: strength" part={part} view={view} />
        <StrengthOf part={part} view={view} />
      </section>
    </>
  );
}

/** Closing up the letters of all words of several parts. */
function CloseUpAll(props: StepProps) {
  const unit = useBench((s) => s.job.units);
  const words = shownIn(props).flatMap(({ part }) => part.members.flatMap((m) => (m.kind === 'lettering' ? [m] : [])));
  if (words.length === 0) return null;
  const { value: on, mixed } = common(words.map((m) => m.closeUp !== null));
  const editWords = (recipe: (closeUp: CloseUp) => void) =>
    editParts(props, (part) => {
      for (const member of part.members) if (member.kind === 'lettering' && member.closeUp) recipe(member.closeUp);
    });
  return (
    <>
      <Switch
        label="Close letters up"
        on={on && !mixed}
        mixed={mixed}
        onChange={(isOn) =>
          editAll(props, (job, id, measure) =>
            changed(job, (draft) => {
              for (const member of draft.parts.find((p) => p.id === id)?.members ?? [])
                if (member.kind === 'lettering') member.closeUp = isOn ? (member.closeUp ?? newCloseUp(measure)) : null;
            }),
          )
        }
      />
      {on && !mixed && (
        <QuantityField
          label="Width of joints"
          unit={unit}
          value={words[0]?.closeUp?.overlap ?? 0}
          mixed={common(words.map((m) => m.closeUp?.overlap)).mixed}
          least={0.01}
          most={1000}
          stepMm={unit === 'mm' ? 0.1 : 25.4 / 128}
          onChange={(overlap) =>
            editWords((closeUp) => {
              closeUp.overlap = overlap;
            })
          }
        />
      )}
    </>
  );
}

/** What several parts have in common, set for all of them. */
function Several({ locked, ...props }: StepProps & { locked: number }) {
  const all = shownIn(props);
  return (
    <>
      <Heading>{all.length} parts</Heading>
      <p className="nf-muted nf-small mb-2">
        What is set here is set for all of them.
        {locked > 0 && ` ${locked} more ${locked === 1 ? 'is' : 'are'} locked and stay${locked === 1 ? 's' : ''}.`}
      </p>
      <WhatStays {...props} />
      {areLocked(props) ? <Locked /> : <WaysForAll {...props} />}
    </>
  );
}

/** What makes several parts strong pieces, as far as they are of one kind. */
function WaysForAll(props: StepProps) {
  const keep = common(shownIn(props).map(({ part }) => part.keep));
  return (
    <>
      {!keep.mixed && keep.value === 'outside' && (
        <>
          <StepPanels section="hold: plate" {...props} />
          <SelfAdhesive {...props} />
        </>
      )}
      <StepPanels section="hold: bridges" {...props} />
      {!keep.mixed && keep.value === 'inside' && (
        <section aria-label="One piece">
          <Heading>One piece</Heading>
          <CloseUpAll {...props} />
          <StepPanels section="hold: bar" {...props} />
          <StepPanels section="hold: ties" {...props} />
        </section>
      )}
      <Mounting {...props} />
      <section aria-label="Strength">
        <Heading>Strength</Heading>
        <StepPanels section="hold: strength" {...props} />
      </section>
    </>
  );
}

/** Whether what is kept hangs together; the ways to mend it for what is chosen. */
export function Hold() {
  const parts = useShownParts();
  const operations = useBench((s) => s.job.operations);
  const isChosen = useBench((s) => s.selection.partId !== null);
  const props = asProps(parts);
  if (!props) return <NothingYet>Nothing to hold yet: add lettering or a shape first.</NothingYet>;
  if (parts.length === 1)
    return (
      <>
        <PartPieces {...props} />
        <Ways key={props.part.id} {...props} />
      </>
    );
  if (isChosen) return <Several {...props} locked={parts.length - shownIn(props).length} />;
  return (
    <ShortList
      parts={parts}
      ask="Choose a part to bridge its islands, close it up, tie it or thicken it; or several with Shift or Ctrl."
      inShort={(shown) => piecesWords(shown, operations)}
    />
  );
}
