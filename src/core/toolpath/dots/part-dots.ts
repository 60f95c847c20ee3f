/** The dots of a part: along its outlines and lines, or along its centerline, then as they were changed by hand. */
import type { StepOf } from '../../document/schema';
import type { Path } from '../../geometry/path';
import { applyMatrix, type Matrix, type Point } from '../../geometry/point';
import type { PreparedPart } from '../../prepare/part';
import type { PartLines } from '../centerline/part-lines';
import { clashesOf, type Dots, dotsAlong, type PlacedDot } from './dots';
import { Near } from './near';

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
  const dots = new Set<PartDot>();
  const byHome = new Near<Homed>(Math.max(MEANT * step.spacing, step.diameter));
  for (const d of made.dots) {
    const dot = { ...d, home: { x: d.x, y: d.y } };
    dots.add(dot);
    if (step.changes.length > 0) byHome.add({ ...dot.home, dot });
  }
  const frame = dotFrame(part);
  let idle = 0;
  for (const { x, y, dx, dy } of step.changes) {
    const found = byHome.nearest(applyMatrix(frame, { x, y }), MEANT * step.spacing);
    if (!found) {
      idle++;
      continue;
    }
    dots.delete(found.dot);
    byHome.remove(found);
    if (dx === null || dy === null) continue;
    const dot = { ...found.dot, ...applyMatrix(frame, { x: x + dx, y: y + dy }), fixed: true };
    dots.add(dot);
    byHome.add({ ...dot.home, dot });
  }
  const placed = [...dots];
  const clashes = step.changes.length > 0 ? clashesOf(placed, step.diameter) : made.clashes;
  return { ...made, dots: placed, clashes, diameter: step.diameter, idle };
}

/** A dot where it would be had it not been moved. */
type Homed = Point & { readonly dot: PartDot };
