/** Points that lie very near each other, found through a grid of cells as wide as they are looked for (cell hashing). */
import { floatAt, intAt } from './elements';

/** Points by their coordinates; `reach` is how far apart points are still found from each other. */
export class PointGrid {
  private readonly heads: Int32Array;
  private readonly next: Int32Array;
  private readonly mask: number;

  constructor(
    private readonly x: Float64Array,
    private readonly y: Float64Array,
    private readonly reach: number,
  ) {
    let size = 16;
    while (size < 2 * x.length) size *= 2;
    this.mask = size - 1;
    this.heads = new Int32Array(size).fill(-1);
    this.next = new Int32Array(x.length);
    // From the last on, so that those of a cell are found in their order.
    for (let i = x.length - 1; i >= 0; i--) {
      const slot = this.slotOf(Math.floor(floatAt(x, i) / reach), Math.floor(floatAt(y, i) / reach));
      this.next[i] = intAt(this.heads, slot);
      this.heads[slot] = i;
    }
  }

  /** Tells the numbers of all points no farther than the reach from one of them, itself among them. */
  eachNear(point: number, tell: (i: number) => void): void {
    const { x, y, reach, heads, next } = this;
    const [px, py] = [floatAt(x, point), floatAt(y, point)];
    const [column, row] = [Math.floor(px / reach), Math.floor(py / reach)];
    for (let c = column - 1; c <= column + 1; c++)
      for (let r = row - 1; r <= row + 1; r++)
        for (let i = intAt(heads, this.slotOf(c, r)); i >= 0; i = intAt(next, i)) {
          const [qx, qy] = [floatAt(x, i), floatAt(y, i)];
          // Cells may share a slot.
          if (Math.floor(qx / reach) !== c || Math.floor(qy / reach) !== r) continue;
          if (Math.hypot(qx - px, qy - py) <= reach) tell(i);
        }
  }

  private slotOf(column: number, row: number): number {
    return (Math.imul(column | 0, 0x9e3779b1) ^ Math.imul(row | 0, 0x85ebca6b)) & this.mask;
  }
}
