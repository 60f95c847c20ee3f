/** The sheets of a job that has several: one is in hand, or all are looked at side by side. */
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { takeSheet } from '@/core/commands/sheets';
import { type ListedSheet, sheetsOf, sheetTitle } from '@/core/document/on-sheet';
import { JobPicture } from '@/ui/job-picture';
import { useShop } from '@/ui/use-shop';
import { computing } from '@/worker/client';
import type { SheetSeen } from '@/worker/host';
import { dispatch, useBench } from '../store';
import { fitSheet } from './camera';
import styles from './sheet.module.css';

/** Takes a sheet in hand, fitted in sight. */
const useTake = () => {
  const shop = useShop();
  return (id: string) => {
    dispatch((job) => takeSheet(job, id, shop));
    fitSheet();
  };
};

/** A button for each sheet, and one for all; nothing where there is one sheet. */
export function SheetTabs() {
  const job = useBench((s) => s.job);
  const take = useTake();
  const [isAll, setAll] = useState(false);
  const sheets = sheetsOf(job);
  if (sheets.length === 1) return null;
  return (
    <>
      <nav className={styles.sheetTabs} aria-label="Sheets">
        {sheets.map((sheet, i) => (
          <Button
            key={sheet.id}
            variant="plain"
            aria-pressed={!isAll && sheet.isInHand}
            active={!isAll && sheet.isInHand}
            onClick={() => {
              setAll(false);
              if (!sheet.isInHand) take(sheet.id);
            }}
          >
            <span className="nf-muted me-1">{i + 1}</span>
            {sheetTitle(sheet, i + 1, job.units)}
          </Button>
        ))}
        <Button variant="plain" aria-pressed={isAll} active={isAll} onClick={() => setAll(!isAll)}>
          All
        </Button>
      </nav>
      {isAll && (
        <SideBySide
          sheets={sheets}
          onTake={(id) => {
            setAll(false);
            take(id);
          }}
        />
      )}
    </>
  );
}

/** All sheets side by side; a press takes one in hand. */
function SideBySide({ sheets, onTake }: { sheets: readonly ListedSheet[]; onTake: (id: string) => void }) {
  const job = useBench((s) => s.job);
  const [data, setData] = useState<readonly SheetSeen[]>([]);
  useEffect(() => {
    let isOver = false;
    computing()
      .sheets(job)
      .then(
        // Of a document that has changed since a newer answer comes.
        (seen) => seen && !isOver && setData(seen),
        // What keeps the worker from answering is said by the evaluation of the document.
        () => {},
      );
    return () => {
      isOver = true;
    };
  }, [job]);
  return (
    <section className={styles.sideBySide} aria-label="All sheets">
      {sheets.map((sheet, i) => {
        const seen = data.find((s) => s.id === sheet.id);
        const title = sheetTitle(sheet, i + 1, job.units);
        const parts = job.parts.filter((p) => p.sheet === sheet.id).length;
        return (
          <button key={sheet.id} type="button" className={styles.oneSheet} onClick={() => onTake(sheet.id)}>
            <span className={styles.sheetPicture}>
              {seen ? <JobPicture picture={seen.picture} title={title} /> : 'Drawing …'}
            </span>
            <span>
              <b>{title}</b>
              <span className="nf-muted nf-small d-block">
                {parts === 1 ? '1 part' : `${parts} parts`}
                {seen && seen.openFindings > 0 && ` · ${seen.openFindings} to look at`}
              </span>
            </span>
          </button>
        );
      })}
    </section>
  );
}
