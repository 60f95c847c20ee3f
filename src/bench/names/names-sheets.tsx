/** The names on sheets of the stock: how they are laid, the search for it, and where each lies, to be moved by hand. */
import { type PointerEvent, useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { editLayout, lockPlace, movePlace, notLaid, setLayout } from '@/core/commands/layout';
import type { Job } from '@/core/document/schema';
import type { SheetFinding } from '@/core/job/laid-sheets';
import type { Picture } from '@/core/job/picture';
import { LIMITS } from '@/core/limits';
import type { LayPlace, RowLayout } from '@/core/schema/layout';
import { formatLengthNumber } from '@/core/units/quantity';
import { QuantityField } from '@/ui/fields';
import { PictureShapes } from '@/ui/job-picture';
import { today } from '@/ui/when';
import { computingRows } from '@/worker/client';
import { SeverityMark } from '../finding-row';
import { dispatchDocument, rowInHand, takeRow, useBench } from '../store';
import { fillSheet, layOut, stopLaying, useLaying } from './laying';
import styles from './names.module.css';
import { useRows } from './rows';

const TURNS: readonly { readonly turns: number; readonly words: string }[] = [
  { turns: 1, words: 'as they are' },
  { turns: 2, words: 'also turned over' },
  { turns: 4, words: 'also across' },
  { turns: 8, words: 'in 8 directions' },
  { turns: 24, words: 'in 24 directions' },
];

/** How names are laid. */
function Settings({ layout }: { layout: RowLayout }) {
  const unit = useBench((s) => s.job.units);
  const edit = (more: Partial<RowLayout>, merge: string | null = null) =>
    dispatchDocument((job) => editLayout(job, more), merge);
  const isNested = layout.way === 'nested';
  return (
    <div className={styles.layout}>
      <Form.Select
        size="sm"
        aria-label="How they are laid"
        value={layout.way}
        onChange={(e) => edit({ way: e.target.value as RowLayout['way'] })}
      >
        <option value="nested">As close as their shapes go</option>
        <option value="rows">In rows and columns</option>
      </Form.Select>
      <div className={styles.field}>
        <QuantityField
          bare
          prefix="apart"
          label="Between them"
          unit={unit}
          value={layout.spacing}
          least={0}
          most={LIMITS.spacingMm}
          onChange={(spacing) => edit({ spacing }, 'layout-spacing')}
        />
      </div>
      <div className={styles.field}>
        <QuantityField
          bare
          prefix="edge"
          label="To the edge"
          unit={unit}
          value={layout.margin}
          least={0}
          most={LIMITS.spacingMm}
          onChange={(margin) => edit({ margin }, 'layout-margin')}
        />
      </div>
      {isNested && (
        <>
          <Form.Select
            size="sm"
            aria-label="Directions they may lie in"
            value={layout.turns}
            onChange={(e) => edit({ turns: Number(e.target.value) })}
          >
            {TURNS.map(({ turns, words }) => (
              <option key={turns} value={turns}>
                Lie {words}
              </option>
            ))}
            {!TURNS.some(({ turns }) => turns === layout.turns) && (
              <option value={layout.turns}>Lie in {layout.turns} directions</option>
            )}
          </Form.Select>
          <Form.Check
            id="layout-grain"
            label="Grain keeps its direction"
            checked={layout.grain}
            onChange={(e) => edit({ grain: e.target.checked })}
          />
          <Form.Check
            id="layout-holes"
            label="Also in holes of others"
            checked={layout.holes}
            onChange={(e) => edit({ holes: e.target.checked })}
          />
        </>
      )}
    </div>
  );
}

/** From a row's picture, y downwards, to where it lies on its sheet. */
function matrixOf({ turn, x, y }: LayPlace, height: number): string {
  const [cos, sin] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
  return `matrix(${cos} ${-sin} ${sin} ${cos} ${x - sin * height} ${height - cos * height - y})`;
}

type Dragged = { readonly place: LayPlace; readonly dx: number; readonly dy: number };

/** One sheet with what lies on it. */
function SheetOf({
  nth,
  places,
  sheet,
  pictures,
  inHand,
}: {
  nth: number;
  places: readonly LayPlace[];
  sheet: Job['sheet'];
  pictures: ReadonlyMap<string, Picture>;
  inHand: string | null;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const [dragged, setDragged] = useState<Dragged | null>(null);
  const drag = (down: PointerEvent<SVGGElement>, place: LayPlace) => {
    takeRow(place.row);
    if (place.locked) return;
    const scale = svg.current?.getScreenCTM()?.a;
    if (!scale) return;
    const held = down.currentTarget;
    held.setPointerCapture(down.pointerId);
    let by = { dx: 0, dy: 0 };
    const move = (e: globalThis.PointerEvent) => {
      by = { dx: (e.clientX - down.clientX) / scale, dy: (down.clientY - e.clientY) / scale };
      setDragged({ place, ...by });
    };
    const up = () => {
      held.removeEventListener('pointermove', move);
      setDragged(null);
      if (by.dx !== 0 || by.dy !== 0) dispatchDocument((job) => movePlace(job, place, by.dx, by.dy));
    };
    held.addEventListener('pointermove', move);
    held.addEventListener('lostpointercapture', up, { once: true });
  };
  return (
    <figure className={styles.sheet} style={{ aspectRatio: `${sheet.width + 4} / ${sheet.height + 4}` }}>
      <svg
        ref={svg}
        role="img"
        aria-label={`Sheet ${nth + 1} with ${places.length} names`}
        viewBox={`-2 -2 ${sheet.width + 4} ${sheet.height + 4}`}
      >
        <rect
          width={sheet.width}
          height={sheet.height}
          fill="var(--nf-sheet)"
          stroke="var(--nf-line)"
          vectorEffect="non-scaling-stroke"
        />
        {places.map((place) => {
          const picture = pictures.get(place.row);
          const isDragged = dragged?.place === place;
          const at = isDragged ? { ...place, x: place.x + dragged.dx, y: place.y + dragged.dy } : place;
          return (
            picture && (
              <g
                key={`${place.row} ${place.copy}`}
                transform={matrixOf(at, sheet.height)}
                className={styles.laid}
                data-hand={place.row === inHand}
                data-locked={place.locked}
                onPointerDown={(e) => drag(e, place)}
              >
                {picture.work && (
                  <rect
                    x={picture.work.x}
                    y={picture.work.y}
                    width={picture.work.width}
                    height={picture.work.height}
                    className={styles.grip}
                  />
                )}
                <PictureShapes picture={picture} />
              </g>
            )
          );
        })}
      </svg>
      <figcaption className="nf-muted">Sheet {nth + 1}</figcaption>
    </figure>
  );
}

const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** What came of laying them, in words. */
function Said({ document }: { document: Job }) {
  const { now, share, last } = useLaying();
  const laid = now ?? (last?.of.layout?.places === document.layout?.places ? last?.laid : null);
  const missing = share === null ? notLaid(document) : 0;
  const sheets = new Set((document.layout?.places ?? []).map((p) => p.sheet)).size;
  const words = laid
    ? `${laid.sheets === 1 ? 'One sheet' : `${laid.sheets} sheets`}, ${percent(laid.needed)} of ${laid.sheets === 1 ? 'it' : 'them'} needed; ${percent(laid.pieces)} of that becomes pieces.`
    : sheets > 0
      ? `${sheets === 1 ? 'One sheet' : `${sheets} sheets`}.`
      : '';
  const large = laid?.tooLarge.length ?? 0;
  const taking = laid?.takesSheet.length ?? 0;
  return (
    <span role="status" className="nf-small">
      {share !== null && `Searching … ${Math.floor(100 * share)} % `}
      {words}
      {large > 0 && ` ${large === 1 ? 'One is' : `${large} are`} larger than the sheet within its margin.`}
      {taking > 0 &&
        ` ${taking === 1 ? 'One is' : `${taking} are`} cut out of the sheet itself; a plate of its own makes it one of several.`}
      {large + taking === 0 &&
        missing > 0 &&
        sheets > 0 &&
        ` ${missing === 1 ? 'One is' : `${missing} are`} not laid yet.`}
    </span>
  );
}

/** What lies on each other, or off its sheet. */
function Found({ document }: { document: Job }) {
  const share = useLaying((s) => s.share);
  const [found, setFound] = useState<readonly SheetFinding[]>([]);
  useEffect(() => {
    if (share !== null) return;
    let isOld = false;
    const later = setTimeout(async () => {
      const now = await computingRows()
        .sheetFindings(document, today())
        .catch(() => null);
      if (now && !isOld) setFound(now);
    }, QUIET_MS);
    return () => {
      isOld = true;
      clearTimeout(later);
    };
  }, [document, share]);
  if (found.length === 0 || share !== null) return null;
  return (
    <ul className={styles.sheetFindings} aria-label="Findings of the sheets">
      {found.slice(0, MOST_FOUND).map(({ sheet, severity, sentence }) => (
        <li key={`${sheet} ${sentence}`}>
          <SeverityMark severity={severity} isLeft={false} /> Sheet {sheet + 1}: {sentence}
        </li>
      ))}
      {found.length > MOST_FOUND && <li className="nf-muted">And {found.length - MOST_FOUND} more.</li>}
    </ul>
  );
}

/** Sheets are looked over when nothing was changed for so long, in ms; findings that are listed. */
const QUIET_MS = 500;
const MOST_FOUND = 4;

/** The row in hand locked where it lies, or let go. */
function LockButton({ document, rowId }: { document: Job; rowId: string | null }) {
  const places = document.layout?.way === 'nested' ? document.layout.places.filter((p) => p.row === rowId) : [];
  if (places.length === 0) return null;
  const isLocked = places.every((p) => p.locked);
  return (
    <Button
      variant="plain"
      title="What is locked stays where it is when the others are laid anew"
      onClick={() => dispatchDocument((job) => places.reduce((now, place) => lockPlace(now, place, !isLocked), job))}
    >
      {isLocked ? 'Let it go' : 'Lock it'}
    </Button>
  );
}

/** Of one row: made as often as goes on a sheet. */
function AsManyAsFit({ document }: { document: Job }) {
  const made = document.roster?.rows.filter((row) => !row.out) ?? [];
  const [only] = made;
  if (!only || made.length > 1) return null;
  return (
    <Button variant="plain" title="As many copies as go on one sheet" onClick={() => void fillSheet(only.id)}>
      As many as fit
    </Button>
  );
}

/** The names on their sheets. */
export function NamesSheets() {
  const document = useBench((s) => s.document);
  const rowId = useBench(rowInHand);
  const seen = useRows((s) => s.seen);
  const { now, share } = useLaying();
  const { layout } = document;
  if (!layout)
    return (
      <div className={styles.empty}>
        <p>Each name is a job by itself. They can be laid together on sheets of {sheetWords(document)}.</p>
        <Button variant="primary" onClick={() => void layOut()}>
          Lay them on sheets
        </Button>
        <AsManyAsFit document={document} />
      </div>
    );
  const places = now?.places ?? layout.places;
  const pictures = new Map([...seen].map(([id, { picture }]) => [id, picture]));
  const count = places.reduce((most, place) => Math.max(most, place.sheet + 1), 0);
  return (
    <>
      <div className={`${styles.filters} ${styles.wraps}`}>
        {share === null ? (
          <>
            <Button variant="primary" onClick={() => void layOut()}>
              {layout.places.length > 0 ? 'Lay them anew' : 'Lay them out'}
            </Button>
            <AsManyAsFit document={document} />
            <LockButton document={document} rowId={rowId} />
          </>
        ) : (
          <Button variant="plain" onClick={stopLaying}>
            Stop
          </Button>
        )}
        <Settings layout={layout} />
        <Button
          variant="word"
          title="Each name is a job by itself again"
          onClick={() => dispatchDocument((job) => setLayout(job, null))}
        >
          Each by itself
        </Button>
      </div>
      <div className={styles.said}>
        <Said document={document} />
        <Found document={document} />
      </div>
      <div className={`${styles.scroller} ${styles.sheets}`}>
        {Array.from({ length: count }, (_, nth) => (
          <SheetOf
            // biome-ignore lint/suspicious/noArrayIndexKey: sheets are told by their number
            key={nth}
            nth={nth}
            places={places.filter((place) => place.sheet === nth)}
            sheet={document.sheet}
            pictures={pictures}
            inHand={rowId}
          />
        ))}
      </div>
    </>
  );
}

/** The stock in words. */
function sheetWords({ sheet: { width, height, material }, units }: Job): string {
  const n = (mm: number) => formatLengthNumber(mm, units);
  return `${n(width)} × ${n(height)} ${units}${material ? ` ${material}` : ''}`;
}
