/** Nodes that mean nothing taken out of a rebuilt outline: between lines that run on straight, and arcs of one circle. */
import { numberAt } from '../elements';
import { arcRadius, line, type Segment } from '../segment';
import type { LabelledPath } from './labelled';

/** How far a joint may lie off what replaces both sides of it, in mm. */
const OFF_MM = 1e-6;
/** Arcs are joined up to a half circle; two that are quarters already stay quarters. */
const MOST_SWEEP = Math.PI + 1e-9;
const QUARTER = Math.PI / 2 - 1e-6;

/**
 * An outline without nodes in which a line, or an arc of one circle, only runs on; the outline itself when there are
 * none.
 */
export function joinRuns({ path, labels }: LabelledPath): LabelledPath {
  const { segments } = path;
  const n = segments.length;
  if (n < 3) return { path, labels };
  const joins = segments.map((s, i) => joined(s, segments[(i + 1) % n] as Segment) !== null);
  if (!joins.includes(true)) return { path, labels };
  // Start behind a node that stays, so that no run goes over the end of the list.
  const start = joins.indexOf(false) + 1;
  const out: Segment[] = [];
  const outLabels: number[] = [];
  for (let i = 0; i < n; i++) {
    const s = segments[(start + i) % n] as Segment;
    const last = out[out.length - 1];
    const one = last ? joined(last, s) : null;
    if (one) out[out.length - 1] = one;
    else {
      out.push(s);
      outLabels.push(numberAt(labels, (start + i) % n));
    }
  }
  return out.length < 2 ? { path, labels } : { path: { segments: out, closed: true }, labels: outLabels };
}

/** Two segments as one, or null when the node between them is needed. */
function joined(a: Segment, b: Segment): Segment | null {
  if (a.kind === 'line' && b.kind === 'line') {
    const dx = b.x1 - a.x0;
    const dy = b.y1 - a.y0;
    const length = Math.hypot(dx, dy);
    if (length === 0) return null;
    const off = Math.abs(dx * (a.y1 - a.y0) - dy * (a.x1 - a.x0)) / length;
    const along = (dx * (a.x1 - a.x0) + dy * (a.y1 - a.y0)) / (length * length);
    return off <= OFF_MM && along > 0 && along < 1 ? line(a.x0, a.y0, b.x1, b.y1) : null;
  }
  if (a.kind === 'arc' && b.kind === 'arc') {
    const sweep = a.sweep + b.sweep;
    const same = Math.hypot(a.cx - b.cx, a.cy - b.cy) <= OFF_MM && Math.abs(arcRadius(a) - arcRadius(b)) <= OFF_MM;
    const quarters = Math.abs(a.sweep) >= QUARTER && Math.abs(b.sweep) >= QUARTER;
    if (!same || quarters || a.sweep * b.sweep <= 0 || Math.abs(sweep) > MOST_SWEEP) return null;
    return { ...a, x1: b.x1, y1: b.y1, sweep };
  }
  return null;
}
