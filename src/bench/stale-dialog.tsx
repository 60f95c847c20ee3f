/** When somebody else saved this job meanwhile: both versions are there, and the user says which goes on. */
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Modal from 'react-bootstrap/Modal';
import { CallFault, call } from '@/api/call';
import { API } from '@/api/endpoints';
import { checkJob } from '@/core/document/read';
import { saveAsCopy } from './saving';
import { dispatchDocument, say, useBench } from './store';

/** What the version is called that was saved by the other window. */
const THEIRS = 'As the other window had it';
const SERVER_AWAY = 'The server is away. Your version is still here; try again in a moment.';

/**
 * Asks which version goes on, when somebody else saved this job meanwhile. `forget`: what is on the bench is not to be saved as this
 * job any more.
 */
export function StaleDialog({ forget }: { forget: () => Promise<unknown> }) {
  const save = useBench((s) => s.save);
  const router = useRouter();
  const [sentence, setSentence] = useState<string | null>(null);
  if (save.kind !== 'stale' && save.kind !== 'gone') return null;

  const keepAsCopy = async () => {
    const { document } = useBench.getState();
    const copy = await saveAsCopy(document);
    if (!copy) return setSentence(SERVER_AWAY);
    await forget();
    router.push(`/jobs/${copy}`);
  };
  const useTheirs = () => {
    if (save.kind !== 'stale') return;
    const read = checkJob(save.stored.document);
    if (!read.ok) return setSentence(read.sentences.join(' '));
    useBench.setState({ version: save.stored.version, save: { kind: 'waiting' } });
    dispatchDocument(() => read.job);
    say('The other version is on the bench. Undo brings yours back.');
  };
  const dropMine = async () => {
    await forget();
    router.push('/');
  };
  const keepMine = async () => {
    if (save.kind !== 'stale') return;
    const { id } = useBench.getState();
    const { version } = save.stored;
    // Theirs becomes an earlier version; with a name it is kept for good, not only until the next save of this minute.
    const kept = await call(API.nameVersion, { id, version: String(version) }, { name: THEIRS }).then(
      () => true,
      // One that is gone was replaced by a newer one, which is asked about next.
      (reason) => reason instanceof CallFault && reason.status === 404,
    );
    if (!kept) return setSentence(SERVER_AWAY);
    useBench.setState({ version, save: { kind: 'waiting' } });
  };

  return (
    <Modal show backdrop="static" keyboard={false} centered aria-labelledby="stale-title">
      <Modal.Header>
        <Modal.Title id="stale-title" as="h2" className="fs-5">
          {save.kind === 'stale' ? 'This job was changed in another window' : 'This job was deleted in another window'}
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p className="m-0">
          {save.kind === 'stale'
            ? 'Your version is still here, and so is the other one. Nothing is lost whichever you choose.'
            : 'Your version is still here. You can keep it as a job of its own.'}
        </p>
        {sentence && (
          <p role="alert" className="text-danger mt-2 mb-0">
            {sentence}
          </p>
        )}
      </Modal.Body>
      <Modal.Footer>
        {save.kind === 'gone' && (
          <Button variant="plain" onClick={() => void dropMine()}>
            Drop mine
          </Button>
        )}
        {save.kind === 'stale' && (
          <>
            <Button variant="plain" onClick={useTheirs}>
              Take the other version
            </Button>
            <Button variant="plain" onClick={() => void keepMine()}>
              Go on with mine
            </Button>
          </>
        )}
        <Button variant="primary" onClick={() => void keepAsCopy()}>
          Keep mine as a copy
        </Button>
      </Modal.Footer>
    </Modal>
  );
}
