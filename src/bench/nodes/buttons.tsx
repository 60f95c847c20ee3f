import { PenTool } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { Switch } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { keepToEdges, setPen, useBench } from '../store';

/** Starts drawing a path on the sheet. */
export const PenButton = () => (
  <Button variant="plain" className="w-100 mt-2" onClick={() => setPen(true)}>
    <PenTool size={14} className="me-1" aria-hidden="true" />
    Draw a path
  </Button>
);

/** What the left side says while a path is drawn. */
export function PenPanel() {
  const hasPicture = useBench((s) => s.job.pictures.some((p) => p.shown));
  const keepsToEdges = useBench((s) => s.keepsToEdges);
  const isForWords = useBench((s) => s.penFor !== null);
  return (
    <section aria-label="Pen">
      <Heading>{isForWords ? 'Draw the line that the words run along' : 'Draw a path'}</Heading>
      <ul className="nf-small nf-muted ps-3">
        <li>Press for a corner, press and drag for a bend.</li>
        <li>Press the first node to close the path; Enter ends it open.{!isForWords && ' Then draw the next.'}</li>
        {!isForWords && <li>Start at an end of a path to go on with it.</li>}
        <li>Backspace takes the last node back.</li>
        {hasPicture && (
          <li>Near an edge of the picture a node goes onto it; with Alt held it stays where you press.</li>
        )}
      </ul>
      {hasPicture && <Switch label="Keep to edges of the picture" on={keepsToEdges} onChange={keepToEdges} />}
      <Button variant="primary" className="w-100 mt-2" onClick={() => setPen(false)}>
        Put the pen down
      </Button>
      <p className="nf-small nf-muted mt-2">Esc puts it down, too, and drops a path that is not ended.</p>
    </section>
  );
}
