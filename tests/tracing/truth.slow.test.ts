/**
 * Tracing against the truth: outlines that are known, made into pictures that are clean, turned, unevenly lit, blurred, noisy or packed,
 * and traced back.
 *
 * @module-tag slow
 */
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from 'vitest';
import { readPixels } from '../../src/core/formats/pixels';
import { type Path, regionArea, transformRegion } from '../../src/core/geometry/path';
import { pathData } from '../../src/core/geometry/path-data';
import { prepareTrace } from '../../src/core/prepare/trace';
import type { Raster } from '../../src/core/tracing/raster';
import { countCrossings } from '../support/area';
import { folder } from '../support/checkers';
import { CLEAN, DEGRADED, type Degraded, pictureOf, TURNED } from '../support/degraded';
import { wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import {
  alongPaths,
  cornersAbove,
  distanceFrom,
  emblems,
  HARD_LETTERS,
  letterShape,
  MANY_LETTERS,
  type Outlined,
  type Placed,
  placedShape,
} from '../support/outlined';
import { inFull } from '../support/scale';

/** All of these in full; in a sample those that tell most. */
const SIZES = inFull ? [60, 100, 200, 400] : [100, 200];
const HOW = DEGRADED.filter(({ name }) => inFull || ['clean', 'turned', 'blurred', 'photographed'].includes(name));

const ASKED = {
  crop: { left: 0, right: 0, top: 0, bottom: 0 },
  scale: 1,
  tones: { by: 'dark' as const, picks: [], evenLight: true },
  least: 3,
  follow: null,
  dropRim: true,
};

/** Outlines in pixels, y downwards. */
function traced(raster: Raster): Path[] {
  const made = prepareTrace(wasmEngine, raster, ASKED);
  if (!made) throw new Error('nothing can be told apart');
  const down = { a: 1, b: 0, c: 0, d: -1, e: raster.width / 2, f: raster.height / 2 };
  return transformRegion(
    made.outlines.map((o) => o.path),
    down,
  ) as Path[];
}

/** What a trace is judged by: sums over shapes. */
type Sums = {
  points: number;
  off: number;
  worstArea: number;
  nodes: number;
  sourceNodes: number;
  corners: number;
  kept: number;
  crossings: number;
  rings: number;
};
const nothing = (): Sums => ({
  points: 0,
  off: 0,
  worstArea: 0,
  nodes: 0,
  sourceNodes: 0,
  corners: 0,
  kept: 0,
  crossings: 0,
  rings: 0,
});

/** A corner is kept where one of the trace lies this near, in pixels; corners of the source turn by so many degrees. */
const NEAR = 0.6;
const CORNER = 28;
/** Between sides shorter than this, in pixels, no picture shows a corner. */
const SIDES = 2;
const SLIGHT = 15;

const segmentsIn = (paths: readonly Path[]) => paths.reduce((sum, p) => sum + p.segments.length, 0);

function judge(shape: Placed, raster: Raster, sums: Sums): void {
  const down = traced(raster);
  const away = distanceFrom(shape.paths);
  for (const p of alongPaths(down)) {
    sums.off += away(p);
    sums.points++;
  }
  sums.worstArea = Math.max(sums.worstArea, Math.abs(Math.abs(regionArea(down)) / shape.area - 1));
  sums.nodes += segmentsIn(down);
  sums.sourceNodes += segmentsIn(shape.paths);
  const made = cornersAbove(down, SLIGHT);
  for (const corner of cornersAbove(shape.paths, CORNER, SIDES)) {
    sums.corners++;
    if (made.some((p) => Math.hypot(p.x - corner.x, p.y - corner.y) <= NEAR)) sums.kept++;
  }
  sums.crossings += countCrossings(down);
  sums.rings += Math.abs(down.length - shape.paths.length);
}

const shapes: readonly Outlined[] = [
  ...(inFull ? MANY_LETTERS : []).map(([face, character]) => letterShape(face, character)),
  ...HARD_LETTERS.map(([face, character]) => letterShape(face, character)),
  ...emblems(inFull ? 40 : 80),
];

const said = (how: Degraded, size: number) => `${how.name}, ${size} px`;
const isClean = (how: Degraded) => how === CLEAN || how === TURNED || how.name === 'unevenly lit';

describe.each(HOW)('$name', (how) => {
  test.each(SIZES)('%i px', (size) => {
    const sums = nothing();
    shapes.forEach((shape, i) => {
      const placed = placedShape(shape, size, how.turn);
      judge(placed, pictureOf(placed.paths, placed.width, placed.height, how, i + 1), sums);
    });
    const mean = sums.off / sums.points;
    const [missed, nodes] = [1 - sums.kept / sums.corners, sums.nodes / sums.sourceNodes];
    figure({
      name: `trace, ${said(how, size)}: mean distance from the true outline`,
      value: mean,
      digits: 3,
      unit: 'px',
      aim: { most: isClean(how) ? 0.08 : 0.35 },
      note: `${shapes.length} shapes; area at most ${(100 * sums.worstArea).toFixed(2)} % off, ${(100 * missed).toFixed(1)} % of ${sums.corners} corners (between sides of ${SIDES} px or more) not within ${NEAR} px, ${nodes.toFixed(2)} × the source’s nodes`,
    });
    expect(mean).toBeLessThan(isClean(how) ? 0.08 : 0.35);
    expect(nodes).toBeLessThan(1.5);
    expect(sums.crossings).toBe(0);
    if (size >= 100 && how.name !== 'photographed') {
      expect(sums.rings).toBe(0);
      expect(missed).toBeLessThan(0.05);
      expect(sums.worstArea).toBeLessThan(0.005);
    }
  });
});

test('a picture drawn by another program', () => {
  const out = folder();
  const sums = nothing();
  for (const shape of shapes.slice(0, inFull ? shapes.length : 8)) {
    const placed = placedShape(shape, 200);
    const [svg, png] = [path.join(out, 'shape.svg'), path.join(out, 'shape.png')];
    writeFileSync(
      svg,
      `<svg xmlns="http://www.w3.org/2000/svg" width="${placed.width}" height="${placed.height}"><path d="${pathData(placed.paths, null, 5)}"/></svg>`,
    );
    execFileSync('rsvg-convert', ['-b', 'white', '-o', png, svg]);
    const raster = readPixels(new Uint8Array(readFileSync(png)));
    if (!raster) throw new Error('no pixels');
    judge(placed, raster, sums);
  }
  figure({
    name: 'trace of what rsvg-convert draws: mean distance',
    value: sums.off / sums.points,
    digits: 3,
    unit: 'px',
    aim: { most: 0.08 },
  });
  expect(sums.off / sums.points).toBeLessThan(0.08);
  expect(1 - sums.kept / sums.corners).toBeLessThan(0.05);
});
