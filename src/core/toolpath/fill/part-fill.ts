/** The lines that fill a part, what they cover, and what the tool cannot get to. */
import type { StepOf } from '../../document/schema';
import type { ClipEngine } from '../../geometry/boolean/engine';
import { offsetRegion } from '../../geometry/offset/offset';
import { flattenPath, type Path, pathLength, transformPath } from '../../geometry/path';
import {
  type Box,
  boxHeight,
  boxWidth,
  EMPTY_BOX,
  isEmptyBox,
  type Point,
  translation,
  uniteBoxes,
} from '../../geometry/point';
import { LIMITS } from '../../limits';
import { measureOutlines, type Outline, transformOutlines } from '../../prepare/outline';
import { type Cover, type CoverStrokes, coverOf } from './cover';
import { polygonsOf, type Turn, turnBy } from './polygons';
import { type Reach, reachOf } from './reach';
import { restOf } from './rest';
import { ringsOf } from './rings';
import { countRows, rowsOf } from './rows';
import { stripsOf } from './strips';
import { joinStrokes, lengthsOf, moveStrokes, NO_STROKES, StrokeBuilder, type Strokes, turnStrokes } from './strokes';
import { widthOf } from './tool';
import { tourOf } from './tour';

export type HatchStep = StepOf<'hatch'>;

/** A place that is missed, on the sheet. */
export type Missed = {
  readonly areaMm2: number;
  readonly box: Box;
  readonly at: Point;
  readonly sizeMm: readonly [number, number];
};

export type PartFill = {
  readonly widthMm: number;
  readonly spacingMm: number;
  /** Lines and what links them, in the order they are drawn. */
  readonly strokes: Strokes;
  /** Rings, run into each other. */
  readonly rings: readonly Path[];
  /** The pass along the edge. */
  readonly edge: readonly Path[];
  /** Strokes over what the others miss. */
  readonly rest: Strokes;
  /** Lines, or rings, and the strips they are drawn in. */
  readonly lines: number;
  readonly strips: number;
  readonly drawnMm: number;
  readonly travelMm: number;
  readonly cover: Omit<Cover, 'places'> & { readonly places: readonly Missed[] };
  readonly reach: Reach;
  /** What is left standing after the tool has been everywhere it can be. */
  readonly reached: readonly Outline[];
  /** More lines, or rings, than are made: how many it would be; null when there are not. */
  readonly tooMany: number | null;
};

/** Curves are flattened within this share of the tip, and at least and at most so many mm. */
export const flatness = (widthMm: number): number => Math.min(0.002, Math.max(0.0002, widthMm / 50));
/** Rows of a tip's width that cover is looked at in; places are told from this share of the tip's own area on. */
const ROWS_A_TIP = 12;
const ROW_MOST_MM = 0.1;
const PLACE_OF_TIP = 0.1;
/** Rounds of strokes over what is still missed. */
const REST_ROUNDS = 3;
/** Strokes over the rest are for places down to this share of the tip's area. */
const REST_OF_TIP = 0.01;

/** What is known of a part under a tip: where its middle may stand, and what it can cover. Held by the width. */
export type Room = { readonly outlines: readonly Outline[]; readonly reached: readonly Outline[] };

export function roomOf(engine: ClipEngine, outlines: readonly Outline[], widthMm: number): Room {
  // A tip fits into a stroke just as wide as it is: what is left of that is a thread.
  const inner = measureOutlines(offsetRegion(engine, outlines, -widthMm / 2, 'round', undefined, NO_THREAD));
  return { outlines: inner, reached: measureOutlines(offsetRegion(engine, inner, widthMm / 2, 'round')) };
}

const NO_THREAD = 0;

/** Height of rows that a shape under a tip is looked at in, whatever their direction. */
export function rowStep(widthMm: number, outlines: readonly Outline[]): number {
  const box = outlines.reduce<Box>((all, o) => uniteBoxes(all, o.box), EMPTY_BOX);
  const most = isEmptyBox(box) ? 0 : Math.hypot(boxWidth(box), boxHeight(box));
  return Math.max(Math.min(widthMm / ROWS_A_TIP, ROW_MOST_MM), most / LIMITS.coverRows);
}

