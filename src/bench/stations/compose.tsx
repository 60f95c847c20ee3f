import { ChevronsDown, Circle, Heart, Hexagon, Minus, PenLine, Shapes, Square, Star, Trash2, Type } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Dropdown from 'react-bootstrap/Dropdown';
import { type AroundIt, addAround, setFollows } from '@/core/commands/along';
import { memberOf, moveEntry } from '@/core/commands/changed';
import type { NewThing } from '@/core/commands/new-member';
import { addOnPlate, isPlate } from '@/core/commands/on-plate';
import { addMember, addPart, removeMember } from '@/core/commands/parts';
import { memberWords, partWords, shapeWord } from '@/core/document/part-words';
import type { Copy, Member, Part, ShapeKind } from '@/core/document/schema';
import { boxCentre, isEmptyBox } from '@/core/geometry/point';
import { LIMITS } from '@/core/limits';
import { Choice, NumberField, Row, Switch, TextField } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { SortableList, useSortableRow } from '@/ui/sortable';
import styles from '../bench.module.css';
import { useBeside } from '../beside';
import { BringInButton } from '../bring-in/button';
import { memberInHand } from '../chosen';
import { focusWords } from '../focus-words';
import { BeginNamesOfJob } from '../names/begin';
import { PenButton, PenPanel } from '../nodes/buttons';
import { aroundNow, measureOf, ownMiddle, partView } from '../seen';
import { change, dispatch, select, useBench } from '../store';
import { ArrangeChosen, ArrangeParts } from './arrange';
import { ArtworkEditor } from './artwork-editor';
import { LetteringEditor } from './lettering-editor';
import { PictureEditor } from './picture-editor';
import { PlaceEditor } from './place-editor';
import { ShapeEditor } from './shape-editor';
import { SheetEditor } from './sheet-editor';
import { StepPanels } from './step-panels';
import { TraceEditor } from './trace-editor';

const SHAPES: readonly { readonly kind: ShapeKind; readonly icon: typeof Type }[] = [
  { kind: 'rectangle', icon: Square },
  { kind: 'ellipse', icon: Circle },
  { kind: 'bar', icon: Minus },
  { kind: 'spike', icon: ChevronsDown },
  { kind: 'polygon', icon: Hexagon },
  { kind: 'star', icon: Star },
  { kind: 'heart', icon: Heart },
];

/** Where what is added comes to be, as seen from the part that is selected. */
type Coming = 'on' | 'beside' | 'into';

