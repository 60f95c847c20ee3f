/** The names on sheets of the stock: how they are laid, the search for it, and where each lies, to be moved by hand. */
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { lockPlace, notLaid, setLayout } from '@/core/commands/layout';
import type { Job } from '@/core/document/schema';
import type { SheetFinding } from '@/core/job/laid-sheets';
import type { LaidRows } from '@/core/job/lay-out';
import { rowTitle } from '@/core/roster/in-row';
import { formatLengthNumber } from '@/core/units/quantity';
import { today } from '@/ui/when';
import { computingRows } from '@/worker/client';
import { SeverityMark } from '../finding-row';
import { dispatchDocument, rowInHand, useBench } from '../store';
import { BlanksSettings } from './blanks-settings';
import { fillSheet, layOut, stopLaying, useLaying } from './laying';
import { LayoutSettings } from './layout-settings';
import { LeftOfSheet } from './left-over';
import styles from './names.module.css';
import { useRows } from './rows';
import { SheetOf } from './sheet-of-names';

const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** Those that find no place, in words. */
function tooLargeWords(count: number, { sheet, layout }: Job): string {
  if (sheet.offCut && layout?.way === 'nested')
    return `${count === 1 ? 'One finds' : `${count} find`} no room on the off-cut.`;
  const than = layout?.way === 'blanks' ? 'its blank' : 'the sheet within its margin';
  return `${count === 1 ? 'One is' : `${count} are`} larger than ${than}.`;
}

/** What came of laying them, in words. */
function Said({ document }: { document: Job }) {
  const { now, share, last } = useLaying();
  const laid = now ?? (last?.of.layout?.places === document.layout?.places ? last?.laid : null);
  const missing = share === null ? notLaid(document) : 0;
  const sheets = new Set((document.layout?.places ?? []).map((p) => p.sheet)).size;
  const isOnBlanks = document.layout?.way === 'blanks';
  const onBlanks = (at: LaidRows) =>
    `${at.sheets === 1 ? 'One sheet' : `${at.sheets} sheets`}, ${percent(at.needed)} of the blanks used.`;
  const words = laid
    ? isOnBlanks
      ? onBlanks(laid)
      : `${laid.sheets === 1 ? 'One sheet' : `${laid.sheets} sheets`}, ${percent(laid.needed)} of ${laid.sheets === 1 ? 'it' : 'them'} needed; ${percent(laid.pieces)} of that becomes pieces.`
    : sheets > 0
      ? `${sheets === 1 ? 'One sheet' : `${sheets} sheets`}.`
      : '';
  const large = laid?.tooLarge.length ?? 0;
  const taking = laid?.takesSheet.length ?? 0;
  return (
    <span role="status" className="nf-small">
      {share !== null && `Searching … ${Math.floor(100 * share)} % `}
      {words}
      {large > 0 && ` ${tooLargeWords(large, document)}`}
      {taking > 0 &&
        ` ${taking === 1 ? 'One is' : `${taking} are`} cut out of the sheet itself; a plate of its own makes it one of several.`}
      {large + taking === 0 &&
        missing > 0 &&
        sheets > 0 &&
        ` ${missing === 1 ? 'One is' : `${missing} are`} not laid yet.`}
      {laid?.left && share === null && <LeftOfSheet left={laid.left} document={document} />}
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
  const titles = new Map(document.roster?.rows.map((row, nth) => [row.id, rowTitle(document, nth)]));
  const blanks = layout.way === 'blanks' ? layout.blanks : null;
  // Blanks are seen before anything lies on them.
  const count = places.reduce((most, place) => Math.max(most, place.sheet + 1), blanks ? 1 : 0);
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
        <LayoutSettings layout={layout} />
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
      <div className={styles.onSheets}>
        {blanks && <BlanksSettings blanks={blanks} unit={document.units} />}
        <div className={`${styles.scroller} ${styles.sheets}`}>
          {Array.from({ length: count }, (_, nth) => (
            <SheetOf
              // biome-ignore lint/suspicious/noArrayIndexKey: sheets are told by their number
              key={nth}
              nth={nth}
              places={places.filter((place) => place.sheet === nth)}
              sheet={document.sheet}
              seen={seen}
              inHand={rowId}
              blanks={blanks}
              titles={titles}
            />
          ))}
        </div>
      </div>
    </>
  );
}

/** The stock in words. */
function sheetWords({ sheet: { width, height, material }, units }: Job): string {
  const n = (mm: number) => formatLengthNumber(mm, units);
  return `${n(width)} × ${n(height)} ${units}${material ? ` ${material}` : ''}`;
}
