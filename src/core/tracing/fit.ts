/**
 * Few segments through the points of an outline between two corners, or of one without any: lines where it runs straight, else the
 * longest cubics that pass the points within a tolerance. Where two meet they have one direction: the one that suits both best.
 */
import { farthest } from '../geometry/farthest';
import { type LeastCubic, leastCubic, type PointRun } from '../geometry/least-cubic';
import type { Point } from '../geometry/point';
import { type Cubic, line, type Segment, tangentAt } from '../geometry/segment';
import { foot, leastStraight, offLine, type PieceSettings, type Straight, straights } from './straights';

/** In so many times as far as points stray, nearly all of them lie; and the mean of their squares. */
const ALL = 3.6;
const MEAN = 1.25;

/** Whether points that stray belong to a curve that passes them so. */
const suits = (
  found: { readonly worst: number; readonly rms: number },
  { tolerance, noise }: PieceSettings,
  times = 1,
): boolean =>
  found.worst <= times * tolerance || (found.rms <= times * MEAN * noise && found.worst <= times * ALL * noise);

/** A curve is tried over so many points more at first. */
const FIRST_STEP = 4;

/** Most often that a curve is halved. */
const DEEPEST = 5;

/** Curves from point `from` to `to`, whose directions there are given or free. */
function bent(
  points: readonly Point[],
  from: number,
  to: number,
  start: Point | null,
  end: Point | null,
  settings: PieceSettings,
): Segment[] {
  if (to <= from) return [];
  // Where curves meet, by greed: as many are needed as this finds.
  const breaks = [from];
  for (let i = from; i < to; ) {
    const way = i === from ? start : null;
    const fits = (k: number): boolean => {
      const found = leastCubic({ points, from: i, to: k, start: way, end: k === to ? end : null }, settings.tolerance);
      return found !== null && suits(found, settings);
    };
    const j = farthest(i + 2, to, fits, FIRST_STEP);
    breaks.push(j);
    i = j;
  }
  evened(points, breaks, start, end, settings);
  const free = breaks.slice(1).map((j, k) => {
    const i = breaks[k] as number;
    return leastCubic({ points, from: i, to: j, start: i === from ? start : null, end: j === to ? end : null });
  });
  const ways: (Point | null)[] = breaks.map((_, k) =>
    k === 0 ? start : k === breaks.length - 1 ? end : between(free[k - 1], free[k]),
  );
  aligned(points, breaks, ways, settings);
  const suitsWell = (k: number): boolean => {
    const [first, last] = [ways[k] ?? null, ways[k + 1] ?? null];
    const found = leastCubic(
      { points, from: breaks[k] as number, to: breaks[k + 1] as number, start: first, end: last },
      settings.tolerance,
    );
    return found !== null && suits(found, settings, LOOSE);
  };
  // Where no one direction suits both, there is a kink too slight to be told as a corner.
  const well = free.map((_, k) => suitsWell(k));
  const isKink = (k: number) => k > 0 && k < breaks.length - 1 && !(well[k - 1] && well[k]);
  return free.flatMap((_, k) => {
    const [first, last] = [isKink(k) ? null : (ways[k] ?? null), isKink(k + 1) ? null : (ways[k + 1] ?? null)];
    return within(
      points,
      { from: breaks[k] as number, to: breaks[k + 1] as number, start: first, end: last },
      settings,
    );
  });
}

/** A curve may be so many times as far off for one direction where it meets the next. */
const LOOSE = 1.5;

/** Directions are tried so far to either side, as multiples of what the tolerance makes over the shorter of two curves. */
const TRIED = [0.3, -0.3, 0.75, -0.75, 1.5, -1.5, 3, -3];
const SWEEPS = 2;

/** Turns the directions in which curves meet, one after the other, to where both pass their points best; where both do already, not. */
function aligned(
  points: readonly Point[],
  breaks: readonly number[],
  ways: (Point | null)[],
  settings: PieceSettings,
): void {
  const fitted = (k: number, first: Point | null, last: Point | null): LeastCubic | null =>
    leastCubic(
      { points, from: breaks[k] as number, to: breaks[k + 1] as number, start: first, end: last },
      settings.tolerance,
    );
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    let isChanged = false;
    for (let k = 1; k < breaks.length - 1; k++) {
      const way = ways[k];
      if (!way) continue;
      const off = (now: Point): { readonly off: number; readonly suits: boolean } => {
        const [before, after] = [fitted(k - 1, ways[k - 1] ?? null, now), fitted(k, now, ways[k + 1] ?? null)];
        if (!before || !after) return { off: Infinity, suits: false };
        return { off: Math.max(before.worst, after.worst), suits: suits(before, settings) && suits(after, settings) };
      };
      let best = off(way);
      if (best.suits) continue;
      const chords = [k - 1, k].map((i) => {
        const [p, q] = [points[breaks[i] as number] as Point, points[breaks[i + 1] as number] as Point];
        return Math.hypot(q.x - p.x, q.y - p.y);
      }) as [number, number];
      const unit = (4 * settings.tolerance) / Math.max(1, Math.min(...chords));
      for (const times of TRIED) {
        const angle = times * unit;
        const turned = {
          x: way.x * Math.cos(angle) - way.y * Math.sin(angle),
          y: way.x * Math.sin(angle) + way.y * Math.cos(angle),
        };
        const now = off(turned);
        if (now.off >= best.off) continue;
        best = now;
        ways[k] = turned;
        isChanged = true;
        if (now.suits) break;
      }
    }
    if (!isChanged) return;
  }
}

