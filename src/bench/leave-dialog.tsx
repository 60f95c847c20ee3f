/** Asks before a job is left that is neither on the server nor kept in the browser. */
import Button from 'react-bootstrap/Button';
import Modal from 'react-bootstrap/Modal';

/** Asks whether to leave a job that is saved nowhere. */
export function LeaveDialog({ onStay, onLeave }: { onStay: () => void; onLeave: () => void }) {
  return (
    <Modal show centered onHide={onStay} aria-labelledby="leave-title">
      <Modal.Header>
        <Modal.Title id="leave-title" as="h2" className="fs-5">
          This job is not saved yet
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p className="m-0">
          The server does not have your last changes, and this browser can’t keep them. They go on being sent while this
          window is open; closed, they are lost.
        </p>
      </Modal.Body>
      <Modal.Footer>
        <Button variant="plain" onClick={onLeave}>
          All jobs
        </Button>
        <Button variant="primary" onClick={onStay}>
          Stay here
        </Button>
      </Modal.Footer>
    </Modal>
  );
}
