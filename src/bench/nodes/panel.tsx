/** Working on nodes from the panel: how many there are, where the chosen one is, and what can be done. */
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { leaveHandMade } from '@/core/commands/drawings';
import type { Part } from '@/core/document/schema';
import { moveNodes, nodeCount } from '@/core/geometry/nodes';
import { LIMITS } from '@/core/limits';
import { QuantityField } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { dispatch, useBench, workOnNodes } from '../store';
import { chosenNodesOf } from './chosen';
import { enterNodes, putPaths, usePathsInHand } from './hand';
import styles from './nodes.module.css';
import {
  breakNodes,
  chooseAll,
  chooseBetween,
  chosenPlace,
  cornerNodes,
  deleteNodes,
  joinNodes,
  reversePaths,
  simplifyPaths,
  smoothNodes,
  straightenSegments,
} from './tools';

/** Facets are fitted to this at first, in mm. */
const USUAL_TOLERANCE_MM = 0.05;

/** Nodes of a part, or of the member of it that is chosen. */
export function PartNodes({ part }: { readonly part: Part }) {
  const memberId = useBench((s) => (s.selection.partId === part.id ? s.selection.memberId : null));
  return <NodesPanel partId={part.id} memberId={memberId} />;
}

/** What can be done with the nodes of a path. */
export function NodesPanel({ partId, memberId }: { partId: string; memberId: string | null }) {
  const job = useBench((s) => s.job);
  const at = useBench((s) => s.atNodes);
  const inSheet = usePathsInHand(at?.partId === partId ? at : null);
  const [tolerance, setTolerance] = useState(USUAL_TOLERANCE_MM);
  const part = job.parts.find((p) => p.id === partId);
  if (!part) return null;
  const isHandMade = part.steps.some((s) => s.kind === 'nodes');
  if (!at || !inSheet)
    return (
      <section>
        <Heading>Nodes</Heading>
        {isHandMade && (
          <p className="nf-small mb-2">This part is worked on by hand: changes of its words or steps don’t show.</p>
        )}
        <div className={styles.tools}>
          <Button variant="plain" disabled={part.locked} onClick={() => void enterNodes(partId, memberId)}>
            Work on nodes
          </Button>
          {isHandMade && (
            <Button variant="plain" onClick={() => dispatch((job) => leaveHandMade(job, partId))}>
              Back to the words and steps
            </Button>
          )}
        </div>
      </section>
    );
  const { chosen } = at;
  const paths = inSheet;
  const total = paths.reduce((sum, path) => sum + nodeCount(path), 0);
  const place = chosenPlace(paths, chosen);
  const go = (x: number, y: number) => {
    if (!place) return;
    putPaths(
      paths.map((path, i) => {
        const mine = chosenNodesOf(chosen, i);
        return mine.size > 0 ? moveNodes(path, mine, x - place.x, y - place.y) : path;
      }),
      'node',
    );
  };
  const none = chosen.size === 0;
  const tool = (words: string, run: () => void, needs = true, title?: string) => (
    <Button variant="plain" disabled={needs && none} title={title} onClick={run}>
      {words}
    </Button>
  );
  return (
    <section aria-label="Nodes">
      <Heading beside={`${chosen.size.toLocaleString('en')} of ${total.toLocaleString('en')}`}>Nodes</Heading>
      {place && (
        <>
          <QuantityField label="x" unit={job.units} value={place.x} onChange={(x) => go(x, place.y)} />
          <QuantityField label="y" unit={job.units} value={place.y} onChange={(y) => go(place.x, y)} />
        </>
      )}
      <h3 className={styles.about}>At the chosen nodes</h3>
      <div className={styles.tools}>
        {tool('Run through smoothly', smoothNodes, true, 'The path runs through without a corner')}
        {tool('Turn a corner', cornerNodes)}
        {tool('Take them out', deleteNodes, true, 'The curve is fitted to what was there (Delete)')}
        {tool('Part the path', breakNodes, true, 'It ends here, and another begins')}
      </div>
      <h3 className={styles.about}>Between them</h3>
      <div className={styles.tools}>
        {tool('Make it straight', straightenSegments, true, 'The segments between the chosen nodes')}
        {tool('Choose those between', chooseBetween, true, 'The nodes along the path between two chosen ones')}
        {tool('Bring the ends together', joinNodes, true, 'Two ends, or the ends of one path')}
      </div>
      <h3 className={styles.about}>The whole path</h3>
      <div className={styles.tools}>
        {tool('Choose every node', chooseAll, false)}
        {tool('Run the other way', reversePaths, false)}
        {tool(
          'Draw it with fewer nodes',
          () => simplifyPaths(tolerance),
          false,
          'Runs of short lines become arcs and curves',
        )}
      </div>
      <QuantityField
        label="Straying at most"
        unit={job.units}
        value={tolerance}
        least={0.001}
        most={LIMITS.gapMostMm}
        stepMm={0.01}
        digits={3}
        onChange={setTolerance}
      />
      <Button variant="primary" className="w-100 mb-2" onClick={() => workOnNodes(null)}>
        Done
      </Button>
      <p className="nf-small nf-muted">
        Drag nodes, handles or the line itself. Press twice on the line for a new node. Drag over empty sheet to choose
        several; Shift adds.
      </p>
    </section>
  );
}