function Add({ partId }: { partId: string | null }) {
  const box = useBeside((view) => view?.parts.find((p) => p.id === partId)?.box);
  const parts = useBench((s) => s.job.parts);
  const [asked, setWhere] = useState<Coming | null>(null);
  const part = parts.find((p) => p.id === partId);
  // Onto a plate things come to be engraved; what else there is they come beside.
  const onto = part !== undefined && isPlate(part);
  const where = asked === null || (asked === 'on' && !onto) ? (onto ? 'on' : 'beside') : asked;
  const others = parts.filter((p) => p.id !== partId);
  const isInto = partId !== null && where === 'into';
  const middle = box && !isEmptyBox(box) ? boxCentre(box) : null;
  const add = (kind: NewThing) => {
    const { job } = useBench.getState();
    if (partId && isInto) {
      const made = addMember(job, partId, kind, middle, aroundNow(partId));
      dispatch(() => made.job);
      select(partId, made.memberId);
    } else if (partId && where === 'on') {
      const made = addOnPlate(job, kind, partId, aroundNow(partId));
      dispatch(() => made.job);
      select(made.partId ?? partId);
    } else {
      const made = addPart(job, kind, aroundNow(partId));
      dispatch(() => made.job);
      select(made.partId);
    }
    if (kind === 'lettering' || kind === 'one-line lettering') focusWords();
  };
  const around = (what: AroundIt) => {
    const { job } = useBench.getState();
    const made = partId ? addAround(job, partId, what, measureOf(job, partView(partId))) : null;
    if (!made) return;
    dispatch(() => made.job);
    select(made.partId);
  };
  return (
    <>
      <Heading>Add</Heading>
      {partId && (
        <Choice
          label="It comes"
          value={where}
          options={[
            ...(onto
              ? [
                  {
                    value: 'on' as const,
                    word: 'on it',
                    title: 'As a part of its own that goes along with it, engraved where it is cut',
                  },
                ]
              : []),
            { value: 'beside', word: 'beside it', title: 'As a part of its own, set and worked as this one' },
            { value: 'into', word: 'into it', title: 'As one thing with it' },
          ]}
          onChange={setWhere}
        />
      )}
      <div className={styles.addBar}>
        <Button variant="plain" onClick={() => add('lettering')}>
          <Type size={14} className="me-1" aria-hidden="true" />
          Lettering
        </Button>
        {!isInto && (
          <Button
            variant="plain"
            title="Lettering of single lines for a pen or a scribe to run along, given to Mark"
            onClick={() => add('one-line lettering')}
          >
            <PenLine size={14} className="me-1" aria-hidden="true" />
            Single line
          </Button>
        )}
        <Dropdown>
          <Dropdown.Toggle variant="plain">
            <Shapes size={14} className="me-1" aria-hidden="true" />
            Shape
          </Dropdown.Toggle>
          <Dropdown.Menu className={styles.longMenu}>
            {SHAPES.map(({ kind, icon: Icon }) => (
              <Dropdown.Item as="button" key={kind} onClick={() => add(kind)}>
                <Icon size={14} className="me-2" aria-hidden="true" />
                {shapeWord(kind)}
              </Dropdown.Item>
            ))}
            {others.length > 0 && (
              <>
                <Dropdown.Divider />
                <Dropdown.Header>A live copy of</Dropdown.Header>
                {others.map((other) => (
                  <Dropdown.Item as="button" key={other.id} onClick={() => add({ copyOf: other.id })}>
                    {partWords(other)}
                  </Dropdown.Item>
                ))}
              </>
            )}
          </Dropdown.Menu>
        </Dropdown>
      </div>
      {!partId && (
        <>
          <BringInButton />
          <PenButton />
          <BeginNamesOfJob />
        </>
      )}
      {partId && box && !isEmptyBox(box) && <AroundButtons onAdd={around} />}
    </>
  );
}

const AROUND: readonly { readonly what: AroundIt; readonly words: string; readonly title: string }[] = [
  { what: 'edge', words: 'Cut along its edge', title: 'The same outline is cut, exactly on it; the part is engraved' },
  { what: 'backing', words: 'A backing', title: 'Cut at a distance around it, to engrave it on or to glue it on' },
  { what: 'outline', words: 'An outline around', title: 'A line at a distance around it, scored' },
];

/** A letter and what is made around it, as small as a button. */
function AroundPicture({ what }: { what: AroundIt }) {
  const letter = 'M10 27 17 9h6l7 18h-6l-1-4h-6l-1 4z';
  const outer = what === 'edge' ? letter : 'M4 29 14 5Q15 3 17 3h6q2 0 3 2l10 24q1 3-2 3H6q-3 0-2-3z';
  return (
    <svg viewBox="0 0 40 36" width="40" height="36" aria-hidden="true">
      {what === 'backing' && <path d={outer} fill="var(--nf-stock)" />}
      <path
        d={letter}
        fill={what === 'outline' ? 'none' : 'var(--nf-engrave)'}
        stroke={what === 'outline' ? 'var(--nf-cut)' : 'none'}
      />
      <path
        d={outer}
        fill="none"
        stroke={what === 'outline' ? 'var(--nf-score)' : 'var(--nf-cut)'}
        strokeWidth="1.6"
        strokeDasharray={what === 'outline' ? '4 2' : undefined}
      />
    </svg>
  );
}

