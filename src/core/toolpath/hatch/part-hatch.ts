/** The lines that fill a part, what they cover, and what the tool cannot get to. */
import type { ClipEngine } from '../../geometry/boolean/engine';
import { type Drawable, drawnLength, moveDrawable, travelThrough } from '../../geometry/drawable';
import { floatAt, intAt, numberAt } from '../../geometry/elements';
import { flattenPath, type Path, transformPath } from '../../geometry/path';
import {
  applyMatrix,
  type Box,
  EMPTY_BOX,
  type Matrix,
  type Point,
  transformedBox,
  uniteBoxes,
} from '../../geometry/point';
import { joinStrokes, NO_STROKES, type Strokes, transformStrokes, turnStrokes } from '../../geometry/strokes';
import { once, shareFrom } from '../../memo';
import { type Outline, transformOutlines } from '../../prepare/outline';
import { type Cover, type CoverStrokes, coverOf } from './cover';
import { type HatchLines, type HatchSettings, hatchLines, outlinePaths } from './hatch-lines';
import { inOrder } from './in-order';
import { strokesOverMissed } from './over-missed';
import { polygonsOf, type Turn, turnBy } from './polygons';
import { type Reach, reachOf } from './reach';
import { spread } from './spread';
import { flatness, rowStep, type TipRoom } from './tip-room';

/** A place that is missed, on the sheet. */
export type Missed = {
  readonly areaMm2: number;
  readonly box: Box;
  readonly at: Point;
  /** Its length, and its width on the average. */
  readonly sizeMm: readonly [number, number];
};

/** The hatch lines of a part on the sheet, with what they cover and what is out of reach. */
export type PartHatch = HatchLines & {
  /** Strokes over what the others miss. */
  readonly overMissed: Strokes;
  /** Whether the pass along the edge comes before the lines that end on it. */
  readonly edgeFirst: boolean;
  /** All that is drawn, in the order it is drawn in. */
  readonly drawn: readonly Drawable[];
  /** The way between them, in mm. */
  readonly travelMm: number;
  readonly cover: Omit<Cover, 'places'> & { readonly places: readonly Missed[] };
  readonly reach: Reach;
  /** What is left standing after the tool has been everywhere it can be. */
  readonly reached: readonly Outline[];
};

/** Places are told from this share of the tip's own area on. */
const PLACE_OF_TIP = 0.1;
/**
 * Cover is looked at in rows a little askew to the lines: edges and lines that run along a row would all be taken a little too
 * high or too low at once, askew that evens out.
 */
const ASKEW = 4;
/** Areas are looked at on curves flattened so many times finer than lines: chords of a thin stroke would cost it a share. */
const FINER = 4;
/** Rounds of strokes over what is still missed. */
const REST_ROUNDS = 3;
/** Strokes over the rest are for places down to this share of the tip's area. */
const REST_OF_TIP = 0.01;

