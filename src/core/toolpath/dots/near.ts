/** Places looked up by where they are. */
import type { Point } from '../../geometry/point';

/** Buckets of places, as wide as what is looked for is far. */
export class Near<T extends Point> {
  private readonly buckets = new Map<string, T[]>();
  constructor(private readonly size: number) {}
  private cell(v: number): number {
    return Math.floor(v / this.size);
  }
  private key(p: Point): string {
    return `${this.cell(p.x)},${this.cell(p.y)}`;
  }
  add(dot: T): void {
    const key = this.key(dot);
    const bucket = this.buckets.get(key);
    if (bucket) bucket.push(dot);
    else this.buckets.set(key, [dot]);
  }
  remove(dot: T): void {
    const key = this.key(dot);
    this.buckets.set(
      key,
      (this.buckets.get(key) ?? []).filter((q) => q !== dot),
    );
  }
  /** One that lies nearer than `within`, the nearest first. */
  nearest(p: Point, within: number): T | null {
    let best: T | null = null;
    let least = within;
    // Neighbours are counted in whole buckets: a width added to a place may round past one.
    const [column, row] = [this.cell(p.x), this.cell(p.y)];
    for (const dx of [-1, 0, 1])
      for (const dy of [-1, 0, 1])
        for (const q of this.buckets.get(`${column + dx},${row + dy}`) ?? []) {
          const d = Math.hypot(p.x - q.x, p.y - q.y);
          if (d < least) [best, least] = [q, d];
        }
    return best;
  }
}
