/** Writes docs/tracing.png: pictures of known shapes, and what is traced from each, node by node. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { writePixels } from '../src/core/formats/pixels';
import { transformRegion } from '../src/core/geometry/path';
import { pathData } from '../src/core/geometry/path-data';
import { prepareTrace } from '../src/core/prepare/trace';
import { DEGRADED, pictureOf } from '../tests/support/degraded';
import { wasmEngine } from '../tests/support/faces';
import { letterShape, placedShape } from '../tests/support/outlined';

const SHOWN = [
  ['Libre Baskerville', 'a'],
  ['DejaVu Serif', '&'],
  ['Archivo Black', 'W'],
  ['Pacifico', 'g'],
] as const;
const HOW = ['clean', 'blurred', 'noisy', 'JPEG 50', 'photographed'];
const SIZE = 100;
const CELL = 190;
const LABEL = 26;

const cells: string[] = [];
HOW.forEach((name, column) => {
  const how = DEGRADED.find((d) => d.name === name);
  if (!how) throw new Error(name);
  cells.push(`<text x="${column * 2 * CELL + 8}" y="18">${name}, ${SIZE} px</text>`);
  SHOWN.forEach(([face, character], row) => {
    const shape = placedShape(letterShape(face, character), SIZE, how.turn);
    const raster = pictureOf(shape.paths, shape.width, shape.height, how, row + 1);
    const made = prepareTrace(wasmEngine, raster, {
      crop: { left: 0, right: 0, top: 0, bottom: 0 },
      scale: 1,
      tones: { by: 'dark', picks: [], evenLight: true },
      least: 3,
      follow: null,
      dropRim: true,
    });
    const down = { a: 1, b: 0, c: 0, d: -1, e: raster.width / 2, f: raster.height / 2 };
    const paths = transformRegion(made?.outlines.map((o) => o.path) ?? [], down);
    const nodes = paths.flatMap((p) => p.segments.map((s) => `M${s.x0 - 1} ${s.y0 - 1}h2v2h-2Z`)).join('');
    const fit = Math.min((CELL - 10) / raster.width, (CELL - 10) / raster.height);
    const at = (k: number) => `translate(${(2 * column + k) * CELL + 5} ${row * CELL + LABEL + 5}) scale(${fit})`;
    const png = Buffer.from(writePixels(raster)).toString('base64');
    cells.push(
      `<g transform="${at(0)}"><image width="${raster.width}" height="${raster.height}" style="image-rendering:pixelated" href="data:image/png;base64,${png}"/></g>`,
      `<g transform="${at(1)}"><path d="${pathData(paths, null, 3)}" fill="#DAD7CF" stroke="#1F2A30" stroke-width="0.7" fill-rule="evenodd"/><path d="${nodes}" fill="#8A4F10"/></g>`,
    );
  });
});
const [width, height] = [2 * CELL * HOW.length, CELL * SHOWN.length + LABEL];
const svg = path.join(mkdtempSync(path.join(tmpdir(), 'needlefile-')), 'sheet.svg');
writeFileSync(
  svg,
  `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" font-family="sans-serif" font-size="14">${cells.join('')}</svg>`,
);
execFileSync('rsvg-convert', ['-b', 'white', '-o', 'docs/tracing.png', svg]);
