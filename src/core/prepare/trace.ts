/** The outlines of a shape in a picture, at its size about the middle of the whole picture. */
import type { ClipEngine } from '../geometry/boolean/engine';
import { pathArea, transformPath } from '../geometry/path';
import { scaling } from '../geometry/point';
import { finished, type LongStage, type Memory, NO_MEMORY, type Stage, shareFrom } from '../memo';
import type { Crop, Trace } from '../schema/picture';
import type { Coverage } from '../tracing/contours';
import { croppedRaster, type Raster } from '../tracing/raster';
import { coverageBy } from '../tracing/tones';
import { type Traced, traceCoverage } from '../tracing/trace';
import { regionOf } from './closing/region';
import { measureOutlines, type Outline, weighOutlines } from './outline';

/** The pixels of a picture, or a sentence why there are none. */
export type PictureAnswer = { readonly raster: Raster } | { readonly sentence: string };

/** How the pixels of pictures are asked for, by their ids. */
export type PictureLookup = (id: string) => PictureAnswer;

/** What tracing a picture found, in the user's lengths. */
export type TraceFound = {
  /** Shapes and holes that were too small, shapes along the rim, left out or not, and outlines beyond what one trace comes to. */
  readonly specks: number;
  readonly pinholes: number;
  readonly rims: number;
  readonly beyond: number;
  /** How many segments its outlines have. */
  readonly nodes: number;
  /** How wide the step from none to all is across its edges, in pixels and in mm. */
  readonly edgePixels: number;
  readonly edgeMm: number;
};

/** A trace made ready: its outlines in mm about the middle of the whole picture, and what was found. */
export type PreparedTrace = { readonly outlines: readonly Outline[]; readonly found: TraceFound };

type TraceMember = Pick<Trace, 'crop' | 'scale' | 'tones' | 'least' | 'follow' | 'dropRim'>;

type CoverageInput = { readonly raster: Raster; readonly crop: Crop; readonly tones: Trace['tones'] };

/** What is left of a picture within its crop; at least one pixel. */
const within = (raster: Raster, { left, right, top, bottom }: Crop) => {
  const x = Math.min(left, raster.width - 1);
  const y = Math.min(top, raster.height - 1);
  return {
    left: x,
    top: y,
    width: Math.max(1, raster.width - x - right),
    height: Math.max(1, raster.height - y - bottom),
  };
};

/** How much of each pixel belongs to the shape. */
const COVERAGE: Stage<CoverageInput, { readonly coverage: Coverage | null }> = {
  name: 'coverage',
  key: ({ raster, crop, tones }, idOf) => JSON.stringify([idOf(raster), crop, tones]),
  run({ raster, crop, tones }) {
    const part = within(raster, crop);
    // Places count from the corner of the whole picture; one in what is left out says nothing.
    const picks = tones.picks
      .map((pick) => ({ ...pick, x: pick.x - part.left, y: pick.y - part.top }))
      .filter(({ x, y }) => x >= 0 && y >= 0 && x <= part.width && y <= part.height);
    return { coverage: coverageBy(croppedRaster(raster, part), { ...tones, picks }) };
  },
  weigh: ({ coverage }) => (coverage ? coverage.data.length / 8 : 1),
};

type TraceInput = { readonly engine: ClipEngine; readonly raster: Raster; readonly member: TraceMember };

/** The share of the work that is in the picture; the rest is in its outlines. */
const IN_PICTURE = 0.8;

/** A picture traced; null where it shows no difference. */
const TRACE: LongStage<TraceInput, PreparedTrace | null> = {
  name: 'trace',
  key: ({ raster, member: { crop, scale, tones, least, follow, dropRim } }, idOf) =>
    JSON.stringify([idOf(raster), crop, scale, tones, least, follow, dropRim]),
  *run({ engine, raster, member }, memory) {
    const { crop, scale, tones, least, follow, dropRim } = member;
    const { coverage } = memory.get(COVERAGE, { raster, crop, tones });
    if (!coverage) return null;
    yield 0.2;
    const settings = { least: least / scale, tolerance: follow === null ? null : follow / scale, dropRim };
    const traced = yield* shareFrom(traceCoverage(coverage, settings), 0.2, IN_PICTURE);
    return placed(engine, traced, { raster, crop, scale });
  },
  weigh: (made) => (made ? weighOutlines(made.outlines) : 1),
};

/** Pixels are told apart in so many parts while outlines are cleaned; slivers that are left of that are smaller than so many square pixels. */
const FINE = 4;
const LEAST_AREA = 0.5;

/** Outlines cleaned where they came too near to each other, about the middle of the picture, in mm. */
function placed(
  engine: ClipEngine,
  traced: Traced,
  { raster, crop, scale }: { readonly raster: Raster; readonly crop: Crop; readonly scale: number },
): PreparedTrace {
  const { paths, specks, pinholes, rims, beyond, edgeWidth } = traced;
  // Cleaned in quarters of a pixel, so that what crosses by a hair is seen.
  const fine = paths.map((path) => transformPath(path, scaling(FINE)));
  const cleaned = fine.length > 0 ? regionOf(engine, [{ paths: fine, rule: 'nonzero' }]) : [];
  const region = cleaned.filter((path) => Math.abs(pathArea(path)) > LEAST_AREA * FINE * FINE);
  const { left, top, height } = within(raster, crop);
  // Paths count from the lower left corner of what is left of the picture.
  const [e, f] = [(left - raster.width / 2) * scale, (raster.height / 2 - top - height) * scale];
  const matrix = { a: scale / FINE, b: 0, c: 0, d: scale / FINE, e, f };
  const outlines = measureOutlines(
    region.map((path) => ({ path: transformPath(path, matrix), labels: path.segments.map(() => 0) })),
  );
  const nodes = region.reduce((sum, path) => sum + path.segments.length, 0);
  return {
    outlines,
    found: { specks, pinholes, rims, beyond, nodes, edgePixels: edgeWidth, edgeMm: edgeWidth * scale },
  };
}

const AT_ONCE: Stage<TraceInput, PreparedTrace | null> = {
  ...TRACE,
  run: (input, memory) => finished(TRACE.run(input, memory)),
};

/** A picture traced in one go, or as it was traced step by step before; null where the picture shows no difference. */
export const prepareTrace = (
  engine: ClipEngine,
  raster: Raster,
  member: TraceMember,
  memory: Memory = NO_MEMORY,
): PreparedTrace | null => memory.get(AT_ONCE, { engine, raster, member });

/** The same step by step: yields the share done. */
export const traceSteps = (
  engine: ClipEngine,
  raster: Raster,
  member: TraceMember,
  memory: Memory,
): Generator<number, PreparedTrace | null> => memory.steps(TRACE, { engine, raster, member });
