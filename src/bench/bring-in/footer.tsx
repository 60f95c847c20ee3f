/** The foot of the dialog: what keeps it waiting, what went wrong, and the way out beside what is done with the file. */
import type { ReactNode } from 'react';
import Button from 'react-bootstrap/Button';
import Modal from 'react-bootstrap/Modal';
import { LATE, useIsLate } from '@/ui/waiting';
import { leaveBringingIn } from './bring-in';

/** `keep` is the file being kept on the server; `children` are what can be done with it. */
export function Footer({
  keep,
  children,
}: {
  keep: { readonly isPending: boolean; readonly error: Error | null };
  children: ReactNode;
}) {
  const isLate = useIsLate(keep.isPending);
  return (
    <Modal.Footer>
      {isLate && (
        <p role="alert" className="me-auto mb-0">
          {LATE}
        </p>
      )}
      {keep.error && (
        <p role="alert" className="me-auto mb-0 text-danger">
          {keep.error.message}
        </p>
      )}
      <Button variant="plain" onClick={leaveBringingIn}>
        Cancel
      </Button>
      {children}
    </Modal.Footer>
  );
}
