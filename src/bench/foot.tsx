/** The strip at the foot: pointer, selection, figures of the outlines, zoom. */
import { Minus, Plus } from 'lucide-react';
import { pictureBox } from '@/core/commands/pictures';
import { boxHeight, boxWidth, isEmptyBox } from '@/core/geometry/point';
import { formatSeconds, formatSecondsMore } from '@/core/units/duration';
import { formatLengthNumber } from '@/core/units/quantity';
import styles from './bench.module.css';
import { useBeside } from './beside';
import { chosenBox, chosenIn } from './chosen';
import { fitSheet, useCamera, zoomBy } from './sheet/camera';
import { usePointer } from './sheet/pointer';
import { useBench } from './store';

/** CSS pixels per millimetre on a screen that shows an inch as 96 px. */
const TRUE_SIZE = 96 / 25.4;

/** How long the job takes, and for some seconds after a change how much longer. */
function RunTime() {
  const run = useBench((s) => s.run);
  const differs = useBench((s) => s.runDiffers);
  if (!run?.operations.some((o) => o.times)) return null;
  const title =
    run.unknown.length > 0
      ? `Without ${run.unknown.join(', ')}, of which no speed is known`
      : 'How long the machine takes';
  return (
    <span title={title}>
      Takes <span className="nf-figure">{formatSeconds(run.seconds)}</span>
      {run.unknown.length > 0 && ' and more'}
      {differs !== null && (
        <span className="nf-figure nf-muted" role="status">
          {' '}
          ({formatSecondsMore(differs)})
        </span>
      )}
    </span>
  );
}

/** The strip at the foot of the bench. */
export function Foot() {
  const { x, y } = usePointer();
  const zoom = useCamera((camera) => camera.k);
  const units = useBench((s) => s.job.units);
  const view = useBeside((view) => view);
  // What stands beside the sheet is drawn anew all at once, some time after it was told.
  const isBehind = useBench((s) => s.view) !== view;
  const progress = useBench((s) => s.progress);
  const selection = useBench((s) => s.selection);
  const picture = useBench((s) => s.job.pictures.find((p) => p.id === s.atPicture));
  const n = (mm: number) => formatLengthNumber(mm, units, units === 'mm' ? 1 : 3);
  const box = picture ? pictureBox(picture) : chosenBox(chosenIn(selection, view), view);
  const total = (pick: 'outlines' | 'open' | 'segments') => (view?.parts ?? []).reduce((sum, p) => sum + p[pick], 0);
  return (
    <footer className={styles.foot} aria-busy={isBehind}>
      <span className="nf-figure">
        x {n(x)} &nbsp; y {n(y)} {units}
      </span>
      <span>
        {!isEmptyBox(box) ? (
          <>
            Selected{' '}
            <span className="nf-figure">
              {n(boxWidth(box))} × {n(boxHeight(box))} {units}
            </span>
          </>
        ) : (
          'Nothing selected'
        )}
      </span>
      <span role="status">
        {progress
          ? `Computing … ${Math.round((100 * progress.done) / progress.of)} % `
          : view === null
            ? 'Computing …'
            : `Outlines ${total('outlines')} closed, ${total('open')} open · ${total('segments')} segments`}
      </span>
      <RunTime />
      <span className={styles.zoom}>
        <button
          type="button"
          className={styles.iconButton}
          aria-label="Zoom out"
          title="Zoom out (−)"
          onClick={() => zoomBy(0.8)}
        >
          <Minus size={14} />
        </button>
        <span className="nf-figure" title="Compared with true size on this screen">
          {Math.round((zoom / TRUE_SIZE) * 100)} %
        </span>
        <button
          type="button"
          className={styles.iconButton}
          aria-label="Zoom in"
          title="Zoom in (+)"
          onClick={() => zoomBy(1.25)}
        >
          <Plus size={14} />
        </button>
        <button type="button" className={styles.iconButton} title="Fit the sheet in sight (F)" onClick={fitSheet}>
          Fit
        </button>
      </span>
    </footer>
  );
}