/** Moves the places where curves meet so that none is short beside a long one, where both still fit. */
function evened(
  points: readonly Point[],
  breaks: number[],
  start: Point | null,
  end: Point | null,
  settings: PieceSettings,
): void {
  for (let k = breaks.length - 2; k >= 1; k--) {
    const [i, j, l] = [breaks[k - 1] as number, breaks[k] as number, breaks[k + 1] as number];
    const middle = (i + l) >> 1;
    if (middle >= j || middle <= i) continue;
    const before = leastCubic({ points, from: i, to: middle, start: k === 1 ? start : null, end: null });
    const after = leastCubic({ points, from: middle, to: l, start: null, end: k === breaks.length - 2 ? end : null });
    if (before && after && suits(before, settings) && suits(after, settings)) breaks[k] = middle;
  }
}

/** The direction between those two curves come and go with. */
function between(before: LeastCubic | null | undefined, after: LeastCubic | null | undefined): Point | null {
  const u = before && tangentAt(before.curve, 1);
  const v = after && tangentAt(after.curve, 0);
  if (!u || !v) return u || v || null;
  const [x, y] = [u.x + v.x, u.y + v.y];
  const size = Math.hypot(x, y);
  return size > 0.5 ? { x: x / size, y: y / size } : null;
}

/** The curve between two points with given directions; halved where it does not pass those between. */
function within(
  points: readonly Point[],
  { from, to, start, end }: Omit<PointRun, 'points'>,
  settings: PieceSettings,
  depth = 0,
): Segment[] {
  const [p, q] = [points[from] as Point, points[to] as Point];
  if (to - from < 2) return [line(p.x, p.y, q.x, q.y)];
  const found = leastCubic({ points, from, to, start, end });
  if (!found) return [line(p.x, p.y, q.x, q.y)];
  if (suits(found, settings, LOOSE) || depth >= DEEPEST || to - from < 5) return [plain(found.curve)];
  const middle = (from + to) >> 1;
  const before = leastCubic({ points, from, to: middle, start, end: null });
  const after = leastCubic({ points, from: middle, to, start: null, end });
  const way = between(before, after);
  return [
    ...within(points, { from, to: middle, start, end: way }, settings, depth + 1),
    ...within(points, { from: middle, to, start: way, end }, settings, depth + 1),
  ];
}

/** A line where a curve is one. */
function plain(s: Cubic): Segment {
  const [dx, dy] = [s.x1 - s.x0, s.y1 - s.y0];
  const size = Math.hypot(dx, dy);
  const off = (x: number, y: number) => Math.abs((x - s.x0) * dy - (y - s.y0) * dx) / size;
  return size > 0 && off(s.ax, s.ay) < 0.01 && off(s.bx, s.by) < 0.01 ? line(s.x0, s.y0, s.x1, s.y1) : s;
}

/** Segments from the first to the last of the points of a piece without corners; none of fewer than two points. */
export function fitPiece(points: readonly Point[], settings: PieceSettings): Segment[] {
  const n = points.length;
  const [first, last] = [points[0], points[n - 1]];
  if (!first || !last || n < 2) return [];
  if (isLine(points, settings)) return [line(first.x, first.y, last.x, last.y)];
  return joined(...smoothed(points, settings), null, null);
}

/** Whether all points lie along the line between the first and the last. */
function isLine(points: readonly Point[], settings: PieceSettings): boolean {
  const [p, q] = [points[0] as Point, points[points.length - 1] as Point];
  const size = Math.hypot(q.x - p.x, q.y - p.y);
  if (size === 0) return false;
  let [sum, squares, worst] = [0, 0, 0];
  for (const m of points) {
    const off = ((q.x - p.x) * (m.y - p.y) - (q.y - p.y) * (m.x - p.x)) / size;
    sum += off;
    squares += off * off;
    worst = Math.max(worst, Math.abs(off));
  }
  // Those of a shallow bow all lie on one side.
  const isBow = Math.abs(sum / points.length) > Math.min(settings.tolerance / 3, 0.04 + settings.noise);
  return !isBow && suits({ worst, rms: Math.sqrt(squares / points.length) }, settings);
}

