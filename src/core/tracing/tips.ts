/**
 * How a sharp end of a shape is cut off. Where its two sides come together within a pixel or two, the outline tells nothing; but the sum
 * of the pixels around it is the area that is there, so it ends where the wedge between its sides has just that area.
 */
import type { Point } from '../geometry/point';
import type { Coverage } from './contours';

/** A straight line, by a point and a unit direction. */
export type Side = { readonly x: number; readonly y: number; readonly dx: number; readonly dy: number };

/**
 * Pixels around a tip count fully so far, in pixels, and so many times as far as they are disturbed; and then less and less. Round
 * about the tip its sides are crossed squarely, so that blur carries as much out along one side of an edge as in along the other.
 */
const WHOLE = 1.5;
const WHOLE_BY_REACH = 1;
const FADING = 1.2;
/** A pixel this far from the wedge, beyond the blur, that still belongs to the shape is of something else. */
const ELSEWHERE = 0.8;
const BELONGS = 0.12;
/** Samples along each side of a pixel. */
const FINE = 4;

/** A tip of a shape, or of a notch in one. */
export type Tip = {
  /** Where its sides meet, or where the outline comes nearest to that. */
  readonly at: Point;
  /** The unit direction it points in. */
  readonly out: Point;
  /** Its two sides, running away from it. */
  readonly sides: readonly [Side, Side];
  readonly isNotch: boolean;
  /** Pixels are disturbed so far from an edge. */
  readonly reach: number;
};

/**
 * How far a tip reaches along the direction it points in: `out` · its end. Null where something else is near, so that its pixels tell
 * nothing.
 */
export function reachOfTip(coverage: Coverage, { at, out, sides, isNotch, reach }: Tip): number | null {
  const { width, height, data } = coverage;
  const whole = WHOLE + WHOLE_BY_REACH * reach;
  const window = Math.ceil(whole + FADING);
  const [cx, cy] = [Math.floor(at.x), Math.floor(at.y)];
  if (cx - window < 0 || cy - window < 0 || cx + window >= width || cy + window >= height) return null;
  const weigh = (x: number, y: number): number => {
    const r = Math.hypot(x - at.x, y - at.y);
    return r <= whole ? 1 : r >= whole + FADING ? 0 : 0.5 + 0.5 * Math.cos((Math.PI * (r - whole)) / FADING);
  };
  // Within the wedge both lines are on the side of what lies behind the tip.
  const behind = { x: at.x - 4 * out.x, y: at.y - 4 * out.y };
  const planes = sides.map(({ x, y, dx, dy }) => {
    const [a, b] = [-dy, dx];
    const c = a * x + b * y;
    return a * behind.x + b * behind.y > c ? ([-a, -b, -c] as const) : ([a, b, c] as const);
  });
  const beyond = (x: number, y: number): number => Math.max(...planes.map(([a, b, c]) => a * x + b * y - c));
  let sum = 0;
  const samples: { readonly along: number; readonly weight: number }[] = [];
  for (let y = cy - window; y <= cy + window; y++)
    for (let x = cx - window; x <= cx + window; x++) {
      const [mx, my] = [x + 0.5, y + 0.5];
      const weight = weigh(mx, my);
      if (weight === 0) continue;
      const value = (data[y * width + x] as number) / 255;
      const v = isNotch ? 1 - value : value;
      const off = beyond(mx, my);
      if (v > BELONGS && off > ELSEWHERE + reach) return null;
      sum += weight * v;
      if (off > 1) continue;
      for (let i = 0; i < FINE; i++)
        for (let j = 0; j < FINE; j++) {
          const [sx, sy] = [x + (i + 0.5) / FINE, y + (j + 0.5) / FINE];
          if (beyond(sx, sy) <= 0) samples.push({ along: sx * out.x + sy * out.y, weight: weight / (FINE * FINE) });
        }
    }
  samples.sort((p, q) => p.along - q.along);
  for (const { along, weight } of samples) {
    sum -= weight;
    if (sum < 0) return along;
  }
  return samples.at(-1)?.along ?? null;
}
