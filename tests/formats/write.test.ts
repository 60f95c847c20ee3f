/**
 * A small drawing of everything there is to write, byte for byte: files keep their make. That the make is right is judged by
 * independent readers elsewhere (files.slow.test.ts). NEEDLEFILE_KEPT=write writes the kept files anew, for changes that are meant.
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { inflateSync } from 'node:zlib';
import { describe, expect, test } from 'vitest';
import type { Drawing, Layer } from '../../src/core/formats/drawing';
import { writeDxf } from '../../src/core/formats/dxf-write';
import { writeHpgl } from '../../src/core/formats/hpgl-write';
import { writePdf } from '../../src/core/formats/pdf-write';
import { readDrawing } from '../../src/core/formats/read';
import { writeSvg } from '../../src/core/formats/svg-write';
import { dot, polyline } from '../../src/core/geometry/drawable';
import { closedPath, type Path, regionBox } from '../../src/core/geometry/path';
import { arcBetween, line } from '../../src/core/geometry/segment';
import { area, BLOB, outline } from '../support/drawables';

const layer = (name: string, kind: Layer['kind'], drawn: Layer['drawn'], more: Partial<Layer> = {}): Layer => ({
  name,
  kind,
  colour: { cut: '#3730A3', score: '#0F766E', engrave: '#92400E', mark: '#BE185D' }[kind],
  tolerance: 0.02,
  scan: null,
  pen: { cut: 1, score: 2, engrave: 3, mark: 4 }[kind],
  drawn,
  ...more,
});
const ring = (r: number): Path =>
  closedPath([
    arcBetween({ x: 50 - r, y: 20 }, { x: 50 + r, y: 20 }, Math.PI),
    arcBetween({ x: 50 + r, y: 20 }, { x: 50 - r, y: 20 }, Math.PI),
  ]);
const open: Path = { closed: false, segments: [line(5, 40, 15, 45), line(15, 45, 25, 40)] };

const drawing: Drawing = {
  title: 'Everything & “more” <here>',
  width: 80,
  height: 50,
  layers: [
    layer('Fill & scan', 'engrave', [area(ring(8), ring(5))], {
      scan: { interval: 0.1, direction: 45 },
    }),
    layer('Zoë/1', 'mark', [polyline(open)], { tolerance: 0.127 }),
    layer('Dots', 'mark', [dot({ x: 60, y: 40 }, 0.75), dot({ x: 65, y: 40 }, null)]),
    layer('Zoë:1', 'score', [outline(ring(3))]),
    layer('Cut', 'cut', [outline(BLOB)]),
  ],
};
const FOLDER = 'tests/formats/kept';
const kept = (name: string, bytes: Uint8Array): void => {
  const file = `${FOLDER}/${name}`;
  if (process.env.NEEDLEFILE_KEPT === 'write') writeFileSync(file, bytes);
  expect(existsSync(file), `${file} is kept`).toBe(true);
  // As text, so that a difference can be read.
  expect(Buffer.from(bytes).toString('latin1')).toBe(readFileSync(file, 'latin1'));
};
const text = (written: string) => new TextEncoder().encode(written);

describe('a drawing of everything', () => {
  test('as SVG', () => kept('everything.svg', text(writeSvg(drawing, 0.025))));
  test('as PDF', () => kept('everything.pdf', writePdf(drawing, 0.025)));
  test('as HPGL', () => kept('everything.plt', text(writeHpgl(drawing))));
  test.each(['R12', '2000', '2007'] as const)('as DXF %s', (version) => {
    kept(`everything.${version}.dxf`, text(writeDxf(drawing, version, 'mm')));
  });
});

test('the day it is given out is kept in it', () => {
  const dated: Drawing = { ...drawing, date: '2026-05-04' };
  expect(writeSvg(dated, 0.025)).toContain('<date xmlns="http://purl.org/dc/elements/1.1/">2026-05-04</date>');
  expect(Buffer.from(writePdf(dated, 0.025)).toString('latin1')).toContain('/CreationDate(D:20260504)');
  // 4 May 2026 begins with the Julian day 2461164.5 (day 2451544.5 was 1 January 2000).
  const days = (Date.UTC(2026, 4, 4) - Date.UTC(2000, 0, 1)) / 86_400_000;
  expect(writeDxf(dated, 'R12', 'mm')).toContain(`$TDCREATE\r\n 40\r\n${2_451_544.5 + days}\r\n`);
});

test('a DXF in inches is read as large as it was drawn', () => {
  const boundsOf = (bytes: Uint8Array) => {
    const reading = readDrawing(bytes);
    if (!reading.ok) throw new Error(reading.sentence);
    expect(reading.found.claim).toMatchObject({ stated: true });
    return regionBox(reading.found.shapes.flatMap((s) => s.paths));
  };
  const inMm = boundsOf(text(writeDxf(drawing, '2007', 'mm')));
  const inInches = boundsOf(text(writeDxf(drawing, '2007', 'in')));
  for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const) expect(inInches[side]).toBeCloseTo(inMm[side], 6);
  expect(writeDxf(drawing, '2007', 'in')).toContain('$MEASUREMENT\r\n 70\r\n0\r\n  9\r\n$INSUNITS\r\n 70\r\n1\r\n');
});

describe('a drawing of nothing', () => {
  const nothing: Drawing = { title: '', width: 10, height: 20, layers: [] };
  test('as DXF has the page for its extents', () => {
    const written = writeDxf(nothing, '2007', 'mm');
    expect(written).toMatch(/\$EXTMIN\r\n 10\r\n0\.0\r\n 20\r\n0\.0\r\n/);
    expect(written).toMatch(/\$EXTMAX\r\n 10\r\n10\.0\r\n 20\r\n20\.0\r\n/);
  });
  test('a path of a single place is not written', () => {
    const place: Path = { closed: true, segments: [line(3, 3, 3, 3)] };
    const written = writeDxf({ ...nothing, layers: [layer('Cut', 'cut', [outline(place)])] }, '2000', 'mm');
    expect(written).not.toContain('LWPOLYLINE');
  });
});

test('what is written comes back: the same kinds of paths in the same layers', () => {
  const read = (bytes: Uint8Array) => {
    const reading = readDrawing(bytes);
    if (!reading.ok) throw new Error(reading.sentence);
    const { groups, shapes } = reading.found;
    return shapes.map((s) => [groups[s.group]?.name, ...s.paths.map((p) => p.closed)]);
  };
  expect(read(text(writeDxf(drawing, '2007', 'mm')))).toEqual([
    ['Fill & scan', true],
    ['Fill & scan', true],
    ['Zoë-1', false],
    ['Dots', true],
    ['Zoë-1 2', true],
    ['Cut', true],
  ]);
  expect(read(text(writeSvg(drawing, 0.025))).map(([, ...closed]) => closed)).toEqual([
    [true, true],
    [false],
    [true],
    [true],
    [true],
  ]);
});

test('a page longer than PDF allows is told in larger units, and is as large', () => {
  const page = (width: number, height: number) => {
    const text = Buffer.from(writePdf({ title: '', width, height, layers: [] }, 0.025)).toString('latin1');
    const [, w, h] = /\/MediaBox\[0 0 ([\d.]+) ([\d.]+)\]/.exec(text) ?? [];
    return { w: Number(w), h: Number(h), unit: Number(/\/UserUnit (\d+)/.exec(text)?.[1] ?? 1) };
  };
  const points = (mm: number) => (mm / 25.4) * 72;
  // Two hundred inches, 14,400 points, are as long as a side may be.
  expect(page(5079, 100)).toEqual({ w: expect.closeTo(points(5079), 4), h: expect.closeTo(points(100), 4), unit: 1 });
  for (const [width, height, unit] of [
    [5081, 100, 2],
    [100, 20_000, 4],
  ] as const) {
    const made = page(width, height);
    expect(made.unit).toBe(unit);
    expect(made.w * unit).toBeCloseTo(points(width), 3);
    expect(made.h * unit).toBeCloseTo(points(height), 3);
    expect(Math.max(made.w, made.h)).toBeLessThanOrEqual(14_400);
  }
  const bytes = Buffer.from(writePdf({ title: '', width: 5081, height: 100, layers: [] }, 0.025));
  const drawn = inflateSync(bytes.subarray(bytes.indexOf('stream\n') + 7, bytes.indexOf('\nendstream')));
  expect(Number(/^q\n([\d.]+) 0 0/.exec(drawn.toString('latin1'))?.[1])).toBeCloseTo(72 / 25.4 / 2, 8);
});