/** The lines that fill a shape, before anything is asked about them. */
export type FillLines = Pick<
  PartFill,
  'widthMm' | 'spacingMm' | 'strokes' | 'rings' | 'edge' | 'lines' | 'strips' | 'drawnMm' | 'travelMm' | 'tooMany'
>;

/**
 * Lines that fill the room a tip has; they pass through `origin`, so that they lie alike wherever the part is. Yields the share
 * done, as far as it can be told.
 */
export function* fillLines(
  engine: ClipEngine,
  origin: Point,
  step: HatchStep,
  { outlines }: Room,
): Generator<number, FillLines> {
  const widthMm = widthOf(step.tool);
  const spacingMm = widthMm * (1 - step.overlap);
  const made =
    step.style === 'rings'
      ? yield* ringLines(engine, outlines, spacingMm)
      : yield* rowLines(origin, step, spacingMm, outlines);
  const edge = step.outline === 'none' || step.style === 'rings' ? [] : pathsOf(outlines);
  const { drawn, travel } = lengthsOf(made.strokes);
  return {
    ...made,
    widthMm,
    spacingMm,
    edge,
    drawnMm: drawn + [...made.rings, ...edge].reduce((sum, p) => sum + pathLength(p), 0),
    travelMm: travel,
  };
}

type Made = Pick<PartFill, 'strokes' | 'rings' | 'lines' | 'strips' | 'tooMany'>;

/** Rings done are shown as this share at most: how many there will be is not known. */
const RINGS_SHOWN = 200;

function* ringLines(engine: ClipEngine, outlines: readonly Outline[], spacing: number): Generator<number, Made> {
  const made = ringsOf(engine, outlines, spacing, LIMITS.fillRings);
  for (let next = made.next(); ; next = made.next()) {
    if (!next.done) {
      yield Math.min(1, next.value / RINGS_SHOWN);
      continue;
    }
    const { paths, rings, left } = next.value;
    return left
      ? { strokes: NO_STROKES, rings: [], lines: 0, strips: 0, tooMany: LIMITS.fillRings }
      : { strokes: NO_STROKES, rings: paths, lines: rings, strips: paths.length, tooMany: null };
  }
}

function* rowLines(
  origin: Point,
  step: HatchStep,
  spacing: number,
  outlines: readonly Outline[],
): Generator<number, Made> {
  const angles = step.style === 'crossed' ? [step.angle, step.angle + 90] : [step.angle];
  const all: Strokes[] = [];
  let [lines, strips] = [0, 0];
  for (const angle of angles) {
    const set = hatchSet(pathsOf(outlines), origin, step, spacing, flatness(widthOf(step.tool)), angle);
    if (typeof set === 'number') return { strokes: NO_STROKES, rings: [], lines: 0, strips: 0, tooMany: set };
    all.push(set.strokes);
    lines += set.lines;
    strips += set.strips;
    yield all.length / angles.length;
  }
  return { strokes: joinStrokes(all), rings: [], lines, strips, tooMany: null };
}

