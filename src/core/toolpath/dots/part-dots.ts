/** The dots of a part: along its outlines and lines, or along its centerline, then as they were changed by hand. */
import type { Path } from '../../geometry/path';
import {
  applyMatrix,
  type Box,
  compose,
  EMPTY_BOX,
  IDENTITY,
  isEmptyBox,
  type Matrix,
  type Point,
  scaling,
  transformedBox,
} from '../../geometry/point';
import type { PreparedPart } from '../../prepare/prepared';
import type { PartLines } from '../centerline/part-lines';
import { clashesOf, type DotSettings, type Dots, dotsAlong, type PlacedDot } from './dots';
import { Near } from './near';

/** How dots are set along the lines of a part, with what was changed by hand. */
export type PartDotSettings = DotSettings & {
  readonly along: 'centerline' | 'outline';
  readonly changes: readonly DotChange[];
};

/** A dot moved or left out by hand: where it would be in its letter, or the first member, and how far it was moved. */
export type DotChange = {
  readonly letter: string | null;
  readonly x: number;
  readonly y: number;
  readonly dx: number | null;
  readonly dy: number | null;
};

/** A dot, and where it would be had it not been moved by hand. */
export type PartDot = PlacedDot & { readonly home: Point };

/** The dots of a part on the sheet. */
export type PartDots = Omit<Dots, 'dots'> & {
  readonly dots: readonly PartDot[];
  readonly diameter: number;
  /** Changes by hand whose dot is no more there. */
  readonly idle: number;
};

/** What a place of a dot is told in: a letter, or where `letter` is null the first member. */
export type DotFrame = {
  readonly letter: string | null;
  /** From capital heights of the letter, or heights of the member, to the sheet. */
  readonly matrix: Matrix;
  /** Bounds of the letter on the sheet; empty for the first member. */
  readonly box: Box;
};

/** The frames of a part's dots: first its first member's, then one for each of its letters. */
export function dotFrames(part: Pick<PreparedPart, 'frames' | 'members'>): DotFrame[] {
  const byKey = new Map(part.frames.map((frame) => [frame.key, frame.matrix]));
  const letters = part.members.flatMap(({ id, layout, matrix }) =>
    (layout?.letters ?? []).flatMap(({ start, box }): DotFrame[] => {
      const own = byKey.get(`${id}:${start}`);
      if (!own || isEmptyBox(box)) return [];
      const toSheet = compose(scaling(layout?.scale ?? 1), matrix);
      return [{ letter: `${id}:${start}`, matrix: own, box: transformedBox(box, toSheet) }];
    }),
  );
  return [{ letter: null, matrix: part.frames[0]?.matrix ?? IDENTITY, box: EMPTY_BOX }, ...letters];
}

/** A dot is the one that was meant when it is nearer than this share of the spacing. */
const MEANT = 0.5;

/** The dots of a prepared part; `lines` is its centerline, where there is one. */
export function partDots(part: PreparedPart, lines: PartLines | null, step: PartDotSettings): PartDots {
  const along: readonly Path[] =
    step.along === 'centerline' ? (lines?.paths ?? []) : [...part.outlines.map((o) => o.path), ...part.openPaths];
  // A dot of a letter is one dot, however large it was.
  const made = dotsAlong(along, step, step.along === 'centerline' ? (lines?.dots ?? []) : []);
  const dots = new Set<PartDot>();
  const byHome = new Near<Homed>(Math.max(MEANT * step.spacing, step.diameter));
  for (const d of made.dots) {
    const dot = { ...d, home: { x: d.x, y: d.y } };
    dots.add(dot);
    if (step.changes.length > 0) byHome.add({ ...dot.home, dot });
  }
  const frames = new Map(step.changes.length > 0 ? dotFrames(part).map((f) => [f.letter, f.matrix]) : []);
  let idle = 0;
  for (const { letter, x, y, dx, dy } of step.changes) {
    const frame = frames.get(letter);
    const found = frame && byHome.nearest(applyMatrix(frame, { x, y }), MEANT * step.spacing);
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
  const allDots = [...dots];
  const clashes = step.changes.length > 0 ? clashesOf(allDots, step.diameter) : made.clashes;
  return { ...made, dots: allDots, clashes, diameter: step.diameter, idle };
}

/** A dot where it would be had it not been moved. */
type Homed = Point & { readonly dot: PartDot };
