/** How far long work is, over the sheet it is for, and the button that stops it. */
import Button from 'react-bootstrap/Button';
import ProgressBar from 'react-bootstrap/ProgressBar';
import { undo, useBench } from '../store';
import styles from './sheet.module.css';

/** Shown while something long is computed; stopping takes the change back that asked for it. */
export function Progress() {
  const progress = useBench((s) => s.progress);
  const canUndo = useBench((s) => s.past.length > 0);
  if (!progress) return null;
  const share = Math.round((100 * progress.done) / progress.of);
  return (
    <div className={styles.progress}>
      <ProgressBar now={share} aria-label="How far computing is" />
      <span className="nf-figure">{share} %</span>
      {canUndo && (
        <Button variant="plain" size="sm" onClick={undo} title="Stop, and take the last change back">
          Stop
        </Button>
      )}
    </div>
  );
}
