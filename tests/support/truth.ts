/**
 * Centerlines judged against a truth: letters of one-line faces drawn with a pen of known width, welded by another library,
 * recovered, and compared with the lines the pen followed.
 */
import { nestPaths } from '../../src/core/geometry/nesting';
import { flattenPath, type Path, pathArea, pathBox, transformPath } from '../../src/core/geometry/path';
import { boxCentre, boxHeight, boxWidth, type Point, scaling } from '../../src/core/geometry/point';
import type { Typeface } from '../../src/core/lettering/face';
import { centerlineOf, penOf } from '../../src/core/toolpath/centerline/centerline';
import { PEN_LETTERS } from '../../src/core/toolpath/centerline/part-lines';
import { penned, type Tip } from './pen';

export type Judged = {
  readonly character: string;
  /** Distances in widths of the pen, from points along the recovered lines to the true ones, and the other way. */
  readonly toTruth: readonly number[];
  readonly fromTruth: readonly number[];
  /** How far each free end of the truth is from the nearest recovered end, in widths. */
  readonly ends: readonly number[];
  readonly freeEnds: readonly [truth: number, recovered: number];
  readonly loops: readonly [truth: number, recovered: number];
};

type Line = readonly Point[];

const CAPITAL = 10;

/** Regions that hang together. */
function regionsOf(paths: readonly Path[]): Path[][] {
  const { parent, depth } = nestPaths(paths);
  return paths.flatMap((path, i) =>
    (depth[i] as number) % 2 === 0 ? [[path, ...paths.filter((_, k) => parent[k] === i)]] : [],
  );
}

function pointsAlong(lines: readonly Line[], step: number): Point[] {
  return lines.flatMap((line) =>
    line.slice(1).flatMap((q, i) => {
      const p = line[i] as Point;
      const n = Math.max(1, Math.ceil(Math.hypot(q.x - p.x, q.y - p.y) / step));
      return Array.from({ length: n }, (_, k) => ({ x: p.x + ((q.x - p.x) * k) / n, y: p.y + ((q.y - p.y) * k) / n }));
    }),
  );
}

/** How far a point is from the nearest of some lines. */
export function distanceTo({ x, y }: Point, lines: readonly Line[]): number {
  let least = Infinity;
  for (const line of lines)
    for (let i = 1; i < line.length; i++) {
      const [p, q] = [line[i - 1] as Point, line[i] as Point];
      const [dx, dy] = [q.x - p.x, q.y - p.y];
      const size = dx * dx + dy * dy;
      const t = size > 0 ? Math.max(0, Math.min(1, ((x - p.x) * dx + (y - p.y) * dy) / size)) : 0;
      least = Math.min(least, (p.x + t * dx - x) ** 2 + (p.y + t * dy - y) ** 2);
    }
  return Math.sqrt(least);
}

/** The first place along a line from another that is so far from it, or its end. */
function reach(line: Line, from: number, step: 1 | -1, far: number): Point {
  const p = line[from] as Point;
  let i = from + step;
  while (line[i + step] && Math.hypot((line[i] as Point).x - p.x, (line[i] as Point).y - p.y) < far) i += step;
  return line[i] as Point;
}

type FreeEnd = Point & { readonly sure: boolean };

/**
 * Tips of a drawing: ends and sharp turns of its lines about which all else lies to one side, so that a pen leaves a free end
 * there. Lines drawn twice have one tip where they both end. One that is sharp by little, or by little not, is not sure.
 */
function tipsOf(lines: readonly Line[], width: number): FreeEnd[] {
  const around = [...pointsAlong(lines, width / 20), ...lines.flatMap((line) => line.slice(-1))];
  const candidates = lines.flatMap((line) =>
    line.flatMap((p, i): FreeEnd[] => {
      if (i === 0 || i === line.length - 1) return [{ ...p, sure: true }];
      // A turn may be spread over places that are all but one.
      const [before, after] = [reach(line, i, -1, SPREAD * width), reach(line, i, 1, SPREAD * width)];
      const [ux, uy, vx, vy] = [p.x - before.x, p.y - before.y, after.x - p.x, after.y - p.y];
      const turn = Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy));
      return turn < SHARP - LITTLE ? [] : [{ ...p, sure: turn > SHARP + LITTLE }];
    }),
  );
  const tips: FreeEnd[] = [];
  for (const p of candidates) {
    const ways = around
      .filter((q) => Math.hypot(q.x - p.x, q.y - p.y) > 0.45 * width && Math.hypot(q.x - p.x, q.y - p.y) < 0.75 * width)
      .map((q) => Math.atan2(q.y - p.y, q.x - p.x));
    const [first] = ways;
    if (first === undefined) continue;
    const turned = ways.map((w) => ((w - first + 3 * Math.PI) % (2 * Math.PI)) - Math.PI);
    const side = Math.max(...turned) - Math.min(...turned);
    if (side > ONE_SIDE + LITTLE) continue;
    if (tips.every((t) => Math.hypot(t.x - p.x, t.y - p.y) > 0.4 * width))
      tips.push({ ...p, sure: p.sure && side < ONE_SIDE - LITTLE });
  }
  return tips;
}
const SHARP = (100 * Math.PI) / 180;
const SPREAD = 0.06;
const ONE_SIDE = (80 * Math.PI) / 180;
const LITTLE = (6 * Math.PI) / 180;

