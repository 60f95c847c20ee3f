/** The parts in order: looked for, filtered, and like ones chosen together. */
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Dropdown from 'react-bootstrap/Dropdown';
import Form from 'react-bootstrap/Form';
import { useShallow } from 'zustand/react/shallow';
import { type Likeness, partsAlike } from '@/core/commands/alike';
import { moveEntry } from '@/core/commands/changed';
import { partsOnSheet } from '@/core/document/on-sheet';
import { boxHeight, boxWidth, isEmptyBox } from '@/core/geometry/point';
import { LIMITS } from '@/core/limits';
import { keepable } from '@/core/units/text';
import { Heading } from '@/ui/heading';
import { SortableList } from '@/ui/sortable';
import { VirtualRows } from '@/ui/virtual-rows';
import styles from '../bench.module.css';
import { useBeside } from '../beside';
import { partView } from '../seen';
import { change, selectParts, useBench } from '../store';
import { ANY, partsSought, type Sought } from './find-parts';
import { CardOf } from './part-card';

/** From so many parts on they are looked for. */
const MANY = 8;

const LIKE: readonly { readonly likeness: Likeness; readonly words: string }[] = [
  { likeness: 'work', words: 'With the same operations' },
  { likeness: 'face', words: 'In the same typeface' },
  { likeness: 'made', words: 'Made of the same things' },
  { likeness: 'size', words: 'Of the same size' },
];

const ABOUT: readonly { readonly about: Exclude<Sought['about'], object>; readonly words: string }[] = [
  { about: '', words: 'all' },
  { about: 'found', words: 'with findings' },
  { about: 'unworked', words: 'without an operation' },
  { about: 'locked', words: 'locked' },
  { about: 'hidden', words: 'hidden' },
  { about: 'reference', words: 'for reference' },
];

const sizeOf = (partId: string) => {
  const box = partView(partId)?.size;
  return box && !isEmptyBox(box) ? { width: boxWidth(box), height: boxHeight(box) } : null;
};

const chooseAlike = (partId: string, likeness: Likeness): void =>
  selectParts(partsAlike(useBench.getState().job, partId, likeness, sizeOf));

/** Chooses several parts at once: all that are shown, or those like the one that is chosen. */
function ChooseMenu({ shown }: { shown: readonly string[] }) {
  const chosen = useBench((s) => s.selection.partId);
  return (
    <Dropdown align="end">
      <Dropdown.Toggle variant="word">Choose</Dropdown.Toggle>
      <Dropdown.Menu>
        <Dropdown.Item as="button" onClick={() => selectParts(shown)}>
          All {shown.length.toLocaleString('en')} in the list
        </Dropdown.Item>
        <Dropdown.Item as="button" disabled={chosen === null} onClick={() => selectParts([])}>
          None
        </Dropdown.Item>
        <Dropdown.Divider />
        <Dropdown.Header>Like the one that is chosen</Dropdown.Header>
        {LIKE.map(({ likeness, words }) => (
          <Dropdown.Item
            as="button"
            key={likeness}
            disabled={chosen === null}
            onClick={() => chosen !== null && chooseAlike(chosen, likeness)}
          >
            {words}
          </Dropdown.Item>
        ))}
      </Dropdown.Menu>
    </Dropdown>
  );
}

function Find({ sought, onSeek }: { sought: Sought; onSeek: (sought: Sought) => void }) {
  const operations = useBench((s) => s.job.operations);
  const { about } = sought;
  return (
    <div className="d-flex gap-2 mb-2">
      <Form.Control
        type="search"
        size="sm"
        placeholder="Find"
        aria-label="Find parts"
        maxLength={LIMITS.nameCharacters}
        value={sought.words}
        onChange={(e) => onSeek({ ...sought, words: keepable(e.target.value) })}
      />
      <Form.Select
        size="sm"
        aria-label="Which parts"
        value={typeof about === 'object' ? `${GIVEN}${about.operation}` : about}
        onChange={(e) => {
          const { value } = e.target;
          onSeek({
            ...sought,
            about: value.startsWith(GIVEN)
              ? { operation: value.slice(GIVEN.length) }
              : (value as Exclude<Sought['about'], object>),
          });
        }}
      >
        {ABOUT.map(({ about: which, words }) => (
          <option key={which} value={which}>
            {words}
          </option>
        ))}
        <optgroup label="given to">
          {operations.map(({ id, name }) => (
            <option key={id} value={`${GIVEN}${id}`}>
              {name}
            </option>
          ))}
        </optgroup>
      </Form.Select>
    </div>
  );
}

const GIVEN = 'given to ';

/** Move a part to where another stands. */
const reorder = (id: string, to: string): void =>
  change((draft) => {
    const at = (partId: string) => draft.parts.findIndex((p) => p.id === partId);
    moveEntry(draft.parts, at(id), at(to));
  });

/** The parts of the job. */
export function Parts() {
  const [sought, setSought] = useState<Sought>(ANY);
  const found = useBeside((view) => view?.findings);
  const all = useBench((s) => partsOnSheet(s.job).length);
  const isMany = all >= MANY;
  const ids = useBench(
    useShallow((s) =>
      isMany && sought !== ANY
        ? partsSought(
            s.job,
            sought,
            new Set(found?.flatMap((f) => (f.leftReason === null && f.partId !== null ? [f.partId] : []))),
          ).map((part) => part.id)
        : partsOnSheet(s.job).map((part) => part.id),
    ),
  );
  return (
    <>
      <Heading
        beside={
          all > 1 ? (
            <span className={styles.partsBeside}>
              {ids.length === all ? all : `${ids.length} of ${all}`}
              <ChooseMenu shown={ids} />
            </span>
          ) : (
            all || undefined
          )
        }
      >
        Parts
      </Heading>
      {all === 0 && <p className="nf-muted nf-small">Nothing here yet. Add lettering or a shape on the left.</p>}
      {isMany && <Find sought={sought} onSeek={setSought} />}
      {all > 0 && ids.length === 0 && (
        <p className="nf-muted nf-small">
          No part fits.{' '}
          <Button variant="word" onClick={() => setSought(ANY)}>
            Show all
          </Button>
        </p>
      )}
      <SortableList name="parts" ids={ids} onMove={(from, to) => reorder(ids[from] as string, ids[to] as string)}>
        <VirtualRows label="Parts" keys={ids} estimate={74}>
          {(id) => <CardOf id={id} />}
        </VirtualRows>
      </SortableList>
    </>
  );
}
