/**
 * Lines of neighbouring letters joined where one runs on into the other, as in scripts: the tail of a letter ends inside the
 * next one, whose own stroke begins inside the tail. What joins them lies in the ink of both: over bare stock nothing is drawn.
 */
import { numberAt } from '../../geometry/elements';
import type { Laid } from '../../geometry/lying';
import { type Path, pathBox, reversePath } from '../../geometry/path';
import { boxesMeet, growBox, type Point } from '../../geometry/point';
import { type Segment, tangentAt } from '../../geometry/segment';
import { depthIn, isInked } from './ink';
import { joiningCurve, shortened } from './splice';

type Lines = { readonly paths: readonly Path[]; readonly width: number };

/** An end of a line: where it is and the direction in which the line runs out there. */
type End = {
  readonly line: number;
  readonly end: 0 | 1;
  readonly at: Point;
  readonly way: Point;
  readonly letter: number;
};

/** Ends farther from each other than this many strokes do not belong together. */
const REACH = 2.2;
/** A tail turns by no more than this where it runs on, in radians. */
const TURN = (60 * Math.PI) / 180;
/** It may lie this near the ink without being in it, in strokes: outlines that touch leave a notch on either side. */
const BARE = 0.01;
/** So much of both lines, in strokes, makes room for the joint. */
const ROOM = 0.6;

const endsOf = (lines: readonly (Path | null)[], letter: readonly number[]): End[] =>
  lines.flatMap((line, i) => {
    if (!line || line.closed || line.segments.length === 0) return [];
    const [first, last] = [line.segments[0] as Segment, line.segments[line.segments.length - 1] as Segment];
    const [a, b] = [tangentAt(first, 0), tangentAt(last, 1)];
    const of = numberAt(letter, i);
    return [
      { line: i, end: 0, at: { x: first.x0, y: first.y0 }, way: { x: -a.x, y: -a.y }, letter: of },
      { line: i, end: 1, at: { x: last.x1, y: last.y1 }, way: b, letter: of },
    ];
  });

/** How far two ends are from running into each other: 0 is straight on; infinite where they do not belong together. */
function misfit(a: End, b: End, width: number): number {
  const [gx, gy] = [b.at.x - a.at.x, b.at.y - a.at.y];
  const gap = Math.hypot(gx, gy);
  if (gap > REACH * width) return Infinity;
  const turn = Math.acos(Math.max(-1, Math.min(1, -(a.way.x * b.way.x + a.way.y * b.way.y))));
  if (turn > TURN) return Infinity;
  // How far beside each other they run, seen along the way both have.
  const [wx, wy] = [a.way.x - b.way.x, a.way.y - b.way.y];
  const size = Math.hypot(wx, wy) || 1;
  const beside = Math.abs(gx * wy - gy * wx) / size;
  if (beside > width) return Infinity;
  return turn + beside / width + gap / (REACH * width);
}

const outgoing = (path: Path, end: 0 | 1): Path => (end === 1 ? path : reversePath(path));

/**
 * All lines of letters in order, those that run on from one letter into the next made one. `ink` are the outlines of all letters, as
 * they lie; they may overlap.
 */
export function joinLetters(letters: readonly Lines[], ink: () => Laid): Path[] {
  const lines: (Path | null)[] = [];
  const letter: number[] = [];
  letters.forEach((l, i) => {
    for (const line of l.paths) {
      lines.push(line);
      letter.push(i);
    }
  });
  const boxes = letters.map((l) =>
    growBox(
      l.paths.reduce(
        (box, p) => {
          const b = pathBox(p);
          return {
            minX: Math.min(box.minX, b.minX),
            minY: Math.min(box.minY, b.minY),
            maxX: Math.max(box.maxX, b.maxX),
            maxY: Math.max(box.maxY, b.maxY),
          };
        },
        { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity },
      ),
      l.width,
    ),
  );
  for (let i = 0; i + 1 < letters.length; i++) {
    const [a, b] = [letters[i] as Lines, letters[i + 1] as Lines];
    const [boxA, boxB] = [boxes[i], boxes[i + 1]];
    if (!boxA || !boxB || !boxesMeet(boxA, boxB)) continue;
    const width = Math.min(a.width || b.width, b.width || a.width);
    const ends = endsOf(lines, letter);
    let best: readonly [End, End] | null = null;
    let least = Infinity;
    for (const p of ends)
      for (const q of ends) {
        if (p.letter !== i || q.letter !== i + 1) continue;
        const cost = misfit(p, q, width);
        if (cost < least) [best, least] = [[p, q], cost];
      }
    if (!best) continue;
    const joint = joined(lines[best[0].line] as Path, {
      endA: best[0].end,
      b: lines[best[1].line] as Path,
      endB: best[1].end,
      width,
    });
    if (!joint || !isInked(joint.curve, depthIn(ink(), 2 * BARE * width), BARE * width)) continue;
    lines[best[0].line] = null;
    lines[best[1].line] = joint.line;
    // What follows may run on from it.
    letter[best[1].line] = i + 1;
  }
  return lines.filter((l): l is Path => l !== null);
}

/** One line of two: both cut back from where they end, and a smooth curve between, which is given by itself too. */
function joined(
  a: Path,
  { endA, b, endB, width }: { readonly endA: 0 | 1; readonly b: Path; readonly endB: 0 | 1; readonly width: number },
): { readonly line: Path; readonly curve: readonly Segment[] } | null {
  const [into, out] = [outgoing(a, endA), outgoing(b, endB)];
  const [p, q] = [into.segments[into.segments.length - 1] as Segment, out.segments[out.segments.length - 1] as Segment];
  const way = tangentAt(p, 1);
  // Ends that overlap are cut back by what they overlap, and all by some room.
  const ahead = (q.x1 - p.x1) * way.x + (q.y1 - p.y1) * way.y;
  const by = ROOM * width + Math.max(0, -ahead / 2);
  const [head, tail] = [shortened(into, by), shortened(out, by)];
  if (!head || !tail) return null;
  const tailBack = reversePath(tail);
  const curve = joiningCurve(head, tailBack);
  return { line: { segments: [...head.segments, ...curve, ...tailBack.segments], closed: false }, curve };
}
