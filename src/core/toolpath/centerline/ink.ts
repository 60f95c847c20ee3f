/** Lines and the ink they are to lie in: over bare stock nothing is drawn. */
import { isIn, type Laid, roomWithin } from '../../geometry/lying';
import { isOnAnother, lineEnd, lineStart } from '../../geometry/near-lines';
import { type Path, pathLength } from '../../geometry/path';
import type { Point } from '../../geometry/point';
import { greatestSpeed, pointAt, type Segment, subSegment } from '../../geometry/segment';
import type { DepthInside } from './depth-inside';

/** A curve is looked at in so many places. */
const LOOKED_AT = 64;
/** A line is looked at in steps of this many usual strokes at least. */
const LEAST_STEP = 0.01;
/** Halvings that tell where a line leaves the ink. */
const HALVINGS = 12;

/** How far places lie inside outlines, as far as `most` matters: farther inside, or outside, is as far. */
export const depthIn =
  (ink: Laid, most: number): DepthInside =>
  (p) =>
    (isIn(p, ink) ? 1 : -1) * roomWithin(p, ink, most);

/** Whether curves lie in ink, or no farther from it than `bare`, in the unit of both. */
export const isInked = (curve: readonly Segment[], room: DepthInside, bare: number): boolean =>
  curve.every((s) =>
    Array.from({ length: LOOKED_AT + 1 }, (_, i) => i / LOOKED_AT).every((t) => room(pointAt(s, t)) >= -bare),
  );

/** Where lines are in ink: the room there is, how far beside the ink they are in it still, and the usual width of a stroke. */
export type Ink = { readonly room: DepthInside; readonly bare: number; readonly width: number };

/** A stretch of a line, in ink or not. */
type Stretch = { readonly segments: Segment[]; readonly isInked: boolean };

/** The stretches of a line by whether they lie in ink. */
function stretchesOf({ segments }: Path, { room, bare, width }: Ink): Stretch[] {
  const out: Stretch[] = [];
  const put = (s: Segment, from: number, to: number, inked: boolean) => {
    if (to - from < 1e-9) return;
    const last = out[out.length - 1];
    const piece = from === 0 && to === 1 ? s : subSegment(s, from, to);
    if (last?.isInked === inked) last.segments.push(piece);
    else out.push({ segments: [piece], isInked: inked });
  };
  for (const s of segments) {
    // Within the room about a place all is as it is there, so that no gap is stepped over but what is less than the least step.
    const least = LEAST_STEP * width;
    const speed = Math.max(greatestSpeed(s), least);
    const roomAt = (t: number) => room(pointAt(s, t)) + bare;
    let [from, at, depth] = [0, 0, roomAt(0)];
    let before = depth >= 0;
    while (at < 1) {
      const on = Math.min(1, at + Math.max(Math.abs(depth), least) / speed);
      depth = roomAt(on);
      if (depth >= 0 !== before) {
        let [low, high] = [at, on];
        for (let h = 0; h < HALVINGS; h++) {
          const middle = (low + high) / 2;
          if (roomAt(middle) >= 0 === before) low = middle;
          else high = middle;
        }
        put(s, from, low, before);
        [from, before] = [low, depth >= 0];
      }
      at = on;
    }
    put(s, from, 1, before);
  }
  return out;
}

/**
 * Stretches of which those out of ink that are shorter than `most` count as in it: a line is not cut for them. At a free end they do not:
 * there is nothing to go on to.
 */
function withoutLittle(
  stretches: readonly Stretch[],
  most: number,
  isFree: { readonly start: () => boolean; readonly end: () => boolean },
): Stretch[] {
  const out: Stretch[] = [];
  stretches.forEach(({ segments, isInked }, i) => {
    const isCut = () => (i === 0 && isFree.start()) || (i === stretches.length - 1 && isFree.end());
    const counts = isInked || (pathLength({ segments, closed: false }) < most && !isCut());
    const last = out[out.length - 1];
    if (last?.isInked === counts) last.segments.push(...segments);
    else out.push({ segments: [...segments], isInked: counts });
  });
  return out;
}
/** In usual strokes. */
const LITTLE = 0.05;
/** An end this near another line meets it. */
const ON = 0.01;

/** How much of some lines lies over bare stock, in the unit of lines and ink. */
export const bareLength = (lines: readonly Path[], ink: Ink): number =>
  lines
    .flatMap((line) => stretchesOf(line, ink))
    .filter((s) => !s.isInked)
    .reduce((sum, { segments }) => sum + pathLength({ segments, closed: false }), 0);

/**
 * What of some lines lies in ink: those that do but for very little as they are, others cut where they leave it. Pieces shorter than
 * `least` are left out.
 */
export function inkedParts(lines: readonly Path[], ink: Ink, least: number): Path[] {
  return lines.flatMap((line) => {
    const isFree = (end: () => Point) => () => !line.closed && !isOnAnother(lines, line, end(), ON * ink.width);
    const stretches = withoutLittle(stretchesOf(line, ink), LITTLE * ink.width, {
      start: isFree(() => lineStart(line)),
      end: isFree(() => lineEnd(line)),
    });
    if (stretches.every((s) => s.isInked)) return [line];
    const [first, last] = [stretches[0], stretches[stretches.length - 1]];
    // A closed line goes on over its start.
    if (line.closed && first?.isInked && last?.isInked && stretches.length > 1) {
      first.segments.unshift(...last.segments);
      stretches.pop();
    }
    return stretches
      .filter((s) => s.isInked)
      .map(({ segments }): Path => ({ segments, closed: false }))
      .filter((path) => pathLength(path) >= least);
  });
}
