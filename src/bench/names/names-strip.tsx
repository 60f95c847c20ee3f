/** The names along the bottom of the bench: as a table or as pictures, as high as they are drawn. */
import { ChevronDown, ChevronUp } from 'lucide-react';
import { type KeyboardEvent, type PointerEvent, useEffect, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Dropdown from 'react-bootstrap/Dropdown';
import ToggleButton from 'react-bootstrap/ToggleButton';
import ToggleButtonGroup from 'react-bootstrap/ToggleButtonGroup';
import { addColumn, type NewColumn, setRoster } from '@/core/commands/roster';
import type { Roster } from '@/core/document/schema';
import { jobInRow, placeOfRow, rowTitle } from '@/core/roster/in-row';
import type { ChangeFor } from '@/core/roster/kept';
import { FileButton } from '@/ui/file-button';
import { remember, remembered } from '@/ui/remembered';
import { today } from '@/ui/when';
import { dispatchDocument, say, setChangeFor, useBench } from '../store';
import { useListDialog } from './list-dialog';
import { useMending } from './mending';
import styles from './names.module.css';
import { NamesGrid } from './names-grid';
import { NamesSheets } from './names-sheets';
import { NamesTable } from './names-table';
import { followRows, resumeRows, stopRows, useRows } from './rows';
import { onePieceWords } from './summary';

const HEIGHT = 'names-height';
const USUAL_PX = 250;
const LEAST_PX = 120;
/** Sheets are shown larger than a table. */
const SHEETS_PX = 400;
const STEP_PX = 24;

const clamp = (px: number): number => Math.round(Math.max(LEAST_PX, Math.min(px, window.innerHeight - 260)));

/** How high the strip is drawn, and how it is drawn higher. */
function useHeight() {
  const [height, setHeight] = useState(() => clamp(Number(remembered(HEIGHT)) || USUAL_PX));
  const set = (px: number) => {
    setHeight(clamp(px));
    remember(HEIGHT, String(clamp(px)));
  };
  const drag = (down: PointerEvent<HTMLElement>) => {
    const edge = down.currentTarget;
    edge.setPointerCapture(down.pointerId);
    const from = down.clientY;
    const move = (e: globalThis.PointerEvent) => set(height + from - e.clientY);
    const up = () => edge.removeEventListener('pointermove', move);
    edge.addEventListener('pointermove', move);
    edge.addEventListener('lostpointercapture', up, { once: true });
  };
  const key = (e: KeyboardEvent) => {
    const by = { ArrowUp: STEP_PX, ArrowDown: -STEP_PX }[e.key];
    if (by === undefined) return;
    e.preventDefault();
    set(height + by);
  };
  return { height, drag, key };
}

/** What rows come to, or how far it is. */
function Says({ roster }: { roster: Roster }) {
  const { seen, progress, isStopped, fault } = useRows();
  const busy = useMending((s) => s.busy);
  const words = useMemo(() => onePieceWords(roster, seen), [roster, seen]);
  if (busy)
    return (
      <span role="status">
        Mending … {Math.floor(busy.done)} of {busy.of}
      </span>
    );
  if (fault) return <span role="alert">{fault}</span>;
  if (isStopped)
    return (
      <span role="status">
        Stopped.{' '}
        <Button variant="word" onClick={resumeRows}>
          Go on
        </Button>
      </span>
    );
  if (progress && progress.of > 1)
    return (
      <span role="status">
        Computing {Math.floor(progress.done)} of {progress.of}
        {progress.workers > 0 && ` with ${progress.workers === 1 ? 'a row worker' : `${progress.workers} row workers`}`}{' '}
        …{' '}
        <Button variant="word" onClick={stopRows}>
          Stop
        </Button>
      </span>
    );
  return <span role="status">{words}</span>;
}

/** How the names are shown. */
type As = 'table' | 'pictures' | 'sheets';

const COLUMNS: readonly { readonly word: string; readonly title: string; readonly column: NewColumn }[] = [
  { word: 'Words', title: 'Typed for each row', column: { kind: 'typed', name: 'Column' } },
  {
    word: 'Running number',
    title: 'Counted from row to row',
    column: { kind: 'number', name: 'No', start: 1, step: 1, digits: 1 },
  },
  {
    word: 'Date',
    title: 'The day files are written, or another',
    column: { kind: 'date', name: 'Date', on: null, form: 'day month year' },
  },
];

/** The strip of a job that has a roster. */
function Strip({ roster }: { roster: Roster }) {
  const document = useBench((s) => s.document);
  const rowId = useBench((s) => s.rowId);
  const changeFor = useBench((s) => s.changeFor);
  const [as, setAs] = useState<As>('table');
  const [isOpen, setOpen] = useState(true);
  const { height, drag, key } = useHeight();
  const { open, dialog } = useListDialog();
  const inHand = placeOfRow(document, rowId);
  const titles = useMemo(() => (document.roster?.rows ?? []).map((_, nth) => rowTitle(document, nth)), [document]);
  const made = roster.rows.filter((row) => !row.out).length;
  const add = (column: NewColumn) => {
    const done = addColumn(document, column);
    dispatchDocument(() => done.job);
    say(done.sentence);
  };
  /** The job of the row in hand, in the place of the list. */
  const end = () =>
    dispatchDocument((job) => (inHand < 0 ? setRoster(job, null) : jobInRow(job, inHand, { today: today() })));
  return (
    <section
      className={styles.strip}
      style={isOpen ? { height: as === 'sheets' ? Math.max(height, clamp(SHEETS_PX)) : height } : undefined}
      aria-label="Names"
    >
      {isOpen && (
        // biome-ignore lint/a11y/useSemanticElements: a line can't be drawn
        <div
          role="separator"
          tabIndex={0}
          aria-orientation="horizontal"
          aria-label="Height of the names"
          aria-valuenow={height}
          className={styles.edge}
          onPointerDown={drag}
          onKeyDown={key}
        />
      )}
      <div className={styles.bar}>
        <h2>
          {made.toLocaleString('en')} {made === 1 ? 'name' : 'names'}
        </h2>
        <span className={`${styles.says} nf-muted`}>
          <Says roster={roster} />
        </span>
        {isOpen && (
          <>
            <ToggleButtonGroup
              type="radio"
              name="change-for"
              size="sm"
              value={changeFor}
              onChange={(to: ChangeFor) => setChangeFor(to)}
              aria-label="What is changed on the sheet is changed"
            >
              <ToggleButton
                id="change-for-all"
                value="all"
                variant="plain"
                title="Changes on the sheet are for all rows"
              >
                Changes: all rows
              </ToggleButton>
              <ToggleButton
                id="change-for-row"
                value="row"
                variant="plain"
                title="Changes on the sheet are for the row in hand alone"
              >
                <span className="d-inline-block text-truncate align-bottom" style={{ maxWidth: 110 }}>
                  {titles[inHand] ?? 'this row'}
                </span>{' '}
                alone
              </ToggleButton>
            </ToggleButtonGroup>
            <Dropdown>
              <Dropdown.Toggle variant="plain" size="sm">
                Column
              </Dropdown.Toggle>
              <Dropdown.Menu>
                <Dropdown.Header>Put a column in</Dropdown.Header>
                {COLUMNS.map(({ word, title, column }) => (
                  <Dropdown.Item as="button" key={word} title={title} onClick={() => add(column)}>
                    {word}
                  </Dropdown.Item>
                ))}
              </Dropdown.Menu>
            </Dropdown>
            <FileButton
              accept={['.csv', '.tsv', '.txt']}
              label="A file with a list of names"
              title="A list of names from a file: comma-separated values, or a name in each line"
              onFiles={([file]) => file && void open(file)}
            >
              From a file
            </FileButton>
            <ToggleButtonGroup
              type="radio"
              name="names-as"
              size="sm"
              value={as}
              onChange={(to: As) => setAs(to)}
              aria-label="Shown as"
            >
              <ToggleButton id="names-table" value="table" variant="plain">
                Table
              </ToggleButton>
              <ToggleButton id="names-pictures" value="pictures" variant="plain">
                Pictures
              </ToggleButton>
              <ToggleButton id="names-sheets" value="sheets" variant="plain">
                On sheets
              </ToggleButton>
            </ToggleButtonGroup>
            <Button variant="word" title="The job of the row in hand stays, without the list" onClick={end}>
              Without a list
            </Button>
          </>
        )}
        <button
          type="button"
          className={styles.small}
          aria-expanded={isOpen}
          aria-label={isOpen ? 'Put the names away' : 'Show the names'}
          onClick={() => setOpen(!isOpen)}
        >
          {isOpen ? <ChevronDown size={15} /> : <ChevronUp size={15} />}
        </button>
      </div>
      {isOpen && as === 'table' && <NamesTable roster={roster} inHand={inHand} />}
      {isOpen && as === 'pictures' && <NamesGrid roster={roster} inHand={inHand} titles={titles} />}
      {isOpen && as === 'sheets' && <NamesSheets />}
      {dialog}
    </section>
  );
}

/** The names of a job that has a list of them; nothing where it has none. */
export function NamesStrip() {
  const roster = useBench((s) => s.document.roster);
  useEffect(() => followRows(), []);
  return roster && <Strip roster={roster} />;
}