/** Fills a part: its lines, what they cover, and what the tip cannot reach. Yields the share done. */
export function* partFill(
  engine: ClipEngine,
  outlines: readonly Outline[],
  origin: Point,
  step: HatchStep,
  room: Room,
): Generator<number, PartFill> {
  const made = yield* shareFrom(fillLines(engine, origin, step, room), 0, 0.4);
  const { widthMm, strokes } = made;
  const flat = flatness(widthMm);
  const turn = turnBy(step.angle);
  const inner = polygonsOf(pathsOf(room.outlines), flat, turn);
  const rowMm = rowStep(widthMm, outlines);
  const shape = polygonsOf(pathsOf(outlines), flat, turn);
  const reach = polygonsOf(pathsOf(room.reached), flat, turn);
  const tip = (Math.PI * widthMm * widthMm) / 4;
  const ask = (rest: Strokes, least: number) => ({
    region: shape,
    areaMm2: outlines.reduce((sum, o) => sum + o.area, 0),
    reach,
    strokes: segmentsOf(strokes, [...made.rings, ...made.edge], rest, flat, turn),
    radius: widthMm / 2,
    step: rowMm,
    least: least * tip,
  });
  const wantsRest = step.rest && step.overlap >= 0 && made.tooMany === null;
  let rest = NO_STROKES;
  let cover = yield* shareFrom(coverOf(ask(rest, wantsRest ? REST_OF_TIP : PLACE_OF_TIP)), 0.4, wantsRest ? 0.6 : 1);
  for (let round = 0; wantsRest && round < REST_ROUNDS && cover.places.length > 0; round++) {
    rest = joinStrokes([rest, turnStrokes(restOf(cover.places, inner, widthMm / 2), turn)]);
    const from = 0.6 + (0.4 * round) / REST_ROUNDS;
    cover = yield* shareFrom(coverOf(ask(rest, REST_OF_TIP)), from, from + 0.4 / REST_ROUNDS);
  }
  rest = inTour(
    rest,
    Int32Array.from({ length: rest.start.length }, (_, i) => i),
  );
  const { drawn, travel } = lengthsOf(rest);
  return {
    ...made,
    rest,
    drawnMm: made.drawnMm + drawn,
    travelMm: made.travelMm + travel,
    cover: {
      ...cover,
      // With room left between the lines nothing is missed: it is meant so.
      places:
        step.overlap < 0
          ? []
          : cover.places.filter((p) => p.area >= PLACE_OF_TIP * tip).map((p) => missedPlace(p, turn)),
    },
    reach: reachOf(outlines, room.reached, rowMm, flat),
    reached: room.reached,
  };
}

const pathsOf = (outlines: readonly Outline[]): Path[] => outlines.map((o) => o.path);

function* shareFrom<T>(of: Generator<number, T>, from: number, to: number): Generator<number, T> {
  for (;;) {
    const next = of.next();
    if (next.done) return next.value;
    yield from + (to - from) * next.value;
  }
}

/** One set of lines in the order they are drawn, and how many strips it has; or how many lines would be too many. */
function hatchSet(
  paths: readonly Path[],
  origin: Point,
  step: HatchStep,
  spacing: number,
  flat: number,
  angle: number,
): { readonly strokes: Strokes; readonly lines: number; readonly strips: number } | number {
  const turn = turnBy(angle);
  const polygons = polygonsOf(paths, flat, turn);
  const count = countRows(polygons, spacing);
  if (count > LIMITS.fillLines) return count;
  const rows = rowsOf(polygons, spacing, turn.cos * origin.y - turn.sin * origin.x);
  if (rows.x.length / 2 > LIMITS.fillLines) return rows.x.length / 2;
  const hatch = stripsOf(rows, polygons, step.least, step.joined);
  const ordered = inTour(hatch.strokes, hatch.strips);
  return { strokes: turnStrokes(ordered, turn), lines: hatch.lines, strips: hatch.strips.length - 1 };
}

/** Groups of strokes (from strips[i] to strips[i + 1]) put in the order of a short tour; whole groups are turned round. */
function inTour({ xy, start }: Strokes, strips: Int32Array): Strokes {
  const n = strips.length - 1;
  if (n < 1) return NO_STROKES;
  const ends = new Float64Array(4 * n);
  for (let i = 0; i < n; i++) {
    const first = start[strips[i] as number] as number;
    const last = (start[strips[i + 1] as number] as number) - 1;
    ends.set(
      [xy[2 * first] as number, xy[2 * first + 1] as number, xy[2 * last] as number, xy[2 * last + 1] as number],
      4 * i,
    );
  }
  const out = new StrokeBuilder();
  for (const o of tourOf(ends)) {
    const piece = o < 0 ? -1 - o : o;
    const [from, to] = [strips[piece] as number, strips[piece + 1] as number];
    for (let k = 0; k < to - from; k++) {
      const s = o < 0 ? to - 1 - k : from + k;
      const [a, b] = [start[s] as number, start[s + 1] as number];
      for (let p = 0; p < b - a; p++) {
        const at = o < 0 ? b - 1 - p : a + p;
        out.add(xy[2 * at] as number, xy[2 * at + 1] as number);
      }
      out.lift();
    }
  }
  return out.done();
}

