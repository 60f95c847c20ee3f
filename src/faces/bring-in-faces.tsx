/** Bringing typefaces in: the button, how far it is, and what came of each file. */
import { useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import Button from 'react-bootstrap/Button';
import CloseButton from 'react-bootstrap/CloseButton';
import ProgressBar from 'react-bootstrap/ProgressBar';
import { TYPEFACE_ENDINGS } from '@/core/lettering/containers';
import { FileButton } from '@/ui/file-button';
import { type Brought, bringInTypefaces, dismissBrought, stopBringingFaces, useBroughtFaces } from './bring-in';
import { FACES } from './faces';
import styles from './faces.module.css';

/** Brings files in; the list is renewed after each. */
export function useBringInFaces(): (files: readonly File[]) => Promise<readonly Brought[]> {
  const client = useQueryClient();
  return useCallback(
    (files) => bringInTypefaces(files, () => void client.invalidateQueries({ queryKey: FACES })),
    [client],
  );
}

/** Opens the system's dialog for typeface files. */
export function BringInFaces() {
  const bringIn = useBringInFaces();
  return (
    <FileButton
      accept={TYPEFACE_ENDINGS}
      label="Typefaces to bring in"
      title="TTF, OTF, collections, WOFF, WOFF2 or SVG fonts, as many as you like. You can also drop them here"
      onFiles={bringIn}
    >
      Bring in typefaces
    </FileButton>
  );
}

const counted = (count: number, one: string, several: string): string =>
  count === 1 ? `1 ${one}` : `${count.toLocaleString('en')} ${several}`;

/** What came of all files in one sentence. */
export function cameInWords(came: readonly Brought[]): string {
  const count = (outcome: Brought['outcome']) => came.filter((b) => b.outcome === outcome).length;
  const [added, known, refused] = [count('added'), count('known'), count('refused')];
  return [
    added > 0 && `${counted(added, 'typeface file', 'typeface files')} brought in.`,
    known > 0 && `${counted(known, 'was', 'were')} here already.`,
    refused > 0 && `${counted(refused, 'could', 'could')} not be brought in.`,
    came.length === 0 && 'Nothing was brought in.',
  ]
    .filter(Boolean)
    .join(' ');
}

/** How far bringing in is, and what came of it. */
export function BroughtFaces() {
  const { under, came } = useBroughtFaces();
  if (under)
    return (
      <div className={styles.came} role="status">
        <div className="d-flex align-items-center gap-3 mb-2">
          <span className="text-truncate me-auto">
            Reading {under.file} · {under.done + 1} of {under.of}
          </span>
          <Button variant="plain" onClick={stopBringingFaces}>
            Stop
          </Button>
        </div>
        <ProgressBar now={under.done} max={under.of} label="" aria-label="Bringing in typefaces" />
      </div>
    );
  if (!came) return null;
  const told = came.flatMap((b) =>
    b.outcome === 'refused' ? [`${b.file}: ${b.sentence}`] : b.notes.map((note) => `${b.file}: ${note}`),
  );
  return (
    <div className={styles.came} role="status">
      <div className="d-flex align-items-center gap-3">
        <span className="me-auto">{cameInWords(came)}</span>
        <CloseButton aria-label="Read" onClick={dismissBrought} />
      </div>
      {told.length > 0 && (
        <ul>
          {told.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      )}
    </div>
  );
}