function AroundButtons({ onAdd }: { onAdd: (what: AroundIt) => void }) {
  return (
    <fieldset className={styles.around} aria-label="Made from its outline">
      {AROUND.map(({ what, words, title }) => (
        <Button
          key={what}
          variant="plain"
          title={`${title}: a part of its own that goes along`}
          onClick={() => onAdd(what)}
        >
          <AroundPicture what={what} />
          {words}
        </Button>
      ))}
    </fieldset>
  );
}

const ROLE_WORDS = { join: 'joined', punch: 'cut out', clip: 'keeps within' } as const;

/** What is copied, and how large. */
function CopyEditor({ partId, member }: { partId: string; member: Copy }) {
  const along = useBench((s) => s.job.parts.find((p) => p.id === partId)?.along === member.of && member.follows);
  const original = useBench((s) => s.job.parts.find((p) => p.id === member.of));
  return (
    <>
      <Heading>Copy</Heading>
      <Row label="Of">
        {original ? (
          <Button variant="word" onClick={() => select(original.id)}>
            {partWords(original)}
          </Button>
        ) : (
          <span className="nf-muted">a part that is gone</span>
        )}
      </Row>
      <NumberField
        label="Scale"
        suffix="%"
        scale={100}
        step={5}
        least={0.001}
        most={1000}
        value={member.scale}
        onChange={(scale) =>
          change((job) => {
            const draft = memberOf(job, partId, member.id);
            if (draft?.kind === 'copy') draft.scale = scale;
          }, `scale:${member.id}`)
        }
      />
      <Switch
        label="Goes along with it"
        on={along}
        onChange={(follows) =>
          dispatch((job) => setFollows(job, partId, { memberId: member.id, on: follows, middleOf: ownMiddle }))
        }
      />
    </>
  );
}

function MemberRow({ part, member, on }: { part: Part; member: Member; on: boolean }) {
  const row = useSortableRow(member.id, memberWords(member));
  return (
    <li ref={row.ref} style={row.style} className={styles.card} data-on={on}>
      <div className="d-flex gap-2 align-items-center">
        <button
          type="button"
          className={styles.plainButton}
          aria-pressed={on}
          onClick={() => select(part.id, member.id)}
        >
          <span className="d-block text-truncate">{memberWords(member)}</span>
          <span className="nf-muted nf-small">{ROLE_WORDS[member.role]}</span>
        </button>
        <button
          type="button"
          className={styles.iconButton}
          aria-label={`Remove ${memberWords(member)}`}
          title="Remove"
          onClick={() => dispatch((job) => removeMember(job, part.id, member.id))}
        >
          <Trash2 size={15} />
        </button>
        {row.grip}
      </div>
    </li>
  );
}

function Members({ part, memberId }: { part: Part; memberId: string | null }) {
  if (part.members.length < 2) return null;
  return (
    <>
      <Heading beside="combined in order">Made of</Heading>
      <SortableList
        name="members"
        ids={part.members.map((m) => m.id)}
        onMove={(from, to) =>
          change((job) => {
            const draft = job.parts.find((p) => p.id === part.id);
            if (draft) moveEntry(draft.members, from, to);
          })
        }
      >
        <ol className="list-unstyled m-0" aria-label="Members">
          {part.members.map((member) => (
            <MemberRow key={member.id} part={part} member={member} on={member.id === memberId} />
          ))}
        </ol>
      </SortableList>
    </>
  );
}

