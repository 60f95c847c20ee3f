/** What was prepared, moved to another place. */
import { type Path, regionBox, transformPath } from '../geometry/path';
import { type Box, type Matrix, transformedBox, uniteBoxes } from '../geometry/point';
import { boundsOf, type Outline, transformOutlines } from './outline';

/** Moves outlines, paths and bounds. Lists, and outlines, that are one and the same stay so. */
export class Mover {
  private readonly outlinesMoved = new Map<Outline, Outline>();
  private readonly listsMoved = new Map<readonly Outline[], readonly Outline[]>();

  constructor(readonly matrix: Matrix) {}

  outline(outline: Outline): Outline {
    let moved = this.outlinesMoved.get(outline);
    if (!moved) {
      moved = transformOutlines([outline], this.matrix)[0] as Outline;
      this.outlinesMoved.set(outline, moved);
    }
    return moved;
  }

  outlines(list: readonly Outline[]): readonly Outline[] {
    let moved = this.listsMoved.get(list);
    if (!moved) {
      moved = list.map((o) => this.outline(o));
      this.listsMoved.set(list, moved);
    }
    return moved;
  }

  paths(list: readonly Path[]): readonly Path[] {
    return list.length === 0 ? list : list.map((path) => transformPath(path, this.matrix));
  }

  /** Bounds of what had such bounds before: those of a turned shape lie within the turned bounds, and are looked up. */
  bounds(shape: readonly Outline[], open: readonly Path[], before: Box): Box {
    const { b, c } = this.matrix;
    if (b === 0 && c === 0) return transformedBox(before, this.matrix);
    return uniteBoxes(boundsOf(this.outlines(shape)), regionBox(this.paths(open)));
  }
}
