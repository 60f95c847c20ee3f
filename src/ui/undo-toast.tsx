/** What was done a moment ago, at the foot of a screen, with the way back for some seconds. */
import Button from 'react-bootstrap/Button';
import Toast from 'react-bootstrap/Toast';

/** How long something can be undone from the message, in ms. */
export const UNDO_MS = 12_000;

/** The message; none where `words` are null. Without a way back it only says so. */
export const UndoToast = ({
  words,
  onUndo,
  onClose,
}: {
  words: string | null;
  onUndo?: (() => void) | undefined;
  onClose: () => void;
}) => (
  <Toast show={words !== null} onClose={onClose} delay={UNDO_MS} autohide>
    <Toast.Body className="d-flex align-items-center gap-3">
      <span className="me-auto" role="status">
        {words}
      </span>
      {onUndo && (
        <Button variant="plain" onClick={onUndo}>
          Undo
        </Button>
      )}
    </Toast.Body>
  </Toast>
);