/** Loops that are at least 0.3 pens wide. */
const loopsIn = (lines: readonly Path[], width: number): number =>
  lines.length === 0
    ? 0
    : penned(lines, 0.3 * width, 'round').filter((p) => pathArea(p) < -((0.05 * width) ** 2)).length;

/** The lines of a character, of which capitals are CAPITAL high. */
function linesOf(face: Typeface, character: string): Path[] {
  const [glyph] = face.shape(character, 'ltr', { ligatures: false, features: [] });
  return face.outline(glyph?.glyph ?? 0).map((p) => transformPath(p, scaling(CAPITAL / face.capHeight)));
}

/** What is told about the pen from the letters that are looked at in any typeface. */
export const penTold = (face: Typeface, share: number, tip: Tip): number | null =>
  penOf([...PEN_LETTERS].flatMap((c) => regionsOf(penned(linesOf(face, c), CAPITAL * share, tip))));

/**
 * Draw a character with a pen `share` of the capital height wide, and recover its lines, with what is told about the pen; null
 * where it has none.
 */
export function judge(face: Typeface, character: string, share: number, tip: Tip, pen: number | null): Judged | null {
  const width = CAPITAL * share;
  const drawn = linesOf(face, character);
  if (drawn.length === 0) return null;
  // A dot is drawn as a tiny ring or a very short line apart from all else; what it stands for is its middle.
  const isDot = (p: Path) => {
    const box = pathBox(p);
    if (Math.hypot(boxWidth(box), boxHeight(box)) >= 1.6 * width) return false;
    const others = drawn.filter((o) => o !== p).map((o) => flattenPath(o, width / 100));
    return distanceTo(boxCentre(box), others) > width;
  };
  const truth = drawn.map((p): Line => {
    if (!isDot(p)) return flattenPath(p, width / 400);
    const box = pathBox(p);
    const [x, y] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
    return [
      { x, y },
      { x, y },
    ];
  });
  const made = regionsOf(penned(drawn, width, tip)).map((region) =>
    centerlineOf(region, { detail: 0.45, smooth: 0.01, ends: tip === 'round' ? 'short' : 'tip', pen }),
  );
  const lines = made.flatMap((m) => m.paths);
  const flat = lines.map((p): Line => {
    const points = flattenPath(p, width / 500);
    return p.closed ? [...points, points[0] as Point] : points;
  });
  const dots = made.flatMap((m) =>
    m.dots.map(
      ({ x, y }): Line => [
        { x, y },
        { x, y },
      ],
    ),
  );
  const recovered = [...flat, ...dots];
  const step = width / 10;
  const real = drawn.filter((p) => !isDot(p));
  const realLines = truth.filter((_, i) => !isDot(drawn[i] as Path));
  const [truths, founds] = [tipsOf(realLines, width), tipsOf(flat, width)];
  // Places at the limit count in neither drawing.
  const unsure = [...truths, ...founds].filter((t) => !t.sure);
  const isSure = (p: Point) => unsure.every((t) => Math.hypot(t.x - p.x, t.y - p.y) > 0.3 * width);
  const [trueEnds, foundEnds] = [truths.filter(isSure), founds.filter(isSure)];
  return {
    character,
    toTruth: pointsAlong(flat, step).map((p) => distanceTo(p, truth) / width),
    fromTruth: pointsAlong(realLines, step).map((p) => distanceTo(p, recovered) / width),
    ends: trueEnds.map((e) => Math.min(3, ...founds.map((f) => Math.hypot(e.x - f.x, e.y - f.y) / width))),
    freeEnds: [trueEnds.length, foundEnds.length],
    loops: [loopsIn(real, width), loopsIn(lines, width)],
  };
}

export const quantile = (values: readonly number[], share: number): number => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0;
};
export const mean = (values: readonly number[]): number =>
  values.reduce((a, b) => a + b, 0) / Math.max(1, values.length);
