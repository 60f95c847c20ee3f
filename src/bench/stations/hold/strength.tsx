/** Whether a part is strong enough in its material, and what makes it so. */
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { Part } from '@/core/document/schema';
import { formatLength } from '@/core/units/quantity';
import { computing } from '@/worker/client';
import type { PartView } from '@/worker/view';
import styles from '../../bench.module.css';
import { measureOf } from '../../seen';
import { change, goToStation, select, useBench } from '../../store';

/** Where a part is thinner than is safe, and what makes it strong enough. */
export function StrengthOf({ part, view }: { part: Part; view: PartView }) {
  const sheet = useBench((s) => s.job.sheet);
  const unit = useBench((s) => s.job.units);
  const [busy, setBusy] = useState(false);
  const [sentence, setSentence] = useState<string | null>(null);
  if (!sheet.leastWidth)
    return (
      <p className="nf-small nf-muted">
        How thin is too thin? Choose a material, or type its least safe width, on the sheet.{' '}
        <Button
          variant="word"
          onClick={() => {
            select(null);
            goToStation('compose');
          }}
        >
          To the sheet
        </Button>
      </p>
    );
  const mend = async (by: 'size' | 'thickening') => {
    setBusy(true);
    setSentence(null);
    const { job } = useBench.getState();
    try {
      const made = await computing().safePart(job, part.id, by, measureOf(job, view).capHeightMm);
      // What was changed meanwhile is not thrown away.
      const unchanged =
        useBench.getState().job.parts.find((p) => p.id === part.id) === job.parts.find((p) => p.id === part.id);
      // Asked anew meanwhile: that is answered instead.
      if (made === null) return;
      if (!made.ok) setSentence(made.sentence);
      else if (!unchanged) setSentence('The part was changed meanwhile; press again.');
      else
        change((draft) => {
          const i = draft.parts.findIndex((p) => p.id === part.id);
          if (i >= 0) draft.parts[i] = made.part;
        });
    } catch {
      setSentence('This could not be computed.');
    }
    setBusy(false);
  };
  const least = formatLength(sheet.leastWidth, unit);
  return (
    <>
      {view.narrowestMm === null ? (
        <p className="nf-small" style={{ color: 'var(--nf-good)' }}>
          ✓ Nothing is thinner than {least}.
        </p>
      ) : (
        <p className="nf-small text-danger">
          Narrowest <span className="nf-figure">{formatLength(view.narrowestMm, unit)}</span>; the least is {least}.
        </p>
      )}
      {!part.locked && (
        <div className={styles.buttons}>
          <Button
            variant="plain"
            disabled={busy}
            onClick={() => void mend('size')}
            title="Larger or smaller, words and shapes together"
          >
            Least safe size
          </Button>
          <Button variant="plain" disabled={busy || view.narrowestMm === null} onClick={() => void mend('thickening')}>
            Thicken just enough
          </Button>
        </div>
      )}
      {busy && (
        <p className="nf-small nf-muted" role="status">
          Trying sizes …
        </p>
      )}
      {sentence && (
        <p className="nf-small text-danger" role="alert">
          {sentence}
        </p>
      )}
    </>
  );
}