/** Fills a part: its lines, what they cover, and what the tip cannot reach. Yields the share done. */
export function* partHatch(
  engine: ClipEngine,
  outlines: readonly Outline[],
  { origin, step, room }: { readonly origin: Point; readonly step: HatchSettings; readonly room: TipRoom },
): Generator<number, PartHatch> {
  const made = yield* shareFrom(hatchLines(engine, origin, step, room), 0, 0.4);
  const { widthMm, strokes } = made;
  const flat = flatness(widthMm) / FINER;
  const turn = turnBy(step.angle + ASKEW);
  yield 0.4;
  const inner = polygonsOf(outlinePaths(room.outlines), flat, turn);
  const rowMm = rowStep(widthMm, outlines);
  const shape = polygonsOf(outlinePaths(outlines), flat, turn);
  const reach = polygonsOf(outlinePaths(room.reached), flat, turn);
  const own = yield* shareFrom(pathSegments([...made.rings, ...made.edge], flat, turn), 0.4, 0.42);
  const base = joinedSegments([segmentsOf(strokes, turn), ...own]);
  const tip = (Math.PI * widthMm * widthMm) / 4;
  const ask = (more: Strokes, least: number) => ({
    region: shape,
    areaMm2: outlines.reduce((sum, o) => sum + o.area, 0),
    reach,
    strokes: joinedSegments([base, segmentsOf(more, turn)]),
    radius: widthMm / 2,
    step: rowMm,
    least: least * tip,
  });
  const wantsRest = step.fillMissed && step.overlap >= 0 && made.tooMany === null;
  let overMissed = NO_STROKES;
  let cover = yield* shareFrom(
    coverOf(ask(overMissed, wantsRest ? REST_OF_TIP : PLACE_OF_TIP)),
    0.42,
    wantsRest ? 0.6 : 1,
  );
  for (let round = 0; wantsRest && round < REST_ROUNDS && cover.places.length > 0; round++) {
    const [from, share] = [0.6 + (0.4 * round) / REST_ROUNDS, 0.4 / REST_ROUNDS];
    const more = yield* shareFrom(strokesOverMissed(cover.places, inner, widthMm / 2), from, from + share / 2);
    overMissed = joinStrokes([overMissed, turnStrokes(more, turn)]);
    cover = yield* shareFrom(coverOf(ask(overMissed, REST_OF_TIP)), from + share / 2, from + share);
  }
  yield 1;
  const edgeFirst = step.outline === 'first';
  const drawn = inOrder({ ...made, overMissed, edgeFirst });
  yield 1;
  const reached = yield* shareFrom(reachOf(outlines, room.reached, rowMm, flat), 1, 1);
  return {
    ...made,
    overMissed,
    edgeFirst,
    drawn,
    drawnMm: drawn.reduce((sum, d) => sum + drawnLength(d), 0),
    travelMm: travelThrough(drawn),
    cover: {
      ...cover,
      // With room left between the lines nothing is missed: it is meant so.
      places:
        step.overlap < 0
          ? []
          : cover.places.filter((p) => p.area >= PLACE_OF_TIP * tip).map((p) => missedPlace(p, turn)),
    },
    reach: reached,
    reached: room.reached,
  };
}

/** Where segments of strokes are put, in the turned frame. */
const segmentsInto = (out: Float64Array, { cos, sin }: Turn) => {
  let k = 0;
  return (x0: number, y0: number, x1: number, y1: number): void => {
    out[k++] = cos * x0 + sin * y0;
    out[k++] = cos * y0 - sin * x0;
    out[k++] = cos * x1 + sin * y1;
    out[k++] = cos * y1 - sin * x1;
  };
};

/** Packed strokes as segments in the turned frame. */
function segmentsOf({ xy, start }: Strokes, turn: Turn): CoverStrokes {
  const out = new Float64Array(4 * Math.max(0, xy.length / 2 - (start.length - 1)));
  const put = segmentsInto(out, turn);
  for (let s = 0; s + 1 < start.length; s++)
    for (let i = intAt(start, s) + 1; i < intAt(start, s + 1); i++)
      put(floatAt(xy, 2 * i - 2), floatAt(xy, 2 * i - 1), floatAt(xy, 2 * i), floatAt(xy, 2 * i + 1));
  return out;
}

/** Paths as segments in the turned frame. Yields after each. */
function* pathSegments(paths: readonly Path[], flat: number, turn: Turn): Generator<number, CoverStrokes[]> {
  const all: CoverStrokes[] = [];
  for (const [n, path] of paths.entries()) {
    const points = flattenPath(path, flat);
    const out = new Float64Array(4 * Math.max(0, points.length - (path.closed ? 0 : 1)));
    const put = segmentsInto(out, turn);
    points.forEach((p, i) => {
      const q = points[i + 1] ?? (path.closed ? points[0] : undefined);
      if (q) put(p.x, p.y, q.x, q.y);
    });
    all.push(out);
    yield (n + 1) / paths.length;
  }
  return all;
}