/** All that is drawn, as segments in the turned frame. */
function segmentsOf(
  strokes: Strokes,
  paths: readonly Path[],
  rest: Strokes,
  flat: number,
  { cos, sin }: Turn,
): CoverStrokes {
  const drawn = [strokes, rest];
  const polylines = paths.map((p) => flattenPath(p, flat));
  const count =
    drawn.reduce((sum, s) => sum + s.xy.length / 2 - (s.start.length - 1), 0) +
    polylines.reduce((sum, points, i) => sum + points.length - (paths[i]?.closed ? 0 : 1), 0);
  const out = new Float64Array(4 * Math.max(0, count));
  let k = 0;
  const put = (x0: number, y0: number, x1: number, y1: number) => {
    out[k++] = cos * x0 + sin * y0;
    out[k++] = cos * y0 - sin * x0;
    out[k++] = cos * x1 + sin * y1;
    out[k++] = cos * y1 - sin * x1;
  };
  for (const { xy, start } of drawn)
    for (let s = 0; s + 1 < start.length; s++)
      for (let i = (start[s] as number) + 1; i < (start[s + 1] as number); i++)
        put(xy[2 * i - 2] as number, xy[2 * i - 1] as number, xy[2 * i] as number, xy[2 * i + 1] as number);
  polylines.forEach((points, n) => {
    const closed = paths[n]?.closed === true;
    points.forEach((p, i) => {
      const q = points[i + 1] ?? (closed ? points[0] : undefined);
      if (q) put(p.x, p.y, q.x, q.y);
    });
  });
  return out;
}

/** A missed place back on the sheet, with the middle of its longest row. */
function missedPlace(place: Cover['places'][number], { cos, sin }: Turn): Missed {
  const corners = [
    [place.minX, place.minY],
    [place.maxX, place.minY],
    [place.maxX, place.maxY],
    [place.minX, place.maxY],
  ].map(([x, y]) => ({ x: cos * (x as number) - sin * (y as number), y: sin * (x as number) + cos * (y as number) }));
  let [longest, lx, ly] = [-1, 0, 0];
  for (let i = 0; i < place.rows.length; i += 3) {
    const [y, lo, hi] = [place.rows[i] as number, place.rows[i + 1] as number, place.rows[i + 2] as number];
    if (hi - lo <= longest) continue;
    [longest, lx, ly] = [hi - lo, (lo + hi) / 2, y];
  }
  return {
    areaMm2: place.area,
    box: {
      minX: Math.min(...corners.map((c) => c.x)),
      maxX: Math.max(...corners.map((c) => c.x)),
      minY: Math.min(...corners.map((c) => c.y)),
      maxY: Math.max(...corners.map((c) => c.y)),
    },
    at: { x: cos * lx - sin * ly, y: sin * lx + cos * ly },
    sizeMm: [place.maxX - place.minX, place.maxY - place.minY],
  };
}

/** The same in another place. */
export function movedFill(fill: PartFill, dx: number, dy: number): PartFill {
  if (dx === 0 && dy === 0) return fill;
  const m = translation(dx, dy);
  return {
    ...fill,
    strokes: moveStrokes(fill.strokes, dx, dy),
    rest: moveStrokes(fill.rest, dx, dy),
    rings: fill.rings.map((p) => transformPath(p, m)),
    edge: fill.edge.map((p) => transformPath(p, m)),
    reached: transformOutlines(fill.reached, m),
    cover: {
      ...fill.cover,
      places: fill.cover.places.map((p) => ({
        ...p,
        at: { x: p.at.x + dx, y: p.at.y + dy },
        box: { minX: p.box.minX + dx, maxX: p.box.maxX + dx, minY: p.box.minY + dy, maxY: p.box.maxY + dy },
      })),
    },
  };
}
