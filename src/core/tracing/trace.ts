/**
 * A shape in a picture as outlines: which pixels belong to it, where their edges run, which of these are worth keeping, and few curves
 * through each. All in pixels of the picture; made mm by whoever knows how large the picture is.
 */

import { floatAt } from '../geometry/elements';
import { type Path, transformPath } from '../geometry/path';
import { LIMITS } from '../limits';
import { type Contours, type Coverage, contoursOf, type Ring, ringArea } from './contours';
import { SHARP_REACH } from './corners';
import { outlinePath } from './outline';
import { sharpened } from './sharpen';
import { type Track, trackOf } from './track';

/** What is asked of a trace; lengths in pixels. */
export type TraceSettings = {
  /** Shapes and holes smaller across than this are left out. */
  readonly least: number;
  /** How far curves may be from the edges; null: as far as these are told. */
  readonly tolerance: number | null;
  /** Whether what reaches in from the rim of the picture is left out. */
  readonly dropRim: boolean;
};

/** What tracing comes to. */
export type Traced = {
  /** Closed paths in pixels, y upwards from the lower edge of the picture; holes run clockwise. */
  readonly paths: readonly Path[];
  /** How many shapes and holes were too small, and how many shapes run along the rim, left out or not. */
  readonly specks: number;
  readonly pinholes: number;
  readonly rims: number;
  /** How many outlines there are beyond those that one trace comes to; the largest are kept. */
  readonly beyond: number;
  /** Width of a step from none to all across the edges, in pixels; 1 to 1.4 where they are sharp. */
  readonly edgeWidth: number;
  /** How far the points of the edges stray, in pixels. */
  readonly noise: number;
};

/** Curves are this near to edges that are told exactly, in pixels; to others so many times as far as their points stray. */
const CLOSE = 0.12;
const BY_NOISE = 2.2;
/** A corner is rounded off farther by so much of each pixel that an edge is wider than a sharp one. */
const SHARP_EDGE = 1.4;
const REACH_BY_WIDTH = 0.75;

/** Noise is looked for between neighbours, and, for what comes in blocks, between points so far apart. */
const STRIDES = [1, 3];

/** Only of outlines with so many points for each of a stride are most away from corners. */
const LONG = 40;
/** Points that stray farther than this are no edge. */
const MOST_NOISE = 0.5;

/** How far points stray from smooth outlines, in pixels: by differences of fourth order, which curves hardly have, in a quarter of all. */
function noiseOf(tracks: readonly Track[]): number {
  const found = STRIDES.map((stride) =>
    noiseBetween(
      tracks.filter(({ count }) => count >= LONG * stride),
      stride,
    ),
  );
  return Math.min(MOST_NOISE, Math.max(...found));
}

/** About so many points are enough to tell it. */
const ASKED = 4000;

function noiseBetween(tracks: readonly Track[], stride: number): number {
  const off: number[] = [];
  const step = Math.max(1, Math.floor(tracks.reduce((sum, { count }) => sum + count, 0) / ASKED));
  for (const { x, y, count } of tracks) {
    const fourth = (list: Float64Array, i: number) =>
      floatAt(list, i) -
      (4 * (floatAt(list, i - stride) + floatAt(list, i + stride)) -
        floatAt(list, i - 2 * stride) -
        floatAt(list, i + 2 * stride)) /
        6;
    for (let i = 2 * stride; i + 2 * stride < count; i += step) {
      const [dx, dy] = [
        floatAt(x, i + 2 * stride) - floatAt(x, i - 2 * stride),
        floatAt(y, i + 2 * stride) - floatAt(y, i - 2 * stride),
      ];
      const size = Math.hypot(dx, dy);
      if (size > 0) off.push(Math.abs(fourth(x, i) * dy - fourth(y, i) * dx) / size);
    }
  }
  if (off.length === 0) return 0;
  off.sort((a, b) => a - b);
  // Of normal deviates a quarter are within 0.3186; the difference makes them 1.394 times as large. Corners are in the rest.
  return (off[off.length >> 2] as number) / 0.3186 / 1.394;
}

/** Share of the rim that a shape has to go along to be taken for what lies around the picture's subject. */
const RIM = 0.12;

/** How much of the picture's rim an outline goes along, as a share of all of it. */
function rimShare(ring: Ring, { width, height }: Coverage): number {
  let along = 0;
  const n = ring.length;
  const onRim = (x: number, y: number) => x < 0.6 || y < 0.6 || x > width - 0.6 || y > height - 0.6;
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) {
    const [x, y, u, v] = [floatAt(ring, i), floatAt(ring, i + 1), floatAt(ring, j), floatAt(ring, j + 1)];
    if (onRim(x, y) && onRim(u, v)) along += Math.hypot(x - u, y - v);
  }
  return along / (2 * (width + height));
}

