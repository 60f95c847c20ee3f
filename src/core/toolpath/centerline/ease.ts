/**
 * Kinks eased: where a line goes on past a joint with a small bend at a node, or steps aside and back, it is cut back on both
 * sides and runs through in one smooth curve. A bend between two long straight stretches is drawn so, and stays; so does a
 * corner.
 */
import { numberAt } from '../../geometry/elements';
import { turnInto } from '../../geometry/measure';
import { type Path, reversePath } from '../../geometry/path';
import type { Segment } from '../../geometry/segment';
import { segmentLength } from '../../geometry/segment-measures';
import { joiningCurve, shortened } from './splice';

/** A node that turns by less than the first is smooth, by more than the second a corner. In radians. */
const SMOOTH = (9 * Math.PI) / 180;
const CORNER = (38 * Math.PI) / 180;
/** Several nodes together that turn by less than this are no sharp corner either. In radians. */
const ROUND = (110 * Math.PI) / 180;
/** Nodes nearer to each other than this are one bend; the line is cut back by so much on both sides. In strokes. */
const NEAR = 0.4;
const BACK = 0.35;
const BACK_ROUND = 0.12;
/** Straight stretches longer than this many strokes meet as they are drawn. */
const DRAWN = 1.5;

type Bend = { readonly from: number; readonly to: number; readonly round: boolean };

/** Nodes that make one bend, as the segments that begin at the first and at the last of them. */
function bendsOf({ segments, closed }: Path, width: number): Bend[] {
  const n = segments.length;
  const turnAt = (i: number): number =>
    i === 0 && !closed ? 0 : turnInto(segments[(i + n - 1) % n] as Segment, segments[i] as Segment);
  const lengths = segments.map(segmentLength);
  const bends: Bend[] = [];
  for (let i = closed ? 0 : 1; i < n; i++) {
    if (turnAt(i) < SMOOTH) continue;
    let to = i;
    while (to + 1 < n && numberAt(lengths, to) < NEAR * width && turnAt(to + 1) >= SMOOTH) to++;
    const [before, after] = [segments[(i + n - 1) % n] as Segment, segments[to] as Segment];
    const isDrawn = i === to && [before, after].every((s) => s.kind === 'line' && segmentLength(s) > DRAWN * width);
    // Steps aside and back are no corners, however sharp.
    const turn = turnInto(before, after);
    if (!isDrawn && turn < (i === to ? CORNER : ROUND)) bends.push({ from: i, to, round: turn >= CORNER });
    i = to;
  }
  return bends;
}

/** A line without kinks; `width` is the usual width of its stroke. */
export function eased(path: Path, width: number): Path {
  const { segments, closed } = path;
  const bends = bendsOf(path, width);
  const n = segments.length;
  if (bends.length === 0 || n < 2) return path;
  // Stretches between the bends; a closed line begins after its first.
  const starts = bends.map((b) => b.to);
  const stretches: Segment[][] = [];
  if (!closed) stretches.push(segments.slice(0, (bends[0] as Bend).from));
  bends.forEach((_, k) => {
    const from = numberAt(starts, k);
    const next = bends[k + 1];
    if (next) stretches.push(segments.slice(from, next.from));
    else if (!closed) stretches.push(segments.slice(from));
    else stretches.push([...segments.slice(from), ...segments.slice(0, (bends[0] as Bend).from)]);
  });
  const cut = stretches.map((list, k) => {
    const length = list.reduce((sum, s) => sum + segmentLength(s), 0);
    // The bend that a stretch begins after, and the one it runs into.
    const into = bends[closed ? (k + 1) % bends.length : k];
    const outOf = bends[closed ? k : k - 1];
    const by = (bend: Bend | undefined) => Math.min((bend?.round ? BACK_ROUND : BACK) * width, 0.4 * length);
    let made: Path | null = { segments: list, closed: false };
    if (closed || k < stretches.length - 1) made = shortened(made, by(into));
    if (made && (closed || k > 0)) made = reversed(shortened(reversePath(made), by(outOf)));
    return made ?? { segments: list, closed: false };
  });
  const out: Segment[] = [];
  cut.forEach((stretch, k) => {
    out.push(...stretch.segments);
    const next = cut[k + 1] ?? (closed ? cut[0] : undefined);
    if (next) out.push(...joiningCurve(stretch, next));
  });
  return { segments: out, closed };
}

const reversed = (path: Path | null): Path | null => path && reversePath(path);
