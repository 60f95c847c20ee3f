/**
 * Dots along lines: corners, ends and joints are always met, and the stretches between them get dots at the spacing asked,
 * a little stretched or squeezed where it is to come out even. Dots that would lie on others are left out or told.
 */
import { numberAt } from '../../geometry/elements';
import { measureLine, turnInto } from '../../geometry/measure';
import type { Path } from '../../geometry/path';
import type { Point } from '../../geometry/point';
import type { Segment } from '../../geometry/segment';
import { LIMITS } from '../../limits';
import { meetingsOf } from './meetings';
import { Near } from './near';

/** How dots are set along lines: spacing, size and least distance, in mm. */
export type DotSettings = {
  readonly diameter: number;
  /** From middle to middle along the line. */
  readonly spacing: number;
  readonly even: boolean;
  /** Whether dots that would lie on others are left out. */
  readonly apart: boolean;
};

/** A dot that was set, and whether others give way to it. */
export type PlacedDot = Point & {
  /** At a corner, an end or a joint: it stays where others give way. */
  readonly fixed: boolean;
};

/** The dots along lines, and where they lie on each other. */
export type Dots = {
  readonly dots: readonly PlacedDot[];
  /** Places where dots lie on each other, each once. */
  readonly clashes: readonly Point[];
  /** Dots that were left out because they would have lain on others. */
  readonly leftOut: number;
  /** Whether there would be more than are made; then there are none. */
  readonly tooMany: boolean;
};

/** A line turns a corner from here on, in radians. */
const CORNER = (30 * Math.PI) / 180;
/** Dots may be nearer than touching by this, in mm: rounding. */
const ROUNDING_MM = 1e-6;
/** Fixed dots nearer to each other than this share of a diameter are one. */
const SAME = 0.1;

/** Lengths along a path at which a dot must be: corners, ends, and where other lines meet it. */
function stationsOf(path: Path, starts: readonly number[], length: number, met: readonly number[]): number[] {
  const out = [...met];
  path.segments.forEach((s, i) => {
    if (i === 0 && !path.closed) return;
    const before = path.segments[(i + path.segments.length - 1) % path.segments.length] as Segment;
    if (turnInto(before, s) > CORNER) out.push(numberAt(starts, i));
  });
  if (!path.closed) out.push(0, length);
  out.sort((a, b) => a - b);
  return out.filter((v, i) => i === 0 || v - numberAt(out, i - 1) > ROUNDING_MM);
}

/** Lengths of the dots between two stations, without those. */
function between(from: number, to: number, { diameter, spacing, even }: DotSettings): number[] {
  const length = to - from;
  const most = Math.floor(length / diameter + ROUNDING_MM);
  if (even) {
    const n = Math.min(Math.max(1, Math.round(length / spacing)), Math.max(1, most));
    return Array.from({ length: n - 1 }, (_, k) => from + (length * (k + 1)) / n);
  }
  const out: number[] = [];
  for (let k = 1; k * spacing < length - ROUNDING_MM && out.length < LIMITS.dots; k++) out.push(from + k * spacing);
  const last = out[out.length - 1];
  if (last !== undefined && to - last < diameter - ROUNDING_MM) out.pop();
  return out;
}

const TOO_MANY: Dots = { dots: [], clashes: [], leftOut: 0, tooMany: true };

/**
 * Places of dots along lines, and of those that stand alone, such as the dot of an i, before which others give way;
 * `diameter` and `spacing` above 0.
 */
export function dotsAlong(paths: readonly Path[], settings: DotSettings, alone: readonly Point[] = []): Dots {
  const { spacing, diameter } = settings;
  const measured = paths.map(measureLine);
  // What would be too many is not even begun.
  const expected = measured.reduce((sum, m) => sum + Math.floor(m.length / spacing), 0);
  if (expected > LIMITS.dots) return TOO_MANY;
  const met = meetingsOf(paths, measured, SAME * diameter);
  const fixed: PlacedDot[] = alone.map(({ x, y }) => ({ x, y, fixed: true }));
  const free: PlacedDot[] = [];
  paths.forEach((path, i) => {
    const { length, starts, at } = measured[i] as (typeof measured)[number];
    if (length === 0) return;
    const stations = stationsOf(path, starts, length, met[i] as number[]);
    const put = (list: PlacedDot[], from: number, isFixed: boolean) => list.push({ ...at(from), fixed: isFixed });
    for (const s of stations) put(fixed, s, true);
    if (path.closed && stations.length === 0) {
      const n = Math.max(1, settings.even ? Math.round(length / spacing) : Math.floor(length / spacing));
      for (let k = 0; k < n; k++) put(free, settings.even ? (length * k) / n : k * spacing, false);
      return;
    }
    const ends = path.closed ? [...stations, numberAt(stations, 0) + length] : stations;
    for (let k = 0; k + 1 < ends.length; k++)
      for (const s of between(numberAt(ends, k), numberAt(ends, k + 1), settings))
        put(free, s > length ? s - length : s, false);
  });
  return fixed.length + free.length > 2 * LIMITS.dots ? TOO_MANY : settled(fixed, free, settings);
}

/** Fixed dots that fall together made one, and those too near to others left out or told. */
function settled(fixed: readonly PlacedDot[], free: readonly PlacedDot[], { diameter, apart }: DotSettings): Dots {
  const near = new Near<PlacedDot>(diameter);
  const dots: PlacedDot[] = [];
  const clashes: Point[] = [];
  let leftOut = 0;
  const place = (dot: PlacedDot) => {
    const other = near.nearest(dot, diameter - ROUNDING_MM);
    if (other && apart) {
      leftOut++;
      return;
    }
    if (other) clashes.push({ x: (dot.x + other.x) / 2, y: (dot.y + other.y) / 2 });
    near.add(dot);
    dots.push(dot);
  };
  for (const dot of fixed) if (!near.nearest(dot, SAME * diameter)) place(dot);
  for (const dot of free) place(dot);
  return dots.length > LIMITS.dots ? TOO_MANY : { dots, clashes, leftOut, tooMany: false };
}

/** Places where dots lie on each other, each once. */
export function clashesOf(dots: readonly Point[], diameter: number): Point[] {
  const near = new Near<Point>(diameter);
  return dots.flatMap((dot) => {
    const other = near.nearest(dot, diameter - ROUNDING_MM);
    near.add(dot);
    return other ? [{ x: (dot.x + other.x) / 2, y: (dot.y + other.y) / 2 }] : [];
  });
}
