/** What is drawn of a part besides its outlines: the middle of its strokes, dots, and lines that fill it. */
import { type Path, transformPath } from '../geometry/path';
import { applyMatrix, compose, isIdentity, type Matrix, type Point } from '../geometry/point';
import type { PartLines } from './centerline/part-lines';
import type { PartDots } from './dots/part-dots';
import { type PartFill, transformFill } from './fill/part-fill';

export type Linework = {
  readonly lines: PartLines | null;
  readonly dots: PartDots | null;
  readonly fill: PartFill | null;
};

export const NO_LINEWORK: Linework = { lines: null, dots: null, fill: null };

/** The same moved, turned or mirrored. */
export function transformLinework(linework: Linework, m: Matrix): Linework {
  if (isIdentity(m)) return linework;
  const { lines, dots, fill } = linework;
  const move = <T extends Point>(p: T): T => ({ ...p, ...applyMatrix(m, p) });
  const paths = (list: readonly Path[]): Path[] => list.map((p) => transformPath(p, m));
  return {
    lines: lines && {
      ...lines,
      lines: paths(lines.lines),
      dots: lines.dots.map(move),
      letters: lines.letters.map((l) => ({
        ...l,
        matrix: compose(l.matrix, m),
        lines: paths(l.lines),
        dots: l.dots.map(move),
        uneven: l.uneven.map(move),
      })),
    },
    dots: dots && {
      ...dots,
      dots: dots.dots.map((d) => ({ ...move(d), home: move(d.home) })),
      clashes: dots.clashes.map(move),
    },
    fill: fill && transformFill(fill, m),
  };
}