function PartEditor({ part }: { part: Part }) {
  const edit = (recipe: (p: Part) => void, merge?: string) =>
    change((job) => {
      const draft = job.parts.find((p) => p.id === part.id);
      if (draft) recipe(draft);
    }, merge ?? null);
  return (
    <>
      <Heading>Part</Heading>
      <TextField
        label="Name"
        value={part.name}
        placeholder={partWords(part)}
        most={LIMITS.nameCharacters}
        onChange={(name) =>
          edit((p) => {
            p.name = name;
          }, `name:${part.id}`)
        }
      />
      <Switch
        label="For reference only"
        on={part.reference}
        note={part.reference ? 'Shown pale, to place others by: never cut, drawn or written.' : undefined}
        onChange={(on) =>
          edit((p) => {
            p.reference = on;
          })
        }
      />
      <Choice
        label="What stays"
        value={part.keep}
        options={[
          { value: 'inside', word: 'the shape', title: 'A positive: the letters themselves' },
          { value: 'outside', word: 'the sheet', title: 'A negative: the letters are cut out of the sheet' },
        ]}
        onChange={(keep) =>
          edit((p) => {
            p.keep = keep;
          })
        }
      />
    </>
  );
}

/** The panel of station Compose. */
export function Compose() {
  const { partId, memberId } = useBench((s) => s.selection);
  const job = useBench((s) => s.job);
  const several = useBench((s) => s.selection.others.length > 0);
  const part = job.parts.find((p) => p.id === partId);
  const selection = useBench((s) => s.selection);
  const view = useBeside((view) => view?.parts.find((p) => p.id === partId));
  const member = memberInHand(job, selection);
  const pen = useBench((s) => s.pen);
  const picture = useBench((s) => s.job.pictures.find((p) => p.id === s.atPicture));
  if (pen) return <PenPanel />;
  if (several) return <ArrangeParts />;
  if (!part && picture) return <PictureEditor key={picture.id} picture={picture} />;
  if (!part)
    return (
      <>
        <Add key="add" partId={null} />
        <SheetEditor />
      </>
    );
  if (part.locked)
    return (
      <>
        <p>{partWords(part)} is locked: it is not moved or changed by hand.</p>
        <Button
          variant="plain"
          onClick={() =>
            change((draft) => {
              const p = draft.parts.find((x) => x.id === part.id);
              if (p) p.locked = false;
            })
          }
        >
          Unlock
        </Button>
        <Button variant="word" className="d-block mt-3" onClick={() => select(null)}>
          Back to the sheet
        </Button>
      </>
    );
  const index = part.members.findIndex((m) => m.id === member?.id);
  return (
    <>
      {member?.kind === 'lettering' && <LetteringEditor key={member.id} partId={part.id} member={member} />}
      {view && <StepPanels key={`steps-${part.id}`} section="compose: border" part={part} view={view} />}
      {member?.kind === 'copy' && <CopyEditor key={member.id} partId={part.id} member={member} />}
      {member?.kind === 'artwork' && <ArtworkEditor key={member.id} partId={part.id} member={member} />}
      {member?.kind === 'trace' && <TraceEditor key={member.id} partId={part.id} member={member} />}
      {member &&
        member.kind !== 'lettering' &&
        member.kind !== 'copy' &&
        member.kind !== 'artwork' &&
        member.kind !== 'trace' &&
        member.kind !== 'path' && <ShapeEditor key={member.id} partId={part.id} member={member} />}
      <PlaceEditor />
      <ArrangeChosen key={`arrange-${part.id}-${memberId}`} />
      {member && (index > 0 || member.role !== 'join') && (
        <Choice
          label="In the part"
          value={member.role}
          options={[
            { value: 'join', word: 'join', title: 'Added to what is before it' },
            { value: 'punch', word: 'cut out', title: 'Cut out of what is before it' },
            { value: 'clip', word: 'keep within', title: 'Keeps only what lies within it' },
          ]}
          onChange={(role) =>
            change((draft) => {
              const m = memberOf(draft, part.id, member.id);
              if (m) m.role = role;
            })
          }
        />
      )}
      <Members part={part} memberId={memberId} />
      <PartEditor key={part.id} part={part} />
      <Add key="add" partId={part.id} />
      <Button variant="word" className="mt-3" onClick={() => select(null)}>
        Back to the sheet
      </Button>
    </>
  );
}
