/** The proof: the files as the machine runs them, held against what the job means; what differs, with its place; and the run on the sheet. */
import { Play } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import ProgressBar from 'react-bootstrap/ProgressBar';
import type { ExportScope } from '@/core/job/export';
import { formatSeconds } from '@/core/units/duration';
import type { ProofView } from '@/worker/proof-view';
import styles from '../../proof/proof.module.css';
import { openFaults, playOrHold, proofOf, proveNow, useProof } from '../../proof/proving';
import { useBench } from '../../store';
import { FoundList } from './found-list';

/** How much of what tells files apart is shown. */
const SHOWN_HASH = 16;

/** The proof of what is on the bench. */
export function Proof({
  scope,
  isOff,
  alone,
}: {
  scope: ExportScope;
  isOff: boolean;
  /** The name in hand, where there are others; null for a job by itself. */
  alone: string | null;
}) {
  const job = useBench((s) => s.job);
  const { proved, progress, fault } = useProof();
  const view = proofOf(proved, job);
  const isChanged = proved !== null && view === null;
  return (
    <>
      {progress && (
        <div className="mb-2" role="status">
          <span className="nf-small">Reading and running the files …</span>
          <ProgressBar now={(100 * progress.done) / progress.of} aria-label="Proving" style={{ height: 6 }} />
        </div>
      )}
      {view && !progress && <Found view={view} />}
      {isChanged && !progress && (
        <p className="nf-muted nf-small mb-1" role="status">
          The job has changed since it was proved.
        </p>
      )}
      {fault && <p className="nf-small text-danger mb-1">{fault}</p>}
      <Button
        variant={view || alone !== null ? 'plain' : 'primary'}
        className="w-100 mb-1"
        disabled={isOff || progress !== null}
        onClick={() => void proveNow(scope)}
      >
        {view || isChanged ? 'Prove again' : 'Prove'}
        {alone !== null && ` ${alone} alone`}
      </Button>
      {!view && !isChanged && !progress && (
        <p className="nf-muted nf-small mb-0">
          The very bytes that go out are run on the bench machine first, and compared with what the job means.
        </p>
      )}
    </>
  );
}

function Found({ view }: { view: ProofView }) {
  const { files, refused, findings, run } = view;
  const faults = openFaults(useBench((s) => s.view));
  const isMirrored = useBench((s) => s.job.export.mirrored);
  const isAsMeant = files.length > 0 && findings.length === 0;
  const by = view.machine ?? 'any machine';
  return (
    <div className={styles.proved} data-differs={!isAsMeant || faults > 0}>
      <p className="mb-1" role="status">
        {refused.length > 0 ? (
          refused.join(' ')
        ) : isAsMeant ? (
          <>
            {faults === 0 && <strong>Proved. </strong>}
            Run as {by} does, the {files.length === 1 ? 'file does' : 'files do'} what is drawn
            {faults === 0
              ? '.'
              : `; but ${faults === 1 ? 'one fault of the job is' : `${faults} faults of the job are`} still open.`}
          </>
        ) : (
          <>
            <strong>{findings.length === 1 ? 'One thing differs' : `${findings.length} things differ`}</strong> from
            what the job means, run as {by} does.
          </>
        )}
      </p>
      {isMirrored && files.length > 0 && <p className="nf-small mb-1">Mirrored, to be worked from behind.</p>}
      <FoundList found={findings} />
      {files.map(({ name, sha256 }) => (
        <p key={name} className="nf-muted nf-small mb-1" title={`SHA-256 ${sha256}`}>
          {name}
          <br />
          <span className={styles.hash}>{sha256.slice(0, SHOWN_HASH)} …</span>
        </p>
      ))}
      {run && run.operations.length > 0 && (
        <Button
          variant="plain"
          className="w-100 d-flex justify-content-center align-items-center gap-2"
          onClick={playOrHold}
        >
          <Play size={14} aria-hidden="true" />
          Play the run
          {run.operations.every((o) => o.isTimed) && (
            <span className="nf-muted fw-normal">{formatSeconds(run.seconds)}</span>
          )}
        </Button>
      )}
    </div>
  );
}
