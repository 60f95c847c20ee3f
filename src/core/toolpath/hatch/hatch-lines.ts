/** The lines that fill a shape: rows in strips and their order, or rings, and the pass along the edge. */
import type { ClipEngine } from '../../geometry/boolean/engine';
import { joinedExactly, type Path, pathLength } from '../../geometry/path';
import type { Point } from '../../geometry/point';
import { countStrokes, joinStrokes, lengthsOf, NO_STROKES, type Strokes, turnStrokes } from '../../geometry/strokes';
import { LIMITS } from '../../limits';
import type { Outline } from '../../prepare/outline';
import type { HatchTool } from '../../schema/tools';
import { polygonsOf, turnBy } from './polygons';
import { ringsOf } from './rings';
import { countRows, scanlinesOf } from './scanlines';
import { stripsOf } from './strips';
import { flatness, type TipRoom } from './tip-room';
import { widthOf } from './tool';
import { inTour } from './tour';

/** How a shape is filled. Lengths in mm, angles in degrees. */
export type HatchSettings = {
  readonly style: 'parallel' | 'crossed' | 'rings';
  /** Whether the ends of neighbouring lines are joined along the edge. */
  readonly joined: boolean;
  readonly tool: HatchTool;
  /** Share of the width that neighbouring lines overlap; below 0 there is room between them. */
  readonly overlap: number;
  readonly angle: number;
  /** A pass along the edge, before or after the lines. */
  readonly outline: 'none' | 'first' | 'last';
  /** Lines shorter than this are left out. */
  readonly least: number;
  /** Whether missed places get the strokes they need. */
  readonly fillMissed: boolean;
};

/** The lines that fill a shape, before anything is asked about them. */
export type HatchLines = {
  readonly widthMm: number;
  readonly spacingMm: number;
  /** Lines and what links them. */
  readonly strokes: Strokes;
  /** Rings, run into each other. */
  readonly rings: readonly Path[];
  /** The pass along the edge. */
  readonly edge: readonly Path[];
  /** Lines, or rings, and the strips they are drawn in. */
  readonly lineCount: number;
  readonly strips: number;
  readonly drawnMm: number;
  /** More lines, or rings, than are made: how many it would be; null when there are not. */
  readonly tooMany: number | null;
};

/** How often the tool is set down for them. */
export const liftsOf = ({ strokes, rings, edge }: Pick<HatchLines, 'strokes' | 'rings' | 'edge'>): number =>
  countStrokes(strokes) + rings.length + edge.length;

/**
 * Lines that fill the room a tip has; they pass through `origin`, so that they lie alike wherever the part is. Yields the share
 * done, as far as it can be told.
 */
export function* hatchLines(
  engine: ClipEngine,
  origin: Point,
  step: HatchSettings,
  { outlines }: TipRoom,
): Generator<number, HatchLines> {
  const widthMm = widthOf(step.tool);
  const spacingMm = widthMm * (1 - step.overlap);
  const made =
    step.style === 'rings'
      ? yield* ringLines(engine, outlines, spacingMm)
      : yield* rowLines(origin, step, spacingMm, outlines);
  const edge =
    step.outline === 'none' || step.style === 'rings' ? [] : outlinePaths(outlines).map((path) => joinedExactly(path));
  const paths = [...made.rings, ...edge];
  return {
    ...made,
    widthMm,
    spacingMm,
    edge,
    drawnMm: paths.reduce((sum, path) => sum + pathLength(path), lengthsOf(made.strokes).drawn),
  };
}

type Made = Pick<HatchLines, 'strokes' | 'rings' | 'lineCount' | 'strips' | 'tooMany'>;

/** Rings done are shown as this share at most: how many there will be is not known. */
const RINGS_SHOWN = 200;

function* ringLines(engine: ClipEngine, outlines: readonly Outline[], spacing: number): Generator<number, Made> {
  const made = ringsOf(engine, outlines, spacing, LIMITS.hatchRings);
  for (let next = made.next(); ; next = made.next()) {
    if (!next.done) {
      yield Math.min(1, next.value / RINGS_SHOWN);
      continue;
    }
    const { paths, rings, isCutShort } = next.value;
    return isCutShort
      ? { strokes: NO_STROKES, rings: [], lineCount: 0, strips: 0, tooMany: LIMITS.hatchRings }
      : {
          strokes: NO_STROKES,
          rings: paths.map((path) => joinedExactly(path)),
          lineCount: rings,
          strips: paths.length,
          tooMany: null,
        };
  }
}

function* rowLines(
  origin: Point,
  step: HatchSettings,
  spacing: number,
  outlines: readonly Outline[],
): Generator<number, Made> {
  const angles = step.style === 'crossed' ? [step.angle, step.angle + 90] : [step.angle];
  const all: Strokes[] = [];
  let [lines, strips] = [0, 0];
  for (const angle of angles) {
    const set = hatchSet(outlinePaths(outlines), origin, { step, spacing, flat: flatness(widthOf(step.tool)), angle });
    if (typeof set === 'number') return { strokes: NO_STROKES, rings: [], lineCount: 0, strips: 0, tooMany: set };
    all.push(set.strokes);
    lines += set.lineCount;
    strips += set.strips;
    yield all.length / angles.length;
  }
  return { strokes: joinStrokes(all), rings: [], lineCount: lines, strips, tooMany: null };
}

/** One set of lines in the order they are drawn, and how many strips it has; or how many lines would be too many. */
function hatchSet(
  paths: readonly Path[],
  origin: Point,
  {
    step,
    spacing,
    flat,
    angle,
  }: { readonly step: HatchSettings; readonly spacing: number; readonly flat: number; readonly angle: number },
): { readonly strokes: Strokes; readonly lineCount: number; readonly strips: number } | number {
  const turn = turnBy(angle);
  const polygons = polygonsOf(paths, flat, turn);
  const count = countRows(polygons, spacing);
  if (count > LIMITS.hatchLines) return count;
  const rows = scanlinesOf(polygons, spacing, turn.cos * origin.y - turn.sin * origin.x);
  if (rows.x.length / 2 > LIMITS.hatchLines) return rows.x.length / 2;
  const hatch = stripsOf(rows, polygons, step.least, step.joined);
  const ordered = inTour(hatch.strokes, hatch.strips);
  return { strokes: turnStrokes(ordered, turn), lineCount: hatch.lineCount, strips: hatch.strips.length - 1 };
}

/** The paths of outlines. */
export const outlinePaths = (outlines: readonly Outline[]): Path[] => outlines.map((o) => o.path);
