/** Speed of tracing a silhouette of four million pixels against marching squares alone, by d3-contour; and what a large photograph takes. */
import { contours } from 'd3-contour';
import { transformPath } from '../../src/core/geometry/path';
import { LIMITS } from '../../src/core/limits';
import { finished } from '../../src/core/memo';
import { prepareTrace } from '../../src/core/prepare/trace';
import type { Raster } from '../../src/core/tracing/raster';
import { coverageBy, type Tones } from '../../src/core/tracing/tones';
import { traceCoverage } from '../../src/core/tracing/trace';
import { CLEAN, pictureOf } from '../../tests/support/degraded';
import { wasmEngine } from '../../tests/support/faces';
import { figure } from '../../tests/support/figures';
import { HARD_LETTERS, letterShape, placedShape } from '../../tests/support/outlined';
import { chance } from '../../tests/support/random';
import { middle } from './median';

const ROUNDS = 7;
const TONES: Tones = { by: 'dark', picks: [], evenLight: true };

/** Twelve letters of 420 pixels in rows of four. */
function silhouette(): Raster {
  const paths = HARD_LETTERS.flatMap(([face, character], i) => {
    const shape = placedShape(letterShape(face, character), 420);
    const [x, y] = [(i % 4) * 500, Math.floor(i / 4) * 620];
    return shape.paths.map((path) => transformPath(path, { a: 1, b: 0, c: 0, d: 1, e: x, f: y }));
  });
  return pictureOf(paths, 2000, 2000, CLEAN);
}

const raster = silhouette();

/** A photograph of twelve million pixels: the silhouette three times over on speckled paper in failing light. */
function photograph(): Raster {
  const [width, height] = [4000, 3000];
  const next = chance(9);
  const data = new Uint8Array(width * height * 3);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const ink = raster.data[(y % 2000) * 2000 + (x % 2000)] as number;
      const light = 1 - (0.4 * x) / width;
      for (let k = 0; k < 3; k++)
        data[3 * (y * width + x) + k] = Math.max(0, Math.min(255, (50 + 0.7 * ink) * light + 24 * (next() - 0.5)));
    }
  return { width, height, channels: 3, data };
}
const large = photograph();
if (large.width * large.height > LIMITS.rasterPixels) throw new Error('more than is kept');
/** The most memory this process has had, in bytes. */
const most = (): number => 1024 * process.resourceUsage().maxRSS;
const before = most();
const began = performance.now();
const made = prepareTrace(wasmEngine, large, {
  crop: { left: 0, right: 0, top: 0, bottom: 0 },
  scale: 0.1,
  tones: { by: 'dark', picks: [], evenLight: true },
  least: 1.5,
  follow: null,
  dropRim: true,
});
const ms = performance.now() - began;
if (!made || made.outlines.length < 20) throw new Error('too little is traced');
const bytes = most() - before;
figure({
  name: 'Tracing a photograph of 12 million pixels: most memory beyond what there was with the picture in it, against the picture',
  value: bytes / large.data.length,
  digits: 2,
  note: `${(bytes / 1e6).toFixed(0)} MB beside ${(large.data.length / 1e6).toFixed(0)} MB; ${(ms / 1000).toFixed(1)} s, ${made.found.nodes} nodes`,
});

const coverage = coverageBy(raster, TONES);
if (!coverage) throw new Error('nothing is told apart');

const runs: Readonly<Record<'bare' | 'whole', () => void>> = {
  bare: () => {
    const values = coverage.data as unknown as number[];
    const [found] = contours().size([raster.width, raster.height]).smooth(true).thresholds([127.5])(values);
    if (!found || found.coordinates.length < 10) throw new Error('too little is found');
  },
  whole: () => {
    const found = coverageBy(raster, TONES);
    if (!found) throw new Error('nothing is told apart');
    const { paths } = finished(traceCoverage(found, { least: 3, tolerance: null, dropRim: true }));
    if (paths.length < 10) throw new Error('too little is traced');
  },
};
const times = { bare: [] as number[], whole: [] as number[] };
for (let i = 0; i < ROUNDS + 2; i++)
  for (const name of ['bare', 'whole'] as const) {
    const began = performance.now();
    runs[name]();
    if (i >= 2) times[name].push(performance.now() - began);
  }
figure({
  name: 'Tracing a silhouette of 4 million pixels, tones and curves and all, against d3-contour’s marching squares alone',
  value: middle(times.whole) / middle(times.bare),
  digits: 2,
  aim: { most: 3 },
  note: `${Math.round(middle(times.whole))} ms against ${Math.round(middle(times.bare))} ms`,
});
