/** How far apart two sets of polylines lie, both ways, by points along them. */
import Flatbush from 'flatbush';

export type Polyline = readonly (readonly [number, number])[];

/** The largest distance from a point of one set to the nearest chord of the other, one way. */
export function farthest(from: readonly Polyline[], to: readonly Polyline[]): number {
  const chords: (readonly [number, number, number, number])[] = [];
  for (const line of to)
    for (let i = 0; i < line.length; i++) {
      const [p, q] = [line[Math.max(0, i - 1)] as readonly [number, number], line[i] as readonly [number, number]];
      chords.push([p[0], p[1], q[0], q[1]]);
    }
  if (chords.length === 0) return from.some((line) => line.length > 0) ? Infinity : 0;
  const index = new Flatbush(chords.length);
  for (const [ax, ay, bx, by] of chords)
    index.add(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by));
  index.finish();
  let worst = 0;
  for (const line of from)
    for (const [x, y] of line) {
      let near = Infinity;
      for (let reach = 0.01; near === Infinity; reach *= 8) {
        for (const i of index.search(x - reach, y - reach, x + reach, y + reach)) {
          const [ax, ay, bx, by] = chords[i] as readonly [number, number, number, number];
          const l = (bx - ax) ** 2 + (by - ay) ** 2;
          const u = l === 0 ? 0 : Math.min(1, Math.max(0, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / l));
          const d = Math.hypot(ax + u * (bx - ax) - x, ay + u * (by - ay) - y);
          if (d <= reach) near = Math.min(near, d);
        }
        if (reach > 1e6) break;
      }
      worst = Math.max(worst, near);
    }
  return worst;
}

export const apartAtMost = (a: readonly Polyline[], b: readonly Polyline[]): number =>
  Math.max(farthest(a, b), farthest(b, a));