/** Points are smoothed over so many neighbours either way, where they stray by more than this; and stray by such a share of it then. */
const SMOOTHING = [
  { above: 0.12, by: 4, left: 0.6 },
  { above: 0.06, by: 3, left: 0.66 },
  { above: 0.025, by: 2, left: 0.78 },
] as const;

/** Points that stray, each moved onto the parabola through its neighbours (Savitzky and Golay 1964); the ends stay. */
function smoothed(points: readonly Point[], settings: PieceSettings): [Point[], PieceSettings] {
  const how = SMOOTHING.find(({ above }) => settings.noise > above);
  if (!how) return [[...points], settings];
  const n = points.length;
  const out = points.map((p, i) => {
    const m = Math.min(how.by, i - 1, n - 2 - i);
    if (m < 2) return p;
    const scale = ((2 * m - 1) * (2 * m + 1) * (2 * m + 3)) / 3;
    let [x, y] = [0, 0];
    for (let k = -m; k <= m; k++) {
      const weight = (3 * m * (m + 1) - 1 - 5 * k * k) / scale;
      const q = points[i + k] as Point;
      x += weight * q.x;
      y += weight * q.y;
    }
    return { x, y };
  });
  const noise = settings.noise * how.left;
  return [out, { noise, tolerance: Math.max(settings.tolerance * how.left, 0.12) }];
}

/** A straight stretch that ends this near to the end of a piece, in pixels along it, goes on to that. */
const NEARLY = 3;

/** Lines and curves in turn. The ends of straight stretches are moved onto their lines. */
function joined(points: Point[], settings: PieceSettings, start: Point | null, end: Point | null): Segment[] {
  const out: Segment[] = [];
  const last = points.length - 1;
  const isNear = (i: number, j: number, s: Straight): boolean => {
    const [p, q] = [points[i] as Point, points[j] as Point];
    return Math.hypot(p.x - q.x, p.y - q.y) < NEARLY && offLine(s, q) < settings.tolerance;
  };
  const lines = straights(points, leastStraight(settings), settings).map((s) => ({
    ...s,
    from: isNear(s.from, 0, s) ? 0 : s.from,
    to: isNear(s.to, last, s) ? last : s.to,
  }));
  let at = 0;
  let way = start;
  const curve = (to: number, wayTo: Point | null): Segment[] => {
    const smooth = bent(points, at, to, way, wayTo, settings);
    const isBesideLine = at > 0 || to < last;
    if (!isBesideLine || smooth.length < 3) return smooth;
    // A line and a curve may meet in a kink too slight to be told as a corner: it shows in many curves that try to get round it.
    const free = bent(points, at, to, at === 0 ? start : null, to === last ? end : null, settings);
    return free.length + 1 < smooth.length ? free : smooth;
  };
  for (const s of lines) {
    if (s.from > 0) points[s.from] = foot(points[s.from] as Point, s);
    if (s.to < last) points[s.to] = foot(points[s.to] as Point, s);
    out.push(...curve(s.from, s.way));
    const [p, q] = [points[s.from] as Point, points[s.to] as Point];
    out.push(line(p.x, p.y, q.x, q.y));
    at = s.to;
    way = s.way;
  }
  out.push(...curve(last, end));
  return out;
}

/** Segments through the points of a closed outline without corners. */
export function fitRing(points: readonly Point[], settings: PieceSettings): Segment[] {
  const n = points.length;
  if (n < 3) return [];
  const lap = [...points, ...points];
  // Opened at the end of a straight stretch, else anywhere, with the direction that a curve through that place has.
  const straight = straights(lap, leastStraight(settings), settings).find((s) => s.to < n || s.from > 0);
  const at = (straight ? straight.to : 0) % n;
  const ring = [...points.slice(at), ...points.slice(0, at), points[at] as Point];
  let way = straight?.way ?? null;
  if (straight) ring[0] = ring[n] = foot(ring[0] as Point, straight);
  else {
    const reach = Math.max(3, Math.min(n >> 3, 60));
    const around = [...ring.slice(n - reach, n), ...ring.slice(0, reach + 1)];
    const fits = (k: number): boolean => {
      const found = leastCubic({ points: around, from: reach - k, to: reach + k, start: null, end: null });
      return found !== null && suits(found, settings, 0.5);
    };
    const whole = farthest(4, reach, fits, FIRST_STEP);
    const found = leastCubic({ points: around, from: reach - whole, to: reach + whole, start: null, end: null });
    way = found && tangentAt(found.curve, 0.5);
  }
  return joined(...smoothed(ring, settings), way, way);
}
