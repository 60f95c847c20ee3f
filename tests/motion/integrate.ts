/**
 * A second opinion on how long a run takes: the same rules, integrated in steps of a few thousandths of a mm. Directions and curvatures come
 * from points of the path alone; first backwards from rest at the end, for the speed from which one can still stop, then forwards.
 */
import type { Segment } from '../../src/core/geometry/segment';
import type { Motion } from '../../src/core/motion/machine-motion';

/** Places are so far apart, in mm, but so many to a segment at least, and at most. */
const APART_MM = 0.003;
const FEWEST = 600;
const MOST = 4000;

type XY = readonly [number, number];

function point(s: Segment, t: number): XY {
  const u = 1 - t;
  if (s.kind === 'line') return [u * s.x0 + t * s.x1, u * s.y0 + t * s.y1];
  if (s.kind === 'quadratic')
    return [u * u * s.x0 + 2 * u * t * s.ax + t * t * s.x1, u * u * s.y0 + 2 * u * t * s.ay + t * t * s.y1];
  if (s.kind === 'cubic')
    return [
      u ** 3 * s.x0 + 3 * u * u * t * s.ax + 3 * u * t * t * s.bx + t ** 3 * s.x1,
      u ** 3 * s.y0 + 3 * u * u * t * s.ay + 3 * u * t * t * s.by + t ** 3 * s.y1,
    ];
  const [dx, dy] = [s.x0 - s.cx, s.y0 - s.cy];
  const [c, n] = [Math.cos(s.sweep * t), Math.sin(s.sweep * t)];
  return [s.cx + c * dx - n * dy, s.cy + n * dx + c * dy];
}

/** The direction at an end, from those of the first two steps beside it. */
function endWay([ax, ay]: XY, [bx, by]: XY): XY {
  const [dx, dy] = [1.5 * ax - 0.5 * bx, 1.5 * ay - 0.5 * by];
  const far = Math.hypot(dx, dy);
  return [dx / far, dy / far];
}

/** What holds at each of many places along a path: how far it is, the highest speed, the acceleration along it. */
function places(segments: readonly Segment[], { speed, axisSpeed, acceleration, cornerMm }: Motion) {
  const along = [0];
  const tops: number[] = [0];
  const pulls: number[] = [1];
  const by = (most: { x: number; y: number }, [x, y]: XY): number =>
    Math.min(most.x / Math.max(1e-12, Math.abs(x)), most.y / Math.max(1e-12, Math.abs(y)));
  let last: XY | null = null;
  for (const s of segments) {
    const [p0, pm, p1] = [point(s, 0), point(s, 0.5), point(s, 1)];
    const about = Math.hypot(pm[0] - p0[0], pm[1] - p0[1]) + Math.hypot(p1[0] - pm[0], p1[1] - pm[1]);
    const fine = Math.round(Math.min(MOST, Math.max(FEWEST, about / APART_MM)));
    const points = Array.from({ length: fine + 1 }, (_, k) => point(s, k / fine));
    const ways = points.slice(1).map((q, k): XY => {
      const p = points[k] as XY;
      const far = Math.hypot(q[0] - p[0], q[1] - p[1]);
      return [(q[0] - p[0]) / far, (q[1] - p[1]) / far];
    });
    const first = endWay(ways[0] as XY, ways[1] as XY);
    if (last) {
      const turn = Math.acos(Math.min(1, Math.max(-1, last[0] * first[0] + last[1] * first[1])));
      if (turn > 0.02) {
        const [bx, by2] = [first[0] - last[0], first[1] - last[1]];
        const size = Math.hypot(bx, by2);
        const half = Math.sin((Math.PI - turn) / 2);
        const most = Math.sqrt((by(acceleration, [bx / size, by2 / size]) * cornerMm * half) / (1 - half));
        tops[tops.length - 1] = Math.min(tops[tops.length - 1] as number, most);
      }
    }
    ways.forEach((way, k) => {
      const p = points[k] as XY;
      const q = points[k + 1] as XY;
      const far = Math.hypot(q[0] - p[0], q[1] - p[1]);
      const before = ways[Math.max(0, k - 1)] as XY;
      const after = ways[Math.min(fine - 1, k + 1)] as XY;
      const bent = Math.abs(before[0] * after[1] - before[1] * after[0]) / (far * (k > 0 && k < fine - 1 ? 2 : 1));
      const straight = Math.min(speed, by(axisSpeed, way));
      const top = bent < 1e-6 ? straight : Math.min(straight, Math.sqrt(by(acceleration, [way[1], way[0]]) / bent));
      along.push((along[along.length - 1] as number) + far);
      tops.push(top);
      pulls.push(by(acceleration, way));
    });
    last = endWay(ways[fine - 1] as XY, ways[fine - 2] as XY);
  }
  return { along, tops, pulls };
}

/** Seconds from rest to rest along segments, step by step. */
export function integrated(segments: readonly Segment[], motion: Motion): number {
  const { along, tops, pulls } = places(segments, motion);
  const n = along.length;
  const squares = Float64Array.from(tops, (top) => top * top);
  const step = (i: number) => 2 * (pulls[i] as number) * ((along[i] as number) - (along[i - 1] as number));
  squares[0] = 0;
  squares[n - 1] = 0;
  for (let i = n - 1; i > 0; i--) squares[i - 1] = Math.min(squares[i - 1] as number, (squares[i] as number) + step(i));
  let seconds = 0;
  for (let i = 1; i < n; i++) {
    squares[i] = Math.min(squares[i] as number, (squares[i - 1] as number) + step(i));
    const far = (along[i] as number) - (along[i - 1] as number);
    seconds += (2 * far) / (Math.sqrt(squares[i - 1] as number) + Math.sqrt(squares[i] as number));
  }
  return seconds;
}
