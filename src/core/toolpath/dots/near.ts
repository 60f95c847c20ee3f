/** Places looked up by where they are. */
import type { Point } from '../../geometry/point';

/** Buckets of places, as wide as what is looked for is far. */
export class Near<T extends Point> {
  private readonly buckets = new Map<string, T[]>();
  constructor(private readonly size: number) {}
  private key(x: number, y: number): string {
    return `${Math.floor(x / this.size)},${Math.floor(y / this.size)}`;
  }
  add(dot: T): void {
    const key = this.key(dot.x, dot.y);
    const bucket = this.buckets.get(key);
    if (bucket) bucket.push(dot);
    else this.buckets.set(key, [dot]);
  }
  remove(dot: T): void {
    const key = this.key(dot.x, dot.y);
    this.buckets.set(
      key,
      (this.buckets.get(key) ?? []).filter((q) => q !== dot),
    );
  }
  /** One that lies nearer than `within`, the nearest first. */
  nearest(p: Point, within: number): T | null {
    let best: T | null = null;
    let least = within;
    for (const dx of [-1, 0, 1])
      for (const dy of [-1, 0, 1])
        for (const q of this.buckets.get(this.key(p.x + dx * this.size, p.y + dy * this.size)) ?? []) {
          const d = Math.hypot(p.x - q.x, p.y - q.y);
          if (d < least) [best, least] = [q, d];
        }
    return best;
  }
}