/** Whether a place lies within an outline. */
function isWithin(ring: Ring, px: number, py: number): boolean {
  let inside = false;
  const n = ring.length;
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) {
    const [x, y, u, v] = [floatAt(ring, i), floatAt(ring, i + 1), floatAt(ring, j), floatAt(ring, j + 1)];
    if (y > py !== v > py && px < ((u - x) * (py - y)) / (v - y) + x) inside = !inside;
  }
  return inside;
}

type Sized = { readonly ring: Ring; readonly area: number };

/** The outlines that are kept, and how many of each kind are not. */
function worthKeeping(all: readonly Sized[], coverage: Coverage, { least, dropRim }: TraceSettings) {
  const small = (Math.PI / 4) * least * least;
  const alongRim = all.filter(({ ring, area }) => area > 0 && rimShare(ring, coverage) > RIM);
  const rims = dropRim ? alongRim : [];
  const solid = all.filter((s) => s.area >= small && !rims.includes(s));
  // A hole goes with what it is a hole in: the smallest outline around it.
  const outers = rims.length > 0 ? all.filter((s) => s.area > 0).sort((p, q) => p.area - q.area) : [];
  const holes = all.filter(({ ring, area }) => {
    if (-area < small || area >= 0) return false;
    const [x, y] = [floatAt(ring, 0), floatAt(ring, 1)];
    const around = outers.find((o) => o.area > -area && isWithin(o.ring, x, y));
    return around === undefined || !rims.includes(around);
  });
  const wanted = [...solid, ...holes];
  if (wanted.length > LIMITS.tracedOutlines) wanted.sort((p, q) => Math.abs(q.area) - Math.abs(p.area));
  return {
    kept: wanted.slice(0, LIMITS.tracedOutlines),
    beyond: Math.max(0, wanted.length - LIMITS.tracedOutlines),
    rims: alongRim.length,
    specks: all.filter((s) => s.area > 0 && s.area < small).length,
    pinholes: all.filter((s) => s.area < 0 && -s.area < small).length,
  };
}

/** How wide a step from none to all is across the edges, in pixels. */
const widthOf = ({ steepness }: Contours): number => 1 / Math.max(steepness, 0.02);

/**
 * The spread of the Gaussian that edges are blurred by, in pixels. Its steepest place is 1 / (√(2π) σ), a pixel is as a Gaussian of
 * σ² = 1/12, and both add up.
 */
const blurOf = ({ steepest }: Contours): number =>
  Math.sqrt(Math.max(0, 1 / (2 * Math.PI * Math.max(steepest, 0.02) ** 2) - 1 / 12));

/** Less blur than this is left as it is, and more than this is told too ill to be undone; in pixels. */
const LEAST_BLUR = 0.5;
const MOST_BLUR = 2;
/** Where points stray farther than this, undoing a blur would make more of what they stray by. */
const STRAYING = 0.05;

/** A picture of a shape and its outlines, its blur undone where it is even enough for that. */
function* withoutBlur(
  given: Coverage,
  first: Contours,
): Generator<number, { readonly coverage: Coverage; readonly contours: Contours }> {
  const blur = blurOf(first);
  const isTold = blur >= LEAST_BLUR && blur <= MOST_BLUR && noiseOf(first.rings.map(trackOf)) < STRAYING;
  if (!isTold) return { coverage: given, contours: first };
  const undoing = sharpened(given, blur);
  let step = undoing.next();
  for (; !step.done; step = undoing.next()) yield 0.1 + 0.2 * step.value;
  return { coverage: step.value, contours: contoursOf(step.value) };
}

/** The outlines of a shape in a picture. Yields how far it is, from 0 to 1, so that it can be left. */
export function* traceCoverage(given: Coverage, settings: TraceSettings): Generator<number, Traced> {
  const first = contoursOf(given);
  yield 0.1;
  const edgeWidth = widthOf(first);
  const { coverage, contours } = yield* withoutBlur(given, first);
  yield 0.3;
  const { rings } = contours;
  const sized = rings.map((ring): Sized => ({ ring, area: ringArea(ring) }));
  const { kept, ...counts } = worthKeeping(sized, coverage, settings);
  const tracks = kept.map(({ ring }) => trackOf(ring));
  const noise = noiseOf(tracks);
  const quality = {
    noise,
    reach: SHARP_REACH + REACH_BY_WIDTH * Math.max(0, widthOf(contours) - SHARP_EDGE) + noise,
    tolerance: Math.max(settings.tolerance ?? 0, CLOSE, BY_NOISE * noise),
  };
  const paths: Path[] = [];
  const whole = tracks.reduce((sum, { count }) => sum + count, 0);
  let done = 0;
  let told = 0;
  for (const track of tracks) {
    const path = outlinePath({ track, coverage }, quality);
    if (path) paths.push(transformPath(path, { a: 1, b: 0, c: 0, d: -1, e: 0, f: coverage.height }, true));
    done += track.count;
    if (done - told > 5_000) {
      told = done;
      yield 0.3 + (0.7 * done) / whole;
    }
  }
  return { paths, ...counts, edgeWidth, noise };
}