/** Segments of several, one after another. */
function joinedSegments(all: readonly CoverStrokes[]): CoverStrokes {
  const out = new Float64Array(all.reduce((sum, one) => sum + one.length, 0));
  let at = 0;
  for (const one of all) {
    out.set(one, at);
    at += one.length;
  }
  return out;
}

/** A missed place back on the sheet: the middle of its longest row, and how long and wide it is on the whole. */
function missedPlace({ area, rows }: Cover['places'][number], { cos, sin }: Turn): Missed {
  const back = (x: number, y: number): Point => ({ x: cos * x - sin * y, y: sin * x + cos * y });
  const ends: Point[] = [];
  let [longest, at] = [-1, { x: 0, y: 0 }];
  for (let i = 0; i < rows.length; i += 3) {
    const [y, lo, hi] = [numberAt(rows, i), numberAt(rows, i + 1), numberAt(rows, i + 2)];
    ends.push(back(lo, y), back(hi, y));
    if (hi - lo <= longest) continue;
    longest = hi - lo;
    at = back((lo + hi) / 2, y);
  }
  const { along } = spread(ends);
  const reach = ends.map(along);
  const long = Math.max(Math.sqrt(area), Math.max(...reach) - Math.min(...reach));
  return {
    areaMm2: area,
    box: ends.reduce<Box>((box, { x, y }) => uniteBoxes(box, { minX: x, maxX: x, minY: y, maxY: y }), EMPTY_BOX),
    at,
    sizeMm: [long, area / long],
  };
}

/**
 * The hatch lines of a part that is moved, turned or mirrored; what is only shown or told of them, when that is asked
 * for.
 */
export const transformHatch = (hatch: PartHatch, m: Matrix): PartHatch => new MovedHatch(hatch, m);

class MovedHatch implements PartHatch {
  readonly widthMm: number;
  readonly spacingMm: number;
  readonly lineCount: number;
  readonly strips: number;
  readonly drawnMm: number;
  readonly travelMm: number;
  readonly tooMany: PartHatch['tooMany'];
  readonly strokes: Strokes;
  readonly overMissed: Strokes;
  readonly edgeFirst: boolean;
  readonly rings: readonly Path[];
  readonly edge: readonly Path[];
  readonly reach: Reach;

  constructor(
    private readonly hatch: PartHatch,
    private readonly m: Matrix,
  ) {
    this.widthMm = hatch.widthMm;
    this.spacingMm = hatch.spacingMm;
    this.lineCount = hatch.lineCount;
    this.strips = hatch.strips;
    this.drawnMm = hatch.drawnMm;
    this.travelMm = hatch.travelMm;
    this.tooMany = hatch.tooMany;
    this.strokes = transformStrokes(hatch.strokes, m);
    this.overMissed = transformStrokes(hatch.overMissed, m);
    this.edgeFirst = hatch.edgeFirst;
    this.rings = hatch.rings.map((p) => transformPath(p, m));
    this.edge = hatch.edge.map((p) => transformPath(p, m));
    this.reach = hatch.reach;
  }

  get drawn(): readonly Drawable[] {
    return this.drawnMoved();
  }
  private readonly drawnMoved = once(() => this.hatch.drawn.map((d) => moveDrawable(d, this.m)));

  get reached(): readonly Outline[] {
    return this.reachedMoved();
  }
  private readonly reachedMoved = once(() => transformOutlines(this.hatch.reached, this.m));

  get cover(): PartHatch['cover'] {
    return this.coverMoved();
  }
  private readonly coverMoved = once(() => ({
    ...this.hatch.cover,
    places: this.hatch.cover.places.map((p) => ({
      ...p,
      at: applyMatrix(this.m, p.at),
      box: transformedBox(p.box, this.m),
    })),
  }));
}
