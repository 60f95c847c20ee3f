/**
 * Loops and spikes taken out of a rebuilt outline. The clipper works on chords; where exact curves run nearly along each
 * other they may cross a little before or after their chords do. That leaves a thin loop at the joint, or a stretch that
 * is gone along and back.
 */
import { numberAt } from '../elements';
import { line, pointAt, type Segment, subSegment, tangentAt, withEnds } from '../segment';
import { crossingNear, nearestParameter, segmentArea, segmentLength } from '../segment-measures';
import type { LabelledPath } from './labelled';

/** Ends within this are one point, in mm. */
const MEET_MM = 1e-6;
/** Loops over more segments than this, or longer than this many mm, are not looked for. */
const MOST_BETWEEN = 3;
const LONGEST_MM = 0.5;

type Piece = { readonly segment: Segment; readonly label: number };

/** An outline without loops and spikes thinner than `thin` mm on average; the outline itself when there are none. */
export function tidyLoops({ path, labels }: LabelledPath, thin: number): LabelledPath {
  const { segments } = path;
  const n = segments.length;
  const mayLoop = segments.some(
    (s, i) =>
      isShort(s) &&
      (turnsBack(segments[(i + n - 1) % n] as Segment, s) || turnsBack(s, segments[(i + 1) % n] as Segment)),
  );
  if (n < 4 || !mayLoop) return { path, labels };
  let pieces: Piece[] = segments.map((segment, i) => ({ segment, label: numberAt(labels, i) }));
  for (let i = 0; i < pieces.length && pieces.length >= 4; i++) {
    const mended = withoutLoopAfter(pieces, i, thin);
    if (!mended) continue;
    pieces = mended;
    i = Math.max(-1, i - 2);
  }
  return { path: { segments: pieces.map((p) => p.segment), closed: true }, labels: pieces.map((p) => p.label) };
}

const isShort = (s: Segment): boolean => Math.hypot(s.x1 - s.x0, s.y1 - s.y0) <= LONGEST_MM;

/** Whether the way goes back at the joint of two segments. */
function turnsBack(a: Segment, b: Segment): boolean {
  const t = tangentAt(a, 1);
  const u = tangentAt(b, 0);
  return t.x * u.x + t.y * u.y < 0;
}

/** The pieces with the few after piece `i` left out, when those before and after meet without them; or null. */
function withoutLoopAfter(pieces: readonly Piece[], i: number, thin: number): Piece[] | null {
  const n = pieces.length;
  const p = pieces[i] as Piece;
  let length = 0;
  let back = false;
  for (let k = 1; k <= MOST_BETWEEN && k + 2 < n; k++) {
    const last = pieces[(i + k - 1) % n] as Piece;
    const skipped = pieces[(i + k) % n] as Piece;
    const q = pieces[(i + k + 1) % n] as Piece;
    back ||= turnsBack(last.segment, skipped.segment);
    if (!isShort(skipped.segment)) return null;
    length += segmentLength(skipped.segment);
    if (length > LONGEST_MM) return null;
    if (!back && !turnsBack(skipped.segment, q.segment)) continue;
    const between = Array.from({ length: k }, (_, m) => (pieces[(i + 1 + m) % n] as Piece).segment);
    const joined = meet(p.segment, between, q.segment, thin);
    if (!joined) continue;
    const kept = pieces.filter((_, at) => at === i || (at - i + n) % n > k);
    return kept.map((piece) =>
      piece === p ? { ...p, segment: joined[0] } : piece === q ? { ...q, segment: joined[1] } : piece,
    );
  }
  return null;
}

/** Two segments cut where they meet, when the loop between is thin; null otherwise. */
function meet(a: Segment, between: readonly Segment[], b: Segment, thin: number): readonly [Segment, Segment] | null {
  const end = { x: b.x1, y: b.y1 };
  if (Math.hypot(a.x1 - b.x0, a.y1 - b.y0) <= MEET_MM)
    return isThin(between, thin) ? [a, withEnds(b, { x: a.x1, y: a.y1 }, end)] : null;
  // The crossing lies between the end of either and the point of it nearest to the end of the other.
  const t0 = nearestParameter(a, b.x0, b.y0);
  const u0 = nearestParameter(b, a.x1, a.y1);
  const crossing = crossingNear(a, b, (1 + t0) / 2, u0 / 2) ?? crossingNear(a, b, t0, u0) ?? crossingNear(a, b, 1, 0);
  // Where they run too nearly along each other to say where they cross: at the point nearest to where the other starts.
  const [t, u] = crossing ?? [t0, 0];
  if (t <= 0 || u >= 1 || (t === 1 && u === 0)) return null;
  const at = pointAt(a, t);
  const onB = pointAt(b, u);
  if (Math.hypot(onB.x - at.x, onB.y - at.y) > thin) return null;
  const loop = [subSegment(a, t, 1), ...between, subSegment(b, 0, u)];
  return isThin(loop, thin) ? [subSegment(a, 0, t), withEnds(subSegment(b, u, 1), at, end)] : null;
}

function isThin(loop: readonly Segment[], thin: number): boolean {
  const first = loop[0] as Segment;
  const last = loop[loop.length - 1] as Segment;
  const closed = [...loop, line(last.x1, last.y1, first.x0, first.y0)];
  const length = closed.reduce((sum, s) => sum + segmentLength(s), 0);
  return (
    length <= 3 * LONGEST_MM && Math.abs(closed.reduce((sum, s) => sum + segmentArea(s), 0)) <= (length / 2) * thin
  );
}
