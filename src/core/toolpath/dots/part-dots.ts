/** The dots of a part: along its outlines and lines, or along its centerline, then as they were changed by hand. */
import type { StepOf } from '../../document/schema';
import type { Path } from '../../geometry/path';
import { applyMatrix, type Matrix, type Point } from '../../geometry/point';
import type { PreparedPart } from '../../prepare/part';
import type { PartLines } from '../centerline/part-lines';
import { type Dots, dotsAlong, type PlacedDot } from './dots';

type DotsStep = StepOf<'dots'>;

/** A dot, and where it would be had it not been moved by hand. */
export type PartDot = PlacedDot & { readonly home: Point };

export type PartDots = Omit<Dots, 'dots'> & {
  readonly dots: readonly PartDot[];
  readonly diameter: number;
  /** Changes by hand whose dot is no more there. */
  readonly idle: number;
};

/** From the first member's own measure to the sheet. */
export const dotFrame = (part: Pick<PreparedPart, 'frames'>): Matrix =>
  part.frames[0]?.matrix ?? { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };

/** A dot is the one that was meant when it is nearer than this share of the spacing. */
const MEANT = 0.5;

/** The dots of a prepared part; `lines` is its centerline, where there is one. */
export function partDots(part: PreparedPart, lines: PartLines | null, step: DotsStep): PartDots {
  const along: readonly Path[] =
    step.along === 'centerline' ? (lines?.lines ?? []) : [...part.outlines.map((o) => o.path), ...part.lines];
  // A dot of a letter is one dot, however large it was.
  const made = dotsAlong(along, step, step.along === 'centerline' ? (lines?.dots ?? []) : []);
  const dots: PartDot[] = made.dots.map((d) => ({ ...d, home: { x: d.x, y: d.y } }));
  const frame = dotFrame(part);
  let idle = 0;
  for (const { x, y, dx, dy } of step.changes) {
    const at = applyMatrix(frame, { x, y });
    const i = nearest(
      dots.map((d) => d.home),
      at,
      MEANT * step.spacing,
    );
    if (i < 0) {
      idle++;
      continue;
    }
    if (dx === null || dy === null) dots.splice(i, 1);
    else dots[i] = { ...(dots[i] as PartDot), ...applyMatrix(frame, { x: x + dx, y: y + dy }), fixed: true };
  }
  return { ...made, dots, diameter: step.diameter, idle };
}

function nearest(dots: readonly Point[], p: Point, within: number): number {
  let [best, least] = [-1, within];
  dots.forEach((q, i) => {
    const d = Math.hypot(p.x - q.x, p.y - q.y);
    if (d < least) [best, least] = [i, d];
  });
  return best;
}
