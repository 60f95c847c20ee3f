import { PenTool } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { setPen, useBench } from '../store';

/** Starts and ends drawing a path on the sheet. */
export function PenButton() {
  const pen = useBench((s) => s.pen);
  return (
    <>
      <Button variant="plain" className="w-100 mt-2" aria-pressed={pen} onClick={() => setPen(!pen)}>
        <PenTool size={14} className="me-1" aria-hidden="true" />
        Draw a path
      </Button>
      {pen && (
        <p className="nf-small nf-muted mt-2 mb-0">
          Press for a corner, press and drag for a bend. Press the first node to close; Enter ends it open; Backspace
          takes the last node back; Esc leaves. Start at an end of a path to go on with it.
        </p>
      )}
    </>
  );
}
