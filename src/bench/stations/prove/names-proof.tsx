/** The proof of all names of a list: the files of each name, or of each sheet with names, run and held against what is meant. */
import Button from 'react-bootstrap/Button';
import ProgressBar from 'react-bootstrap/ProgressBar';
import type { ExportScope } from '@/core/job/export';
import { formatSeconds } from '@/core/units/duration';
import type { NameProof } from '@/worker/proving-names';
import { proveNames, stopProvingNames, useNamesProof } from '../../names/proving';
import styles from '../../proof/proof.module.css';
import { takeRow, useBench } from '../../store';

/** As many are listed that differ. */
const FEW = 8;

const isAsMeant = ({ files, findings }: NameProof): boolean => files.length > 0 && findings.length === 0;

/** What came of all of them, in words. */
function wordsOf(proofs: readonly NameProof[], what: string): string {
  const good = proofs.filter(isAsMeant).length;
  const files = proofs.reduce((sum, proof) => sum + proof.files.length, 0);
  const fileWords = files === 1 ? 'one file does' : `${files.toLocaleString('en')} files do`;
  if (good === proofs.length) return `All of the ${what}: ${fileWords} what is drawn.`;
  return `${good} of ${proofs.length} as meant; these are not:`;
}

/** All of them proved by one press. */
export function NamesProof({ scope, what, isOff }: { scope: ExportScope; what: string; isOff: boolean }) {
  const document = useBench((s) => s.document);
  const { proved, progress, fault } = useNamesProof();
  const proofs = proved?.of === document ? proved.proofs : null;
  const isChanged = proved !== null && proofs === null;
  const times = (proofs ?? []).map(({ seconds }) => seconds);
  const seconds = times.every((s) => s !== null) ? times.reduce((sum: number, s) => sum + (s ?? 0), 0) : null;
  const wrong = (proofs ?? []).filter((proof) => !isAsMeant(proof));
  return (
    <div className="mb-2">
      {progress && (
        <div className="mb-2" role="status">
          <span className="nf-small">
            Proving {progress.done} of {progress.of} …{' '}
            <Button variant="word" onClick={stopProvingNames}>
              Stop
            </Button>
          </span>
          <ProgressBar now={(100 * progress.done) / progress.of} aria-label="Proving names" style={{ height: 6 }} />
        </div>
      )}
      {proofs && !progress && (
        <div className={styles.proved} data-differs={wrong.length > 0}>
          <p className="mb-1" role="status">
            {wrong.length === 0 && <strong>Proved. </strong>}
            {wordsOf(proofs, what)}
            {seconds !== null && wrong.length === 0 && ` They run ${formatSeconds(seconds)} in all.`}
          </p>
          {wrong.slice(0, FEW).map(({ title, rowId, findings, refused }) => {
            const words = `${title}: ${refused[0] ?? findings[0]?.sentence ?? 'Nothing is given to an operation that is on.'}`;
            return rowId === null ? (
              <div key={title} className={styles.found}>
                {words}
              </div>
            ) : (
              <button
                key={rowId}
                type="button"
                className={styles.found}
                title="Put it on the sheet"
                onClick={() => takeRow(rowId)}
              >
                {words}
              </button>
            );
          })}
          {wrong.length > FEW && <p className="nf-muted nf-small mb-0">And {wrong.length - FEW} more.</p>}
        </div>
      )}
      {isChanged && !progress && (
        <p className="nf-muted nf-small mb-1" role="status">
          The list has changed since it was proved.
        </p>
      )}
      {fault && <p className="nf-small text-danger mb-1">{fault}</p>}
      <Button
        variant={proofs ? 'plain' : 'primary'}
        className="w-100"
        disabled={isOff || progress !== null}
        onClick={() => void proveNames({ ...scope, partIds: null })}
      >
        Prove the {what}
        {(proofs || isChanged) && ' again'}
      </Button>
    </div>
  );
}
