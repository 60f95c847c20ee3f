/** What is drawn of a part besides its outlines: the middle of its strokes, dots, and lines that fill it. */
import { transformPath } from '../geometry/path';
import { compose, type Point, translation } from '../geometry/point';
import type { PartLines } from './centerline/part-lines';
import type { PartDots } from './dots/part-dots';
import { movedFill, type PartFill } from './fill/part-fill';

export type Linework = {
  readonly lines: PartLines | null;
  readonly dots: PartDots | null;
  readonly fill: PartFill | null;
};

export const NO_LINEWORK: Linework = { lines: null, dots: null, fill: null };

/** The same in another place. */
export function movedLinework({ lines, dots, fill }: Linework, dx: number, dy: number): Linework {
  if (dx === 0 && dy === 0) return { lines, dots, fill };
  const m = translation(dx, dy);
  const move = <T extends Point>(p: T): T => ({ ...p, x: p.x + dx, y: p.y + dy });
  return {
    lines: lines && {
      ...lines,
      lines: lines.lines.map((p) => transformPath(p, m)),
      dots: lines.dots.map(move),
      letters: lines.letters.map((l) => ({
        ...l,
        matrix: compose(l.matrix, m),
        lines: l.lines.map((p) => transformPath(p, m)),
        dots: l.dots.map(move),
        uneven: l.uneven.map(move),
      })),
    },
    dots: dots && {
      ...dots,
      dots: dots.dots.map((d) => ({ ...move(d), home: move(d.home) })),
      clashes: dots.clashes.map(move),
    },
    fill: fill && movedFill(fill, dx, dy),
  };
}
